import canonicalizer from 'canonicalize';
import { sha256 } from '@noble/hashes/sha2.js';
import { bytesToHex, utf8ToBytes } from '@noble/hashes/utils.js';
import type { ChannelPart, Content, SharedPart } from '../content/index.js';

/** What JSON can say. */
export type Json = null | boolean | number | string | readonly Json[] | { readonly [key: string]: Json };

/** The scheme by which digests are made now. */
export const PART_SCHEME = 'zesting-part-4';
export const SHARED_PART = 'shared';

/** Half of a character. */
const LONE = /[\uD800-\uDBFF](?![\uDC00-\uDFFF])|(?<![\uD800-\uDBFF])[\uDC00-\uDFFF]/;

// the package's types name a default export; its file exports the function itself
const canonicalize = canonicalizer as unknown as (value: Json) => string;

/** Throws on a number that JSON has no words for, and on a text or a key that no UTF-8 can say. */
function refuseBroken(value: Json): void {
  if (typeof value === 'number') {
    if (!Number.isFinite(value)) throw new RangeError('not a JSON number');
  } else if (typeof value === 'string') {
    if (LONE.test(value)) throw new RangeError('lone surrogate');
  } else if (typeof value === 'object' && value !== null)
    for (const [key, inside] of Object.entries(value) as [string, Json][]) {
      refuseBroken(key);
      refuseBroken(inside);
    }
}

/**
 * The canonical text of a JSON value: keys in UTF-16 order, no white space, numbers and strings as ECMAScript prints them.
 * Throws on what JSON cannot carry (NaN, infinities, lone surrogates).
 * @see RFC 8785, JSON Canonicalization Scheme
 */
export function canonical(value: Json): string {
  refuseBroken(value);
  return canonicalize(value);
}

/** SHA-256 of a text in UTF-8, as 64 hex digits. @see RFC 6234 */
export const sha256Hex = (text: string): string => bytesToHex(sha256(utf8ToBytes(text)));

/** Text as digests see it: Unicode NFC, line ends LF. */
export const plain = (text: string): string => text.normalize('NFC').replace(/\r\n?/g, '\n');

const sharedJson = (part: SharedPart): Json => ({
  copy: plain(part.copy),
  disclosure: plain(part.disclosure),
  media: part.media.map((medium) => ({ hash: medium.hash, alt: plain(medium.alt) })),
});

/** Texts stand under their keys: their order and what they are called are no part of what is signed. */
const writtenJson = (part: SharedPart): Json => ({
  ...(sharedJson(part) as Readonly<Record<string, Json>>), // an object, as it stands above
  texts: Object.fromEntries((part.texts ?? []).map(({ key, text }) => [key, plain(text)])),
});

/** What the third scheme had no words for: that words are laid out, and which picture stands for a clip. */
const saysLook = ({ isLaidOut = false, media }: SharedPart): boolean => isLaidOut || media.some(({ cover }) => cover !== undefined);

const lookJson = (part: SharedPart): Json => ({
  ...(writtenJson(part) as Readonly<Record<string, Json>>), // an object, as it stands above
  isLaidOut: part.isLaidOut === true,
  media: part.media.map(({ hash, alt, cover = null }) => ({ hash, alt: plain(alt), cover })),
});

const channelJson = (part: ChannelPart): Json => ({
  copy: plain(part.copy),
  firstComment: plain(part.firstComment),
  link: part.link,
  tags: part.tags.map(plain),
});

/** What the first scheme had no words for: which media a channel shows, and how it cuts them. */
const saysMore = ({ media, crops }: ChannelPart): boolean => media !== undefined || Object.keys(crops ?? {}).length > 0;

const shownJson = (part: ChannelPart): Json => ({
  ...(channelJson(part) as Readonly<Record<string, Json>>), // an object, as it stands above
  media: part.media ?? null,
  crops: Object.fromEntries(Object.entries(part.crops ?? {}).map(([hash, { ratio, x, y, size }]) => [hash, { ratio, x, y, size }])),
});

interface PartScheme {
  readonly name: string;
  /** whether it has words for all that a part says; absent: it brought nothing for such a part */
  readonly shared?: { readonly says: (part: SharedPart) => boolean; readonly json: (part: SharedPart) => Json };
  readonly channel?: { readonly says: (part: ChannelPart) => boolean; readonly json: (part: ChannelPart) => Json };
}

/**
 * What of a part is digested, the oldest scheme first. A change of shape gets a new scheme behind the old ones, which stay for good. Of those that
 * have words for all of a part the oldest is taken: what says nothing new keeps its digest, and with it every approval.
 */
const SCHEMES: readonly PartScheme[] = [
  {
    name: 'zesting-part-1',
    shared: { says: (part) => (part.texts ?? []).length === 0 && !saysLook(part), json: sharedJson },
    channel: { says: (part) => !saysMore(part), json: channelJson },
  },
  { name: 'zesting-part-2', channel: { says: () => true, json: shownJson } },
  { name: 'zesting-part-3', shared: { says: (part) => !saysLook(part), json: writtenJson } },
  { name: PART_SCHEME, shared: { says: () => true, json: lookJson } },
];

/** Whether digests of that scheme can be made, and so verified. */
export const isPartScheme = (scheme: string): boolean => SCHEMES.some(({ name }) => name === scheme);

/** The digests of a content: one for the shared part, one per channel id. */
export interface PartDigests {
  readonly shared: string;
  readonly channels: Readonly<Record<string, string>>;
}

/**
 * Digests every part of a content over {scheme, client, piece, part, content}.
 * @param scheme the newest that may be used: what was digested under an older one is verified under that. Throws RangeError on one that is not known,
 * and on a part that it has no words for
 */
export function digestParts(clientId: string, pieceId: string, content: Content, scheme = PART_SCHEME): PartDigests {
  const newest = SCHEMES.findIndex(({ name }) => name === scheme);
  if (newest < 0) throw new RangeError(`unknown scheme: ${scheme}`);
  const digest = (by: string, part: string, json: Json) =>
    sha256Hex(canonical({ scheme: by, client: clientId, piece: pieceId, part, content: json }));
  const known = SCHEMES.slice(0, newest + 1);
  const sharedBy = known.find(({ shared }) => shared?.says(content.shared));
  if (!sharedBy?.shared) throw new RangeError(`${scheme} has no words for all that the shared part says`);
  const channelDigest = (id: string, part: ChannelPart) => {
    const by = known.find(({ channel }) => channel?.says(part));
    if (!by?.channel) throw new RangeError(`${scheme} has no words for all that the part of ${id} says`);
    return digest(by.name, `channel:${id}`, by.channel.json(part));
  };
  return {
    shared: digest(sharedBy.name, SHARED_PART, sharedBy.shared.json(content.shared)),
    channels: Object.fromEntries(Object.entries(content.channels).map(([id, part]) => [id, channelDigest(id, part)])),
  };
}

/** The first link of a chain of decisions. */
export const CHAIN_START = '0'.repeat(64);

/** The next head of a chain: SHA-256 over the head before and the record. Changing any record changes every later head. */
export const chainHead = (before: string, record: Json): string => sha256Hex(canonical({ before, record }));

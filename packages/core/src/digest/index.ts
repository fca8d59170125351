import canonicalizer from 'canonicalize';
import { sha256 } from '@noble/hashes/sha2.js';
import { bytesToHex, utf8ToBytes } from '@noble/hashes/utils.js';
import type { ChannelPart, Content, SharedPart } from '../content/index.js';

/** What JSON can say. */
export type Json = null | boolean | number | string | readonly Json[] | { readonly [key: string]: Json };

/** The scheme by which digests are made now. */
export const PART_SCHEME = 'zesting-part-1';
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

const channelJson = (part: ChannelPart): Json => ({
  copy: plain(part.copy),
  firstComment: plain(part.firstComment),
  link: part.link,
  tags: part.tags.map(plain),
});

/** What of a part is digested, by the name of the scheme. A change of shape gets a new name beside the old ones, which stay for good. */
const SCHEMES: ReadonlyMap<string, { readonly shared: (part: SharedPart) => Json; readonly channel: (part: ChannelPart) => Json }> =
  new Map([[PART_SCHEME, { shared: sharedJson, channel: channelJson }]]);

/** Whether digests of that scheme can be made, and so verified. */
export const isPartScheme = (scheme: string): boolean => SCHEMES.has(scheme);

/** The digests of a content: one for the shared part, one per channel id. */
export interface PartDigests {
  readonly shared: string;
  readonly channels: Readonly<Record<string, string>>;
}

/** Digests every part of a content over {scheme, client, piece, part, content}. Throws RangeError on a scheme that is not known. */
export function digestParts(clientId: string, pieceId: string, content: Content, scheme = PART_SCHEME): PartDigests {
  const shape = SCHEMES.get(scheme);
  if (!shape) throw new RangeError(`unknown scheme: ${scheme}`);
  const digest = (part: string, json: Json) => sha256Hex(canonical({ scheme, client: clientId, piece: pieceId, part, content: json }));
  return {
    shared: digest(SHARED_PART, shape.shared(content.shared)),
    channels: Object.fromEntries(Object.entries(content.channels).map(([id, part]) => [id, digest(`channel:${id}`, shape.channel(part))])),
  };
}

/** The first link of a chain of decisions. */
export const CHAIN_START = '0'.repeat(64);

/** The next head of a chain: SHA-256 over the head before and the record. Changing any record changes every later head. */
export const chainHead = (before: string, record: Json): string => sha256Hex(canonical({ before, record }));

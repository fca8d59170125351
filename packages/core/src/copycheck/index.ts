import {
  copyOnChannel,
  mediaShown,
  wordsStanding,
  type ChannelPart,
  type Content,
  type Medium,
  type ShownMedium,
} from '../content/index.js';
import { boxOf, hasShape, type Crop, type Size } from '../crop/index.js';
import { countCharacters } from './characters.js';
import { brokenLinksIn, isWebAddress, linksIn } from './links.js';
import { isTag, sameTag } from './tags.js';

export { charactersOf, countCharacters } from './characters.js';
export { brokenLinksIn, isWebAddress, linksIn, type LinkInText } from './links.js';
export { isTag, sameTag } from './tags.js';

/** Which words fit on a channel. */
export interface CopyRules {
  /** user-perceived characters; null without a limit */
  readonly copyLimit: number | null;
  /** whether tags are written into the text there, and count in its length */
  readonly countsTags: boolean;
  readonly tagLimit: number | null;
  /** whether an address in the text can be pressed there */
  readonly linksWork: boolean;
}

/** Which pictures and clips fit on a channel. */
export interface MediaRules {
  /** pictures and clips; the first so many go out */
  readonly mediaLimit: number | null;
  /** the least width of a picture, in pixels; null: any */
  readonly minWidth: number | null;
  /** whether text alone is not enough */
  readonly needsMedia: boolean;
  /** the shape that pictures and clips have there, width to height */
  readonly ratio: string;
  /** other shapes that are shown whole there too */
  readonly otherShapes: readonly string[];
  /** whether what has none of these shapes is cut there; elsewhere any shape is shown whole */
  readonly cutsMedia: boolean;
  /** how long a clip or sound must be, and may be, in seconds; null: any */
  readonly clipMinSeconds: number | null;
  readonly clipMaxSeconds: number | null;
  /** the most that one file may weigh, in millions of bytes; null: any */
  readonly fileLimitMb: number | null;
}

/** What fits on a channel. */
export type ChannelRules = CopyRules & MediaRules;

/** What a client asks of everything that goes out. */
export interface ClientRules {
  readonly wordsNever: readonly string[];
  /** whether each piece says what it is: paid, given, in partnership */
  readonly needsDisclosure: boolean;
}

/** A medium as the check sees it; what is null is not known. */
export interface CheckedMedium {
  readonly name: string;
  readonly alt: string;
  readonly mime: string;
  /** in pixels, of the file as it was brought */
  readonly width: number | null;
  readonly height: number | null;
  /** of a clip or sound */
  readonly durationMs: number | null;
  /** of the file as it was brought */
  readonly bytes: number | null;
  /** how it is cut on its way out; null: not at all */
  readonly crop: Crop | null;
}

export const FINDING_CODES = [
  'not_signed',
  'time_passed',
  'empty',
  'copy_long',
  'tags_many',
  'tag_broken',
  'tag_twice',
  'link_broken',
  'link_dead',
  'word_never',
  'disclosure_missing',
  'media_missing',
  'media_many',
  'picture_small',
  'shape_other',
  'clip_short',
  'clip_long',
  'file_large',
  'alt_missing',
  'blackout',
  'twin',
  'sending_stopped',
  'access_ended',
  'audience_missing',
] as const;
export type FindingCode = (typeof FINDING_CODES)[number];

/** Where in a content something was found. */
export type FindingPlace = 'copy' | 'tags' | 'first_comment' | 'link' | 'disclosure' | 'media' | 'date' | 'channel';

/** Something that speaks against going out. */
export interface Finding {
  readonly code: FindingCode;
  /** `must`: it does not go out like this; `should`: somebody decides */
  readonly severity: 'must' | 'should';
  readonly place: FindingPlace;
  /** what it is about: a word, a tag, an address, the name of a picture, a day off */
  readonly what?: string;
  /** how many there are, where there is a limit */
  readonly count?: number;
  readonly limit?: number;
}

/** The text that goes out on a channel: its copy, with the disclosure below it where there is one. */
export const textOn = (content: Content, channelId: string): string =>
  [copyOnChannel(content, channelId).trimEnd(), content.shared.disclosure.trim()].filter((text) => text !== '').join('\n\n');

/** Tags as they are written: with their number signs, apart by spaces. */
export const writtenTags = (tags: readonly string[]): string => tags.map((tag) => `#${tag}`).join(' ');

/** How many characters a channel counts in what goes out there: its text, and its tags where they stand in it. */
export function lengthOn(content: Content, channelId: string, rules: Pick<CopyRules, 'countsTags'>): number {
  const text = textOn(content, channelId);
  const tags = rules.countsTags ? writtenTags(content.channels[channelId]?.tags ?? []) : '';
  return countCharacters([text, tags].filter((one) => one !== '').join(' '));
}

/**
 * What speaks against the words that go out on a channel, by the channel's rules and the client's.
 * @returns findings in the order copy, tags, first comment, link, disclosure
 */
export function copycheck(content: Content, channelId: string, rules: CopyRules, client: ClientRules): Finding[] {
  const part = content.channels[channelId];
  const copy = copyOnChannel(content, channelId);
  const findings: Finding[] = [];
  const length = lengthOn(content, channelId, rules);
  if (rules.copyLimit !== null && length > rules.copyLimit)
    findings.push({ code: 'copy_long', severity: 'must', place: 'copy', count: length, limit: rules.copyLimit });
  findings.push(...never(copy, 'copy', client));
  for (const what of brokenLinksIn(copy)) findings.push({ code: 'link_broken', severity: 'must', place: 'copy', what });
  const [link] = linksIn(copy);
  if (!rules.linksWork && link) findings.push({ code: 'link_dead', severity: 'should', place: 'copy', what: link.address });
  findings.push(...tagcheck(part?.tags ?? [], rules));
  findings.push(...never(part?.firstComment ?? '', 'first_comment', client));
  const beside = part?.link.trim() ?? '';
  if (beside !== '' && !isWebAddress(beside)) findings.push({ code: 'link_broken', severity: 'must', place: 'link', what: beside });
  if (client.needsDisclosure && content.shared.disclosure.trim() === '')
    findings.push({ code: 'disclosure_missing', severity: 'must', place: 'disclosure' });
  return findings;
}

const never = (text: string, place: FindingPlace, client: ClientRules): Finding[] =>
  wordsStanding(text, client.wordsNever).map((what) => ({ code: 'word_never', severity: 'must', place, what }));

function tagcheck(tags: readonly string[], { tagLimit }: CopyRules): Finding[] {
  const findings: Finding[] = [];
  if (tagLimit !== null && tags.length > tagLimit)
    findings.push({ code: 'tags_many', severity: 'must', place: 'tags', count: tags.length, limit: tagLimit });
  const seen = new Set<string>();
  const twice = new Set<string>();
  for (const tag of tags) {
    if (!isTag(tag)) findings.push({ code: 'tag_broken', severity: 'must', place: 'tags', what: tag });
    const same = sameTag(tag);
    if (seen.has(same) && !twice.has(same)) {
      twice.add(same);
      findings.push({ code: 'tag_twice', severity: 'should', place: 'tags', what: tag });
    }
    seen.add(same);
  }
  return findings;
}

/** How large what goes out of a medium is, in pixels; null where it is not known. */
function sizeOut({ width, height, crop }: CheckedMedium): Size | null {
  if (width === null || height === null) return null;
  return crop ? boxOf({ width, height }, crop) : { width, height };
}

/**
 * What speaks against the pictures and clips that go out on a channel. Of more than fit there the first go out: only they are looked at.
 * @param media those that the channel shows, in their order there
 */
export function mediacheck(media: readonly CheckedMedium[], rules: MediaRules): Finding[] {
  const findings: Finding[] = [];
  if (rules.needsMedia && media.length === 0) findings.push({ code: 'media_missing', severity: 'must', place: 'media' });
  if (rules.mediaLimit !== null && media.length > rules.mediaLimit)
    findings.push({ code: 'media_many', severity: 'should', place: 'media', count: media.length, limit: rules.mediaLimit });
  return [...findings, ...media.slice(0, rules.mediaLimit ?? undefined).flatMap((medium) => filecheck(medium, rules))];
}

function filecheck(medium: CheckedMedium, rules: MediaRules): Finding[] {
  const { name: what, mime, alt, durationMs, bytes, crop } = medium;
  const isPicture = mime.startsWith('image/');
  const size = sizeOut(medium);
  const find = (
    code: FindingCode,
    severity: Finding['severity'],
    is: boolean,
    numbers: Pick<Finding, 'count' | 'limit'> = {},
  ): Finding[] => (is ? [{ code, severity, place: 'media', what, ...numbers }] : []);
  const least = (code: FindingCode, count: number | null, limit: number | null) =>
    count !== null && limit !== null ? find(code, 'must', count < limit, { count, limit }) : [];
  const most = (code: FindingCode, count: number | null, limit: number | null) =>
    count !== null && limit !== null ? find(code, 'must', count > limit, { count: Math.ceil(count), limit }) : [];
  const seconds = durationMs === null ? null : durationMs / 1000;
  const isCutThere = rules.cutsMedia && size !== null && ![rules.ratio, ...rules.otherShapes].some((shape) => hasShape(size, shape));
  return [
    ...(isPicture ? least('picture_small', size?.width ?? null, rules.minWidth) : []),
    ...least('clip_short', seconds === null ? null : Math.floor(seconds), rules.clipMinSeconds),
    ...most('clip_long', seconds, rules.clipMaxSeconds),
    // what a cut picture will weigh is known once it is made; it weighs less than the whole
    ...(crop ? [] : most('file_large', bytes === null ? null : bytes / 1_000_000, rules.fileLimitMb)),
    ...find('shape_other', 'should', isCutThere),
    ...find('alt_missing', 'should', isPicture && alt.trim() === ''),
  ];
}

/** The pictures and clips that go out on a channel, each as it is cut there: of those that it shows the first that fit. */
export const mediaOn = <Kind extends Pick<Medium, 'hash'>>(
  media: readonly Kind[],
  part: Pick<ChannelPart, 'media' | 'crops'> | undefined,
  { mediaLimit }: Pick<MediaRules, 'mediaLimit'>,
): ShownMedium<Kind>[] => mediaShown(media, part).slice(0, mediaLimit ?? undefined);

import { mediaShown, type ChannelPart, type Medium, type ShownMedium } from '../content/index.js';
import { boxOf, cropAround, hasShape, keptOf, shapeOf, type Crop, type Size } from '../crop/index.js';
import { PICTURE_SIDE, seenOf, type Area } from '../place/index.js';
import type { Finding, FindingCode } from './findings.js';

/** Which shapes a channel shows. */
export interface ShapeRules {
  /** the shape that pictures and clips have there, width to height */
  readonly ratio: string;
  /** other shapes that are shown whole there too */
  readonly otherShapes: readonly string[];
  /** whether what has none of these shapes is cut there; elsewhere any shape is shown whole */
  readonly cutsMedia: boolean;
}

/** Which pictures and clips fit on a channel. */
export interface MediaRules extends ShapeRules {
  /** pictures and clips; the first so many go out */
  readonly mediaLimit: number | null;
  /** the least width of a picture, in pixels; null: any */
  readonly minWidth: number | null;
  /** whether text alone is not enough */
  readonly needsMedia: boolean;
  /** how long a clip or sound must be, and may be, in seconds; null: any */
  readonly clipMinSeconds: number | null;
  readonly clipMaxSeconds: number | null;
  /** the most that one file may weigh, in millions of bytes; null: any */
  readonly fileLimitMb: number | null;
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
  /** the last day on which it is good; undefined where nobody said that it grows old */
  readonly goodTo?: string | undefined;
}

/** Whether a channel cuts something off what has that size. */
export const cutsOff = (size: Size, { ratio, otherShapes, cutsMedia }: ShapeRules): boolean =>
  cutsMedia && ![ratio, ...otherShapes].some((shape) => hasShape(size, shape));

/** How a picture or clip is seen: the shape of what it fills, and what of it is in there. */
export interface Frame {
  readonly shape: Size;
  readonly kept: Area;
}

const WHOLE: Area = { x: 0, y: 0, width: PICTURE_SIDE, height: PICTURE_SIDE };

/** A picture or clip that is seen whole; a square where its size is not known. */
export const wholeFrame = ({ width, height }: Pick<CheckedMedium, 'width' | 'height'>): Frame => ({
  shape: width && height ? { width, height } : { width: 1, height: 1 },
  kept: WHOLE,
});

/**
 * How a picture or clip is seen on a channel: as it is cut on its way there; else cut at its middle, as channels cut what has another shape; else
 * whole. One whose size is not known is taken to have the channel’s shape.
 */
export function frameOn({ width, height, crop }: Pick<CheckedMedium, 'width' | 'height' | 'crop'>, rules: ShapeRules): Frame {
  if (!width || !height) return { shape: shapeOf(rules.ratio), kept: WHOLE };
  const whole = { width, height };
  const cut = crop ?? (cutsOff(whole, rules) ? cropAround(rules.ratio) : null);
  return cut ? { shape: boxOf(whole, cut), kept: keptOf(whole, cut) } : { shape: whole, kept: WHOLE };
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

/** A frame as it fills another shape: cut at its middle. */
export function fillShape({ shape, kept }: Frame, ratio: string): Frame {
  const seen = seenOf(shape, shapeOf(ratio));
  const along = (start: number, length: number, from: number, size: number) =>
    [start + (from * length) / PICTURE_SIDE, (size * length) / PICTURE_SIDE] as const;
  const [x, width] = along(kept.x, kept.width, seen.x, seen.width);
  const [y, height] = along(kept.y, kept.height, seen.y, seen.height);
  return { shape: shapeOf(ratio), kept: { x, y, width, height } };
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
  const isCutThere = size !== null && cutsOff(size, rules);
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
export const mediaOn = <Kind extends Pick<Medium, 'hash' | 'cover'>>(
  media: readonly Kind[],
  part: Pick<ChannelPart, 'media' | 'crops'> | undefined,
  { mediaLimit }: Pick<MediaRules, 'mediaLimit'>,
): ShownMedium<Kind>[] => mediaShown(media, part).slice(0, mediaLimit ?? undefined);

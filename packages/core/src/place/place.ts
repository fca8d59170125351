import type { Content } from '../content/index.js';
import { wordsBetween } from '../prose/index.js';
import { followStretch, wordsOfStretch, type Followed, type Stretch } from './stretch.js';

/** All that lies in a picture, from 0 to this, along either side. */
export const PICTURE_SIDE = 10_000;

/** A part of a picture, in ten-thousandths of its width and height from the upper left corner. */
export interface Area {
  readonly x: number;
  readonly y: number;
  readonly width: number;
  readonly height: number;
}

/** An area of one of a piece's pictures. */
export interface Region extends Area {
  readonly kind: 'region';
  readonly assetId: string;
  /** which of the piece's pictures and clips it was then, from 1 */
  readonly number: number;
}

/** A moment of one of a piece's clips or sound. */
export interface Moment {
  readonly kind: 'moment';
  readonly assetId: string;
  /** which of the piece's pictures and clips it was then, from 1 */
  readonly number: number;
  /** milliseconds from its beginning */
  readonly atMs: number;
}

/** The place in a piece that a remark means. What means no place means the whole. */
export type Place = Stretch | Region | Moment;

/** So many characters of a stretch are quoted. */
const QUOTED_CHARACTERS = 60;

/** A place in words, as in a list of what should change: “quoted words”, Subject: “quoted words”, picture 2, upper left, clip 1 at 0:12. */
export function placeWords(place: Place): string {
  switch (place.kind) {
    case 'stretch':
      return `${place.textName === undefined ? '' : `${place.textName}: `}“${shortened(readOf(place).trim().replace(/\s+/gu, ' '), QUOTED_CHARACTERS)}”`;
    case 'region': {
      const where = areaWords(place);
      return `picture ${place.number}${where && `, ${where}`}`;
    }
    case 'moment':
      return `clip ${place.number} at ${momentWords(place.atMs)}`;
  }
}

/** A stretch as people read it. */
const readOf = (stretch: Stretch): string =>
  stretch.isLaidOut ? wordsBetween(stretch.onText, stretch.from, stretch.to) : wordsOfStretch(stretch);

/** A text of at most so many characters as people perceive them, with a sign for what was left away. */
function shortened(text: string, most: number): string {
  const characters = [...new Intl.Segmenter('en', { granularity: 'grapheme' }).segment(text)].map(({ segment }) => segment);
  return characters.length > most ? `${characters.slice(0, most).join('').trimEnd()}…` : text;
}

/** Where in a picture an area lies, by thirds; empty for one that takes up most of it. */
export function areaWords({ x, y, width, height }: Area): string {
  const third = PICTURE_SIDE / 3;
  if (width > 2 * third && height > 2 * third) return '';
  const column = ['left', '', 'right'][Math.min(2, Math.floor((x + width / 2) / third))] ?? '';
  const row = ['upper', '', 'lower'][Math.min(2, Math.floor((y + height / 2) / third))] ?? '';
  if (row === '') return column || 'middle';
  return column === '' ? ({ upper: 'top', lower: 'bottom' }[row] ?? row) : `${row} ${column}`;
}

/** Minutes and seconds, with hours where there are any: 0:07, 12:34, 1:02:03. Parts of a second are left away. */
export function momentWords(atMs: number): string {
  const seconds = Math.floor(atMs / 1000);
  const [hours, minutes] = [Math.floor(seconds / 3600), Math.floor(seconds / 60) % 60];
  const two = (value: number) => String(value).padStart(2, '0');
  return `${hours > 0 ? `${hours}:${two(minutes)}` : minutes}:${two(seconds % 60)}`;
}

/**
 * What of a picture is seen where it fills a shape and is cut at its middle, as channels cut.
 * @param picture its width and height, in whatever unit
 * @param shape the width and height of what it fills
 */
export function seenOf(picture: { width: number; height: number }, shape: { width: number; height: number }): Area {
  const scale = Math.max(shape.width / picture.width, shape.height / picture.height);
  const [width, height] = [shape.width / scale / picture.width, shape.height / scale / picture.height].map((part) => part * PICTURE_SIDE);
  return { x: (PICTURE_SIDE - (width ?? 0)) / 2, y: (PICTURE_SIDE - (height ?? 0)) / 2, width: width ?? 0, height: height ?? 0 };
}

/** An area of what is seen of a picture, as an area of the whole: whole numbers, and at least a hundredth of a side. */
export function toWhole(area: Area, seen: Area): Area {
  const along = (start: number, length: number, seenStart: number, seenLength: number): [number, number] => {
    const size = Math.max(PICTURE_SIDE / 100, Math.round((length * seenLength) / PICTURE_SIDE));
    const at = Math.round(seenStart + (start * seenLength) / PICTURE_SIDE);
    return [Math.max(0, Math.min(at, PICTURE_SIDE - size)), Math.min(size, PICTURE_SIDE)];
  };
  const [x, width] = along(area.x, area.width, seen.x, seen.width);
  const [y, height] = along(area.y, area.height, seen.y, seen.height);
  return { x, y, width, height };
}

/** An area of the whole picture, as an area of what is seen of it; it may lie outside. */
export function toSeen(area: Area, seen: Area): Area {
  return {
    x: ((area.x - seen.x) * PICTURE_SIDE) / seen.width,
    y: ((area.y - seen.y) * PICTURE_SIDE) / seen.height,
    width: (area.width * PICTURE_SIDE) / seen.width,
    height: (area.height * PICTURE_SIDE) / seen.height,
  };
}

/** Where a place is in what the content became: `place` is null where it is gone. */
export interface FollowedPlace {
  readonly state: Followed['state'];
  readonly place: Place | null;
}

/**
 * Finds a place again in what the content became. Of pictures and clips no more is known than whether they are still in it.
 * @param language by whose rules words are told apart (BCP 47)
 */
export function followPlace(place: Place, content: Content, language = 'en'): FollowedPlace {
  if (place.kind !== 'stretch') {
    const number = content.shared.media.findIndex(({ assetId }) => assetId === place.assetId) + 1;
    return number === 0 ? { state: 'gone', place: null } : { state: 'stands', place: { ...place, number } };
  }
  const onText = textOf(content, place);
  const layout = layoutOf(content, place);
  const { isLaidOut: _, ...rest } = place;
  const { state, from, to } = followStretch(place, onText, language);
  return { state, place: state === 'gone' ? null : { ...rest, from, to, onText, ...layout } };
}

/** Which text a stretch is of. */
type TextOf = Pick<Stretch, 'channelId' | 'textKey'>;

const findText = ({ shared }: Content, { textKey }: TextOf) => shared.texts?.find(({ key }) => key === textKey);

function textOf(content: Content, of: TextOf): string {
  if (of.textKey !== undefined) return findText(content, of)?.text ?? '';
  return of.channelId === null ? content.shared.copy : (content.channels[of.channelId]?.copy ?? '');
}

const layoutOf = ({ shared }: Content, { channelId, textKey }: TextOf): Pick<Stretch, 'isLaidOut'> =>
  channelId === null && textKey === undefined && shared.isLaidOut ? { isLaidOut: true } : {};

/** A place as somebody points at it; what it stood on is looked up. */
export type Pointed =
  | (TextOf & { readonly kind: 'stretch'; readonly from: number; readonly to: number; readonly words: string })
  | ({ readonly kind: 'region'; readonly assetId: string } & Area)
  | { readonly kind: 'moment'; readonly assetId: string; readonly atMs: number };

/**
 * Looks up a place in the content that somebody saw.
 * @param kindOf whether a file of it is a picture, or runs in time
 * @returns null where there is no such place in it: other words stand there, the picture is not in it, it lies beyond its edge
 */
export function placeIn(content: Content, pointed: Pointed, kindOf: (assetId: string) => 'picture' | 'clip' | null): Place | null {
  if (pointed.kind === 'stretch') {
    const { textKey, from, to, words } = pointed;
    const onText = textOf(content, pointed);
    if (from >= to || onText.slice(from, to) !== words || words.trim() === '') return null;
    if (textKey === undefined) return { kind: 'stretch', channelId: pointed.channelId, from, to, onText, ...layoutOf(content, pointed) };
    return { kind: 'stretch', channelId: null, textKey, textName: findText(content, pointed)?.name ?? '', from, to, onText };
  }
  const number = content.shared.media.findIndex(({ assetId }) => assetId === pointed.assetId) + 1;
  if (number === 0) return null;
  if (pointed.kind === 'moment') {
    const { assetId, atMs } = pointed;
    return kindOf(assetId) === 'clip' ? { kind: 'moment', assetId, number, atMs } : null;
  }
  const { assetId, x, y, width, height } = pointed;
  const isInside = x >= 0 && y >= 0 && width > 0 && height > 0 && x + width <= PICTURE_SIDE && y + height <= PICTURE_SIDE;
  return kindOf(assetId) === 'picture' && isInside ? { kind: 'region', assetId, number, x, y, width, height } : null;
}

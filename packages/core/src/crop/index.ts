import { PICTURE_SIDE, type Area } from '../place/place.js';

/** A width and a height, in pixels or in whatever unit both are told in. */
export interface Size {
  readonly width: number;
  readonly height: number;
}

/** What is cut out of a picture, in its pixels from the upper left corner. */
export interface Box extends Size {
  readonly left: number;
  readonly top: number;
}

/**
 * How a picture is cut for a channel, whatever its size in pixels. Whole numbers throughout, since digests know no others.
 * Nothing of the picture itself is changed.
 */
export interface Crop {
  /** width to height, such as 4:5 */
  readonly ratio: string;
  /** the focus point: the middle of what is kept, as far as the picture’s edges let it be; in ten-thousandths of width and height */
  readonly x: number;
  readonly y: number;
  /** how large what is kept is, in thousandths of the largest that the picture has room for */
  readonly size: number;
}

/** All of a picture that a shape has room for. */
export const LARGEST_CROP = 1000;
/** The smallest that can be cut out, in thousandths of the largest. */
export const SMALLEST_CROP = 100;
/** The middle of a picture along either side. */
const MIDDLE = PICTURE_SIDE / 2;

const SHAPE = /^([1-9]\d?):([1-9]\d?)$/;

/** Width and height of a shape such as 4:5. Throws RangeError on what is no shape. */
export function shapeOf(ratio: string): Size {
  const found = SHAPE.exec(ratio);
  if (!found) throw new RangeError(`not a shape: ${ratio}`);
  return { width: Number(found[1]), height: Number(found[2]) };
}

/** Whether a crop can be: a shape, a point in the picture, a size between the smallest and the largest, all of them whole. */
export function isCrop({ ratio, x, y, size }: Crop): boolean {
  const isIn = (value: number, from: number, to: number) => Number.isInteger(value) && value >= from && value <= to;
  return SHAPE.test(ratio) && isIn(x, 0, PICTURE_SIDE) && isIn(y, 0, PICTURE_SIDE) && isIn(size, SMALLEST_CROP, LARGEST_CROP);
}

/** The largest part of a picture that has a shape, around a point in it. */
export const cropAround = (ratio: string, point: { readonly x: number; readonly y: number } = { x: MIDDLE, y: MIDDLE }): Crop => ({
  ratio,
  x: point.x,
  y: point.y,
  size: LARGEST_CROP,
});

/**
 * What a crop cuts out of a picture of so many pixels: of its shape as near as whole pixels allow, never beyond an edge, never narrower or lower than one
 * pixel. A focus too near to an edge gives way to it.
 */
export function boxOf(picture: Size, { ratio, x, y, size }: Crop): Box {
  const shape = shapeOf(ratio);
  const scale = (Math.min(picture.width / shape.width, picture.height / shape.height) * size) / LARGEST_CROP;
  const fit = (length: number, most: number) => Math.min(most, Math.max(1, Math.round(length)));
  const width = fit(shape.width * scale, picture.width);
  const height = fit(shape.height * scale, picture.height);
  const start = (focus: number, side: number, length: number) =>
    Math.min(side - length, Math.max(0, Math.round((focus * side) / PICTURE_SIDE - length / 2)));
  return { left: start(x, picture.width, width), top: start(y, picture.height, height), width, height };
}

/** What is kept of a picture, as an area of the whole. */
export function keptOf(picture: Size, crop: Crop): Area {
  const { left, top, width, height } = boxOf(picture, crop);
  const along = (length: number, side: number) => (length * PICTURE_SIDE) / side;
  return {
    x: along(left, picture.width),
    y: along(top, picture.height),
    width: along(width, picture.width),
    height: along(height, picture.height),
  };
}

/** The crop of a shape that keeps an area, as somebody drew it on a picture: its middle becomes the focus. */
export function cropOfArea(picture: Size, ratio: string, area: Area): Crop {
  const largest = keptOf(picture, cropAround(ratio));
  const share = Math.max(area.width / largest.width, area.height / largest.height);
  const inside = (value: number) => Math.min(PICTURE_SIDE, Math.max(0, Math.round(value)));
  return {
    ratio,
    x: inside(area.x + area.width / 2),
    y: inside(area.y + area.height / 2),
    size: Math.min(LARGEST_CROP, Math.max(SMALLEST_CROP, Math.round(share * LARGEST_CROP))),
  };
}

/** Two shapes differ where one is wider than the other by more than this share: a pixel or two of a picture are none. */
const SHAPE_TOLERANCE = 0.01;

/** Whether a picture or a cut has a shape, but for a pixel or two. */
export function hasShape(picture: Size, ratio: string): boolean {
  const shape = shapeOf(ratio);
  return Math.abs((picture.width * shape.height) / (picture.height * shape.width) - 1) <= SHAPE_TOLERANCE;
}

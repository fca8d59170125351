import { createRequire } from 'node:module';
import { join } from 'node:path';
import { boxOf, type Crop } from '@zesting/core';
import sharp, { type Sharp } from 'sharp';

/** The most pixels that a picture may have: two hundred megabytes once it is taken apart. */
export const PIXEL_LIMIT = 50_000_000;
/** The longest side of a WebP picture; longer ones become JPEG. @see RFC 9649 */
const WEBP_SIDE = 16_383;

// one picture at a time, row by row: what it takes is bounded by the picture, not by how many come
sharp.cache(false);
sharp.concurrency(1);

/** The folder of the fonts that ship with the server. */
export const FONTS = join(createRequire(import.meta.url).resolve('dejavu-fonts-ttf/package.json'), '..', 'ttf');

/** A picture in one size, with or without the mark. */
export interface MadeSize {
  readonly width: number;
  readonly marked: boolean;
  readonly mime: 'image/webp' | 'image/jpeg';
  readonly bytes: Uint8Array;
}

const open = (source: string | Buffer): Sharp => sharp(source, { failOn: 'error', limitInputPixels: PIXEL_LIMIT, pages: 1 });

/** Width and height of a picture that can be read to its end; `too_large` above the limit of pixels, `broken` for a damaged one. */
export async function measure(source: string | Buffer): Promise<{ width: number; height: number } | 'too_large' | 'broken'> {
  try {
    // as it is shown: cameras lay a picture on its side and say which way is up
    const { width, height } = (await sharp(source, { limitInputPixels: false }).metadata()).autoOrient;
    if (width * height > PIXEL_LIMIT) return 'too_large';
    await open(source).resize(16).raw().toBuffer(); // reads the whole picture: a cut-off file fails here
    return { width, height };
  } catch {
    return 'broken';
  }
}

/** Makes a picture in the widths asked for, each with and without the mark *not approved*, never wider than it is. */
export async function makeSizes(source: string, widths: readonly number[]): Promise<MadeSize[]> {
  const { autoOrient: own } = await sharp(source).metadata();
  const made: MadeSize[] = [];
  let last: { plain: Buffer; marked: Buffer; mime: MadeSize['mime'] } | undefined;
  for (const width of widths) {
    // a size as wide as the picture itself serves every wider one
    if (!last || (widths.find((wider) => wider >= own.width) ?? width) >= width) {
      const shown = Math.min(width, own.width);
      const isTall = Math.ceil((own.height * shown) / own.width) > WEBP_SIDE;
      const plain = await encode(open(source).autoOrient().toColourspace('srgb').resize({ width, withoutEnlargement: true }), isTall);
      last = { plain, marked: await markPicture(plain, isTall), mime: isTall ? 'image/jpeg' : 'image/webp' };
    }
    for (const marked of [false, true]) made.push({ width, marked, mime: last.mime, bytes: marked ? last.marked : last.plain });
  }
  return made;
}

/** What is cut out of a picture, with or without the mark. */
export interface MadeCut {
  readonly marked: boolean;
  readonly mime: string;
  readonly width: number;
  readonly height: number;
  readonly bytes: Uint8Array;
}

/** How well a cut is kept where its format loses something, of 100: it goes out, and is packed once more wherever it arrives. */
const CUT_QUALITY = 92;

/**
 * Cuts a picture as a channel shows it, at its own resolution and in its own format, with its colours and without what a camera wrote beside them; once
 * more with the mark *not approved*. Pictures that move go on moving.
 */
export async function makeCuts(source: string | Buffer, crop: Crop): Promise<MadeCut[]> {
  const options = { failOn: 'error', limitInputPixels: PIXEL_LIMIT } as const;
  const { format, pages = 1, pageHeight, autoOrient: own } = await sharp(source, options).metadata();
  const { left, top, width, height } = boxOf({ width: own.width, height: pageHeight ?? own.height }, crop);
  const cut = sharp(source, { ...options, animated: pages > 1 })
    .autoOrient()
    .extract({ left, top, width, height })
    .keepIccProfile();
  const kept = format === 'jpeg' || format === 'webp' || format === 'gif' ? format : 'png';
  const made = await cut.toFormat(kept, kept === 'jpeg' || kept === 'webp' ? { quality: CUT_QUALITY } : {}).toBuffer();
  const isTall = height > WEBP_SIDE;
  // of a picture that moves the mark stands on the first frame
  const marked = await markPicture(await sharp(made).toBuffer(), isTall);
  return [
    { marked: false, mime: `image/${kept}`, width, height, bytes: made },
    { marked: true, mime: isTall ? 'image/jpeg' : 'image/webp', width, height, bytes: marked },
  ];
}

/** The widest that the words are drawn on one picture, as a share of its width. */
const MARK_SHARE = 0.5;
/** The width, in pixels, below which letters cannot be drawn. */
const SMALLEST_MARK = 240;

/** Draws *not approved* across a picture, readable on light and dark grounds alike. */
export async function markPicture(picture: Buffer, isTall = false): Promise<Buffer> {
  const size = await sharp(picture).metadata();
  const width = Math.max(size.width, SMALLEST_MARK); // on a smaller picture it is drawn larger, and shrunk
  const words = (colour: string, alpha: string) => ({
    text: {
      text: `<span foreground="${colour}" alpha="${alpha}">NOT APPROVED</span>`,
      rgba: true,
      font: 'DejaVu Sans Bold',
      fontfile: join(FONTS, 'DejaVuSans-Bold.ttf'),
      width: Math.max(40, Math.round(width * MARK_SHARE)),
      height: Math.max(8, Math.round(width * 0.07)),
    },
  });
  const light = await sharp(words('#ffffff', '80%')).png().toBuffer({ resolveWithObject: true });
  const dark = await sharp(words('#000000', '50%')).png().toBuffer();
  const shift = Math.max(1, Math.round(width / 540));
  const tile = await sharp({
    create: { width: Math.round(width * 0.62), height: Math.round(width * 0.34), channels: 4, background: '#00000000' },
  })
    .composite([
      { input: dark, left: shift * 2, top: shift * 2 },
      { input: light.data, left: shift, top: shift },
    ])
    .png()
    .toBuffer();
  const turned = await sharp(tile).rotate(-20, { background: '#00000000' }).png().toBuffer({ resolveWithObject: true });
  const fitting = await sharp(turned.data)
    .resize({ width: Math.min(turned.info.width, size.width), height: Math.min(turned.info.height, size.height), fit: 'inside' })
    .png()
    .toBuffer();
  return encode(sharp(picture).composite([{ input: fitting, tile: true }]), isTall);
}

/** Small for a screen, and quick to make rather than the smallest there could be. */
const encode = (picture: Sharp, isTall: boolean): Promise<Buffer> =>
  (isTall ? picture.flatten({ background: '#ffffff' }).jpeg({ quality: 82 }) : picture.webp({ quality: 82, effort: 1 })).toBuffer();

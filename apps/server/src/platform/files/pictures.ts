import { createRequire } from 'node:module';
import { join } from 'node:path';
import { Injectable, type OnModuleInit } from '@nestjs/common';
import sharp, { type Sharp } from 'sharp';
import { ok } from '@zesting/core';
import { Database, type Tx } from '../database/transaction.js';
import { addJob, Jobs } from '../jobs/jobs.js';
import { Files } from './files.js';

/** The widths that screens need, in pixels: a thumbnail, a preview on a small screen and on a sharp one, a whole page. */
export const PICTURE_WIDTHS = [160, 480, 1080, 1920] as const;
export type PictureWidth = (typeof PICTURE_WIDTHS)[number];

/** How long a request waits for a size that is being made, in milliseconds. */
const WAIT_MS = 8_000;
const LOOK_MS = 80;
const TASK = 'picture_sizes';

/** The folder of the fonts that ship with the server. */
export const FONTS = join(createRequire(import.meta.url).resolve('dejavu-fonts-ttf/package.json'), '..', 'ttf');

/** Asks for a picture's sizes; they are made once the transaction has committed. */
export const askForSizes = (tx: Tx, assetId: string): Promise<void> =>
  addJob(tx, TASK, { assetId }, { key: `${TASK}:${assetId}`, priority: 5 });

/** Pictures in the sizes that screens need, with and without the mark *not approved*: made by a job, never by a request. */
@Injectable()
export class Pictures implements OnModuleInit {
  constructor(
    private readonly jobs: Jobs,
    private readonly database: Database,
    private readonly files: Files,
  ) {}

  onModuleInit(): void {
    this.jobs.register(TASK, async (payload) => this.makeSizes((payload as { assetId: string }).assetId)); // as `askForSizes` writes it
  }

  /** The stored file of a size; waits for the job where it was just asked for. Undefined when it did not come in time. */
  async sizeOf(assetId: string, width: PictureWidth, marked: boolean): Promise<{ hash: string } | undefined> {
    const end = Date.now() + WAIT_MS;
    for (;;) {
      const [row] = await this.database.read<{ hash: string }>(
        'select hash from asset_sizes where asset_id = $1 and width = $2 and marked = $3',
        [assetId, width, marked],
      );
      if (row || Date.now() > end) return row;
      await new Promise((resolve) => setTimeout(resolve, LOOK_MS));
    }
  }

  /** Makes all sizes of one picture; what is there already is left alone. */
  async makeSizes(assetId: string): Promise<void> {
    const [asset] = await this.database.read<{ hash: string }>("select hash from assets where id = $1 and mime like 'image/%'", [assetId]);
    if (!asset) return;
    const source = this.files.pathOf(asset.hash);
    const made: { width: PictureWidth; marked: boolean; hash: string; bytes: number }[] = [];
    const whole = await sharp(source, { pages: 1 }).autoOrient().toColourspace('srgb').png({ compressionLevel: 0 }).toBuffer();
    const { width: own } = await sharp(whole).metadata();
    let last: { plain: Buffer; marked: Buffer } | undefined;
    for (const width of PICTURE_WIDTHS) {
      // a size as wide as the picture itself serves every wider one
      if (!last || (PICTURE_WIDTHS.find((wider) => wider >= own) ?? width) >= width) {
        const plain = await webp(sharp(whole).resize({ width, withoutEnlargement: true }));
        last = { plain, marked: await markPicture(plain) };
      }
      for (const marked of [false, true]) made.push({ width, marked, ...(await this.files.storeMade(marked ? last.marked : last.plain)) });
    }
    await this.database.write(async (tx) => {
      for (const { width, marked, hash, bytes } of made)
        await tx.query(
          'insert into asset_sizes (asset_id, width, marked, hash, bytes) values ($1, $2, $3, $4, $5) on conflict do nothing',
          [assetId, width, marked, hash, bytes],
        );
      return ok(null);
    });
  }
}

/** The widest that the words are drawn on one picture, as a share of its width. */
const MARK_SHARE = 0.5;
/** The width, in pixels, below which letters cannot be drawn. */
const SMALLEST_MARK = 240;

/** Draws *not approved* across a picture, readable on light and dark grounds alike. */
export async function markPicture(picture: Buffer): Promise<Buffer> {
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
  return webp(sharp(picture).composite([{ input: fitting, tile: true }]));
}

/** Small for a screen, and quick to make rather than the smallest there could be. */
const webp = (picture: Sharp): Promise<Buffer> => picture.webp({ quality: 82, effort: 1 }).toBuffer();

import { Injectable, type OnModuleInit } from '@nestjs/common';
import { ok } from '@zesting/core';
import { Database, type Tx } from '../database/transaction.js';
import { addJob, Jobs } from '../jobs/jobs.js';
import { Files } from './files.js';
import { PictureProcess, type StoredSize } from './picture-process.js';

/** The widths that screens need, in pixels: a thumbnail, a preview on a small screen and on a sharp one, a whole page. */
export const PICTURE_WIDTHS = [160, 480, 1080, 1920] as const;
export type PictureWidth = (typeof PICTURE_WIDTHS)[number];

/** How long a request waits for a size that is being made, in milliseconds. */
const WAIT_MS = 8_000;
const LOOK_MS = 80;
const TASK = 'picture_sizes';

/** Asks for a picture's sizes; they are made once the transaction has committed. */
export const askForSizes = (tx: Tx, assetId: string): Promise<void> =>
  addJob(tx, TASK, { assetId }, { key: `${TASK}:${assetId}`, priority: 5, queue: 'pictures', tries: 4 });

/** Pictures in the sizes that screens need, with and without the mark *not approved*: made by a job, never by a request. */
@Injectable()
export class Pictures implements OnModuleInit {
  constructor(
    private readonly jobs: Jobs,
    private readonly database: Database,
    private readonly files: Files,
    private readonly process: PictureProcess,
  ) {}

  onModuleInit(): void {
    this.jobs.register(TASK, async (payload) => this.makeSizes((payload as { assetId: string }).assetId)); // as `askForSizes` writes it
  }

  /** The stored file of a size; waits for the job where it was just asked for. Undefined when it did not come in time. */
  async sizeOf(assetId: string, width: PictureWidth, marked: boolean): Promise<{ hash: string; mime: string } | undefined> {
    const end = performance.now() + WAIT_MS;
    for (;;) {
      const [row] = await this.database.read<{ hash: string; mime: string }>(
        'select hash, mime from asset_sizes where asset_id = $1 and width = $2 and marked = $3',
        [assetId, width, marked],
      );
      if (row || performance.now() > end) return row;
      await new Promise((resolve) => setTimeout(resolve, LOOK_MS));
    }
  }

  /** Makes all sizes of one picture; what is there already is left alone. */
  async makeSizes(assetId: string): Promise<void> {
    const [asset] = await this.database.read<{ hash: string }>("select hash from assets where id = $1 and mime like 'image/%'", [assetId]);
    if (!asset) return;
    const made = await this.process.sizes(this.files.pathOf(asset.hash), PICTURE_WIDTHS);
    if (!made) throw new Error(`no sizes of ${assetId} could be made`); // tried again, a few times
    const stored: (StoredSize & { hash: string; bytes: number })[] = [];
    for (const { width, marked, mime, bytes } of made)
      stored.push({ width, marked, mime, ...(await this.files.storeMade(Buffer.from(bytes))) });
    await this.database.write(async (tx) => {
      for (const { width, marked, mime, hash, bytes } of stored)
        await tx.query(
          'insert into asset_sizes (asset_id, width, marked, mime, hash, bytes) values ($1, $2, $3, $4, $5, $6) on conflict do nothing',
          [assetId, width, marked, mime, hash, bytes],
        );
      return ok(null);
    });
  }
}

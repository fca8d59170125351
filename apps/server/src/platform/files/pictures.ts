import { Injectable, type OnModuleInit } from '@nestjs/common';
import { ok, type Crop } from '@zesting/core';
import { Database, rowsOf, type Tx } from '../database/transaction.js';
import { addJob, Jobs } from '../jobs/jobs.js';
import { Files } from './files.js';
import { PictureProcess, type StoredSize } from './picture-process.js';

/** The widths that screens need, in pixels: a thumbnail, a preview on a small screen and on a sharp one, a whole page. */
export const PICTURE_WIDTHS = [160, 480, 1080, 1920] as const;
export type PictureWidth = (typeof PICTURE_WIDTHS)[number];

/** How long a request waits for what is being made of a picture, in milliseconds. */
export const WAIT_MS = 8_000;
const LOOK_MS = 80;
const TASK = 'picture_sizes';
const CUT = 'picture_cut';

/** Asks for a picture's sizes; they are made once the transaction has committed. */
export const askForSizes = (tx: Tx, assetId: string): Promise<void> =>
  addJob(tx, TASK, { assetId }, { key: `${TASK}:${assetId}`, priority: 5, queue: 'pictures', tries: 4 });

/** How a crop stands in the database and in the name of its job. */
export const cropText = ({ ratio, x, y, size }: Crop): string => `${ratio} ${x} ${y} ${size}`;

/** Asks for what a crop cuts out of a picture; it is made once the transaction has committed. @param hash of the picture's bytes */
export const askForCut = (tx: Tx, hash: string, crop: Crop): Promise<void> =>
  addJob(tx, CUT, { hash, crop }, { key: `${CUT}:${hash}:${cropText(crop)}`, priority: 5, queue: 'pictures', tries: 4 });

/** A crop of a picture that is known by the digest of its bytes. */
export interface WantedCut {
  readonly hash: string;
  readonly crop: Crop;
}

/** Under which a cut is found among others. */
export const cutKey = ({ hash, crop }: WantedCut): string => `${hash} ${cropText(crop)}`;

/** A picture as it was cut, in a file of its own. */
export interface Cut {
  readonly hash: string;
  readonly mime: string;
  readonly bytes: number;
  readonly width: number;
  readonly height: number;
}

/** Pictures in the sizes that screens need, with and without the mark *not approved*: made by a job, never by a request. */
@Injectable()
export class Pictures implements OnModuleInit {
  /** cuts that somebody waits for, by `cutKey` */
  private readonly making = new Map<string, Promise<void>>();

  constructor(
    private readonly jobs: Jobs,
    private readonly database: Database,
    private readonly files: Files,
    private readonly process: PictureProcess,
  ) {}

  onModuleInit(): void {
    this.jobs.register(TASK, async (payload) => this.makeSizes((payload as { assetId: string }).assetId)); // as `askForSizes` writes it
    this.jobs.register(CUT, async (payload) => {
      const { hash, crop } = payload as { hash: string; crop: Crop }; // as `askForCut` writes it
      await this.makeCut(hash, crop);
    });
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

  /**
   * The stored files of cuts, by `cutKey`. Those that no job has made yet are made now. Undefined when they did not all come in time: they are there soon.
   * @param marked with the mark *not approved*
   */
  async cutsOf(wanted: readonly WantedCut[], marked = false): Promise<ReadonlyMap<string, Cut> | undefined> {
    const made = await this.cutsMade(wanted, marked);
    const missing = new Map(wanted.filter((cut) => !made.has(cutKey(cut))).map((cut) => [cutKey(cut), cut]));
    if (missing.size === 0) return made;
    let timer: NodeJS.Timeout | undefined;
    const late = new Promise<void>((resolve) => (timer = setTimeout(resolve, WAIT_MS)));
    await Promise.race([Promise.all([...missing.values()].map((cut) => this.makeNow(cut))), late]);
    clearTimeout(timer);
    const all = await this.cutsMade(wanted, marked);
    return all.size === made.size + missing.size ? all : undefined;
  }

  /** Makes a cut without its job, once for all who wait for it; a fault is the job's to try again. */
  private makeNow(cut: WantedCut): Promise<void> {
    const key = cutKey(cut);
    const making =
      this.making.get(key) ??
      this.makeCut(cut.hash, cut.crop)
        .catch(() => undefined)
        .finally(() => this.making.delete(key));
    this.making.set(key, making);
    return making;
  }

  private async cutsMade(wanted: readonly WantedCut[], marked: boolean): Promise<ReadonlyMap<string, Cut>> {
    if (wanted.length === 0) return new Map();
    const rows = await this.database.read<Cut & { of: string; crop: string }>(
      `select c.hash as of, c.crop, c.made_hash as hash, c.mime, c.bytes, c.width, c.height
       from (select distinct * from unnest($1::text[], $2::text[]) w (hash, crop)) w join picture_cuts c on c.hash = w.hash and c.crop = w.crop and c.marked = $3`,
      [wanted.map(({ hash }) => hash), wanted.map(({ crop }) => cropText(crop)), marked],
    );
    return new Map(rows.map(({ of, crop, ...cut }) => [`${of} ${crop}`, cut]));
  }

  /** Cuts one picture; what is there already is left alone. */
  private async makeCut(hash: string, crop: Crop): Promise<void> {
    const [asset] = await this.database.read("select 1 from assets where hash = $1 and mime like 'image/%' limit 1", [hash]);
    if (!asset || (await this.cutsMade([{ hash, crop }], true)).size > 0) return;
    const made = await this.process.cuts(this.files.pathOf(hash), crop);
    if (!made) throw new Error(`no cut of ${hash} could be made`); // tried again, a few times
    const stored: (Cut & { marked: boolean })[] = [];
    for (const { bytes, ...cut } of made) stored.push({ ...cut, ...(await this.files.storeMade(Buffer.from(bytes))) });
    await this.database.write(async (tx) => {
      // whoever drops the last file of these bytes meanwhile waits, and takes away what is written here too
      const kept = await rowsOf(tx, 'select 1 from assets where hash = $1 limit 1 for key share', [hash]);
      if (kept.length === 0) return ok(null);
      for (const cut of stored)
        await tx.query(
          `insert into picture_cuts (hash, crop, marked, made_hash, mime, bytes, width, height) values ($1, $2, $3, $4, $5, $6, $7, $8)
           on conflict do nothing`,
          [hash, cropText(crop), cut.marked, cut.hash, cut.mime, cut.bytes, cut.width, cut.height],
        );
      return ok(null);
    });
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
      // whoever drops the picture meanwhile waits, and takes away what is written here too
      const kept = await rowsOf(tx, 'select 1 from assets where id = $1 for key share', [assetId]);
      if (kept.length === 0) return ok(null);
      for (const { width, marked, mime, hash, bytes } of stored)
        await tx.query(
          'insert into asset_sizes (asset_id, width, marked, mime, hash, bytes) values ($1, $2, $3, $4, $5, $6) on conflict do nothing',
          [assetId, width, marked, mime, hash, bytes],
        );
      return ok(null);
    });
  }
}

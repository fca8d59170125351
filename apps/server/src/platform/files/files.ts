import { createHash, randomUUID } from 'node:crypto';
import { createReadStream, existsSync, type ReadStream } from 'node:fs';
import { link, mkdir, readFile, rename, rm, stat, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import { Inject, Injectable } from '@nestjs/common';
import { fileTypeFromBuffer, fileTypeFromFile } from 'file-type';
import { fail, ok, type Result } from '@zesting/core';
import { CONFIG, type Config } from '../config/config.js';
import { Database } from '../database/transaction.js';
import { withoutPlace } from './without-place.js';
import { PictureProcess } from './picture-process.js';

/** The most that an upload in one piece may weigh, in bytes; larger ones come in parts. */
export const UPLOAD_LIMIT_BYTES = 25 * 1024 * 1024;

/** The most that a picture may weigh, in bytes, to be taken at all; far more than fifty million pixels need. */
const PICTURE_LIMIT_BYTES = 250 * 1024 * 1024;

export interface StoredFile {
  readonly hash: string;
  readonly mime: string;
  readonly bytes: number;
  /** in pixels, as it is shown; null where it has none or does not say */
  readonly width: number | null;
  readonly height: number | null;
  /** of a clip or sound; null where it does not say */
  readonly durationMs: number | null;
}

/** What may come in, told by content: pictures, clips, sound, documents. Never what a browser would run. */
const ACCEPTED = new Set([
  'image/png',
  'image/jpeg',
  'image/webp',
  'image/gif',
  'video/mp4',
  'video/webm',
  'audio/mpeg',
  'audio/wav',
  'application/pdf',
  'application/zip',
  'application/vnd.openxmlformats-officedocument.wordprocessingml.document',
  'application/vnd.openxmlformats-officedocument.spreadsheetml.sheet',
]);

/** Files by the hash of their bytes, on the local disk. */
@Injectable()
export class Files {
  constructor(
    @Inject(CONFIG) private readonly config: Config,
    private readonly pictures: PictureProcess,
    @Inject(Database) private readonly database: Pick<Database, 'read'>,
  ) {}

  /** Stores bytes; the type is read from the content. `file.type_refused` for what may not come in, `file.broken` for a damaged picture. */
  async store(bytes: Buffer): Promise<Result<StoredFile, FileFailure>> {
    const found = (await fileTypeFromBuffer(bytes))?.mime ?? (isPlainText(bytes) ? 'text/plain' : undefined);
    const checked = await this.check(found, bytes);
    if (!checked.ok) return checked;
    const { mime } = checked.value;
    const isKept = mime.startsWith('image/') && (await this.keepsPlaces());
    return ok({ ...(await this.put(isKept ? bytes : withoutPlace(bytes, mime))), ...checked.value });
  }

  /** Whether the agency wants pictures as they came, with where and when they were taken. */
  private async keepsPlaces(): Promise<boolean> {
    const [agency] = await this.database.read<{ keeps: boolean }>('select keeps_places as keeps from agencies');
    return agency?.keeps ?? false;
  }

  /** Stores a file that lies on the same disk, without reading it into memory; it stays where it is too. */
  async storeFile(path: string): Promise<Result<StoredFile, FileFailure>> {
    const { size } = await stat(path);
    const isPicture = (await fileTypeFromFile(path))?.mime.startsWith('image/') ?? false;
    // pictures are read whole, since what a camera wrote beside them is taken out
    const small = size <= (isPicture ? PICTURE_LIMIT_BYTES : UPLOAD_LIMIT_BYTES) ? await readFile(path) : undefined;
    if (small) return this.store(small);
    if (isPicture) return fail({ code: 'file.too_many_pixels' });
    const checked = await this.check((await fileTypeFromFile(path))?.mime, path);
    if (!checked.ok) return checked;
    const hash = createHash('sha256');
    for await (const part of createReadStream(path)) hash.update(part as Buffer); // a stream without an encoding gives buffers
    const digest = hash.digest('hex');
    await this.place(digest, (part) => link(path, part));
    return ok({ hash: digest, bytes: size, ...checked.value });
  }

  /** Stores what the server itself made, such as a picture in another size. */
  storeMade(bytes: Buffer): Promise<Pick<StoredFile, 'hash' | 'bytes'>> {
    return this.put(bytes);
  }

  read(hash: string): ReadStream {
    return createReadStream(this.pathOf(hash));
  }

  /** Where a stored file lies. */
  pathOf(hash: string): string {
    return join(this.config.dataFolder, hash.slice(0, 2), hash);
  }

  private async check(
    mime: string | undefined,
    source: Buffer | string,
  ): Promise<Result<Pick<StoredFile, 'mime' | 'width' | 'height' | 'durationMs'>, FileFailure>> {
    if (!mime || !(ACCEPTED.has(mime) || mime === 'text/plain')) return fail({ code: 'file.type_refused' });
    if (/^(video|audio)\//.test(mime)) return ok({ mime, ...(await this.pictures.measureClip(source)) });
    if (!mime.startsWith('image/')) return ok({ mime, width: null, height: null, durationMs: null });
    const size = await this.pictures.measure(source);
    if (size === 'too_large') return fail({ code: 'file.too_many_pixels' });
    return size === 'broken' ? fail({ code: 'file.broken' }) : ok({ mime, ...size, durationMs: null });
  }

  private async put(bytes: Buffer): Promise<Pick<StoredFile, 'hash' | 'bytes'>> {
    const hash = createHash('sha256').update(bytes).digest('hex');
    await this.place(hash, (part) => writeFile(part, bytes, { flush: true }));
    return { hash, bytes: bytes.length };
  }

  /** Writes a file under its hash: whole or not at all. */
  private async place(hash: string, write: (part: string) => Promise<void>): Promise<void> {
    const path = this.pathOf(hash);
    if (existsSync(path)) return;
    await mkdir(join(path, '..'), { recursive: true });
    const part = `${path}.${randomUUID()}`;
    try {
      await write(part);
      await rename(part, path);
    } catch (error) {
      await rm(part, { force: true }); // a full disk leaves no part behind
      throw error;
    }
  }
}

type FileFailure = { code: 'file.type_refused' | 'file.broken' | 'file.too_many_pixels' };

/** UTF-8 without control characters or markup that a browser might run. */
function isPlainText(bytes: Buffer): boolean {
  if (bytes.length === 0) return false;
  try {
    const text = new TextDecoder('utf-8', { fatal: true }).decode(bytes);
    // eslint-disable-next-line no-control-regex -- control characters tell binary from text
    return !/[\u0000-\u0008\u000e-\u001f]/.test(text) && !/<(!doctype|html|script|svg|\?xml)/i.test(text.slice(0, 2000));
  } catch {
    return false;
  }
}

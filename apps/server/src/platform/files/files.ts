import { createHash, randomUUID } from 'node:crypto';
import { createReadStream, existsSync, type ReadStream } from 'node:fs';
import { mkdir, rename, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import { Inject, Injectable } from '@nestjs/common';
import { fileTypeFromBuffer } from 'file-type';
import sharp from 'sharp';
import { fail, ok, type Result } from '@zesting/core';
import { CONFIG, type Config } from '../config/config.js';

/** The most that one upload may weigh, in bytes. */
export const UPLOAD_LIMIT_BYTES = 25 * 1024 * 1024;

export interface StoredFile {
  readonly hash: string;
  readonly mime: string;
  readonly bytes: number;
  readonly width: number | null;
  readonly height: number | null;
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
  constructor(@Inject(CONFIG) private readonly config: Config) {}

  /** Stores bytes; the type is read from the content. `file.type_refused` for what may not come in, `file.broken` for a damaged picture. */
  async store(bytes: Buffer): Promise<Result<StoredFile, { code: 'file.type_refused' | 'file.broken' }>> {
    const mime = (await fileTypeFromBuffer(bytes))?.mime ?? (isPlainText(bytes) ? 'text/plain' : undefined);
    if (!mime || !(ACCEPTED.has(mime) || mime === 'text/plain')) return fail({ code: 'file.type_refused' });
    const size = mime.startsWith('image/') ? await pictureSize(bytes) : { width: null, height: null };
    if (!size) return fail({ code: 'file.broken' });
    const hash = createHash('sha256').update(bytes).digest('hex');
    const path = this.pathOf(hash);
    if (!existsSync(path)) {
      await mkdir(join(path, '..'), { recursive: true });
      const part = `${path}.${randomUUID()}`;
      await writeFile(part, bytes, { flush: true });
      await rename(part, path);
    }
    return ok({ hash, mime, bytes: bytes.length, ...size });
  }

  read(hash: string): ReadStream {
    return createReadStream(this.pathOf(hash));
  }

  private pathOf(hash: string): string {
    return join(this.config.dataFolder, hash.slice(0, 2), hash);
  }
}

async function pictureSize(bytes: Buffer): Promise<{ width: number; height: number } | undefined> {
  try {
    const picture = sharp(bytes, { failOn: 'error', limitInputPixels: 100_000_000 });
    const { width, height } = await picture.metadata();
    await picture.resize(16).raw().toBuffer(); // decodes the whole picture: a cut-off file fails here
    return { width, height };
  } catch {
    return undefined;
  }
}

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

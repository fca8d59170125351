import type { Response } from 'express';
import type { App } from '../../platform/app.js';
import { Problem } from '../../platform/http/problem.js';

/** Shown in the page; everything else is offered as a download. */
const SHOWN = /^(image\/(png|jpeg|webp|gif)|video\/(mp4|webm)|audio\/(mpeg|wav))$/;

/** Sends a file's bytes with headers under which no browser runs them. Access was decided before. */
export async function sendAsset(app: App, assetId: string, response: Response): Promise<void> {
  const [file] = await app.read<{ hash: string; name: string; mime: string; bytes: number }>(
    'select hash, name, mime, bytes from assets where id = $1',
    [assetId],
  );
  if (!file) throw Problem.of('access.not_found');
  response.set({
    'Content-Type': file.mime,
    'Content-Length': String(file.bytes),
    'Content-Disposition': `${SHOWN.test(file.mime) ? 'inline' : 'attachment'}; filename*=UTF-8''${encodeURIComponent(file.name)}`,
    'X-Content-Type-Options': 'nosniff',
    'Content-Security-Policy': "default-src 'none'; sandbox",
    'Cache-Control': 'private, max-age=31536000, immutable',
  });
  const stream = app.files.read(file.hash);
  stream.on('error', () => response.destroy());
  stream.pipe(response);
}

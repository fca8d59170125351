import type { Response } from 'express';
import type { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';

/** Answers a ZIP to be kept under its name. */
export async function sendZip(response: Response, { name, zip }: { readonly name: string; readonly zip: Readable }): Promise<void> {
  response.set({
    'Content-Type': 'application/zip',
    'Content-Disposition': `attachment; filename="${name}"`,
    'X-Content-Type-Options': 'nosniff',
    'Cache-Control': 'private, no-store',
  });
  await pipeline(zip, response).catch(() => response.destroy()); // the other end hung up
}

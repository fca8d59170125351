import type { ReadStream } from 'node:fs';
import type { Readable } from 'node:stream';
import yazl from 'yazl';
import type { Files } from './files.js';

/** A file of a ZIP: one that is kept, by its hash, or one that is made for it. */
export type ZipEntry = { readonly name: string } & ({ readonly hash: string } | { readonly made: Uint8Array | string });

/** A ZIP as a stream, in the order of its entries; kept files are read as they are asked for, one after the other, and not pressed again. */
export function zipOf(files: Files, entries: readonly ZipEntry[]): Readable {
  const zip = new yazl.ZipFile();
  const output = zip.outputStream as Readable; // yazl's own stream
  const opened = new Set<ReadStream>();
  zip.on('error', (error: Error) => output.destroy(error));
  // whoever hangs up, or a file that goes away meanwhile, leaves nothing open
  output.once('close', () => opened.forEach((stream) => stream.destroy()));
  for (const entry of entries)
    if ('made' in entry)
      zip.addBuffer(Buffer.from(entry.made as Uint8Array), entry.name); // a text is taken too
    else
      zip.addReadStreamLazy(entry.name, { compress: false }, (give) => {
        const stream = files.read(entry.hash);
        opened.add(stream);
        stream.once('error', (error) => output.destroy(error));
        give(null, stream);
      });
  zip.end();
  return output;
}

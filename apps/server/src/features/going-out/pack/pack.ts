import { existsSync } from 'node:fs';
import type { Readable } from 'node:stream';
import type { App } from '../../../platform/app.js';
import { zipOf } from '../../../platform/files/zip.js';
import type { PackContents } from './contents.js';
import { documentOf, textOf } from './document.js';
import { scheduleOf } from './schedule.js';

export interface Pack {
  readonly name: string;
  readonly zip: Readable;
}

/** A pack as a ZIP: files and texts named in the order in which they go out, the whole as a document and a text, and a schedule. */
export async function packOf(app: App, contents: PackContents): Promise<Pack | 'gone'> {
  const media = contents.packed.flatMap((packed) => packed.media);
  for (const { hash } of media) if (!existsSync(app.files.pathOf(hash))) return 'gone';
  const { client, from, to } = contents;
  const name = `${from}_${to}_${client.code}`;
  return {
    name: `${name}_pack.zip`,
    zip: zipOf(app.files, [
      ...contents.packed.flatMap((packed) => [
        ...packed.media.map(({ name: file, hash }) => ({ name: file, hash })),
        { name: packed.text.name, made: packed.text.content },
      ]),
      { name: `${name}.docx`, made: await documentOf(contents) },
      { name: `${name}.txt`, made: textOf(contents) },
      { name: `${name}_schedule.csv`, made: scheduleOf(contents) },
    ]),
  };
}

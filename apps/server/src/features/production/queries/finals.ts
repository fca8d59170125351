import { fileNames, getDay, handOutText, mediaShown, type Content } from '@zesting/core';
import { existsSync } from 'node:fs';
import type { Readable } from 'node:stream';
import type { App } from '../../../platform/app.js';
import { zipOf } from '../../../platform/files/zip.js';
import { mediaOut } from './media-out.js';
import { loadSources, signOffOf } from '../../planning/index.js';

export interface Finals {
  readonly name: string;
  readonly zip: Readable;
}

interface PieceRow {
  title: string;
  code: string;
  content: Content;
  on_day: string | null;
}

/**
 * The approved files of a piece, what each approved channel cuts out of them, and its copy as text, named so that they sort in publishing order.
 * Undefined while the shared part is not approved; `gone` when one of the files is not where it was kept, `being_made` while a picture is still being cut.
 */
export async function finalsOf(app: App, pieceId: string): Promise<Finals | 'gone' | 'being_made' | undefined> {
  const [source] = await loadSources(app.manager, [pieceId]);
  if (!source) throw new Error('the piece went away');
  const state = signOffOf(source);
  if (state.shared !== 'signed') return undefined;
  const [piece] = await app.read<PieceRow>(
    `select p.title, c.code, p.content, (select min(on_day) from placements l where l.piece_id = p.id and not l.cancelled) as on_day
     from pieces p join clients c on c.id = p.client_id where p.id = $1`,
    [pieceId],
  );
  if (!piece) throw new Error('the piece went away');
  const channels = await app.read<{ id: string; name: string }>('select id, name from channels where id = any($1) order by position', [
    Object.keys(piece.content.channels).filter((id) => state.channels[id] === 'signed'),
  ]);
  const on = piece.on_day === null ? null : getDay(piece.on_day);
  const named = { on, clientCode: piece.code };
  const { media } = piece.content.shared;
  const anyNumber = { mediaLimit: null };
  const cutOnly = (id: string) => {
    const part = piece.content.channels[id];
    return part && { ...part, media: mediaShown(media, part).flatMap(({ hash, crop }) => (crop ? [hash] : [])) };
  };
  const out = await mediaOut(app, [
    { media, part: undefined, rules: anyNumber },
    ...channels.map(({ id }) => ({ media, part: cutOnly(id), rules: anyNumber })),
  ]);
  if (out === 'being_made') return out;
  const files = out.flatMap((each, index) => each.map((file) => ({ ...file, channel: channels[index - 1]?.name })));
  const names = fileNames([
    ...files.map(({ name, channel }) => ({
      ...named,
      title: channel === undefined ? piece.title : `${piece.title} ${channel}`,
      extension: name.split('.').at(-1) ?? '',
    })),
    ...channels.map((channel) => ({ ...named, title: `${piece.title} ${channel.name}`, extension: 'txt' })),
  ]);
  for (const { hash } of files) if (!existsSync(app.files.pathOf(hash))) return 'gone';
  const zip = zipOf(app.files, [
    ...files.map(({ hash, name }, index) => ({ name: names[index] ?? name, hash })),
    ...channels.map((channel, index) => ({
      name: names[files.length + index] ?? `${channel.name}.txt`,
      made: handOutText(piece.content, channel.id),
    })),
  ]);
  const [name = 'finals.zip'] = fileNames([{ ...named, title: `${piece.title} finals`, extension: 'zip' }]);
  return { name: name.replace(/^\d+_/, ''), zip };
}

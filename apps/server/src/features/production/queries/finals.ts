import { fileNames, getDay, handOutText, type Content } from '@zesting/core';
import { existsSync } from 'node:fs';
import type { Readable } from 'node:stream';
import type { App } from '../../../platform/app.js';
import { zipOf } from '../../../platform/files/zip.js';
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
 * The approved files of a piece, and the copy of each approved channel as text, named so that they sort in publishing order.
 * Undefined while the shared part is not approved; `gone` when one of the files is not where it was kept.
 */
export async function finalsOf(app: App, pieceId: string): Promise<Finals | 'gone' | undefined> {
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
  const files = await app.read<{ id: string; hash: string; name: string }>('select id, hash, name from assets where id = any($1)', [
    piece.content.shared.media.map((medium) => medium.assetId),
  ]);
  const channels = await app.read<{ id: string; name: string }>('select id, name from channels where id = any($1) order by position', [
    Object.keys(piece.content.channels).filter((id) => state.channels[id] === 'signed'),
  ]);
  const on = piece.on_day === null ? null : getDay(piece.on_day);
  const named = { on, clientCode: piece.code };
  const media = piece.content.shared.media.flatMap(({ assetId }) => files.filter((file) => file.id === assetId));
  const names = fileNames([
    ...media.map((file) => ({ ...named, title: piece.title, extension: file.name.split('.').at(-1) ?? '' })),
    ...channels.map((channel) => ({ ...named, title: `${piece.title} ${channel.name}`, extension: 'txt' })),
  ]);
  for (const file of media) if (!existsSync(app.files.pathOf(file.hash))) return 'gone';
  const zip = zipOf(app.files, [
    ...media.map(({ hash, name }, index) => ({ name: names[index] ?? name, hash })),
    ...channels.map((channel, index) => ({
      name: names[media.length + index] ?? `${channel.name}.txt`,
      made: handOutText(piece.content, channel.id),
    })),
  ]);
  const [name = 'finals.zip'] = fileNames([{ ...named, title: `${piece.title} finals`, extension: 'zip' }]);
  return { name: name.replace(/^\d+_/, ''), zip };
}

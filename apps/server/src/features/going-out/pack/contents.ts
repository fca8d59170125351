import { fileNames, getDay, handOut, handOutText, isReadyByHand, type Day, type HandOut } from '@zesting/core';
import type { GoingOutRowShape } from '@zesting/contract';
import type { App } from '../../../platform/app.js';
import { mediaOut } from '../../production/index.js';
import { goingOutRows, placedWhere, type Placed } from '../queries/placed.js';

/** The most placements that one pack holds. */
const MOST = 500;

/** A file of a pack, with its name there. */
interface PackedFile {
  readonly name: string;
  readonly hash: string;
  readonly bytes: number;
  readonly alt: string;
}

/** A placement in a pack: what goes out, and when it is meant to. */
export interface Packed {
  readonly row: GoingOutRowShape;
  readonly handOut: HandOut;
  readonly media: readonly PackedFile[];
  /** the text of it, as a file */
  readonly text: { readonly name: string; readonly content: string };
}

export interface PackContents {
  readonly client: { readonly id: string; readonly code: string; readonly name: string; readonly zone: string };
  readonly from: Day;
  readonly to: Day;
  /** in the order in which they go out */
  readonly packed: readonly Packed[];
  /** what stands on these days and is not in it: it is not signed, or something else must be settled first */
  readonly leftOut: readonly GoingOutRowShape[];
}

/**
 * What a client's pack holds from `from` to `to`, both included: what is signed and within the rules, or out already. One client's alone.
 * @returns `too_large` where there is more than a pack takes, `being_made` where a picture is still being cut
 */
export async function packContents(app: App, clientId: string, from: Day, to: Day): Promise<PackContents | 'too_large' | 'being_made'> {
  const [client] = await app.read<PackContents['client']>('select id, code, name, zone from clients where id = $1', [clientId]);
  if (!client) throw new Error('the client went away');
  const placed = await placedWhere(
    app,
    `l.client_id = $1 and p.client_id = $1 and l.on_day between $2 and $3 and not l.cancelled and not p.shelved
     order by l.publish_at, p.number, h.position limit ${MOST + 1}`,
    [clientId, from, to],
  );
  if (placed.length > MOST) return 'too_large';
  const rows = await goingOutRows(app, placed);
  const isIn = (row: GoingOutRowShape) =>
    row.state === 'out' || row.state === 'sending' || (row.state === 'scheduled' && isReadyByHand(row.findings));
  const chosen = placed.filter((_, index) => rows[index] && isIn(rows[index]));
  const packed = await packedOf(app, client.code, chosen, rows);
  if (packed === 'being_made') return packed;
  return {
    client,
    from,
    to,
    packed,
    leftOut: rows.filter((row) => !isIn(row)),
  };
}

/** Names run over the whole pack, so that its files sort in the order in which they go out. */
async function packedOf(
  app: App,
  clientCode: string,
  placed: readonly Placed[],
  rows: readonly GoingOutRowShape[],
): Promise<Packed[] | 'being_made'> {
  const files = await mediaOut(
    app,
    placed.map(({ content, channelId, rules }) => ({ media: content.shared.media, part: content.channels[channelId], rules })),
  );
  if (files === 'being_made') return files;
  const named = placed.flatMap(({ on, pieceTitle, channelName }, index) => {
    const name = { on: on === null ? null : getDay(on), clientCode, title: `${pieceTitle} ${channelName}` };
    const extensions = [...(files[index] ?? []).map((file) => file.name.split('.').at(-1) ?? ''), 'txt'];
    return extensions.map((extension) => ({ ...name, extension }));
  });
  const names = fileNames(named);
  let next = 0;
  const nameNext = () => names[next++] ?? '';
  return placed.flatMap((one, index) => {
    const row = rows.find(({ id }) => id === one.id);
    if (!row) return [];
    return {
      row,
      handOut: handOut(one.content, one.channelId),
      media: (files[index] ?? []).map(({ hash, bytes, alt }) => ({ name: nameNext(), hash, bytes, alt })),
      text: { name: nameNext(), content: handOutText(one.content, one.channelId) },
    };
  });
}

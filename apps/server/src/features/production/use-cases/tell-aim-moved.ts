import { dayInWords, getDay } from '@zesting/core';
import type { Viewer } from '../../../platform/access/access.js';
import type { App } from '../../../platform/app.js';
import { rowsOf, type Tx } from '../../../platform/database/transaction.js';
import { tellMove } from '../../notices/index.js';
import type { Piece } from '../entities/piece.entity.js';

const NO_DATE = 'no date';
const inWords = (on: string): string => (on === NO_DATE ? on : dayInWords(getDay(on)));

/** The date that the stored plan of a piece works to; to be read before it is planned anew. */
export async function storedAim(tx: Tx, pieceId: string): Promise<string | null> {
  const [row] = await rowsOf<{ aim_on: string | null }>(tx, 'select aim_on from pieces where id = $1', [pieceId]);
  return row?.aim_on ?? null;
}

/** Tells everybody who has an open step of a piece that its aim date moved. Moved back before they heard, nobody hears anything. */
export async function tellAimMoved(
  app: App,
  tx: Tx,
  viewer: Pick<Viewer, 'personId'>,
  piece: Pick<Piece, 'id' | 'clientId' | 'title'>,
  before: string | null,
): Promise<void> {
  const after = await storedAim(tx, piece.id);
  if (after === before) return;
  const doers = await rowsOf<{ doer_id: string }>(
    tx,
    'select distinct doer_id from steps where piece_id = $1 and finished_on is null and doer_id is not null and doer_id <> $2 order by doer_id',
    [piece.id, viewer.personId],
  );
  for (const { doer_id: doerId } of doers)
    await tellMove(
      app,
      tx,
      doerId,
      { clientId: piece.clientId, heading: `Date moved: ${piece.title}`, text: '', path: `/pieces/${piece.id}`, key: `aim:${piece.id}` },
      { from: before ?? NO_DATE, to: after ?? NO_DATE },
      ({ from, to }) => `“${piece.title}” moved from ${inWords(from)} to ${inWords(to)}: your dates moved with it.`,
    );
}

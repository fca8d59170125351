import type { InstantText } from '@zesting/core';
import { recordActivity } from '../../../platform/activity.js';
import { rowsOf, type Tx } from '../../../platform/database/transaction.js';
import { replan } from '../../planning/index.js';
import { PieceRequest } from '../entities/piece-request.entity.js';
import { lockPiece } from '../piece-store.js';
import { HAS_LIVE_OUTPUTS } from './edit-piece.js';

/** A piece at which something was made already, or that answers another request too. */
export interface Begun {
  readonly title: string;
}

/** SQL: whether anything was made at the piece `$1`: a step begun, a word written, a file put to it, a version shown, another piece made from it; or whether others than `$2` count on it. */
const IS_BEGUN = `exists (select 1 from piece_requests where piece_id = $1 and request_id <> all($2))
  or exists (select 1 from steps where piece_id = $1 and (started_on is not null or finished_on is not null))
  or ${HAS_LIVE_OUTPUTS} or exists (select 1 from assets where piece_id = $1) or exists (select 1 from versions where piece_id = $1)`;

/**
 * Takes back what was begun for a request: its pieces go on the shelf, and it leaves those that were there before. Nothing is done where something was
 * made at one of the pieces already. Inside the caller's transaction, which holds the request.
 * @param also requests that were merged into it, which leave with it
 * @returns the first piece at which something was made; null where all is taken back
 */
export async function putAway(tx: Tx, requestId: string, also: readonly string[], actor: string, now: InstantText): Promise<Begun | null> {
  const links = await tx.find(PieceRequest, { where: { requestId }, order: { pieceId: 'ASC' } });
  const made: string[] = [];
  for (const { pieceId } of links.filter((link) => link.made)) {
    const piece = await lockPiece(tx, pieceId);
    if (piece.shelved) continue;
    const [row] = await rowsOf<{ begun: boolean }>(tx, `select ${IS_BEGUN} as begun`, [pieceId, [requestId, ...also]]);
    if (row?.begun || piece.contentVersion > 1) return { title: piece.title };
    piece.shelved = true;
    piece.version += 1;
    await tx.save(piece);
    await recordActivity(tx, {
      clientId: piece.clientId,
      thing: 'piece',
      thingId: pieceId,
      verb: 'piece.edited',
      actor,
      detail: { shelved: { from: false, to: true } },
      at: now,
    });
    made.push(pieceId);
  }
  const joined = links.filter((link) => !link.made).map(({ pieceId }) => pieceId);
  if (joined.length > 0)
    await tx.query('delete from piece_requests where piece_id = any($1) and request_id = any($2) and not made', [
      joined,
      [requestId, ...also],
    ]);
  await replan(tx, made, now);
  return null;
}

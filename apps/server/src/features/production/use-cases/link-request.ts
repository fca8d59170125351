import type { Tx } from '../../../platform/database/transaction.js';
import { PieceRequest } from '../entities/piece-request.entity.js';

/** Says that a piece answers a request too; saying it again changes nothing. Inside the caller's transaction. */
export async function linkRequest(tx: Tx, pieceId: string, requestId: string): Promise<void> {
  await tx.createQueryBuilder().insert().into(PieceRequest).values({ pieceId, requestId }).orIgnore().execute();
}

/** Takes a request that was merged away from the pieces of the one it was merged into. Inside the caller's transaction. */
export async function unlinkMerged(tx: Tx, requestId: string, intoId: string): Promise<void> {
  await tx.query(
    'delete from piece_requests where request_id = $1 and piece_id in (select piece_id from piece_requests where request_id = $2)',
    [requestId, intoId],
  );
}

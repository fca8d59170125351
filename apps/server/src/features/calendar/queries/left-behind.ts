import type { LeftBehindShape } from '@zesting/contract';
import type { App } from '../../../platform/app.js';

/** What was made from a piece whose day moved, and stands on days that did not move with it; null: nothing is, or there was no move. */
export async function leftBehind(app: App, pieceId: string, from: string | null, to: string | null): Promise<LeftBehindShape | null> {
  if (from === null || to === null || from === to) return null;
  const [row] = await app.read<{ count: number }>(
    `select count(*) from placements l join spin_offs s on s.piece_id = l.piece_id join pieces p on p.id = s.piece_id
     where s.source_id = $1 and not p.shelved and not l.cancelled and l.on_day is not null and l.out_at is null`,
    [pieceId],
  );
  return row && row.count > 0 ? { pieceId, from, to, count: row.count } : null;
}

import type { ProposedPieceShape, StaffingOutcomeShape } from '@zesting/contract';
import type { App } from '../../../platform/app.js';
import type { GivenOutcome } from '../../planning/index.js';

/**
 * What becomes later if steps are given as they are, or is given and late all the same, the worst first.
 * @param clientIds whom the viewer looks after: of others it is told only how many
 */
export async function latePieces(
  app: App,
  clientIds: readonly string[],
  { gives, before, after }: GivenOutcome,
): Promise<Pick<StaffingOutcomeShape, 'pieces' | 'othersLater'>> {
  const rows = await app.read<{ id: string }>(
    `select distinct s.piece_id as id from steps s join unnest($1::uuid[], $2::uuid[]) g (step_id, person_id) on g.step_id = s.id
     where s.doer_id is distinct from g.person_id`,
    [Object.keys(gives), Object.values(gives)],
  );
  const given = new Set(rows.map(({ id }) => id));
  const [was, then] = [new Map(before), new Map(after)];
  const ids = [...then.keys()].filter((id) => given.has(id) || (then.get(id) ?? 0) > (was.get(id) ?? 0));
  const titles = await app.read<Pick<ProposedPieceShape, 'pieceId' | 'title' | 'clientId'>>(
    'select id as "pieceId", title, client_id as "clientId" from pieces where id = any($1) and client_id = any($2) order by number',
    [ids, clientIds],
  );
  const pieces = titles
    .map((piece) => ({ ...piece, was: was.get(piece.pieceId) ?? 0, after: then.get(piece.pieceId) ?? 0 }))
    .sort((a, b) => b.after - a.after);
  return { pieces, othersLater: ids.length - pieces.length };
}

import type { AwayGiveShape, AwayPieceShape, AwayShape, TimeOffBody } from '@zesting/contract';
import { fail, ok, type Result } from '@zesting/core';
import type { App } from '../../../platform/app.js';
import { ableFor, outcomeOfAbsence } from '../../planning/index.js';

/** What an absence would make late, and who could take over, before it is entered. */
export async function previewAway(
  app: App,
  personId: string,
  { startOn, endOn, part }: TimeOffBody,
): Promise<Result<AwayShape, { code: 'time_off.order_wrong' }>> {
  if (endOn < startOn) return fail({ code: 'time_off.order_wrong' });
  const found = await outcomeOfAbsence(app, { personId, startOn, endOn, part, able: await ableFor(app, { doerId: personId }) });
  const [was, away, after] = [found.now, found.away, found.after].map((late) => new Map(late));
  const later = [...new Set([...(away?.keys() ?? []), ...(after?.keys() ?? [])])].filter((id) => {
    const before = was?.get(id) ?? 0;
    return (away?.get(id) ?? 0) > before || (after?.get(id) ?? 0) > before;
  });
  const titles = await app.read<Pick<AwayPieceShape, 'pieceId' | 'title' | 'clientId'>>(
    'select id as "pieceId", title, client_id as "clientId" from pieces where id = any($1) order by number',
    [later],
  );
  const pieces = titles.map((piece): AwayPieceShape => {
    const days = (late: ReadonlyMap<string, number> | undefined) => late?.get(piece.pieceId) ?? 0;
    return { ...piece, was: days(was), away: days(away), after: days(after) };
  });
  const to = new Map(found.gives.map(({ stepId, doer }) => [stepId, doer]));
  const steps = await app.read<Omit<AwayGiveShape, 'personId' | 'personName'>>(
    `select s.id as "stepId", s.title as "stepTitle", s.version, p.id as "pieceId", p.title as "pieceTitle", p.client_id as "clientId"
     from steps s join pieces p on p.id = s.piece_id where s.id = any($1) order by s.latest_finish_on nulls last, p.number, s.position`,
    [[...to.keys()]],
  );
  const names = await app.read<{ id: string; name: string }>('select id, name from people where id = any($1)', [[...to.values()]]);
  const nameOf = new Map(names.map(({ id, name }) => [id, name]));
  return ok({
    pieces: pieces.sort((a, b) => b.away - b.was - (a.away - a.was)),
    gives: steps.map((step) => {
      const id = to.get(step.stepId) ?? '';
      return { ...step, personId: id, personName: nameOf.get(id) ?? '' };
    }),
    isWhole: found.isWhole,
  });
}

import type { AwayGiveShape, AwayPieceShape, AwayShape, TimeOffBody } from '@zesting/contract';
import { fail, ok, type Result } from '@zesting/core';
import type { App } from '../../../platform/app.js';
import { outcomeOfAbsence } from '../../planning/index.js';

/** What an absence would make late, and who could take over, before it is entered. */
export async function previewAway(
  app: App,
  personId: string,
  { startOn, endOn, part }: TimeOffBody,
): Promise<Result<AwayShape, { code: 'time_off.order_wrong' }>> {
  if (endOn < startOn) return fail({ code: 'time_off.order_wrong' });
  const found = await outcomeOfAbsence(app, { personId, startOn, endOn, part, able: await ableFor(app, personId) });
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

/** By each open step of a person, who else could do it: whoever usually does it for the client first, then its own people, then the most skilled. */
async function ableFor(app: App, personId: string): Promise<Record<string, string[]>> {
  const rows = await app.read<{ step_id: string; able: string[] }>(
    `select s.id as step_id, array(select d.id from people d left join client_people o on o.person_id = d.id and o.client_id = p.client_id
         left join client_team t on t.client_id = p.client_id and t.skill = s.skill and t.person_id = d.id
         where d.active and d.id <> $1 and coalesce((d.skills ->> s.skill)::int, 0) > 0 and coalesce(o.relation, 'none') <> 'barred'
         order by (t.person_id is not null) desc, coalesce(o.relation = 'own', false) desc, (d.skills ->> s.skill)::int desc, d.name) as able
     from steps s join pieces p on p.id = s.piece_id where s.doer_id = $1 and s.finished_on is null and s.kind <> 'sign_off' and p.list is not null`,
    [personId],
  );
  return Object.fromEntries(rows.map((row) => [row.step_id, row.able]));
}

import type { AwayAroundShape, AwayGiveShape, AwayPieceShape, AwayShape, TimeOffBody } from '@zesting/contract';
import { fail, getDay, isWorkingDay, ok, type Result } from '@zesting/core';
import type { App } from '../../../platform/app.js';
import { ableFor, getDoer, loadCalendars, openPlacementWork, outcomeOfAbsence, type OpenPlacementWork } from '../../planning/index.js';

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
  const around = await aroundPlacements(app, personId, { startOn, endOn, part });
  const names = await app.read<{ id: string; name: string }>('select id, name from people where id = any($1)', [[...to.values()]]);
  const nameOf = new Map(names.map(({ id, name }) => [id, name]));
  return ok({
    pieces: pieces.sort((a, b) => b.away - b.was - (a.away - a.was)),
    gives: steps.map((step) => {
      const id = to.get(step.stepId) ?? '';
      return { ...step, personId: id, personName: nameOf.get(id) ?? '' };
    }),
    around,
    isWhole: found.isWhole,
  });
}

/** What somebody has to do around placements on days that an absence takes whole. */
async function aroundPlacements(app: App, personId: string, { startOn, endOn, part }: TimeOffBody): Promise<AwayAroundShape[]> {
  const now = app.clock.now();
  const off = { owner_id: personId, start_on: startOn, end_on: endOn, part };
  const [book, away] = [await loadCalendars(app.manager, now), await loadCalendars(app.manager, now, null, [off])];
  const keyOf = ({ placementId, itemKey, id }: OpenPlacementWork) => [placementId, itemKey, id].join();
  const own = async (by: typeof book) =>
    (await openPlacementWork(app.manager, by, getDay(endOn))).filter((work) => work.personId === personId);
  const then = new Map((await own(away)).map((work) => [keyOf(work), work.dueOn]));
  const { calendar } = getDoer(away, personId);
  const due = (await own(book)).filter(({ dueOn }) => dueOn >= startOn && !isWorkingDay(calendar, dueOn));
  const rows = await app.read<{ placementId: string; pieceTitle: string; channelName: string }>(
    `select l.id as "placementId", p.title as "pieceTitle", h.name as "channelName" from placements l join pieces p on p.id = l.piece_id
       join channels h on h.id = l.channel_id where l.id = any($1)`,
    [[...new Set(due.map(({ placementId }) => placementId))]],
  );
  const told = new Map(rows.map(({ placementId, ...rest }) => [placementId, rest]));
  return due.flatMap((work) => {
    const { kind, words, pieceId, clientId, placementId, dueOn } = work;
    const rest = told.get(placementId);
    return rest ? [{ kind, words, pieceId, clientId, dueOn, thenOn: then.get(keyOf(work)) ?? dueOn, ...rest }] : [];
  });
}

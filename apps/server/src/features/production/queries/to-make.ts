import { copyWords } from '@zesting/core';
import type { SittingShape, SittingStep, ToMakeCell, ToMakeShape } from '@zesting/contract';
import type { Viewer } from '../../../platform/access/access.js';
import type { App } from '../../../platform/app.js';
import { isFreeStep, isClientsStep } from '../../planning/index.js';
import { firstPicture } from './first-picture.js';
import { asksFor, NOBODY_AT_HAND, type PiecesAsked } from './piece-rows.js';

/** So many steps of one kind are done in a sitting. */
const MOST = 200;

/**
 * Open steps that people of the agency do, of open pieces that are asked for, as SQL over a step `t` of a piece `p`. Who does not manage sees
 * their own alone; who manages, those of the person they ask for.
 */
async function openSteps(
  app: App,
  viewer: Viewer,
  { doer, ...asked }: PiecesAsked,
): Promise<{ readonly sql: string; readonly values: readonly unknown[] }> {
  const manages = viewer.role === 'lead' || viewer.role === 'manager';
  const reach = manages ? viewer : { ...viewer, clientIds: await clientsOfSteps(app, viewer.personId) };
  const { where, values } = asksFor(reach, { ...asked, shown: 'open' });
  const sql = `from pieces p cross join ${NOBODY_AT_HAND} join steps t on t.piece_id = p.id join formats f on f.id = p.format_id
     where ${where} and not ${isClientsStep('t')} and t.finished_on is null
       and ($12::text is null or case when $12 = 'nobody' then t.doer_id is null else t.doer_id::text = $12 end)`;
  return { sql, values: [...values, manages ? (doer ?? null) : viewer.personId] };
}

/** The clients for whom somebody has open steps: whoever has a step sees its piece. */
const clientsOfSteps = async (app: App, personId: string): Promise<string[]> =>
  (
    await app.read<{ id: string }>(
      'select distinct p.client_id as id from steps s join pieces p on p.id = s.piece_id where s.doer_id = $1 and s.finished_on is null',
      [personId],
    )
  ).map(({ id }) => id);

/** How much there is to do, by format and by what somebody must be able to do for it. */
export async function toMakeOf(app: App, viewer: Viewer, asked: PiecesAsked): Promise<ToMakeShape> {
  const { sql, values } = await openSteps(app, viewer, asked);
  const cells = await app.read<ToMakeCell>(
    `select f.id as "formatId", f.name as "formatName", t.skill, count(*) as steps, count(*) filter (where ${isFreeStep('t')}) as "atHand",
       sum(coalesce(t.remaining_minutes, t.effort_minutes)) as minutes, avg(t.position) as place
     ${sql} group by f.id, f.name, t.skill order by f.name, f.id, t.skill`,
    [...values],
  );
  return { cells: cells.map((cell) => ({ ...cell, minutes: Number(cell.minutes), place: Number(cell.place) })) };
}

/** The steps of one skill, of one format or any, one after another: what can be done now first, by latest finish. */
export async function sittingOf(app: App, viewer: Viewer, asked: PiecesAsked, skill: string): Promise<SittingShape> {
  const { sql, values } = await openSteps(app, viewer, asked);
  const steps = await app.read<SittingStep & { isLaidOut: boolean }>(
    `select t.id as "stepId", t.title as "stepTitle", p.id as "pieceId", p.number as "pieceNumber", p.title as "pieceTitle", p.client_id as "clientId", f.name as "formatName",
       t.doer_id as "doerId", (select d.name from people d where d.id = t.doer_id) as "doerName", ${isFreeStep('t')} as "atHand", t.started_on as "startedOn",
       t.latest_finish_on as "latestFinishOn", t.danger, coalesce(t.remaining_minutes, t.effort_minutes) as "leftMinutes",
       cardinality(t.checklist) - (select count(*)::int from step_ticks k where k.step_id = t.id) as "linesOpen", p.content -> 'shared' ->> 'copy' as copy,
       coalesce((p.content -> 'shared' ->> 'isLaidOut')::boolean, false) as "isLaidOut", ${firstPicture('p.content')} as "pictureId"
     ${sql} and t.skill = $13 order by (not ${isFreeStep('t')}), t.latest_finish_on nulls last, p.number, t.position limit ${MOST + 1}`,
    [...values, skill],
  );
  const shown = steps.slice(0, MOST).map(({ isLaidOut, ...step }) => ({ ...step, copy: copyWords({ copy: step.copy, isLaidOut }) }));
  return { steps: shown, isWhole: steps.length <= MOST };
}

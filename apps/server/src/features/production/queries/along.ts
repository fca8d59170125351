import { randomUUID } from 'node:crypto';
import { asksClient, takeAlong, type AlongStep, type RouteStep, type SignOffPolicy, type TakenAlong } from '@zesting/core';
import type { AlongPieceShape, RouteAlongShape } from '@zesting/contract';
import type { App } from '../../../platform/app.js';
import { rowsOf, type Reader } from '../../../platform/database/rows.js';
import {
  findRoute,
  loadCalendars,
  loadSources,
  pieceState,
  ROUTE_STATE,
  routeAsOf,
  type PieceSource,
  type StepSource,
} from '../../planning/index.js';
import type { Step } from '../entities/step.entity.js';
import { asRow } from '../use-cases/change-path.js';

/** So many pieces are looked at together. */
const MOST_PIECES = 200;

/** What a piece becomes by its route as it is; the client's word does not come in where the agency decides. */
export const alongWith = (
  path: readonly AlongStep[],
  from: readonly RouteStep[],
  to: readonly RouteStep[],
  policy: SignOffPolicy,
): ReturnType<typeof takeAlong> =>
  takeAlong({ path, from, to, idOf: () => randomUUID(), isSkipped: ({ kind }) => kind === 'sign_off' && !asksClient(policy) });

interface PieceRow {
  id: string;
  number: number;
  title: string;
  clientId: string;
  routeVersion: number;
  policy: SignOffPolicy;
}

/** The pieces under way of a route that go by an earlier state of it: those that lead with the first aim first. */
export const behindRoute = (reader: Reader, routeId: string): Promise<PieceRow[]> =>
  rowsOf<PieceRow>(
    reader,
    `select p.id, p.number, p.title, p.client_id as "clientId", p.route_version as "routeVersion", c.policy
     from pieces p join clients c on c.id = p.client_id
     where p.route_id = $1 and p.list is not null and p.route_version < ${ROUTE_STATE('p.route_id')} order by p.aim_on nulls last, p.number`,
    [routeId],
  );

/** What would move if the pieces under way of a route were taken along with it. Those that nothing changes for are left out. */
export async function previewAlong(app: App, routeId: string): Promise<RouteAlongShape> {
  const route = await findRoute(app.manager, routeId);
  if (!route.ok) throw new Error('the route went away');
  const all = await behindRoute(app.manager, routeId);
  const looked = all.slice(0, MOST_PIECES);
  const book = await loadCalendars(app.manager, app.clock.now());
  const sources = new Map((await loadSources(app.manager, looked.map(({ id }) => id))).map((source) => [source.id, source])); // prettier-ignore
  const rows = await app.read<Step & { doerName: string | null }>(
    `select s.id, s.piece_id as "pieceId", s.key, s.title, s.kind, s.skill, s.round, s.span_days as "spanDays", s.effort_minutes as "effortMinutes",
       s.remaining_minutes as "remainingMinutes", s.same_day as "sameDay", s.optional, s.checklist, s.predecessor_ids as "predecessorIds",
       s.started_on as "startedOn", s.finished_on as "finishedOn", s.pinned_finish_on as "pinnedFinishOn", d.name as "doerName"
     from steps s left join people d on d.id = s.doer_id where s.piece_id = any($1) order by s.position`,
    [looked.map(({ id }) => id)],
  );
  const stepsOf = new Map(looked.map(({ id }) => [id, rows.filter(({ pieceId }) => pieceId === id)]));
  const bases = new Map<number, readonly RouteStep[]>();
  for (const version of new Set(looked.map(({ routeVersion }) => routeVersion)))
    bases.set(version, await routeAsOf(app.manager, routeId, version));
  const pieces = looked.flatMap(({ id, number, title, clientId, routeVersion, policy }): AlongPieceShape[] => {
    const [source, steps] = [sources.get(id), stepsOf.get(id) ?? []];
    if (!source) return [];
    const before = pieceState(source, book);
    const head = {
      pieceId: id,
      number,
      title,
      clientId,
      aimOn: before.aimOn,
      dangerBefore: before.danger,
      beginByBefore: before.lateFromOn,
    };
    const taken = alongWith(steps.map(asRow), bases.get(routeVersion) ?? route.value.steps, route.value.steps, policy);
    if (!taken.ok)
      return [{ ...head, changes: [], kept: [], dangerAfter: before.danger, beginByAfter: before.lateFromOn, isAgainst: true }];
    if (taken.value.changes.length === 0) return [];
    const after = pieceState({ ...source, steps: sourceSteps(taken.value, source) }, book);
    const doerOf = new Map(steps.map((step) => [step.id, step.doerName]));
    return [
      {
        ...head,
        changes: taken.value.changes.map(({ kind, title: of, fields, stepId }) => ({
          kind,
          title: of,
          fields: [...fields],
          doerName: doerOf.get(stepId) ?? null,
        })),
        kept: taken.value.kept.map(({ title: of, why }) => ({ title: of, why })),
        dangerAfter: after.danger,
        beginByAfter: after.lateFromOn,
        isAgainst: false,
      },
    ];
  });
  const moved = new Set(pieces.map(({ pieceId }) => pieceId));
  const unmoved = looked.flatMap(({ id }) => (moved.has(id) ? [] : [id]));
  return { version: route.value.version, pieces, unmoved, morePieces: all.length - looked.length };
}

/** The steps as planning reads them: those that stay with who has them, new ones with nobody. */
const sourceSteps = ({ steps }: TakenAlong, source: PieceSource): StepSource[] =>
  steps.map((step): StepSource => {
    const was = source.steps.find(({ id }) => id === step.id);
    return {
      id: step.id,
      title: step.title,
      kind: step.kind,
      doer_id: was?.doer_id ?? null,
      span_days: step.spanDays,
      same_day: step.sameDay,
      predecessor_ids: [...step.predecessorIds],
      started_on: step.startedOn,
      finished_on: step.finishedOn,
      pinned_finish_on: step.pinnedFinishOn,
      predicted_finish_on: null, // by load it is predicted once it is so
      obstructed: was?.obstructed ?? false,
      asked_due_on: was?.asked_due_on ?? null,
    };
  });

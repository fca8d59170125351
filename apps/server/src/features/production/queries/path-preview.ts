import { fail, ok, isByClient, type HelpStep, type OtherEffect, type Outcome, type Result } from '@zesting/core';
import type { OtherPieceShape, PathChangeBody, PathPreviewShape, StepDatesShape, StepMoveShape } from '@zesting/contract';
import type { Viewer } from '../../../platform/access/access.js';
import type { App } from '../../../platform/app.js';
import { outcomeOfPath, routeAsOf, type PathOutcomeFailure } from '../../planning/index.js';
import { refusedBefore, toTried, type PathRefused } from '../use-cases/change-path.js';

/** What changes of a piece's path would come to, before any is made. */
export async function previewPath(
  app: App,
  viewer: Viewer,
  pieceId: string,
  changes: readonly PathChangeBody[],
): Promise<Result<PathPreviewShape, PathRefused | PathOutcomeFailure>> {
  const [piece] = await app.read<{ client_id: string; route_id: string; route_version: number }>(
    'select client_id, route_id, route_version from pieces where id = $1',
    [pieceId],
  );
  if (!piece) throw new Error('the piece went away');
  const steps = await app.read<Parameters<typeof refusedBefore>[2][number]>(
    'select id, kind, doer_id as "doerId", version from steps where piece_id = $1',
    [pieceId],
  );
  const refused = await refusedBefore(app.manager, changes, steps, piece.client_id, app.clock.now());
  if (refused) return fail(refused);
  const route = await routeAsOf(app.manager, piece.route_id, piece.route_version);
  const tried = await outcomeOfPath(app, pieceId, toTried(changes, route));
  if (!tried.ok) return tried;
  const { before, after, steps: was, changed, others } = tried.value;
  const names = await namesOf(app, [...was, ...changed]);
  return ok({
    steps: movesOf(was, changed, before, after, names),
    lateDaysBefore: before.lateDays,
    lateDaysAfter: after.lateDays,
    dangerBefore: before.plan.danger,
    dangerAfter: after.plan.danger,
    ...(await othersOf(app, viewer, others)),
  });
}

/** The names of those who do the steps, by their keys; the client's and nobody's are left out. */
export async function namesOf(app: App, steps: readonly Pick<HelpStep, 'doer'>[]): Promise<Map<string, string>> {
  const keys = [...new Set(steps.map(({ doer }) => doer))];
  const people = await app.read<{ id: string; name: string }>('select id, name from people where id::text = any($1)', [keys]);
  return new Map(people.map(({ id, name }) => [id, name]));
}

function movesOf(
  was: readonly HelpStep[],
  changed: readonly HelpStep[],
  before: Outcome,
  after: Outcome,
  names: ReadonlyMap<string, string>,
): StepMoveShape[] {
  const [first, then] = [datesOf(before), datesOf(after)];
  const all = [...changed, ...was.filter(({ id }) => !changed.some((step) => step.id === id))];
  const doers = new Map(was.map(({ id, doer }) => [id, doer]));
  return all.flatMap((step): StepMoveShape[] => {
    const [old, next] = [first.get(step.id) ?? null, then.get(step.id) ?? null];
    const isSame = old !== null && next !== null && JSON.stringify(old) === JSON.stringify(next) && doers.get(step.id) === step.doer;
    if (isSame || step.finishedOn !== null) return [];
    const doerName = isByClient(step.kind) ? 'the client' : (names.get(step.doer) ?? null);
    return [{ stepId: step.id, title: step.title, doerName, before: old, after: next }];
  });
}

function datesOf({ plan, predicted }: Outcome): Map<string, StepDatesShape> {
  return new Map(
    plan.steps.map(({ id, latestStartOn, latestFinishOn, earliestFinishOn, danger }) => [
      id,
      { latestStartOn, latestFinishOn, earliestFinishOn, predictedFinishOn: predicted.get(id)?.finishOn ?? null, danger },
    ]),
  );
}

/** Other pieces that a change touches, by name where the viewer may see the client. */
export async function othersOf(
  app: App,
  viewer: Viewer,
  effects: readonly OtherEffect[],
): Promise<{ others: OtherPieceShape[]; othersHidden: number }> {
  if (effects.length === 0) return { others: [], othersHidden: 0 };
  const rows = await app.read<{ id: string; client_id: string; number: number; title: string }>(
    'select id, client_id, number, title from pieces where id = any($1)',
    [effects.map(({ pieceId }) => pieceId)],
  );
  const byId = new Map(rows.map((row) => [row.id, row]));
  const seen = effects.flatMap(({ pieceId, was, now }): OtherPieceShape[] => {
    const row = byId.get(pieceId);
    if (!row || !viewer.clientIds.includes(row.client_id)) return [];
    return [{ pieceId, clientId: row.client_id, number: row.number, title: row.title, wasDays: was, nowDays: now }];
  });
  const shown = new Set(seen.map(({ pieceId }) => pieceId));
  return { others: seen, othersHidden: effects.filter(({ pieceId, was, now }) => !shown.has(pieceId) && now > was).length };
}

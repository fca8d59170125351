import { addDays, dayIn, fail, getDay, ok, type Day, type InstantText, type Result } from '@zesting/core';
import type { GoalBody, GoalReadingBody } from '@zesting/contract';
import { IsNull } from 'typeorm';
import type { Viewer } from '../../../platform/access/access.js';
import { changesBetween, noteOfClient } from '../../../platform/activity.js';
import type { App } from '../../../platform/app.js';
import { insertRow, rowsOf, type Tx } from '../../../platform/database/transaction.js';
import { GoalReading } from '../entities/goal-reading.entity.js';
import { Goal } from '../entities/goal.entity.js';

export type GoalFailure = {
  code:
    | 'goal.order_wrong'
    | 'goal.goes_nowhere'
    | 'goal.is_counted'
    | 'goal.before_start'
    | 'goal.too_many'
    | 'channel.unknown'
    | 'pillar.unknown'
    | 'http.changed_meanwhile';
};

const MOST_GOALS = 50;
const LONGEST_DAYS = 3653;

export function addGoal(app: App, viewer: Viewer, clientId: string, body: GoalBody): Promise<Result<string, GoalFailure>> {
  return app.write<string, GoalFailure>(async (tx, now) => {
    await rowsOf(tx, 'select 1 from clients where id = $1 for no key update', [clientId]);
    const known = await checked(tx, clientId, body);
    if (!known.ok) return known;
    if ((await tx.countBy(Goal, { clientId, archivedAt: IsNull() })) >= MOST_GOALS) return fail({ code: 'goal.too_many' });
    const id = await insertRow(tx, Goal, { ...known.value, clientId, archivedAt: null, version: 1 });
    await noteOfClient(tx, viewer, clientId, 'goal.added', { goal: known.value.name }, now);
    return ok(id);
  });
}

/** Changes a goal; what was read stays. */
export function changeGoal(app: App, viewer: Viewer, goalId: string, body: GoalBody, version: number): Promise<Result<null, GoalFailure>> {
  return app.write<null, GoalFailure>(async (tx, now) => {
    const goal = await lockGoal(tx, goalId);
    if (goal.version !== version) return fail({ code: 'http.changed_meanwhile' });
    const known = await checked(tx, goal.clientId, body);
    if (!known.ok) return known;
    const { id: _id, clientId, archivedAt: _archivedAt, version: _version, ...before } = goal;
    const changes = changesBetween(before, known.value);
    if (Object.keys(changes).length === 0) return ok(null);
    await tx.update(Goal, goalId, { ...known.value, version: version + 1 });
    await noteOfClient(tx, viewer, clientId, 'goal.changed', { goal: goal.name, ...changes }, now);
    return ok(null);
  });
}

/** Puts a goal away, or takes it up again. */
export function setGoalAway(app: App, viewer: Viewer, goalId: string, isAway: boolean): Promise<Result<null, GoalFailure>> {
  return app.write<null, GoalFailure>(async (tx, now) => {
    const goal = await lockGoal(tx, goalId);
    if ((goal.archivedAt !== null) === isAway) return ok(null);
    await tx.update(Goal, goalId, { archivedAt: isAway ? now : null, version: goal.version + 1 });
    await noteOfClient(tx, viewer, goal.clientId, isAway ? 'goal.archived' : 'goal.restored', { goal: goal.name }, now);
    return ok(null);
  });
}

/** Says what the measure of a goal was on a day after its start, not later than the client's today; null takes that away. */
export function putReading(app: App, viewer: Viewer, goalId: string, { on, value }: GoalReadingBody): Promise<Result<null, GoalFailure>> {
  return app.write<null, GoalFailure>(async (tx, now) => {
    const goal = await lockGoal(tx, goalId);
    if (goal.measure === 'pieces') return fail({ code: 'goal.is_counted' });
    if (on <= goal.startOn || on > (await todayOf(tx, goal.clientId, now))) return fail({ code: 'goal.before_start' });
    if (value === null) await tx.delete(GoalReading, { goalId, onDay: on });
    else await tx.upsert(GoalReading, { goalId, onDay: on, value }, ['goalId', 'onDay']);
    await noteOfClient(tx, viewer, goal.clientId, 'goal.read', { goal: goal.name, on, value }, now);
    return ok(null);
  });
}

const lockGoal = (tx: Tx, id: string): Promise<Goal> => tx.findOneOrFail(Goal, { where: { id }, lock: { mode: 'pessimistic_write' } });

async function todayOf(tx: Tx, clientId: string, now: InstantText): Promise<Day> {
  const [client] = await rowsOf<{ zone: string }>(tx, 'select zone from clients where id = $1', [clientId]);
  if (!client) throw new Error('the client went away');
  return dayIn(now, client.zone);
}

type Known = Omit<Goal, 'id' | 'clientId' | 'archivedAt' | 'version'>;

async function checked(tx: Tx, clientId: string, body: GoalBody): Promise<Result<Known, GoalFailure>> {
  if (body.byOn <= body.startOn || body.byOn > addDays(getDay(body.startOn), LONGEST_DAYS)) return fail({ code: 'goal.order_wrong' });
  const isCounted = body.measure === 'pieces';
  const startValue = isCounted ? 0 : body.startValue;
  if (body.target === startValue || (isCounted && body.target < 0)) return fail({ code: 'goal.goes_nowhere' });
  const [found] = await rowsOf<{ channel: boolean; pillars: boolean }>(
    tx,
    `select $1::uuid is null or exists (select 1 from channels where id = $1 and client_id = $3) as channel,
       not exists (select 1 from unnest($2::uuid[]) i where not exists (select 1 from pillars p where p.id = i and p.client_id = $3)) as pillars`,
    [body.channelId, body.pillarIds, clientId],
  );
  if (!found?.channel) return fail({ code: 'channel.unknown' });
  if (!found.pillars) return fail({ code: 'pillar.unknown' });
  return ok({
    name: body.name.trim(),
    channelId: body.channelId,
    measure: body.measure,
    unit: isCounted ? '' : body.unit.trim(),
    startValue,
    target: body.target,
    startOn: body.startOn,
    byOn: body.byOn,
    pillarIds: [...body.pillarIds].sort(),
    steps: body.steps.map(({ text, isDone }) => ({ text: text.trim(), isDone })),
  });
}

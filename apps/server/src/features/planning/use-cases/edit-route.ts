import {
  fail,
  ok,
  routeProblems,
  isByClient,
  skillOf,
  type InstantText,
  type Result,
  type RouteProblem,
  type RouteStep,
} from '@zesting/core';
import type { EditRouteBody } from '@zesting/contract';
import type { Viewer } from '../../../platform/access/access.js';
import { changesBetween, recordActivity } from '../../../platform/activity.js';
import type { App } from '../../../platform/app.js';
import { insertRow, rowsOf, type Tx } from '../../../platform/database/transaction.js';
import { IsNull, Not } from 'typeorm';
import { Route } from '../entities/route.entity.js';

type Wrong = { code: 'route.wrong'; problems: readonly RouteProblem[] };
type Refused = Wrong | { code: 'skill.unknown' | 'format.unknown' };
type Conflict = { code: 'http.changed_meanwhile' };

interface RouteRow {
  name: string;
  format: string;
  rounds: number | null;
  steps: RouteStep[];
  version: number;
}

/** The lines of a step's checklist that say something; the client's own steps have none. */
const linesOf = ({ kind, checklist = [] }: RouteStep): string[] =>
  isByClient(kind) ? [] : checklist.map((line) => line.trim()).filter((line) => line !== '');

/** Only what a step needs, so that two editors' habits make no difference. */
const plainStep = (step: RouteStep): RouteStep => ({
  key: step.key,
  title: step.title.trim(),
  kind: step.kind,
  skill: skillOf(step),
  spanDays: step.spanDays,
  effortMinutes: isByClient(step.kind) ? 0 : step.effortMinutes,
  after: [...step.after],
  ...(step.sameDay ? { sameDay: true } : {}),
  ...(step.optional ? { optional: true } : {}),
  ...(linesOf(step).length > 0 ? { checklist: linesOf(step) } : {}),
  ...(step.reworkSpanDays === undefined ? {} : { reworkSpanDays: step.reworkSpanDays }),
  ...(step.reworkEffortMinutes === undefined ? {} : { reworkEffortMinutes: step.reworkEffortMinutes }),
});

/** The format of that name on the agency's list; undefined where there is none. */
async function formatId(tx: Tx, name: string): Promise<string | undefined> {
  const [row] = await rowsOf<{ id: string }>(tx, 'select id from formats where lower(name) = lower($1)', [name.trim()]);
  return row?.id;
}

/** Refuses a route that names what is not on the agency's lists, or has a fault of its own. */
async function refusal(tx: Tx, body: EditRouteBody): Promise<Refused | null> {
  const problems = routeProblems(body.steps);
  if (problems.length > 0) return { code: 'route.wrong', problems };
  const skills = [...new Set(body.steps.filter((step) => !isByClient(step.kind)).map((step) => step.skill.trim()))];
  const known = await rowsOf(tx, 'select 1 from skills where name = any($1)', [skills]);
  return known.length < skills.length ? { code: 'skill.unknown' } : null;
}

/** Makes a route. Pieces copy its steps when they are made: a later change touches none that is under way. */
export const makeRoute = (app: App, viewer: Viewer, body: EditRouteBody): Promise<Result<string, Refused>> =>
  app.write<string, Refused>((tx, now) => addRoute(tx, viewer.name, body, now));

/** As `makeRoute`, inside the caller's transaction. */
export async function addRoute(tx: Tx, actor: string, body: EditRouteBody, now: InstantText): Promise<Result<string, Refused>> {
  const refused = await refusal(tx, body);
  if (refused) return fail(refused);
  const format = await formatId(tx, body.formatName);
  if (format === undefined) return fail({ code: 'format.unknown' });
  const { name, roundsAllowed } = body;
  const id = await insertRow(tx, Route, { name, formatId: format, steps: body.steps.map(plainStep), roundsAllowed });
  await recordActivity(tx, {
    clientId: null,
    thing: 'route',
    thingId: id,
    verb: 'route.made',
    actor,
    detail: { name: body.name },
    at: now,
  });
  return ok(id);
}

export function editRoute(
  app: App,
  viewer: Viewer,
  routeId: string,
  body: EditRouteBody,
  version: number,
): Promise<Result<number, Refused | Conflict>> {
  return app.write<number, Refused | Conflict>(async (tx, now) => {
    const [row] = await rowsOf<RouteRow>(
      tx,
      `select r.name, f.name as format, r.rounds_allowed as rounds, r.steps, r.version from routes r join formats f on f.id = r.format_id
       where r.id = $1 for update of r`,
      [routeId],
    );
    if (!row) throw new Error('the route went away');
    if (row.version !== version) return fail({ code: 'http.changed_meanwhile' });
    const refused = await refusal(tx, body);
    if (refused) return fail(refused);
    const format = await formatId(tx, body.formatName);
    if (format === undefined) return fail({ code: 'format.unknown' });
    const steps = body.steps.map(plainStep);
    await keepSteps(tx, routeId);
    const { name, roundsAllowed } = body;
    await tx.update(Route, routeId, { name, formatId: format, steps, roundsAllowed, version: row.version + 1 });
    await keepSteps(tx, routeId);
    const before = { name: row.name, format: row.format, rounds: row.rounds, steps: row.steps };
    const after = { name: body.name, format: body.formatName, rounds: body.roundsAllowed, steps };
    await recordActivity(tx, {
      clientId: null,
      thing: 'route',
      thingId: routeId,
      verb: 'route.edited',
      actor: viewer.name,
      detail: changesBetween(before, after),
      at: now,
    });
    return ok(row.version + 1);
  });
}

/** Archives a route, or brings it back: no new piece takes it until then. */
export function archiveRoute(app: App, viewer: Viewer, routeId: string, archived: boolean): Promise<Result<null>> {
  return app.write(async (tx, now) => {
    const before = { id: routeId, archivedAt: archived ? IsNull() : Not(IsNull()) };
    await tx.update(Route, before, { archivedAt: archived ? now : null, version: () => 'version + 1' });
    const verb = archived ? 'route.archived' : 'route.restored';
    await recordActivity(tx, { clientId: null, thing: 'route', thingId: routeId, verb, actor: viewer.name, at: now });
    return ok(null);
  });
}

/**
 * Keeps the steps that a route has now, for pieces that were made by them; the same steps are kept once. What is kept first held from the beginning: a
 * route is also counted up where it is archived or brought back.
 */
const keepSteps = (tx: Tx, routeId: string): Promise<unknown> =>
  tx.query(
    `insert into route_versions (route_id, version, steps) 
       select id, case when exists (select 1 from route_versions v where v.route_id = r.id) then version else 1 end, steps from routes r where id = $1
     and steps is distinct from (select v.steps from route_versions v where v.route_id = r.id order by v.version desc limit 1)`,
    [routeId],
  );

/** SQL: steps with the skills' other names, `$2` in the place of `$1`; the client's own steps have none. */
const RENAMED = `(select jsonb_agg(case when n.new is null or e.step ->> 'kind' in ('deliver', 'sign_off') then e.step else jsonb_set(e.step, '{skill}', to_jsonb(n.new)) end order by e.at)
  from jsonb_array_elements(r.steps) with ordinality e (step, at) left join unnest($1::text[], $2::text[]) n (old, new) on n.old = e.step ->> 'skill')`;
const NAMED = `exists (select 1 from jsonb_array_elements(r.steps) e (step) where e.step ->> 'skill' = any($1))`;

/** Skills got other names, all at once, so that two that change places do not become one; also in what routes were before. */
export async function renameSkillsOfRoutes(tx: Tx, from: readonly string[], to: readonly string[]): Promise<void> {
  await tx.query(`update routes r set version = version + 1, steps = ${RENAMED} where ${NAMED}`, [from, to]);
  await tx.query(`update route_versions r set steps = ${RENAMED} where ${NAMED}`, [from, to]);
}

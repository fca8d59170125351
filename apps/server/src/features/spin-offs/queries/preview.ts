import {
  addDays,
  compareInstants,
  getDay,
  getTimeOfDay,
  offsetDay,
  outputTitle,
  ok,
  toInstantAfterGap,
  workingDayOnOrAfter,
  type Day,
  type Result,
  type RouteStep,
} from '@zesting/core';
import type {
  MakeSpinOffsBody,
  OutputBody,
  PreviewedDayShape,
  PreviewedOutputShape,
  SpinOffPreviewShape,
  SpreadOutlookShape,
  SpreadRoleShape,
} from '@zesting/contract';
import type { App } from '../../../platform/app.js';
import { clientKey, daysOff, findRoutes, getDoer, getPlanClient, Outlooks, proposedDoers, type Route } from '../../planning/index.js';
import { Piece } from '../../production/index.js';
import { Spread, type SpreadLine } from '../entities/spread.entity.js';
import { chosenOf, namedBy, type Chosen, type ChosenFailure } from '../use-cases/make-spin-offs.js';

type Failure = ChosenFailure | { code: 'route.unknown' | 'workdays.none_in_reach' | 'plan.circular' | 'time.in_gap' };

/** What would be made from a source by a spread, with its dates and what is late, before anything is. Without outputs, what the spread proposes. */
export async function previewSpinOffs(app: App, pieceId: string, body: MakeSpinOffsBody): Promise<Result<SpinOffPreviewShape, Failure>> {
  const source = await app.manager.findOneByOrFail(Piece, { id: pieceId });
  const spread = await app.manager.findOneBy(Spread, { id: body.spreadId, clientId: source.clientId });
  const outlooks = await Outlooks.load(app);
  const [dated] = await app.read<{ on: string | null }>(
    'select coalesce((select min(on_day) from placements where piece_id = p.id and not cancelled), p.wish_on) as on from pieces p where p.id = $1',
    [pieceId],
  );
  const sourceOn = dated?.on == null ? null : getDay(dated.on);
  const there = await app.read<{ key: string }>('select line_key as key from spin_offs where source_id = $1', [pieceId]);
  const keys = new Set(there.map(({ key }) => key));
  const outputs =
    body.outputs.length > 0 ? body.outputs : (spread?.lines ?? []).map((line) => proposed(outlooks, source.clientId, sourceOn, line));
  const chosen = chosenOf(spread, outputs);
  if (!chosen.ok) return chosen;
  const previewed = await previewEach(app, outlooks, source.clientId, source.title, chosen.value);
  if (!previewed.ok) return previewed;
  const each = previewed.value.map((one) => ({ ...one, isThere: keys.has(one.lineKey) }));
  return ok({ sourceOn, known: there.length, outputs: each, days: await daysAgainst(app, source.clientId, each) });
}

/** So far ahead is looked where no day is said. */
const AHEAD_DAYS = 28;

/** What a spread would come to for a source that is published on a day: each output, and each skill. Nothing is made. */
export async function spreadOutlook(app: App, spreadId: string, asked: Day | null): Promise<Result<SpreadOutlookShape, Failure>> {
  const spread = await app.manager.findOneByOrFail(Spread, { id: spreadId });
  const { clientId } = spread;
  const outlooks = await Outlooks.load(app);
  const ahead = addDays(getPlanClient(outlooks.book, clientId).todayOn, AHEAD_DAYS);
  const working = workingDayOnOrAfter(getDoer(outlooks.book, clientKey(clientId)).calendar, ahead);
  const on = asked ?? (working.ok ? working.value : ahead);
  const chosen: Chosen[] = spread.lines.map((line) => ({ line, output: proposed(outlooks, clientId, on, line) }));
  const free = await Outlooks.load(app); // in which nothing of this is taken yet
  const previewed = await previewEach(app, outlooks, clientId, 'A source', chosen);
  if (!previewed.ok) return previewed;
  const [rate] = await app.read<{ count: number }>(
    `select count(*) from pieces p where p.client_id = $1 and ($2::uuid is null or p.format_id = $2) and p.created_at > $3::timestamptz - interval '84 days'
       and not exists (select 1 from spin_offs s where s.piece_id = p.id)`,
    [clientId, spread.formatId, app.clock.now()],
  );
  const roles = await rolesOf(app, free, clientId, chosen);
  return roles.ok ? ok({ on, outputs: previewed.value, roles: roles.value, perWeek: (rate?.count ?? 0) / 12 }) : roles;
}

/** A line as it is proposed: on the day that its offset says. */
function proposed(outlooks: Outlooks, clientId: string, sourceOn: Day | null, line: SpreadLine): OutputBody {
  const { calendar } = getDoer(outlooks.book, clientKey(clientId));
  const day = sourceOn === null ? null : offsetDay(calendar, sourceOn, line.offset);
  return { lineKey: line.key, name: line.name, on: day?.ok ? day.value : null, fromSecond: null, toSecond: null };
}

/** Each output by its path and by the load; the hours of each are spoken for by the next. */
async function previewEach(
  app: App,
  outlooks: Outlooks,
  clientId: string,
  sourceTitle: string,
  chosen: readonly Chosen[],
): Promise<Result<PreviewedOutputShape[], Failure>> {
  const routes = await routesOf(app, chosen);
  const channels = await app.read<{ id: string; name: string; at: string }>(
    `select h.id, h.name, to_char(coalesce(h.usual_time, c.usual_time), 'HH24:MI') as at from channels h join clients c on c.id = h.client_id where h.client_id = $1`,
    [clientId],
  );
  const formats = new Map((await app.read<{ id: string; name: string }>('select id, name from formats')).map(({ id, name }) => [id, name]));
  const { zone } = getPlanClient(outlooks.book, clientId);
  const all: PreviewedOutputShape[] = [];
  for (const { line, output } of chosen) {
    const route = routes.get(line.routeId);
    if (!route) return { ok: false, failure: { code: 'route.unknown' } };
    const channel = channels.find(({ id }) => id === line.channelId);
    const on = output.on === null ? null : getDay(output.on);
    const reckoned = reckon(outlooks, clientId, route, line, on);
    if (!reckoned.ok) return reckoned;
    const { beginBy, earliestOn, predictedOn, doers } = reckoned.value;
    const isPast = on !== null && compareInstants(toInstantAfterGap(on, getTimeOfDay(channel?.at ?? '23:59'), zone), app.clock.now()) <= 0;
    all.push({
      lineKey: line.key,
      name: output.name,
      title: outputTitle(sourceTitle, output.name),
      channelName: channel?.name ?? null,
      formatName: formats.get(route.format_id) ?? '',
      on,
      at: on === null ? null : (channel?.at ?? null),
      beginBy,
      earliestOn,
      predictedOn,
      standing: on === null ? 'fine' : isPast ? 'past' : earliestOn > on ? 'late' : predictedOn > on ? 'will_be_late' : 'fine',
      doers,
      change: line.change,
      obstacle: line.obstacle,
      isThere: false,
    });
  }
  return ok(all);
}

const routesOf = (app: App, chosen: readonly Chosen[]): Promise<Map<string, Route>> =>
  findRoutes(app.manager, [...new Set(chosen.map(({ line }) => line.routeId))]);

interface Reckoned extends Pick<PreviewedOutputShape, 'doers'> {
  readonly beginBy: Day | null;
  readonly earliestOn: Day;
  readonly predictedOn: Day;
}

function reckon(outlooks: Outlooks, clientId: string, route: Route, line: SpreadLine, on: Day | null): Result<Reckoned, Failure> {
  const { steps } = route;
  const outlook = outlooks.of(steps, clientId, namedBy(line));
  if (!outlook.ok) return outlook as Result<never, Failure>; // what a plan fails by
  const begin = on === null ? ok(null) : outlooks.beginBy(steps, clientId, on);
  if (!begin.ok) return begin as Result<never, Failure>;
  outlooks.take(steps, clientId, namedBy(line));
  const { earliestOn, predictedOn } = outlook.value;
  return ok({ earliestOn, predictedOn, beginBy: begin.value, doers: proposedDoers(outlooks, clientId, steps, outlook.value.steps) });
}

/** What each skill would have to do for one source, and by when. */
async function rolesOf(
  app: App,
  outlooks: Outlooks,
  clientId: string,
  chosen: readonly Chosen[],
): Promise<Result<SpreadRoleShape[], Failure>> {
  const routes = await routesOf(app, chosen);
  const roles = new Map<string, { minutes: number; starts: Day[]; ends: Day[] }>();
  for (const { line, output } of chosen) {
    const steps = (routes.get(line.routeId)?.steps ?? []).filter((step) => step.kind === 'make' || step.kind === 'check');
    const planned = output.on === null ? ok([]) : outlooks.latest(routes.get(line.routeId)?.steps ?? [], clientId, getDay(output.on));
    if (!planned.ok) return planned as Result<never, Failure>;
    const dates = new Map(planned.value.map((step) => [step.id, step]));
    for (const step of steps) addTo(roles, step, dates.get(step.key));
  }
  const { todayOn } = getPlanClient(outlooks.book, clientId);
  return ok(
    [...roles]
      .sort(([a], [b]) => a.localeCompare(b))
      .map(([skill, { minutes, starts, ends }]) => {
        const people = outlooks.able(skill, clientId);
        const finishBy = ends.sort().at(-1) ?? null;
        const until = finishBy === null || finishBy < todayOn ? todayOn : addDays(finishBy, 1);
        return {
          skill,
          minutes,
          beginBy: starts.sort()[0] ?? null,
          finishBy,
          people: people.map(({ name }) => name),
          freeMinutes: outlooks.freeUntil(people, until),
        };
      }),
  );
}

function addTo(
  roles: Map<string, { minutes: number; starts: Day[]; ends: Day[] }>,
  step: RouteStep,
  dates: { readonly latestStartOn: Day | null; readonly latestFinishOn: Day | null } | undefined,
): void {
  const role = roles.get(step.skill) ?? { minutes: 0, starts: [], ends: [] };
  role.minutes += step.effortMinutes;
  if (dates?.latestStartOn) role.starts.push(dates.latestStartOn);
  if (dates?.latestFinishOn) role.ends.push(dates.latestFinishOn);
  roles.set(step.skill, role);
}

/** What speaks against the days of some outputs: closures, holidays, blackouts. */
async function daysAgainst(app: App, clientId: string, outputs: readonly PreviewedOutputShape[]): Promise<PreviewedDayShape[]> {
  const days = [...new Set(outputs.flatMap(({ on }) => on ?? []))].sort();
  const [first, last] = [days[0], days.at(-1)];
  if (first === undefined || last === undefined) return [];
  const { marked, client } = await daysOff(app, { clientId, personId: null }, getDay(first), getDay(last));
  const named = [
    ...marked.filter(({ kind }) => kind === 'blackout'),
    ...(client?.days ?? []).map(({ on, reason: name }) => ({ on, name })),
  ];
  return days.flatMap((on) => {
    const names = [...new Set(named.filter((day) => day.on === on).map(({ name }) => name))];
    return names.length > 0 ? [{ on, names }] : [];
  });
}

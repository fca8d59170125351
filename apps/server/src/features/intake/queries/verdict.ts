import {
  addDays,
  ALIKE,
  dayIn,
  factsMissing,
  fail,
  getDay,
  judge,
  minutesOn,
  ok,
  sharedWords,
  similarity,
  withoutSteps,
  type Answers,
  type BriefFact,
  type Day,
  type FormItem,
  type Result,
  type RouteStep,
  type Sorted,
} from '@zesting/core';
import type { ClashShape, HelpShape, SkillHoursShape, TwinShape, VerdictShape } from '@zesting/contract';
import type { App } from '../../../platform/app.js';
import { daysOff, earliestOfRoute, findRoute, getPlanClient, loadCalendars, type CalendarBook, type Route } from '../../planning/index.js';

interface Row {
  readonly client_id: string;
  readonly title: string;
  readonly items: readonly FormItem[];
  readonly answers: Answers;
  readonly wish_on: string | null;
  readonly takes: Sorted;
}

/** How words ask for a fact, so that all that is missing makes one question. */
const ASKS: Record<BriefFact, string> = {
  about: 'what it is about',
  aim: 'what people should do or feel after seeing it',
  audience: 'who it is for first of all',
  purpose: 'what you ask of them: to know, to come, to buy',
  page: 'the page that they should reach',
  offer: 'the offer that should be mentioned',
  refers: 'which earlier pieces it refers to',
  material: 'the pictures or papers that you have',
};

/**
 * Judges a request by figures: what is missing, whether the wished day can be met and what would help, the hours it takes against the hours that are
 * free, what is alike, and what stands on the wished day.
 * @param asked the route to judge by; without one that which its rules say
 */
export async function verdictOf(
  app: App,
  requestId: string,
  asked: string | null,
): Promise<Result<VerdictShape, { code: 'route.unknown' }>> {
  const now = app.clock.now();
  const [request] = await app.read<Row>('select client_id, title, items, answers, wish_on, takes from requests where id = $1', [requestId]);
  if (!request) throw new Error('the request went away');
  const routeId = asked ?? request.takes.routeId ?? null;
  const route = routeId === null ? null : await findRoute(app.manager, routeId);
  if (route && !route.ok && asked !== null) return fail({ code: 'route.unknown' });
  const taken = route?.ok ? route.value : null;
  const book = await loadCalendars(app.manager, now);
  const client = getPlanClient(book, request.client_id);
  const wishOn = request.wish_on === null ? null : getDay(request.wish_on);
  const earliest = taken && earliestOfRoute(taken, request.client_id, book);
  const earliestOn = earliest?.ok ? earliest.value : null;
  const missing = factsMissing(await needsOf(app, taken), request.items, request.answers);
  const twins = await twinsOf(app, requestId, request, client.zone);
  const clashes = wishOn ? await clashesOn(app, request, wishOn) : [];
  const isLaunch = wishOn !== null && (await isLaunchNear(app, request.client_id, wishOn));
  const [agency] = await app.read<{ notice: number; launch: number }>(
    'select notice_days as notice, launch_notice_days as launch from agencies',
  );
  if (!agency) throw new Error('there is no agency');
  const judged = judge({
    todayOn: client.todayOn,
    wishOn,
    earliestOn,
    missing,
    isLaunch,
    noticeDays: agency.notice,
    launchNoticeDays: agency.launch,
    twins: twins.length,
    clashes: clashes.length,
  });
  return ok({
    ...judged,
    routeId: taken?.id ?? null,
    wishOn,
    earliestOn,
    missing,
    question: missing.length === 0 ? '' : `So that we can begin, please tell us ${listed(missing.map((fact) => ASKS[fact]))}.`,
    isLaunch,
    skills: taken ? await skillHours(app, taken.steps, request.client_id, book, wishOn) : [],
    helps: taken && earliestOn && wishOn && wishOn < earliestOn ? helpsOf(taken, request.client_id, book, earliestOn) : [],
    twins,
    clashes,
  });
}

const listed = (parts: readonly string[]): string =>
  parts.length < 2 ? (parts[0] ?? '') : `${parts.slice(0, -1).join(', ')} and ${parts.at(-1) ?? ''}`;

async function needsOf(app: App, route: Route | null): Promise<readonly BriefFact[]> {
  if (!route) return [];
  const [format] = await app.read<{ needs: BriefFact[] }>('select needs from formats where id = $1', [route.format_id]);
  return format?.needs ?? [];
}

/** Which optional step left out would make an earlier day possible. */
function helpsOf(route: Route, clientId: string, book: CalendarBook, earliestOn: Day): HelpShape[] {
  return route.steps.flatMap((step) => {
    if (!step.optional) return [];
    const without = earliestOfRoute({ ...route, steps: withoutSteps([...route.steps], [step.key]) }, clientId, book);
    return without.ok && without.value < earliestOn ? [{ leaveOut: step.key, title: step.title, earliestOn: without.value }] : [];
  });
}

/** No further ahead than this are free hours reckoned. */
const AHEAD_DAYS = 180;

/** What each skill has to do for a route, and the hours that those who have it have free from today to the wished day, after what is theirs already. */
async function skillHours(
  app: App,
  steps: readonly RouteStep[],
  clientId: string,
  book: CalendarBook,
  wishOn: Day | null,
): Promise<SkillHoursShape[]> {
  const minutes = new Map<string, number>();
  for (const { skill, kind, effortMinutes } of steps)
    if (kind !== 'sign_off') minutes.set(skill, (minutes.get(skill) ?? 0) + effortMinutes);
  const { todayOn } = getPlanClient(book, clientId);
  const horizon = addDays(todayOn, AHEAD_DAYS);
  const until = wishOn === null || wishOn > horizon ? horizon : wishOn;
  const people = await app.read<{ id: string; skills: string[]; open_minutes: number }>(
    `select p.id, array(select jsonb_object_keys(p.skills)) as skills,
       (select coalesce(sum(coalesce(s.remaining_minutes, s.effort_minutes)), 0)::int from steps s join pieces i on i.id = s.piece_id
        where s.doer_id = p.id and s.finished_on is null and not i.shelved and coalesce(s.latest_finish_on, s.predicted_finish_on) < $3::date) as open_minutes
     from people p where p.active and p.skills ?| $1
       and not exists (select 1 from client_people o where o.person_id = p.id and o.client_id = $2 and o.relation = 'barred')`,
    [[...minutes.keys()], clientId, until],
  );
  const freeOf = new Map(people.map(({ id, open_minutes: open }) => [id, Math.max(0, minutesUntil(book, id, until) - open)]));
  return [...minutes].map(([skill, needed]) => {
    const able = people.filter(({ skills }) => skills.includes(skill));
    const free = able.reduce((sum, { id }) => sum + (freeOf.get(id) ?? 0), 0);
    return { skill, minutes: needed, freeMinutes: wishOn === null ? null : free, people: able.length };
  });
}

/** A person's working minutes from their today up to the day before. */
function minutesUntil(book: CalendarBook, personId: string, until: Day): number {
  const doer = book.doers[personId];
  if (!doer) return 0;
  let total = 0;
  for (let day = doer.todayOn; day < until; day = addDays(day, 1)) total += minutesOn(doer.calendar, day);
  return total;
}

/** So many candidates are looked at, so many told. */
const CANDIDATES = 40;
const TOLD = 5;

/**
 * What has a title alike, of the same client: the database finds candidates by the trigram index, core scores and explains.
 * @param zone the client's, whose days are told
 */
async function twinsOf(app: App, requestId: string, request: Row, zone: string): Promise<TwinShape[]> {
  const rows = await app.read<Omit<TwinShape, 'on' | 'likeness' | 'sharedWords'> & { on: string | null; at: string }>(
    `(select 'request' as kind, r.id, r.number, r.title, r.state, null as "formatName", null as "on", r.received_at as at
        from requests r where r.client_id = $1 and r.id <> $3 and r.title_plain % plain_letters($2) and r.state not in ('merged', 'withdrawn')
          and not exists (select 1 from piece_requests b where b.request_id = r.id)
        order by similarity(r.title_plain, plain_letters($2)) desc limit ${CANDIDATES})
     union all
     (select 'piece', p.id, p.number, p.title, p.stage, f.name, p.aim_on::text, p.created_at
        from pieces p join formats f on f.id = p.format_id where p.client_id = $1 and p.title_plain % plain_letters($2)
          and not exists (select 1 from piece_requests b where b.piece_id = p.id and b.request_id = $3)
        order by similarity(p.title_plain, plain_letters($2)) desc limit ${CANDIDATES})`,
    [request.client_id, request.title, requestId],
  );
  return rows
    .map(({ on, at, ...row }) => ({
      ...row,
      on: on ?? dayIn(at, zone),
      likeness: similarity(request.title, row.title),
      sharedWords: sharedWords(request.title, row.title),
    }))
    .filter(({ likeness }) => likeness >= ALIKE)
    .sort((a, b) => b.likeness - a.likeness || (a.on < b.on ? 1 : -1))
    .slice(0, TOLD);
}

/** What stands on a day: the same channel's placements, blackouts and production days, the client's days off. */
async function clashesOn(app: App, request: Row, on: Day): Promise<ClashShape[]> {
  const placements = await app.read<ClashShape>(
    `select 'placement' as kind, c.name || ': ' || p.title as name, p.id as "pieceId" from placements l join pieces p on p.id = l.piece_id
       join channels c on c.id = l.channel_id
     where l.on_day = $2 and l.state <> 'cancelled' and p.client_id = $1 and ($3::uuid[] is null or l.channel_id = any($3)) order by c.name, p.title limit 10`,
    [request.client_id, on, request.takes.channelIds?.length ? request.takes.channelIds : null],
  );
  const { marked, client } = await daysOff(app, { clientId: request.client_id, personId: null }, on, on);
  return [
    ...marked.map(({ kind, name }) => ({ kind, name, pieceId: null })),
    ...(client?.days ?? []).map(({ reason }) => ({ kind: 'day_off' as const, name: reason, pieceId: null })),
    ...placements,
  ];
}

/** Days around a launch that belong to it. */
const NEAR_LAUNCH_DAYS = 7;

const isLaunchNear = async (app: App, clientId: string, on: Day): Promise<boolean> =>
  (
    await app.read(
      "select 1 from markers where client_id = $1 and kind = 'launch' and $2::date between start_on - $3::int and end_on + $3::int limit 1",
      [clientId, on, NEAR_LAUNCH_DAYS],
    )
  ).length > 0;

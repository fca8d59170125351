import {
  addDays,
  factsMissing,
  fail,
  getDay,
  judge,
  ok,
  withoutSteps,
  isByClient,
  type Answers,
  type BriefFact,
  type Day,
  type FormItem,
  type Result,
  type RouteStep,
  type Sorted,
} from '@zesting/core';
import type { HelpShape, SkillHoursShape, VerdictShape } from '@zesting/contract';
import type { App } from '../../../platform/app.js';
import { findRoute, getPlanClient, Outlooks, proposedDoers, type Route } from '../../planning/index.js';
import { allowanceOf } from './allowance.js';
import { clashesOn, isLaunchNear, twinsOf } from './look-alikes.js';

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
  const [request] = await app.read<Row>('select client_id, title, items, answers, wish_on, takes from requests where id = $1', [requestId]);
  if (!request) throw new Error('the request went away');
  const routeId = asked ?? request.takes.routeId ?? null;
  const route = routeId === null ? null : await findRoute(app.manager, routeId);
  if (route && !route.ok && asked !== null) return fail({ code: 'route.unknown' });
  const taken = route?.ok ? route.value : null;
  const outlooks = await Outlooks.load(app);
  const client = getPlanClient(outlooks.book, request.client_id);
  const wishOn = request.wish_on === null ? null : getDay(request.wish_on);
  const reckoned = taken && outlooks.of(taken.steps, request.client_id);
  const outlook = reckoned?.ok ? reckoned.value : null;
  const missing = factsMissing(await needsOf(app, taken), request.items, request.answers);
  const twins = await twinsOf(app, { clientId: request.client_id, title: request.title, requestId, zone: client.zone });
  const clashes = wishOn ? await clashesOn(app, request.client_id, request.takes.channelIds, wishOn) : [];
  const isLaunch = wishOn !== null && (await isLaunchNear(app, request.client_id, wishOn));
  const [agency] = await app.read<{ notice: number; launch: number }>(
    'select notice_days as notice, launch_notice_days as launch from agencies',
  );
  if (!agency) throw new Error('there is no agency');
  const judged = judge({
    todayOn: client.todayOn,
    wishOn,
    earliestOn: outlook?.earliestOn ?? null,
    predictedOn: outlook?.predictedOn ?? null,
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
    earliestOn: outlook?.earliestOn ?? null,
    predictedOn: outlook?.predictedOn ?? null,
    beginBy: taken && wishOn ? beginBy(outlooks, taken, request.client_id, wishOn) : null,
    missing,
    question: missing.length === 0 ? '' : `So that we can begin, please tell us ${listed(missing.map((fact) => ASKS[fact]))}.`,
    isLaunch,
    skills: taken ? skillHours(outlooks, taken.steps, request.client_id, wishOn) : [],
    helps:
      taken && outlook && wishOn && wishOn < outlook.predictedOn ? helpsOf(outlooks, taken, request.client_id, outlook.predictedOn) : [],
    doers: taken && outlook ? proposedDoers(outlooks, request.client_id, taken.steps, outlook.steps) : [],
    allowance: await allowanceOf(app, request.client_id, wishOn ?? client.todayOn, taken),
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

const beginBy = (outlooks: Outlooks, route: Route, clientId: string, wishOn: Day): Day | null => {
  const by = outlooks.beginBy(route.steps, clientId, wishOn);
  return by.ok ? by.value : null;
};

/** Nobody works longer on a day of theirs when it is asked how few days a step could take. */
const DAY_MINUTES = 480;
const HELPS = 4;

/** What would bring the day nearer: an optional step left out, or a step in as few days as its work takes; what helps most first. */
function helpsOf(outlooks: Outlooks, route: Route, clientId: string, predictedOn: Day): HelpShape[] {
  const help = (step: RouteStep, spanDays: number | null, steps: readonly RouteStep[]): HelpShape[] => {
    const then = outlooks.of(steps, clientId);
    return then.ok && then.value.predictedOn < predictedOn
      ? [{ stepKey: step.key, title: step.title, spanDays, predictedOn: then.value.predictedOn }]
      : [];
  };
  const helps = route.steps.flatMap((step) => {
    const fewest = Math.max(1, Math.ceil(step.effortMinutes / DAY_MINUTES));
    return [
      ...(step.optional ? help(step, null, withoutSteps([...route.steps], [step.key])) : []),
      ...(!isByClient(step.kind) && fewest < step.spanDays
        ? help(
            step,
            fewest,
            route.steps.map((one) => (one.key === step.key ? { ...one, spanDays: fewest } : one)),
          )
        : []),
    ];
  });
  return helps.sort((a, b) => (a.predictedOn < b.predictedOn ? -1 : a.predictedOn > b.predictedOn ? 1 : 0)).slice(0, HELPS);
}

/** No further ahead than this are free hours reckoned. */
const AHEAD_DAYS = 180;

/** What each skill has to do for a route, and the hours that those who have it have free from today to the wished day, after what is predicted to take them. */
function skillHours(outlooks: Outlooks, steps: readonly RouteStep[], clientId: string, wishOn: Day | null): SkillHoursShape[] {
  const minutes = new Map<string, number>();
  for (const { skill, kind, effortMinutes } of steps) if (!isByClient(kind)) minutes.set(skill, (minutes.get(skill) ?? 0) + effortMinutes);
  const horizon = addDays(getPlanClient(outlooks.book, clientId).todayOn, AHEAD_DAYS);
  const until = wishOn === null || wishOn > horizon ? horizon : wishOn;
  return [...minutes].map(([skill, needed]) => {
    const able = outlooks.able(skill, clientId);
    return { skill, minutes: needed, freeMinutes: wishOn === null ? null : outlooks.freeUntil(able, until), people: able.length };
  });
}

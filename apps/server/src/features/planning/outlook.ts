import {
  addDays,
  countWorkingDays,
  fitSteps,
  freeMinutes,
  ok,
  planPiece,
  TakenHours,
  toDayNumber,
  toInstantAfterGap,
  isByClient,
  type Day,
  type FittedStep,
  type PlanInput,
  type PlannedStep,
  type PlanStep,
  type Result,
  type RouteStep,
} from '@zesting/core';
import type { EarliestShape, FeasibilityShape, ProposedDoerShape } from '@zesting/contract';
import type { App } from '../../platform/app.js';
import { AGENCY_KEY, clientKey, getDoer, getPlanClient, loadCalendars, type CalendarBook } from './calendars.js';
import { takenHours } from './predict.js';
import { findRoute } from './routes.js';

/** How soon a path could bring something out for a client. */
export interface Outlook {
  /** by the path and the calendars alone, with work begun today */
  readonly earliestOn: Day;
  /** after all that is taken on already, as its load is predicted */
  readonly predictedOn: Day;
  /** who would do which step, and when; none where a step never gets its hours */
  readonly steps: readonly FittedStep[];
}

/** Who does a skill at one piece, by its name. */
export type Named = Readonly<Record<string, string>>;

interface PersonRow {
  readonly id: string;
  readonly name: string;
  readonly skills: readonly string[];
}

/** What new work would come to, for any client: everybody's calendar, the hours that are spoken for, and who can do what. */
export class Outlooks {
  private constructor(
    readonly book: CalendarBook,
    private readonly taken: TakenHours,
    private readonly names: ReadonlyMap<string, string>,
    /** by skill */
    private readonly skilled: ReadonlyMap<string, readonly PersonRow[]>,
    /** by client, then person */
    private readonly related: ReadonlyMap<string, ReadonlyMap<string, 'own' | 'barred'>>,
    /** who usually does a skill for a client, by `teamKey` */
    private readonly team: ReadonlyMap<string, string>,
  ) {}

  static async load(app: App): Promise<Outlooks> {
    const [book, taken, people, related, team] = await Promise.all([
      loadCalendars(app.manager, app.clock.now()),
      takenHours(app),
      app.read<PersonRow>(
        'select id, name, array(select key from jsonb_each(skills) where value::text::int > 0) as skills from people where active order by name, id',
      ),
      app.read<{ client_id: string; person_id: string; relation: 'own' | 'barred' }>(
        "select client_id, person_id, relation from client_people where relation in ('own', 'barred')",
      ),
      app.read<{ client_id: string; skill: string; person_id: string }>('select client_id, skill, person_id from client_team'),
    ]);
    const skilled = new Map<string, PersonRow[]>();
    for (const person of people)
      for (const skill of person.skills) {
        const able = skilled.get(skill);
        if (able) able.push(person);
        else skilled.set(skill, [person]);
      }
    const byClient = new Map<string, Map<string, 'own' | 'barred'>>();
    for (const { client_id: clientId, person_id: personId, relation } of related) {
      const ofClient = byClient.get(clientId) ?? new Map<string, 'own' | 'barred'>();
      byClient.set(clientId, ofClient.set(personId, relation));
    }
    const usual = new Map(team.map((row) => [teamKey(row.client_id, row.skill), row.person_id]));
    // what is taken here is spoken for here alone
    return new Outlooks(book, new TakenHours([], taken), new Map(people.map(({ id, name }) => [id, name])), skilled, byClient, usual);
  }

  /** Who could do steps of a skill for a client: the client's own first, none that is barred. */
  able(skill: string, clientId: string): readonly PersonRow[] {
    const able = this.skilled.get(skill) ?? [];
    const related = this.related.get(clientId);
    if (!related) return able;
    const own = able.filter(({ id }) => related.get(id) === 'own');
    return [...own, ...able.filter(({ id }) => !related.has(id))];
  }

  /** Who usually does steps of a skill for a client, where they can. */
  usual(skill: string, clientId: string): string | undefined {
    const personId = this.team.get(teamKey(clientId, skill));
    return this.able(skill, clientId).some(({ id }) => id === personId) ? personId : undefined;
  }

  /** How soon the steps could bring something out for a client. A step that nobody can do has whoever comes, as if hours were no question. */
  of(steps: readonly RouteStep[], clientId: string, named: Named = {}): Result<Outlook> {
    const plan = planPiece({ ...this.publishing(clientId), steps: planSteps(steps, clientId) });
    if (!plan.ok) return plan;
    const { earliestPublishOn: earliestOn } = plan.value;
    const fitted = this.fit(steps, clientId, named);
    return ok({
      earliestOn,
      predictedOn: fitted.ok && fitted.value.publishOn > earliestOn ? fitted.value.publishOn : earliestOn,
      steps: fitted.ok ? fitted.value.steps : [],
    });
  }

  /** Who usually does each step, else who would end it first; their hours are spoken for from then on. Steps that nobody of the agency can do are left out. */
  take(steps: readonly RouteStep[], clientId: string, named: Named = {}): readonly FittedStep[] {
    const fitted = this.fit(steps, clientId, named);
    if (!fitted.ok) return [];
    for (const { doer, on, minutes } of fitted.value.spent) this.taken.add(doer, toDayNumber(on), minutes);
    return fitted.value.steps.filter(({ doer }) => this.nameOf(doer) !== undefined);
  }

  private fit(steps: readonly RouteStep[], clientId: string, named: Named) {
    return fitSteps({
      ...this.publishing(clientId),
      taken: this.taken,
      steps: steps.map((step) => ({
        ...pathOf(step),
        effortMinutes: step.effortMinutes,
        candidates: this.candidates(step, clientId, named),
      })),
    });
  }

  /** The last day on which work can begin for the wished day, by the path and the calendars. */
  beginBy(steps: readonly RouteStep[], clientId: string, wishOn: Day): Result<Day | null> {
    const planned = this.latest(steps, clientId, wishOn);
    return planned.ok ? ok(planned.value.flatMap(({ latestStartOn }) => latestStartOn ?? []).sort()[0] ?? null) : planned;
  }

  /** The last days on which each step, by its key, can begin and end for the wished day. */
  latest(steps: readonly RouteStep[], clientId: string, wishOn: Day): Result<readonly PlannedStep[]> {
    const publishing = this.publishing(clientId);
    const aims = publishing.slots.map(({ at, leadDays }) => ({
      publishAt: toInstantAfterGap(wishOn, at, publishing.publishZone),
      leadDays,
    }));
    const plan = planPiece({ ...publishing, aims, steps: planSteps(steps, clientId) });
    return plan.ok ? ok(plan.value.steps) : plan;
  }

  /** The minutes that people have left from their today up to the day before, after what is spoken for. */
  freeUntil(people: readonly { readonly id: string }[], until: Day): number {
    let free = 0;
    for (const { id } of people) {
      const doer = getDoer(this.book, id);
      for (let day = doer.todayOn; day < until; day = addDays(day, 1)) free += freeMinutes(id, doer, this.taken, toDayNumber(day));
    }
    return free;
  }

  nameOf(personId: string): string | undefined {
    return this.names.get(personId);
  }

  private candidates(step: RouteStep, clientId: string, named: Named): string[] {
    if (isByClient(step.kind)) return [clientKey(clientId)];
    const usual = this.able(step.skill, clientId).find(({ id }) => id === named[step.skill])?.id ?? this.usual(step.skill, clientId);
    if (usual !== undefined) return [usual];
    const able = this.able(step.skill, clientId).map(({ id }) => id);
    return able.length > 0 ? able : [AGENCY_KEY];
  }

  private publishing(clientId: string): Pick<PlanInput, 'doers' | 'publishZone' | 'todayOn' | 'slots'> {
    const { zone, todayOn, usualTime } = getPlanClient(this.book, clientId);
    return { doers: this.book.doers, publishZone: zone, todayOn, slots: [{ at: usualTime, leadDays: 0 }] };
  }
}

/**
 * The earliest day on which each of some ways of making could bring something out for a client, by path and calendars alone, with work begun today;
 * null where somebody on it never works. Load is not asked.
 */
export async function earliestByPath(app: App, clientId: string, paths: readonly (readonly RouteStep[])[]): Promise<(Day | null)[]> {
  const book = await loadCalendars(app.manager, app.clock.now(), new Set([clientId]));
  const { zone: publishZone, todayOn, usualTime } = getPlanClient(book, clientId);
  return paths.map((steps) => {
    const plan = planPiece({
      doers: book.doers,
      publishZone,
      todayOn,
      slots: [{ at: usualTime, leadDays: 0 }],
      steps: planSteps(steps, clientId),
    });
    return plan.ok ? plan.value.earliestPublishOn : null;
  });
}

const pathOf = ({ key, spanDays, sameDay, after }: RouteStep) => ({ id: key, spanDays, sameDay: sameDay ?? false, predecessorIds: after });

/** The steps with nobody assigned yet. */
const planSteps = (steps: readonly RouteStep[], clientId: string): PlanStep[] =>
  steps.map((step) => ({ ...pathOf(step), doer: isByClient(step.kind) ? clientKey(clientId) : AGENCY_KEY }));

const teamKey = (clientId: string, skill: string): string => `${clientId} ${skill}`;

/** Who would do each step: whoever usually does, else whoever is predicted to end it first. As it is told to the team. */
export const proposedDoers = (
  outlooks: Outlooks,
  clientId: string,
  path: readonly RouteStep[],
  steps: readonly FittedStep[],
): ProposedDoerShape[] =>
  steps.flatMap(({ id, doer, startOn, finishOn }) => {
    const name = outlooks.nameOf(doer);
    const step = path.find(({ key }) => key === id);
    const isUsual = step !== undefined && outlooks.usual(step.skill, clientId) === doer;
    return name && step ? [{ title: step.title, name, isUsual, startOn, finishOn }] : [];
  });

/** What a route would allow a client: how soon, and the working time that it adds. */
export async function feasibilityOf(app: App, clientId: string, routeId: string): Promise<Result<FeasibilityShape>> {
  const route = await findRoute(app.manager, routeId);
  if (!route.ok) return route;
  const outlooks = await Outlooks.load(app);
  const outlook = outlooks.of(route.value.steps, clientId);
  if (!outlook.ok) return outlook;
  const { earliestOn, predictedOn, steps } = outlook.value;
  const doers = proposedDoers(outlooks, clientId, route.value.steps, steps);
  return ok({
    routeId,
    earliestOn,
    predictedOn,
    doers,
    effortMinutes: route.value.steps.reduce((sum, step) => sum + step.effortMinutes, 0),
  });
}

/** How soon a route is predicted to bring something out for a client, and what it takes: no person and no other client is named. */
export async function earliestOf(app: App, clientId: string, routeId: string): Promise<Result<EarliestShape>> {
  const route = await findRoute(app.manager, routeId);
  if (!route.ok) return route;
  const outlooks = await Outlooks.load(app);
  const outlook = outlooks.of(route.value.steps, clientId);
  if (!outlook.ok) return outlook;
  const { earliestOn: pathOn, predictedOn } = outlook.value;
  const { calendar, todayOn } = getDoer(outlooks.book, clientKey(clientId));
  return ok({ earliestOn: predictedOn, pathOn, steps: route.value.steps.length, days: countWorkingDays(calendar, todayOn, pathOn) });
}

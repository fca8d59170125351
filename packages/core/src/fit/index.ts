import { earliestPublishAfter, type PlanDoer, type PublishSlot } from '../backplan/index.js';
import { inOrder, type Graph } from '../graph/index.js';
import { fail, ok, type Result } from '../result/index.js';
import { fromDayNumber, toDayNumber, type Day } from '../time/index.js';
import { moveWorkingNumber, REACH_DAYS, seekWorkingNumber } from '../workdays/index.js';
import type { LoadDay } from '../workload/index.js';

/** A step that nobody has yet, and those who could have it. */
export interface FitStep {
  readonly id: string;
  /** whole working days of the doer, start and finish both counted; at least 1 */
  readonly spanDays: number;
  readonly effortMinutes: number;
  /** may start on the day its predecessors finish */
  readonly sameDay?: boolean;
  readonly predecessorIds: readonly string[];
  /** keys of those who could do it, whoever is to be preferred first; at least one */
  readonly candidates: readonly string[];
}

export interface FitInput {
  readonly steps: readonly FitStep[];
  readonly doers: Readonly<Record<string, PlanDoer>>;
  /** the hours that are spoken for */
  readonly taken: TakenHours;
  /** as `planPiece` has them */
  readonly publishZone: string;
  readonly todayOn: Day;
  readonly slots: readonly PublishSlot[];
}

export interface FittedStep {
  readonly id: string;
  readonly doer: string;
  readonly startOn: Day;
  readonly finishOn: Day;
}

export interface Fitted {
  /** in the order given */
  readonly steps: readonly FittedStep[];
  /** the hours that the steps take, of those whose hours are limited */
  readonly spent: readonly LoadDay[];
  /** the first publish date that all steps allow, in the client's zone */
  readonly publishOn: Day;
}

/** A step that nobody ever has hours for, or steps that wait for each other in a ring. */
export type FitFailure = { readonly code: 'fit.no_hours' | 'plan.circular'; readonly detail: { readonly stepId: string } };

/** Minutes that are spoken for, by doer and day. */
export class TakenHours {
  private readonly minutes = new Map<string, Map<number, number>>();

  /** @param under hours that are spoken for beside these; they are not changed */
  constructor(
    load: readonly LoadDay[] = [],
    private readonly under?: TakenHours,
  ) {
    for (const { doer, on, minutes } of load) this.add(doer, toDayNumber(on), minutes);
  }

  add(doer: string, day: number, minutes: number): void {
    const days = this.minutes.get(doer) ?? new Map<number, number>();
    days.set(day, (days.get(day) ?? 0) + minutes);
    this.minutes.set(doer, days);
  }

  on(doer: string, day: number): number {
    return (this.minutes.get(doer)?.get(day) ?? 0) + (this.under?.on(doer, day) ?? 0);
  }
}

/** A doer's minutes on a day that nothing has taken. */
export function freeMinutes(key: string, doer: PlanDoer, taken: TakenHours, day: number): number {
  const hours = doer.calendar.minutesOnNumber(day);
  return doer.unlimited ? hours : Math.max(0, hours - taken.on(key, day));
}

interface Offer {
  readonly key: string;
  readonly start: number;
  readonly finish: number;
  /** by day */
  readonly spent: readonly (readonly [day: number, minutes: number])[];
}

const PATH: Graph<FitStep> = { idOf: (step) => step.id, beforeOf: (step) => step.predecessorIds };

/**
 * Fits the steps of new work into the hours that everybody has left: nothing that is taken on already is moved. Each step, in the order of the path,
 * goes to the candidate who ends it first (of equals the one named first); it ends at the later of effort done and span elapsed, as the prediction of
 * load reckons. Say "predicted", never "impossible": who is given the work, and in which order, is for people to decide.
 * @throws Error when a step names a doer that is not there, or nobody
 */
export function fitSteps({ steps, doers, taken, publishZone, todayOn, slots }: FitInput): Result<Fitted, FitFailure> {
  const sorted = inOrder(PATH, steps);
  if ('ring' in sorted) return fail({ code: 'plan.circular', detail: { stepId: sorted.ring.id } });
  const spoken = new TakenHours([], taken);
  const fitted = new Map<string, Offer>();
  for (const step of sorted.order) {
    if (step.candidates.length === 0) throw new Error(`nobody could do ${step.id}`);
    let best: Offer | undefined;
    for (const key of step.candidates) {
      const doer = doers[key];
      if (!doer) throw new Error(`no doer ${key}`);
      best = offerOf(step, key, doer, spoken, availableFrom(step, doer, fitted), best?.finish ?? Infinity) ?? best;
    }
    if (!best) return fail({ code: 'fit.no_hours', detail: { stepId: step.id } });
    for (const [day, minutes] of best.spent) spoken.add(best.key, day, minutes);
    fitted.set(step.id, best);
  }
  const isFollowed = new Set(steps.flatMap((step) => step.predecessorIds));
  const ends = steps.flatMap(({ id }) => {
    const { key, finish } = fitted.get(id) as Offer; // every step was fitted
    const doer = doers[key];
    return isFollowed.has(id) || !doer ? [] : [{ id, doer, finishOn: fromDayNumber(finish) }];
  });
  const publish = earliestPublishAfter({ ends, publishZone, todayOn, slots });
  if (!publish.ok) return fail({ code: 'fit.no_hours', detail: publish.failure.detail });
  return ok({
    publishOn: publish.value,
    spent: [...fitted.values()].flatMap(({ key, spent }) =>
      spent.map(([day, minutes]) => ({ doer: key, on: fromDayNumber(day), minutes })),
    ),
    steps: steps.map(({ id }) => {
      const { key, start, finish } = fitted.get(id) as Offer; // every step was fitted
      return { id, doer: key, startOn: fromDayNumber(start), finishOn: fromDayNumber(finish) };
    }),
  });
}

/** The first day on which a step may be worked on. */
function availableFrom(step: FitStep, doer: PlanDoer, fitted: ReadonlyMap<string, Offer>): number {
  let from = toDayNumber(doer.todayOn) + (doer.todayCounts ? 0 : 1);
  for (const id of step.predecessorIds) {
    const before = fitted.get(id);
    if (before) from = Math.max(from, before.finish + (step.sameDay ? 0 : 1));
  }
  return from;
}

/** When a candidate would begin and end a step; undefined where that is no sooner than `limit`, or never. */
function offerOf(step: FitStep, key: string, doer: PlanDoer, taken: TakenHours, from: number, limit: number): Offer | undefined {
  const spent: [number, number][] = [];
  let left = step.effortMinutes;
  let start: number | undefined;
  let worked = from;
  for (let day = from; day <= from + REACH_DAYS && day < limit; day++) {
    // what takes no hours begins on a day that is worked, however full it is
    const free = left === 0 ? doer.calendar.minutesOnNumber(day) : freeMinutes(key, doer, taken, day);
    if (free <= 0) continue;
    start ??= day;
    worked = day;
    const minutes = Math.min(left, free);
    if (minutes > 0 && !doer.unlimited) spent.push([day, minutes]);
    left -= minutes;
    if (left === 0) break;
  }
  if (start === undefined || left > 0) return undefined;
  const first = seekWorkingNumber(doer.calendar, start, 1);
  const bySpan = first === undefined ? undefined : moveWorkingNumber(doer.calendar, first, step.spanDays - 1);
  if (bySpan === undefined) return undefined;
  const finish = Math.max(worked, bySpan);
  return finish < limit ? { key, start, finish, spent } : undefined;
}

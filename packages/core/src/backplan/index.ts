import { followersOf, inOrder, type Graph } from '../graph/index.js';
import { fail, ok, type Result } from '../result/index.js';
import { dayIn, fromDayNumber, toDayNumber, toInstantAfterGap, type Day, type InstantText, type TimeOfDay } from '../time/index.js';
import { moveWorkingNumber, REACH_DAYS, seekWorkingNumber, type WorkCalendar } from '../workdays/index.js';

/** One who does steps, as planning sees them. */
export interface PlanDoer {
  readonly calendar: WorkCalendar;
  readonly zone: string;
  /** the doer's local date now */
  readonly todayOn: Day;
  /** false once the agency's cut-off has passed: work that is not begun starts tomorrow at the earliest */
  readonly todayCounts: boolean;
  /** steps do not compete for its hours: a client, or nobody yet; only `workload` asks */
  readonly unlimited?: boolean;
}

export interface PlanStep {
  readonly id: string;
  /** key into the doers */
  readonly doer: string;
  /** whole working days of the doer, start and finish both counted; at least 1 */
  readonly spanDays: number;
  /** may start on the day its predecessors finish */
  readonly sameDay?: boolean;
  readonly predecessorIds: readonly string[];
  readonly startedOn?: Day | null;
  readonly finishedOn?: Day | null;
  /** a latest finish set by hand; it stays, and a conflict shows */
  readonly pinnedFinishOn?: Day | null;
  /** when the prediction of load across all pieces says that it ends; see `workload` */
  readonly predictedFinishOn?: Day | null;
}

/** When one placement is to be published: its instant, and its channel's lead in further working days. */
export interface Aim {
  readonly publishAt: InstantText;
  readonly leadDays: number;
}

/** When a channel publishes on whatever day it does: its time of day in the client's zone, and its lead in further working days. */
export interface PublishSlot {
  readonly at: TimeOfDay;
  readonly leadDays: number;
}

export interface PlanInput {
  readonly steps: readonly PlanStep[];
  readonly doers: Readonly<Record<string, PlanDoer>>;
  /** one for each placement that is not out yet; none: the piece is undated */
  readonly aims?: readonly Aim[];
  /** the client's zone and date now, and when its channels publish: the earliest date that can be met is reckoned with these */
  readonly publishZone: string;
  readonly todayOn: Day;
  readonly slots: readonly PublishSlot[];
  /** slack up to which an open step counts as tight; default 0 */
  readonly tightDays?: number;
}

/** Danger words, most dangerous first. *will be late* follows from `predictedFinishOn`, which planning one piece cannot give by itself. */
export type Danger = 'overdue' | 'out_of_reach' | 'will_be_late' | 'tight' | 'fine';
export const DANGERS: readonly Danger[] = ['overdue', 'out_of_reach', 'will_be_late', 'tight', 'fine'];

/** What sets a date: the aim, today, the step's own start, a pin, or a neighbouring step. */
export type HeldBy = { readonly by: 'aim' | 'today' | 'start' | 'pin' } | { readonly by: 'step'; readonly stepId: string };

export interface PlannedStep {
  readonly id: string;
  readonly latestStartOn: Day | null;
  readonly latestFinishOn: Day | null;
  /** what sets the latest finish; null without an aim date */
  readonly latestHeldBy: HeldBy | null;
  readonly earliestStartOn: Day;
  readonly earliestFinishOn: Day;
  readonly earliestHeldBy: HeldBy;
  /** the doer's working days between earliest and latest finish; null when done or undated */
  readonly slackDays: number | null;
  readonly danger: Danger | null;
  readonly critical: boolean;
  /** a pinned date that cannot hold: on a day off, or after what follows needs it */
  readonly conflict: 'pin_on_day_off' | 'pin_after_successor' | null;
}

export interface Plan {
  readonly steps: readonly PlannedStep[];
  /** least slack of the open steps; null when none is open or no aim is set */
  readonly slackDays: number | null;
  readonly danger: Danger | null;
  /** the earliest publish date that all open steps allow, in the client's zone */
  readonly earliestPublishOn: Day;
}

/** A doer without working days, or steps that wait for each other in a ring. */
export type PlanFailure =
  | { readonly code: 'workdays.none_in_reach'; readonly detail: { readonly stepId: string } }
  | { readonly code: 'plan.circular'; readonly detail: { readonly stepId: string } };

interface Bounds {
  start: number;
  finish: number;
  heldBy: HeldBy;
}

const PATH: Graph<PlanStep> = { idOf: (step) => step.id, beforeOf: (step) => step.predecessorIds };

class NoWorkingDay extends Error {
  constructor(readonly stepId: string) {
    super('no working day in reach');
  }
}

const must = (number: number | undefined, stepId: string): number => {
  if (number === undefined) throw new NoWorkingDay(stepId);
  return number;
};

/** The doer's local date of the publish instant. */
const publishNumber = (doer: PlanDoer, publishAt: InstantText): number => toDayNumber(dayIn(publishAt, doer.zone));

/** The latest finish that the aims leave to a last step: strictly before each date, its lead earlier still; the earliest of these counts. */
const finishBefore = (doer: PlanDoer, aims: readonly Aim[], stepId: string): number =>
  Math.min(...aims.map((aim) => must(moveWorkingNumber(doer.calendar, publishNumber(doer, aim.publishAt), -1 - aim.leadDays), stepId)));

/**
 * Plans one piece: backwards from the aim date for the latest dates, forwards from today and from what happened for the earliest.
 * Dates are each doer's local dates and compare as plain dates. A finished step keeps the dates on which it was done and has no latest ones;
 * without steps, or once all are finished, the earliest date that can be met is today.
 * @throws RangeError when a span is not a whole number of days from 1 on
 * @returns one planned step per step, in the order given; `workdays.none_in_reach` or `plan.circular` otherwise
 * @see Kelley & Walker 1959, Critical-Path Planning and Scheduling
 */
export function planPiece(input: PlanInput): Result<Plan, PlanFailure> {
  for (const { id, spanDays } of input.steps)
    if (!Number.isInteger(spanDays) || spanDays < 1) throw new RangeError(`step ${id} has a span of ${spanDays} days`);
  const sorted = inOrder(PATH, input.steps);
  if ('ring' in sorted) return fail({ code: 'plan.circular', detail: { stepId: sorted.ring.id } });
  try {
    return ok(planSorted(input, sorted.order));
  } catch (error) {
    if (error instanceof NoWorkingDay) return fail({ code: 'workdays.none_in_reach', detail: { stepId: error.stepId } });
    throw error;
  }
}

function planSorted(input: PlanInput, order: readonly PlanStep[]): Plan {
  const doerOf = (step: PlanStep): PlanDoer => {
    const doer = input.doers[step.doer];
    if (!doer) throw new Error(`no doer ${step.doer}`);
    return doer;
  };
  const earliest = planForwards(order, doerOf);
  const latest = planBackwards(order, doerOf, input.aims ?? []);
  const raw = input.steps.map((step) => assess(step, doerOf(step), bounds(earliest, step.id), latest.get(step.id), input.tightDays ?? 0));
  const open = raw.flatMap((step) => (step.slackDays === null ? [] : [step.slackDays]));
  const slackDays = open.length > 0 ? Math.min(...open) : null;
  const steps = raw.map((step) => ({ ...step, critical: step.slackDays !== null && step.slackDays === slackDays }));
  const dangers = new Set(steps.map((step) => step.danger));
  return {
    steps,
    slackDays,
    danger: DANGERS.find((danger) => dangers.has(danger)) ?? null,
    earliestPublishOn: fromDayNumber(earliestPublish(input, order, doerOf, earliest)),
  };
}

const bounds = (map: ReadonlyMap<string, Bounds>, id: string): Bounds => {
  const found = map.get(id);
  if (!found) throw new Error(`step ${id} was not planned`);
  return found;
};

function planForwards(order: readonly PlanStep[], doerOf: (step: PlanStep) => PlanDoer): Map<string, Bounds> {
  const planned = new Map<string, Bounds>();
  for (const step of order) {
    const doer = doerOf(step);
    const today = toDayNumber(doer.todayOn);
    if (step.finishedOn) {
      const finish = toDayNumber(step.finishedOn);
      planned.set(step.id, { start: step.startedOn ? toDayNumber(step.startedOn) : finish, finish, heldBy: { by: 'start' } });
      continue;
    }
    if (step.startedOn) {
      // it goes on today whatever the hour, and its span counts from the first day that is worked
      const start = toDayNumber(step.startedOn);
      const first = must(seekWorkingNumber(doer.calendar, start, 1), step.id);
      const bySpan = must(moveWorkingNumber(doer.calendar, first, step.spanDays - 1), step.id);
      const byToday = must(seekWorkingNumber(doer.calendar, today, 1), step.id);
      planned.set(step.id, { start, finish: Math.max(bySpan, byToday), heldBy: bySpan >= byToday ? { by: 'start' } : { by: 'today' } });
      continue;
    }
    let start = must(seekWorkingNumber(doer.calendar, doer.todayCounts ? today : today + 1, 1), step.id);
    let heldBy: HeldBy = { by: 'today' };
    for (const id of step.predecessorIds) {
      const before = planned.get(id);
      if (!before) continue;
      const ready = must(seekWorkingNumber(doer.calendar, before.finish + (step.sameDay ? 0 : 1), 1), step.id);
      if (ready > start) {
        start = ready;
        heldBy = { by: 'step', stepId: id };
      }
    }
    planned.set(step.id, { start, finish: must(moveWorkingNumber(doer.calendar, start, step.spanDays - 1), step.id), heldBy });
  }
  return planned;
}

function planBackwards(
  order: readonly PlanStep[],
  doerOf: (step: PlanStep) => PlanDoer,
  aims: readonly Aim[],
): Map<string, Bounds & { natural: number }> {
  const planned = new Map<string, Bounds & { natural: number }>();
  if (aims.length === 0) return planned;
  const successors = openSuccessorsOf(order);
  for (const step of order.filter((one) => !one.finishedOn).reverse()) {
    const doer = doerOf(step);
    let natural = Infinity;
    let heldBy: HeldBy = { by: 'aim' };
    for (const next of successors.get(step.id) ?? []) {
      const nextStart = bounds(planned, next.id).start;
      const finish = must(seekWorkingNumber(doer.calendar, next.sameDay ? nextStart : nextStart - 1, -1), step.id);
      if (finish < natural) {
        natural = finish;
        heldBy = { by: 'step', stepId: next.id };
      }
    }
    if (natural === Infinity) natural = finishBefore(doer, aims, step.id);
    const pin = step.pinnedFinishOn ? toDayNumber(step.pinnedFinishOn) : undefined;
    const finish = pin ?? natural;
    const worked = must(seekWorkingNumber(doer.calendar, finish, -1), step.id);
    const start = must(moveWorkingNumber(doer.calendar, worked, -(step.spanDays - 1)), step.id);
    planned.set(step.id, { start, finish, natural, heldBy: pin === undefined ? heldBy : { by: 'pin' } });
  }
  return planned;
}

/** The open steps that come next after each step, through finished ones where need be. */
function openSuccessorsOf(order: readonly PlanStep[]): Map<string, PlanStep[]> {
  const successors = followersOf(PATH, order);
  const open = new Map<string, PlanStep[]>();
  for (const step of [...order].reverse()) {
    const next = (successors.get(step.id) ?? []).flatMap((one) => (one.finishedOn ? (open.get(one.id) ?? []) : [one]));
    open.set(step.id, [...new Set(next)]);
  }
  return open;
}

/** Working days after `from` up to and including `to`; negative the other way round. What lies beyond ten years is not counted. */
function workingDaysAfter(calendar: WorkCalendar, from: number, to: number): number {
  let count = 0;
  const last = Math.min(Math.max(from, to), Math.min(from, to) + REACH_DAYS);
  for (let n = Math.min(from, to) + 1; n <= last; n++) if (calendar.minutesOnNumber(n) > 0) count++;
  return to >= from ? count : -count;
}

function assess(
  step: PlanStep,
  doer: PlanDoer,
  earliest: Bounds,
  latest: (Bounds & { natural: number }) | undefined,
  tightDays: number,
): PlannedStep {
  const open = !step.finishedOn;
  const slackDays = open && latest ? workingDaysAfter(doer.calendar, earliest.finish, latest.finish) : null;
  return {
    id: step.id,
    latestStartOn: latest ? fromDayNumber(latest.start) : null,
    latestFinishOn: latest ? fromDayNumber(latest.finish) : null,
    latestHeldBy: latest?.heldBy ?? null,
    earliestStartOn: fromDayNumber(earliest.start),
    earliestFinishOn: fromDayNumber(earliest.finish),
    earliestHeldBy: earliest.heldBy,
    slackDays,
    danger: slackDays === null || !latest ? null : dangerOf(step, latest.finish, toDayNumber(doer.todayOn), slackDays, tightDays),
    critical: false,
    conflict: pinConflict(step, doer, latest),
  };
}

function dangerOf(step: PlanStep, latestFinish: number, today: number, slackDays: number, tightDays: number): Danger {
  if (latestFinish < today) return 'overdue';
  if (slackDays < 0) return 'out_of_reach';
  if (step.predictedFinishOn && toDayNumber(step.predictedFinishOn) > latestFinish) return 'will_be_late';
  return slackDays <= tightDays ? 'tight' : 'fine';
}

function pinConflict(step: PlanStep, doer: PlanDoer, latest: (Bounds & { natural: number }) | undefined): PlannedStep['conflict'] {
  if (!step.pinnedFinishOn || step.finishedOn) return null;
  const pin = toDayNumber(step.pinnedFinishOn);
  if (doer.calendar.minutesOnNumber(pin) <= 0) return 'pin_on_day_off';
  return latest && pin > latest.natural ? 'pin_after_successor' : null;
}

/** The first publish date, today or later, whose latest finishes the last open steps can keep. Publishing may fall on any day. */
function earliestPublish(
  input: PlanInput,
  order: readonly PlanStep[],
  doerOf: (step: PlanStep) => PlanDoer,
  earliest: ReadonlyMap<string, Bounds>,
): number {
  const successors = openSuccessorsOf(order);
  const last = order.filter((step) => !step.finishedOn && successors.get(step.id)?.length === 0);
  return publishAfter(
    input,
    last.map((step) => ({ id: step.id, doer: doerOf(step), finish: bounds(earliest, step.id).finish })),
  );
}

function publishAfter(
  { todayOn, publishZone, slots }: Pick<PlanInput, 'todayOn' | 'publishZone' | 'slots'>,
  ends: readonly { readonly id: string; readonly doer: PlanDoer; readonly finish: number }[],
): number {
  let publish = toDayNumber(todayOn);
  for (const { id, doer, finish } of ends) {
    publish = Math.max(publish, finish - ZONES_APART_DAYS);
    for (const slot of slots) {
      const needed = must(moveWorkingNumber(doer.calendar, finish, slot.leadDays), id);
      while (publishNumberOn(doer, publish, slot, publishZone) <= needed) publish++;
    }
  }
  return publish;
}

/** The first publish date, today or later, that follows the ends of the last steps, by whichever way these were reckoned. */
export function earliestPublishAfter(
  input: Pick<PlanInput, 'todayOn' | 'publishZone' | 'slots'> & {
    readonly ends: readonly { readonly id: string; readonly doer: PlanDoer; readonly finishOn: Day }[];
  },
): Result<Day, Extract<PlanFailure, { code: 'workdays.none_in_reach' }>> {
  try {
    const ends = input.ends.map(({ id, doer, finishOn }) => ({ id, doer, finish: toDayNumber(finishOn) }));
    return ok(fromDayNumber(publishAfter(input, ends)));
  } catch (error) {
    if (error instanceof NoWorkingDay) return fail({ code: 'workdays.none_in_reach', detail: { stepId: error.stepId } });
    throw error;
  }
}

/** Two zones' dates never lie further apart: what is published today there may be two dates away here. */
const ZONES_APART_DAYS = 2;

/** The date in the doer's zone of a publish date in the client's, at a channel's time of day. */
function publishNumberOn(doer: PlanDoer, publish: number, slot: PublishSlot, publishZone: string): number {
  if (doer.zone === publishZone) return publish;
  return publishNumber(doer, toInstantAfterGap(fromDayNumber(publish), slot.at, publishZone));
}

import type { LineDoerShape, LineRowShape, LineStepShape, PathChangeBody } from '@zesting/contract';
import {
  addDays,
  dayIn,
  daysBetween,
  getDay,
  getTimeOfDay,
  isWorkingDay,
  planPiece,
  timeIn,
  toDayNumber,
  toInstantAfterGap,
  weekdayOfNumber,
  countWorkingDays,
  type Aim,
  type Danger,
  type Day,
  type InstantText,
  type PlanDoer,
  type PlanStep,
} from '@zesting/core';
import type { Axis, Hold } from '../../../lib/axis';

/** Somebody who does steps, by what the server tells of their days. */
export function doerOf({ zone, todayOn, todayCounts, weeklyMinutes, days }: LineDoerShape): PlanDoer {
  const differs = new Map(days.map(({ on, minutes }) => [toDayNumber(getDay(on)), minutes]));
  const calendar = { minutesOnNumber: (number: number) => differs.get(number) ?? weeklyMinutes[weekdayOfNumber(number) - 1] ?? 0 };
  return { calendar, zone, todayOn: getDay(todayOn), todayCounts };
}

/** A step as it is drawn: work from one day to another, and the days that are left behind it. */
export interface Bar extends Axis {
  readonly step: LineStepShape;
  /** the last day by which it must end; null where it is done, or no date is set */
  readonly untilOn: Day | null;
  /** which of the rows side by side it stands on, from 0 */
  readonly lane: number;
}

/**
 * The bars of a piece that are seen. Open ones stand on the first lane that is free on their days: in turn they share one, side by side they do not. What
 * is done is drawn thin, and takes no lane.
 */
export function barsOf(steps: readonly LineStepShape[], axis: Axis): Bar[] {
  const ends: Day[] = [];
  return steps
    .map((step) => ({ step, ...periodOf(step) }))
    .map((bar) => ({
      ...bar,
      untilOn: bar.step.finishedOn === null && bar.step.latestFinishOn !== null ? getDay(bar.step.latestFinishOn) : null,
    }))
    .filter(({ fromOn, toOn, untilOn }) => fromOn <= axis.toOn && (untilOn !== null && untilOn > toOn ? untilOn : toOn) >= axis.fromOn)
    .sort((a, b) => (a.fromOn < b.fromOn ? -1 : a.fromOn > b.fromOn ? 1 : 0))
    .map((bar) => {
      if (bar.step.finishedOn !== null) return { ...bar, lane: 0 };
      const free = ends.findIndex((end) => end < bar.fromOn);
      const lane = free < 0 ? ends.length : free;
      ends[lane] = bar.toOn;
      return { ...bar, lane };
    });
}

/** The days of a step: as it was done, else as it is predicted, else as its path allows. */
function periodOf(step: LineStepShape): Axis {
  const start = step.startedOn ?? step.predictedStartOn ?? step.earliestStartOn;
  const finish = step.finishedOn ?? step.predictedFinishOn ?? step.earliestFinishOn;
  return { fromOn: getDay(start), toOn: getDay(finish < start ? start : finish) };
}

/** What a drag asks for. */
export type LineChange =
  | { readonly kind: 'pin'; readonly stepId: string; readonly finishOn: Day }
  | { readonly kind: 'span'; readonly stepId: string; readonly spanDays: number }
  /** of a placement; without one, the wish date */
  | { readonly kind: 'publish'; readonly placementId: string | null; readonly on: Day };

/** The working day that is nearest in the way that was dragged, not before today. */
function workedDay(doer: PlanDoer, on: Day, way: number): Day {
  let day = on < doer.todayOn ? doer.todayOn : on;
  for (let tries = 0; tries < 400 && !isWorkingDay(doer.calendar, day); tries++)
    day = addDays(day, day === doer.todayOn || way > 0 ? 1 : -1);
  return day < doer.todayOn ? doer.todayOn : day;
}

/** What it means that a bar was dragged by so many days: the whole pins its finish, its end gives it another span. Null: nothing. */
export function changeOf(bar: Bar, doer: PlanDoer, hold: Hold, days: number): LineChange | null {
  const { step, fromOn, toOn } = bar;
  if (days === 0 || step.finishedOn !== null) return null;
  if (hold === 'end') {
    const end = addDays(toOn, days) < fromOn ? fromOn : addDays(toOn, days);
    const spanDays = Math.max(1, Math.min(60, countWorkingDays(doer.calendar, fromOn, end)));
    return spanDays === step.spanDays ? null : { kind: 'span', stepId: step.id, spanDays };
  }
  const from = step.pinnedFinishOn === null ? toOn : getDay(step.pinnedFinishOn);
  const finishOn = workedDay(doer, addDays(from, days), days);
  return finishOn === step.pinnedFinishOn ? null : { kind: 'pin', stepId: step.id, finishOn };
}

/** What a change would make of a piece, before it is made. */
export interface LineOutcome {
  readonly danger: Danger | null;
  /** steps that would be in more danger than they are, with the day by which each would have to end */
  readonly worse: readonly { readonly title: string; readonly danger: Danger; readonly untilOn: Day | null }[];
  /** by step: the day by which it would have to end */
  readonly untilOn: ReadonlyMap<string, Day | null>;
  /** the finish that is pinned comes later than what follows allows */
  readonly isTooLate: boolean;
}

const ORDER: readonly (Danger | null)[] = ['overdue', 'out_of_reach', 'will_be_late', 'tight', 'fine', null];

/** Plans a piece with a change in it, where it is drawn: nobody waits for an answer while they drag. Undefined: it cannot be planned. */
export function outcomeOf(
  row: LineRowShape,
  doers: ReadonlyMap<string, PlanDoer>,
  tightDays: number,
  change: LineChange | null,
): LineOutcome | undefined {
  const plan = planPiece({
    publishZone: row.plan.publishZone,
    todayOn: getDay(row.plan.todayOn),
    slots: row.plan.slots.map(({ at, leadDays }) => ({ at: getTimeOfDay(at), leadDays })),
    aims: aimsOf(row, change),
    tightDays,
    steps: row.steps.map((step) => asPlanned(step, change)),
    doers: Object.fromEntries(doers),
  });
  if (!plan.ok) return undefined;
  const steps = new Map(row.steps.map((step) => [step.id, step]));
  return {
    danger: plan.value.danger,
    worse: plan.value.steps.flatMap(({ id, danger, latestFinishOn }) => {
      const step = steps.get(id);
      if (!step || danger === null) return [];
      return ORDER.indexOf(danger) < ORDER.indexOf(step.danger) ? [{ title: step.title, danger, untilOn: latestFinishOn }] : [];
    }),
    isTooLate: plan.value.steps.some(
      ({ id, conflict }) => change !== null && change.kind === 'pin' && change.stepId === id && conflict === 'pin_after_successor',
    ),
    untilOn: new Map(plan.value.steps.map(({ id, latestFinishOn }) => [id, latestFinishOn])),
  };
}

const dayOf = (on: string | null): Day | null => (on === null ? null : getDay(on));

function asPlanned(step: LineStepShape, change: LineChange | null): PlanStep {
  const isIt = change !== null && change.kind !== 'publish' && change.stepId === step.id;
  return {
    id: step.id,
    doer: step.doer,
    spanDays: isIt && change.kind === 'span' ? change.spanDays : step.spanDays,
    sameDay: step.sameDay,
    predecessorIds: step.predecessorIds,
    startedOn: dayOf(step.startedOn),
    finishedOn: dayOf(step.finishedOn),
    pinnedFinishOn: isIt && change.kind === 'pin' ? change.finishOn : dayOf(step.pinnedFinishOn),
    // with another span the prediction is another, and nobody knows it yet
    predictedFinishOn: isIt && change.kind === 'span' ? null : dayOf(step.predictedFinishOn),
  };
}

/** The aims of a piece, with the day of one that is moved. */
function aimsOf(row: LineRowShape, change: LineChange | null): Aim[] {
  const { publishZone } = row.plan;
  const aims = row.plan.aims.map(({ publishAt, leadDays }) => ({ publishAt: publishAt as InstantText, leadDays })); // as the server stores them
  if (change?.kind !== 'publish') return aims;
  const move = ({ publishAt, leadDays }: Aim): Aim => ({
    publishAt: toInstantAfterGap(change.on, getTimeOfDay(timeIn(publishAt, publishZone)), publishZone),
    leadDays,
  });
  if (aims.length === 0)
    return row.plan.slots.map(({ at, leadDays }) => ({ publishAt: toInstantAfterGap(change.on, getTimeOfDay(at), publishZone), leadDays }));
  const was = change.placementId === null ? null : row.placements.find(({ id }) => id === change.placementId)?.on;
  return aims.map((aim) => (was === null || dayIn(aim.publishAt, publishZone) === was ? move(aim) : aim));
}

/** The change of a path that a drag of a step asks for. */
export function bodyOf(change: Exclude<LineChange, { kind: 'publish' }>, step: LineStepShape): PathChangeBody {
  const { id: stepId, version } = step;
  return change.kind === 'pin'
    ? { kind: 'pin', stepId, version, finishOn: change.finishOn }
    : { kind: 'retime', stepId, version, spanDays: change.spanDays, effortMinutes: step.effortMinutes };
}

/** What takes it back: the step as it was, at the version that follows. */
export function backOf(change: Exclude<LineChange, { kind: 'publish' }>, step: LineStepShape): PathChangeBody {
  const after = { stepId: step.id, version: step.version + 1 };
  return change.kind === 'pin'
    ? { kind: 'pin', ...after, finishOn: step.pinnedFinishOn }
    : { kind: 'retime', ...after, spanDays: step.spanDays, effortMinutes: step.effortMinutes };
}

/** The days between two on which a doer is off. */
export function offDays(doer: PlanDoer, { fromOn, toOn }: Axis): Day[] {
  return Array.from({ length: Math.max(0, daysBetween(fromOn, toOn) + 1) }, (_, index) => addDays(fromOn, index)).filter(
    (day) => !isWorkingDay(doer.calendar, day),
  );
}

import fc from 'fast-check';
import type { PlanDoer } from '../backplan/index.js';
import { addDays, fromDayNumber, getDay, toDayNumber } from '../time/index.js';
import { moveWorkingNumber, seekWorkingNumber, toCalendar } from '../workdays/index.js';
import { predictWorkload, type LoadDay, type Prediction, type WorkloadInput, type WorkloadStep } from './index.js';

// The same prediction told in the plainest way, as a model for the quick one.

interface Job {
  readonly step: WorkloadStep;
  readonly doer: PlanDoer;
  readonly due: number;
  readonly position: number;
  readonly next: Job[];
  /** predecessors that are not finished */
  waitsFor: number;
  /** first day on which it may be worked on, as far as known */
  availableFrom: number;
  left: number;
  start: number | null;
  spanEnd: number | null;
  finish: number | null;
  workedOn: number | null;
  readonly behind: Set<string>;
}

const REACH_DAYS = 3653;

/** The whole queue is walked on every day: slow, and plain to see. */
function plainPrediction({ steps, doers, until }: WorkloadInput): Prediction {
  const jobs = toJobs(steps, doers);
  const waiting = new Map<number, Job[]>();
  const release = (job: Job) => push(waiting, job.availableFrom, job);
  for (const job of jobs.values()) if (job.waitsFor === 0) release(job);
  const desks = new Map<string, Desk>();
  const load: LoadDay[] = [];
  let open = jobs.size;
  const asked = until === undefined ? undefined : jobs.get(until);
  const first = Math.min(...[...jobs.values()].map((job) => job.availableFrom));
  for (
    let today = first;
    open > 0 && (asked?.finish ?? null) === null && today <= first + REACH_DAYS && (waiting.size > 0 || hasWork(desks));
    today++
  ) {
    const busy = new Set<Desk>();
    const arrive = (job: Job) => {
      const desk = desks.get(job.step.doer) ?? new Desk(job.step.doer, job.doer);
      desks.set(job.step.doer, desk);
      desk.add(job);
      busy.add(desk);
    };
    for (const job of waiting.get(today) ?? []) arrive(job);
    waiting.delete(today);
    for (const desk of desks.values()) if (desk.queue.length > 0) busy.add(desk);
    // what is handed on to work of the same day comes back to a desk within the day: take desks until none has anything new
    for (const desk of busy) {
      busy.delete(desk);
      for (const done of desk.work(today)) {
        open--;
        for (const job of done.next) {
          job.availableFrom = Math.max(job.availableFrom, today + (job.step.sameDay ? 0 : 1));
          if (--job.waitsFor > 0) continue;
          if (job.availableFrom <= today) arrive(job);
          else release(job);
        }
      }
    }
    for (const desk of desks.values())
      if (desk.spent(today) > 0) load.push({ doer: desk.key, on: fromDayNumber(today), minutes: desk.spent(today) });
  }
  return {
    steps: [...jobs.values()].map(({ step, start, finish, behind }) => ({
      id: step.id,
      startOn: start === null ? null : fromDayNumber(start),
      finishOn: finish === null ? null : fromDayNumber(finish),
      behindSteps: behind.size,
    })),
    load: load.sort((a, b) => a.doer.localeCompare(b.doer) || a.on.localeCompare(b.on)),
  };
}

const hasWork = (desks: ReadonlyMap<string, Desk>): boolean => [...desks.values()].some((desk) => desk.queue.length > 0);

function push<K, V>(map: Map<K, V[]>, key: K, value: V): void {
  const list = map.get(key);
  if (list) list.push(value);
  else map.set(key, [value]);
}

/** The last day of a span that counts from the first working day on or after `start`; never, where there are too few. */
function spanEnd(doer: PlanDoer, start: number, spanDays: number): number {
  const first = seekWorkingNumber(doer.calendar, start, 1);
  return (first === undefined ? undefined : moveWorkingNumber(doer.calendar, first, spanDays - 1)) ?? Infinity;
}

/** What stands before each open step: earlier finishes that are known, and how many are not. */
function toJobs(steps: readonly WorkloadStep[], doers: WorkloadInput['doers']): Map<string, Job> {
  const jobs = new Map<string, Job>();
  for (const [position, step] of steps.entries()) {
    if (step.finishedOn) continue;
    const doer = doers[step.doer];
    if (!doer) throw new Error(`no doer ${step.doer}`);
    const start = step.startedOn ? toDayNumber(step.startedOn) : null;
    const today = toDayNumber(doer.todayOn);
    jobs.set(step.id, {
      step,
      doer,
      due: step.latestFinishOn === null ? Infinity : toDayNumber(step.latestFinishOn),
      position,
      next: [],
      waitsFor: 0,
      // what is begun goes on today whatever the hour
      availableFrom: start === null && !doer.todayCounts ? today + 1 : today,
      left: step.effortMinutes,
      start,
      spanEnd: start === null ? null : spanEnd(doer, start, step.spanDays),
      finish: null,
      workedOn: null,
      behind: new Set(),
    });
  }
  const finished = new Map(steps.flatMap((step) => (step.finishedOn ? [[step.id, toDayNumber(step.finishedOn)] as const] : [])));
  for (const job of jobs.values()) {
    if (job.start !== null) continue; // begun work goes on, whatever stood before it
    for (const id of job.step.predecessorIds) {
      const before = jobs.get(id);
      before?.next.push(job);
      if (before) job.waitsFor++;
      const end = finished.get(id);
      if (end !== undefined) job.availableFrom = Math.max(job.availableFrom, end + (job.step.sameDay ? 0 : 1));
    }
  }
  return jobs;
}

/** One doer's work: what is available to them, in the order to do it. */
class Desk {
  readonly queue: Job[] = [];
  private today = -Infinity;
  private hours = 0;
  private room = 0;

  constructor(
    readonly key: string,
    private readonly doer: PlanDoer,
  ) {}

  add(job: Job): void {
    const at = this.queue.findIndex((other) => comesBefore(job, other));
    this.queue.splice(at < 0 ? this.queue.length : at, 0, job);
  }

  /** Minutes worked that day; none where hours are not limited. */
  spent(today: number): number {
    return this.doer.unlimited || this.today !== today ? 0 : this.hours - this.room;
  }

  /** Works through the queue as far as the day's hours go. Returns what ended; may be called again on the same day. */
  work(today: number): Job[] {
    if (this.today !== today) {
      this.today = today;
      this.hours = this.doer.calendar.minutesOnNumber(today);
      this.room = this.hours;
    }
    if (this.hours <= 0) return [];
    const served: string[] = [];
    const ended: Job[] = [];
    for (const job of this.queue) {
      const had = job.left;
      this.give(job, today);
      if (job.left < had) served.push(job.step.id);
      if (job.left > 0 && !this.doer.unlimited) for (const id of served) if (id !== job.step.id) job.behind.add(id);
      if (job.left === 0 && job.spanEnd !== null && today >= job.spanEnd) {
        job.finish = today;
        ended.push(job);
      }
    }
    for (const job of ended) this.queue.splice(this.queue.indexOf(job), 1);
    return ended;
  }

  /** Gives a step what it needs of what is left of the day, and begins it when it gets any. */
  private give(job: Job, today: number): void {
    const minutes = this.doer.unlimited ? (job.workedOn === today ? 0 : Math.min(job.left, this.hours)) : Math.min(job.left, this.room);
    if (minutes > 0) {
      job.left -= minutes;
      job.workedOn = today;
      if (!this.doer.unlimited) this.room -= minutes;
    }
    if (job.start !== null || (minutes === 0 && job.left > 0)) return;
    job.start = today;
    job.spanEnd = spanEnd(this.doer, today, job.step.spanDays);
  }
}

/** The order of work: by latest finish, then what is begun, then as given. */
function comesBefore(a: Job, b: Job): boolean {
  if (a.due !== b.due) return a.due < b.due;
  if ((a.start === null) !== (b.start === null)) return a.start !== null;
  return a.position < b.position;
}

const MONDAY = getDay('2027-03-01');

/** A few people with odd weeks, a client without limit, and pieces of steps that wait for each other, some begun, some finished. */
const inputs: fc.Arbitrary<WorkloadInput> = fc
  .record({
    weeks: fc.array(fc.array(fc.constantFrom(0, 120, 240, 480), { minLength: 7, maxLength: 7 }), { minLength: 3, maxLength: 3 }),
    todayCounts: fc.boolean(),
    pieces: fc.array(
      fc.array(
        fc.record({
          doer: fc.constantFrom('a', 'b', 'c', 'client'),
          spanDays: fc.integer({ min: 1, max: 3 }),
          effortMinutes: fc.constantFrom(0, 30, 90, 480, 1000),
          due: fc.option(fc.integer({ min: -2, max: 12 })),
          sameDay: fc.boolean(),
          begun: fc.boolean(),
          joins: fc.boolean(),
        }),
        { minLength: 1, maxLength: 4 },
      ),
      { minLength: 1, maxLength: 8 },
    ),
  })
  .map(({ weeks, todayCounts, pieces }) => {
    const doer = (weeklyMinutes: readonly number[], unlimited = false): PlanDoer => ({
      calendar: toCalendar({ weeklyMinutes }),
      zone: 'Europe/London',
      todayOn: MONDAY,
      todayCounts,
      unlimited,
    });
    const [a = [], b = [], c = []] = weeks;
    const steps = pieces.flatMap((piece, number) =>
      piece.map<WorkloadStep>(({ due, begun, joins, ...step }, index) => ({
        ...step,
        id: `${number} ${index}`,
        predecessorIds: index === 0 || !joins ? [] : [`${number} ${index - 1}`],
        latestFinishOn: due === null ? null : addDays(MONDAY, due),
        startedOn: begun && index === 0 ? addDays(MONDAY, -1) : null,
      })),
    );
    return { doers: { a: doer(a), b: doer(b), c: doer(c), client: doer([480, 480, 480, 480, 480, 0, 0], true) }, steps };
  });

describe('the prediction of load', () => {
  it('is what the plain way gives, step by step and day by day', () => {
    fc.assert(
      fc.property(inputs, (input) => {
        expect(predictWorkload(input)).toEqual(plainPrediction(input));
      }),
      { numRuns: 400 },
    );
  });

  it('up to a day is the same as of the whole, as far as that day', () => {
    fc.assert(
      fc.property(inputs, fc.integer({ min: 0, max: 15 }), (input, days) => {
        const untilOn = addDays(MONDAY, days);
        const [part, whole] = [predictWorkload({ ...input, untilOn }), predictWorkload(input)];
        expect(part.load).toEqual(whole.load.filter(({ on }) => on <= untilOn));
        for (const [index, step] of part.steps.entries()) {
          const known = whole.steps[index]?.finishOn ?? null;
          expect(step.finishOn).toBe(known !== null && known <= untilOn ? known : null);
        }
      }),
    );
  });
});

import type { PlanDoer, PlanStep } from '../backplan/index.js';
import { fromDayNumber, toDayNumber, type Day } from '../time/index.js';
import { moveWorkingNumber, seekWorkingNumber } from '../workdays/index.js';

/** An open or finished step of any piece, as the prediction sees it. */
export interface WorkloadStep extends Omit<PlanStep, 'pinnedFinishOn'> {
  /** hands-on minutes that remain; 0 for work that only takes its span */
  readonly effortMinutes: number;
  /** sets the order of work: the earlier, the sooner; null comes last */
  readonly latestFinishOn: Day | null;
  /** something stands in its way until the end of this day: it is worked on from the next on, also where it is begun */
  readonly blockedUntilOn?: Day | null;
}

export interface WorkloadInput {
  /** of all pieces; where latest finishes are equal, begun work goes first, then the order given here */
  readonly steps: readonly WorkloadStep[];
  readonly doers: Readonly<Record<string, PlanDoer>>;
  /** hours that are spoken for by what is no step, from each doer's today on: duties go first, and count as load. Several rows of one day add up */
  readonly taken?: readonly LoadDay[];
  /** id of the one step that is asked about: reckoned no further than its end, and others are null that end later */
  readonly until?: string;
  /** the last day that is reckoned: what is not done by its end is null */
  readonly untilOn?: Day;
}

export interface PredictedStep {
  readonly id: string;
  /** the day on which work is predicted to begin, or did; null where it never can */
  readonly startOn: Day | null;
  readonly finishOn: Day | null;
  /** how many steps of the same doer, due earlier, take the hours that it waits for */
  readonly behindSteps: number;
}

/** Predicted minutes of one doer on one day. Their load there is this divided by that day's minutes in their calendar. */
export interface LoadDay {
  readonly doer: string;
  readonly on: Day;
  readonly minutes: number;
}

export interface Prediction {
  /** one for each step that is not finished, in the order given */
  readonly steps: readonly PredictedStep[];
  /** by doer, then day; without those who are not limited */
  readonly load: readonly LoadDay[];
}

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
  /** the turn of its doer from which on it waited */
  arrived: number;
  behind: number;
}

/** Ten years: what is not done by then is predicted never to be. */
const REACH_DAYS = 3653;

/**
 * Predicts, day by day, when every open step of all pieces ends, by the hours of those who do them. Each day each doer works on the steps
 * available to them, by earliest latest-finish; a step is available on the working day after its predecessors' predicted finish (on that day,
 * where flagged *same day*), and ends at the later of effort done and span elapsed. A doer that is `unlimited` (a client, or nobody yet) works
 * on all its steps at once.
 *
 * For one person, whole days and given releases, no order gives a smaller largest lateness; across persons it is a heuristic. Say
 * "predicted", never "impossible".
 * @throws Error when a step names a doer that is not there
 * @see Horn 1974, Some Simple Scheduling Algorithms (preemptive earliest due date with release dates)
 */
export function predictWorkload({ steps, doers, taken = [], until, untilOn }: WorkloadInput): Prediction {
  const jobs = toJobs(steps, doers);
  const duties = takenBy(taken, doers);
  const waiting = new Map<number, Job[]>();
  const release = (job: Job) => push(waiting, job.availableFrom, job);
  for (const job of jobs.values()) if (job.waitsFor === 0) release(job);
  const desks = new Map<string, Desk>();
  const load: { doer: string; on: Day; minutes: number }[] = [];
  let open = jobs.size;
  const asked = until === undefined ? undefined : jobs.get(until);
  let first = Infinity;
  for (const job of jobs.values()) first = Math.min(first, job.availableFrom);
  // the same for a part of the work as for the whole
  const reach = Math.min(...Object.values(doers).map((doer) => toDayNumber(doer.todayOn))) + REACH_DAYS;
  const end = untilOn === undefined ? reach : Math.min(reach, toDayNumber(untilOn));
  for (let today = first; open > 0 && (asked?.finish ?? null) === null && today <= end && (waiting.size > 0 || hasWork(desks)); today++) {
    const busy = new Set<Desk>();
    const arrive = (job: Job) => {
      const desk = desks.get(job.step.doer) ?? new Desk(job.step.doer, job.doer, duties.get(job.step.doer));
      desks.set(job.step.doer, desk);
      desk.add(job);
      busy.add(desk);
    };
    for (const job of waiting.get(today) ?? []) arrive(job);
    waiting.delete(today);
    for (const desk of desks.values()) if (desk.hasWork) busy.add(desk);
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
  for (const desk of desks.values()) desk.countLeft();
  for (const row of load) row.minutes += duties.get(row.doer)?.get(toDayNumber(row.on)) ?? 0;
  const worked = new Set(load.map(({ doer, on }) => `${doer} ${on}`));
  for (const [key, days] of duties)
    for (const [number, minutes] of days) {
      const on = fromDayNumber(number);
      if (!worked.has(`${key} ${on}`)) load.push({ doer: key, on, minutes });
    }
  return {
    steps: [...jobs.values()].map(({ step, start, finish, behind }) => ({
      id: step.id,
      startOn: start === null ? null : fromDayNumber(start),
      finishOn: finish === null ? null : fromDayNumber(finish),
      behindSteps: behind,
    })),
    load: load.sort((a, b) => (a.doer < b.doer ? -1 : a.doer > b.doer ? 1 : 0) || (a.on < b.on ? -1 : 1)),
  };
}

function hasWork(desks: ReadonlyMap<string, Desk>): boolean {
  for (const desk of desks.values()) if (desk.hasWork) return true;
  return false;
}

function push<K, V>(map: Map<K, V[]>, key: K, value: V): void {
  const list = map.get(key);
  if (list) list.push(value);
  else map.set(key, [value]);
}

/** Minutes that duties take, by doer and day number: no more than the day has. Those of who is not limited take nothing. */
function takenBy(taken: readonly LoadDay[], doers: WorkloadInput['doers']): Map<string, Map<number, number>> {
  const all = new Map<string, Map<number, number>>();
  for (const { doer: key, on, minutes } of taken) {
    const doer = doers[key];
    if (!doer || doer.unlimited) continue;
    const days = all.get(key) ?? new Map<number, number>();
    all.set(key, days);
    const number = toDayNumber(on);
    const sum = Math.min(doer.calendar.minutesOnNumber(number), (days.get(number) ?? 0) + minutes);
    if (sum > 0) days.set(number, sum);
  }
  return all;
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
    // what is begun goes on today whatever the hour
    const from = start === null && !doer.todayCounts ? today + 1 : today;
    jobs.set(step.id, {
      step,
      doer,
      due: step.latestFinishOn === null ? Infinity : toDayNumber(step.latestFinishOn),
      position,
      next: [],
      waitsFor: 0,
      availableFrom: step.blockedUntilOn ? Math.max(from, toDayNumber(step.blockedUntilOn) + 1) : from,
      left: step.effortMinutes,
      start,
      spanEnd: start === null ? null : spanEnd(doer, start, step.spanDays),
      finish: null,
      workedOn: null,
      arrived: 0,
      behind: 0,
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
  /** what still needs hours, in the order of work */
  private readonly queue: Job[] = [];
  /** what needs no more hours, and waits for its span to pass */
  private readonly resting: Job[] = [];
  private readonly served = new ServedLog();
  private today = -Infinity;
  private hours = 0;
  private room = 0;
  /** what of the day is left for steps */
  private first = 0;

  constructor(
    readonly key: string,
    private readonly doer: PlanDoer,
    /** minutes of each day that are spoken for */
    private readonly taken: ReadonlyMap<number, number> | undefined,
  ) {}

  get hasWork(): boolean {
    return this.queue.length > 0 || this.resting.length > 0;
  }

  add(job: Job): void {
    job.arrived = this.served.ticks + 1;
    if (job.left === 0) this.resting.push(job);
    else this.queue.splice(placeOf(job, this.queue), 0, job);
  }

  /** Minutes worked on steps that day; none where hours are not limited. */
  spent(today: number): number {
    return this.doer.unlimited || this.today !== today ? 0 : this.first - this.room;
  }

  /** Works through the queue as far as the day's hours go. Returns what ended; may be called again on the same day. */
  work(today: number): Job[] {
    if (this.today !== today) {
      this.today = today;
      this.hours = this.doer.calendar.minutesOnNumber(today);
      this.room = this.hours - (this.taken?.get(today) ?? 0);
      this.first = this.room;
    }
    if (this.hours <= 0) return [];
    if (this.doer.unlimited) this.workOnAll(today);
    else this.workInTurn(today);
    const ended: Job[] = [];
    for (let index = 0; index < this.resting.length;) {
      const job = this.resting[index] as Job; // within the list
      this.begin(job, today);
      if (today < (job.spanEnd ?? Infinity)) {
        index++;
        continue;
      }
      job.finish = today;
      ended.push(job);
      this.resting.splice(index, 1);
    }
    return ended.sort((one, other) => (comesBefore(one, other) ? -1 : 1));
  }

  /** Hours are not limited: every step gets a day's worth. */
  private workOnAll(today: number): void {
    for (let index = 0; index < this.queue.length;) {
      const job = this.queue[index] as Job; // within the list
      if (job.workedOn !== today) this.give(job, Math.min(job.left, this.hours), today);
      if (job.left > 0) index++;
      else this.rest(index);
    }
  }

  /** The first of the queue gets what it needs, then the next, until the day is full. Who gets nothing is not even looked at. */
  private workInTurn(today: number): void {
    this.served.nextTick();
    while (this.room > 0) {
      const job = this.queue[0];
      if (!job) break;
      const minutes = Math.min(job.left, this.room);
      this.room -= minutes;
      this.give(job, minutes, today);
      this.served.note(job);
      if (job.left > 0) break;
      job.behind = this.served.others(job, job.arrived, this.served.ticks - 1);
      this.rest(0);
    }
  }

  /** How many steps went first of those that never got all the hours that they need. */
  countLeft(): void {
    if (!this.doer.unlimited) for (const job of this.queue) job.behind = this.served.others(job, job.arrived, this.served.ticks);
  }

  private give(job: Job, minutes: number, today: number): void {
    job.left -= minutes;
    job.workedOn = today;
    this.begin(job, today);
  }

  private begin(job: Job, today: number): void {
    if (job.start !== null) return;
    job.start = today;
    job.spanEnd = spanEnd(this.doer, today, job.step.spanDays);
  }

  private rest(index: number): void {
    this.resting.push(...this.queue.splice(index, 1));
  }
}

/** Which steps got hours, turn by turn: so that it can be said how many others went first while one waited. */
class ServedLog {
  ticks = 0;
  private readonly turns: { readonly tick: number; readonly job: Job; readonly before: number }[] = [];
  private readonly last = new Map<Job, number>();

  nextTick(): void {
    this.ticks++;
  }

  note(job: Job): void {
    this.turns.push({ tick: this.ticks, job, before: this.last.get(job) ?? 0 });
    this.last.set(job, this.ticks);
  }

  /** How many different steps but `self` got hours from one turn to another, both counted: each where it was served first in that time. */
  others(self: Job, from: number, to: number): number {
    let [low, high] = [0, this.turns.length];
    while (low < high) {
      const middle = (low + high) >> 1;
      if ((this.turns[middle]?.tick ?? Infinity) < from) low = middle + 1;
      else high = middle;
    }
    let count = 0;
    for (let index = low; index < this.turns.length; index++) {
      const turn = this.turns[index];
      if (!turn || turn.tick > to) break;
      if (turn.before < from && turn.job !== self) count++;
    }
    return count;
  }
}

/** Where a step stands in a queue that is in order. */
function placeOf(job: Job, queue: readonly Job[]): number {
  let [low, high] = [0, queue.length];
  while (low < high) {
    const middle = (low + high) >> 1;
    if (comesBefore(job, queue[middle] as Job)) high = middle;
    else low = middle + 1;
  }
  return low;
}

/** The order of work: by latest finish, then what is begun, then as given. */
function comesBefore(a: Job, b: Job): boolean {
  if (a.due !== b.due) return a.due < b.due;
  if ((a.start === null) !== (b.start === null)) return a.start !== null;
  return a.position < b.position;
}

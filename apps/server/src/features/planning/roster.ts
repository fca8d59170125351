import {
  addDays,
  costOf,
  endsOf,
  getDay,
  laterOf,
  lateBy,
  predictWorkload,
  proposeDoers,
  quickRoster,
  rosterModel,
  standing,
  valueOfRoster,
  type Day,
  type DueWork,
  type LatePieces,
  type RosterDoer,
  type RosterModel,
  type RosterTask,
  type RosterWay,
  type StaffStep,
} from '@zesting/core';
import type { Reader } from '../../platform/database/rows.js';
import { plannedWith, staffSteps, withDoers } from './absence.js';
import { firstToday, getDoer, type CalendarBook } from './calendars.js';
import { minutesByDoer } from './duties.js';
import { loadOtherHours } from './placement-work.js';
import { loadSources, pieceState, type PieceSource } from './piece-state.js';
import { loadOpenSteps, toWorkload, type OpenStepRow } from './reckon-prediction.js';

/** One who could take a step. */
export interface AblePerson {
  readonly personId: string;
  /** how far from whoever would be the first choice, 0 or more */
  readonly fit: number;
  /** what an hour is paid, in the smallest unit of the currency; 0 where the hours are paid anyway */
  readonly hourly: number;
}

/** Steps that are to be given to somebody: by step, who could take it. */
export interface RosterAsked {
  readonly able: Readonly<Record<string, readonly AblePerson[]>>;
}

/** What a solver needs to say who takes which step, and what the quick way says. */
export interface RosterFound {
  /** of choices that are no later than the quick way alone */
  readonly model: RosterModel;
  /** the late days of the quick way */
  readonly late: number;
  readonly quick: Readonly<Record<string, string>>;
}

/** Ways to give steps, by step who takes it, the first preferred; and who else could take each. */
export interface ChoicesAsked extends RosterAsked {
  readonly choices: readonly Readonly<Record<string, string>>[];
}

/** What it would come to if steps were given to some. */
export interface GivenOutcome {
  /** who takes which step */
  readonly gives: Readonly<Record<string, string>>;
  /** by step that is given: when it is predicted to end, and when it must */
  readonly steps: Readonly<Record<string, { readonly predictedFinishOn: string | null; readonly latestFinishOn: string | null }>>;
  /** pieces and the working days that they are late, as it is and with what is given */
  readonly before: readonly (readonly [pieceId: string, days: number])[];
  readonly after: readonly (readonly [pieceId: string, days: number])[];
}

/** So far ahead of the last day on which something is due is looked for hours. */
const AHEAD_DAYS = 42;

/**
 * The programme that says who takes which steps: each one's window is that of its piece's plan with whoever would take it, begun no sooner than what
 * goes before is predicted to end. Nothing is stored.
 */
export async function findRoster(reader: Reader, book: CalendarBook, { able }: RosterAsked): Promise<RosterFound> {
  const rows = await loadOpenSteps(reader);
  const steps = toWorkload(rows, book);
  const taken = await loadOtherHours(reader, book);
  const predicted = new Map(predictWorkload({ steps, doers: book.doers, taken }).steps.map((step) => [step.id, step]));
  const open = rows.filter((row) => able[row.id] !== undefined && row.finished_on === null);
  const sources = new Map((await loadSources(reader, [...new Set(open.map((row) => row.piece_id))])).map((source) => [source.id, source]));
  const windows = open.flatMap((row) => {
    const source = sources.get(row.piece_id);
    const people = able[row.id] ?? [];
    return source ? [{ row, people: people.map((person) => ({ ...person, ...windowOf(source, row, person.personId, book) })) }] : [];
  });
  const lastOn = addDays(
    windows.flatMap(({ people }) => people.map(({ dueOn, from }) => laterOf(dueOn ?? from, from))).reduce(laterOf, firstToday(book)),
    AHEAD_DAYS,
  );
  const tasks = windows.map(({ row, people }): RosterTask => {
    // nobody's hours are waited for: what goes before alone says when it could begin
    const free = row.doer_id === null ? predicted.get(row.id)?.startOn : undefined;
    return {
      id: row.id,
      minutes: row.left_minutes,
      ways: people.map(({ personId, fit, hourly, from, dueOn }): RosterWay => {
        const releasedOn = free ? laterOf(from, free) : from;
        const { calendar } = getDoer(book, personId);
        return {
          doer: personId,
          releasedOn,
          ends: endsOf(calendar, { releasedOn, spanDays: row.span_days, dueOn, lastOn }),
          cost: costOf(row.left_minutes, hourly),
          fit,
        };
      }),
    };
  });
  const asked = new Set(tasks.map(({ id }) => id));
  const people = new Set(tasks.flatMap(({ ways }) => ways.map(({ doer }) => doer)));
  const dutiesOf = minutesByDoer(taken);
  const doers = Object.fromEntries(
    [...people].map((id): [string, RosterDoer] => {
      const { calendar, todayOn } = getDoer(book, id);
      const has = rows.flatMap((row): DueWork[] => {
        if (row.doer_id !== id || row.finished_on !== null || asked.has(row.id)) return [];
        const { startOn = null, finishOn = null } = predicted.get(row.id) ?? {};
        const dueOn = laterOf(row.latest_finish_on === null ? lastOn : getDay(row.latest_finish_on), finishOn ?? lastOn);
        return [{ id: row.id, minutes: row.left_minutes, releasedOn: startOn ?? todayOn, dueOn }];
      });
      const by = { calendar, todayOn, taken: dutiesOf.get(id) ?? new Map<Day, number>(), has };
      return [id, { ...by, has: standing(by, lastOn) }];
    }),
  );
  const whole = { tasks, doers };
  const quick = quickRoster(whole);
  const { late } = valueOfRoster(whole, quick);
  return { model: rosterModel(whole, late), late, quick: Object.fromEntries([...quick].map(([id, { doer }]) => [id, doer])) };
}

/** Within which days a step can be done if somebody has it, by the plan of its piece. */
function windowOf(source: PieceSource, { id }: OpenStepRow, personId: string, book: CalendarBook): { from: Day; dueOn: Day | null } {
  const planned = pieceState(withDoers(source, new Map([[id, personId]])), book).plan?.steps.find((step) => step.id === id);
  return { from: planned?.earliestStartOn ?? getDoer(book, personId).todayOn, dueOn: planned?.latestFinishOn ?? null };
}

/** So long it is looked for what makes less late. */
const SEARCH_MS = 3_000;

/**
 * The best of some ways to give steps, by a prediction of everybody's work: the fewest late days. What is late with it is looked at once more, step by
 * step: who else would make it less. Nothing is stored.
 */
export async function bestChoice(reader: Reader, book: CalendarBook, { choices, able }: ChoicesAsked): Promise<GivenOutcome> {
  const rows = await loadOpenSteps(reader);
  const taken = await loadOtherHours(reader, book);
  const touched = [...new Set(rows.flatMap((row) => (able[row.id] ? [row.piece_id] : [])))];
  const latestWith = plannedWith(await loadSources(reader, touched), rows, book);
  const asIs = staffSteps(rows, toWorkload(rows, book));
  const predict = (steps: readonly StaffStep[]) => {
    const prediction = predictWorkload({ steps, doers: book.doers, taken });
    return { steps, prediction, late: lateBy({ steps, doers: book.doers }, prediction) };
  };
  const withGives = (gives: ReadonlyMap<string, string>) => {
    const latest = latestWith(gives);
    return asIs.map((step) => ({
      ...step,
      doer: gives.get(step.id) ?? step.doer,
      latestFinishOn: latest.has(step.id) ? (latest.get(step.id) ?? null) : step.latestFinishOn,
    }));
  };
  const tried = choices.map((choice) => {
    const gives = new Map(Object.entries(choice));
    return { gives, ...predict(withGives(gives)) };
  });
  const best = tried.reduce((one, other) => (other.gives.size >= one.gives.size && sumOf(other.late) < sumOf(one.late) ? other : one));
  const end = performance.now() + SEARCH_MS;
  const better = proposeDoers({
    steps: best.steps,
    doers: book.doers,
    taken,
    able: Object.fromEntries([...best.gives.keys()].map((id) => [id, (able[id] ?? []).map(({ personId }) => personId)])),
    latestWith: (changed) => latestWith(new Map([...best.gives, ...changed])),
    isEnough: () => performance.now() > end,
  });
  const gives = new Map([...best.gives, ...better.gives.map(({ stepId, doer }) => [stepId, doer] as const)]);
  const [before, after] = [predict(asIs), better.gives.length > 0 ? predict(withGives(gives)) : best];
  const latestOf = new Map(after.steps.map(({ id, latestFinishOn }) => [id, latestFinishOn]));
  return {
    gives: Object.fromEntries(gives),
    steps: Object.fromEntries(
      after.prediction.steps.flatMap(({ id, finishOn }) =>
        gives.has(id) ? [[id, { predictedFinishOn: finishOn, latestFinishOn: latestOf.get(id) ?? null }]] : [],
      ),
    ),
    before: [...before.late],
    after: [...after.late],
  };
}

const sumOf = (late: LatePieces): number => [...late.values()].reduce((sum, days) => sum + days, 0);

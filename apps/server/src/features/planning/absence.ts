import {
  lateBy,
  predictWorkload,
  proposeDoers,
  type Day,
  type Give,
  type InstantText,
  type LatePieces,
  type StaffStep,
} from '@zesting/core';
import type { Reader } from '../../platform/database/rows.js';
import { loadCalendars, type CalendarBook } from './calendars.js';
import { loadOtherHours } from './placement-work.js';
import { loadSources, pieceState, type PieceSource } from './piece-state.js';
import { loadOpenSteps, toWorkload, type OpenStepRow } from './reckon-prediction.js';

/** An absence that is thought of, and who could take which of the person's steps. */
export interface AbsenceAsked {
  readonly personId: string;
  readonly startOn: string;
  readonly endOn: string;
  readonly part: number;
  readonly able: Readonly<Record<string, readonly string[]>>;
}

/** What an absence would come to: pieces and the working days that they are late, as it is, with the absence, and with what is proposed. */
export interface AbsenceOutcome {
  readonly now: readonly (readonly [pieceId: string, days: number])[];
  readonly away: readonly (readonly [pieceId: string, days: number])[];
  readonly after: readonly (readonly [pieceId: string, days: number])[];
  readonly gives: readonly Give[];
  /** false where time was up before everything was looked at */
  readonly isWhole: boolean;
}

/** So long it is looked for who could take over. */
const SEARCH_MS = 3_000;

/** What would become late if somebody were away, and who could take over. Nothing is stored. */
export async function findAbsence(reader: Reader, now: InstantText, asked: AbsenceAsked): Promise<AbsenceOutcome> {
  const { personId, startOn, endOn, part, able } = asked;
  const book = await loadCalendars(reader, now);
  const away = await loadCalendars(reader, now, null, [{ owner_id: personId, start_on: startOn, end_on: endOn, part }]);
  const rows = await loadOpenSteps(reader);
  const asIs = { steps: staffSteps(rows, toWorkload(rows, book)), doers: book.doers };
  const lateNow = lateBy(asIs, predictWorkload({ ...asIs, taken: await loadOtherHours(reader, book) }));
  const touched = [...new Set(rows.flatMap((row) => (row.doer_id === personId && row.finished_on === null ? [row.piece_id] : [])))];
  const sources = await loadSources(reader, touched);
  const latestWith = plannedWith(sources, rows, away);
  const end = performance.now() + SEARCH_MS;
  const found = proposeDoers({
    steps: staffSteps(rows, toWorkload(rows, away)),
    doers: away.doers,
    taken: await loadOtherHours(reader, away),
    able,
    latestWith,
    isEnough: () => performance.now() > end,
  });
  const listed = (late: LatePieces) => [...late];
  return { now: listed(lateNow), away: listed(found.before), after: listed(found.after), gives: found.gives, isWhole: found.isWhole };
}

/** The latest finishes of pieces as they are planned with whoever takes their steps; the same again is known. */
export function plannedWith(
  sources: readonly PieceSource[],
  rows: readonly OpenStepRow[],
  book: CalendarBook,
): (gives: ReadonlyMap<string, string>) => ReadonlyMap<string, Day | null> {
  const pieceOf = new Map(rows.map((row) => [row.id, row.piece_id]));
  const planned = new Map<string, ReadonlyMap<string, Day | null>>();
  const datesOf = (source: PieceSource, gives: ReadonlyMap<string, string>): ReadonlyMap<string, Day | null> => {
    const own = [...gives].filter(([stepId]) => pieceOf.get(stepId) === source.id);
    const key = `${source.id} ${own.join(' ')}`;
    const found =
      planned.get(key) ?? new Map(pieceState(withDoers(source, gives), book).plan?.steps.map((step) => [step.id, step.latestFinishOn]));
    planned.set(key, found);
    return found;
  };
  return (gives) => new Map(sources.flatMap((source) => [...datesOf(source, gives)]));
}

/** A piece with some of its steps given to others. */
export const withDoers = (source: PieceSource, gives: ReadonlyMap<string, string>): PieceSource => ({
  ...source,
  steps: source.steps.map((step) => ({ ...step, doer_id: gives.get(step.id) ?? step.doer_id })),
});

export const staffSteps = (rows: readonly OpenStepRow[], workload: ReturnType<typeof toWorkload>): StaffStep[] =>
  workload.map((step, index) => ({ ...step, pieceId: rows[index]?.piece_id ?? '' })); // one for each row

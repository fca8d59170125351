import {
  changePath,
  effects,
  fail,
  getDay,
  ok,
  outcomeOf,
  whatHelps,
  isByClient,
  type Day,
  type Helps,
  type HelpStep,
  type OtherEffect,
  type Outcome,
  type PathChange,
  type PathFailure,
  type PieceAmongWork,
  type Result,
} from '@zesting/core';
import { rowsOf, type Reader } from '../../platform/database/rows.js';
import { AGENCY_KEY, clientKey, type CalendarBook } from './calendars.js';
import { loadOtherHours } from './placement-work.js';
import { doerKey, loadSources, planInputOf } from './piece-state.js';
import { blockedUntil, loadOpenSteps, OBSTACLES, toWorkload } from './reckon-prediction.js';

/** A change of a path, or of who does a step of it; nobody is null. */
export type TriedChange = PathChange | { readonly kind: 'give'; readonly stepId: string; readonly personId: string | null };

interface StepRow {
  id: string;
  key: string;
  title: string;
  kind: HelpStep['kind'];
  skill: string;
  doer_id: string | null;
  span_days: number;
  effort_minutes: number;
  remaining_minutes: number | null;
  same_day: boolean;
  optional: boolean;
  round: number;
  started_on: string | null;
  finished_on: string | null;
  pinned_finish_on: string | null;
  predecessor_ids: string[];
  obstacles_until: (string | null)[] | null;
}

const dayOf = (day: string | null): Day | null => (day === null ? null : getDay(day));

/** As loaded, with the key of the client, which does its own steps. */
type LoadedWork = PieceAmongWork & { readonly client: string };

/** One piece as it stands among all that the agency has to do; undefined where there is no such piece. */
export async function loadAmongWork(reader: Reader, book: CalendarBook, pieceId: string): Promise<LoadedWork | undefined> {
  const [source] = await loadSources(reader, [pieceId]);
  if (!source) return undefined;
  const rows = await rowsOf<StepRow>(
    reader,
    `select s.id, s.key, s.title, s.kind, s.skill, d.id as doer_id, s.span_days, s.effort_minutes, s.remaining_minutes, s.same_day, s.optional, s.round,
       s.started_on, s.finished_on, s.pinned_finish_on, s.predecessor_ids, t.until as obstacles_until
     from pieces p join steps s on s.piece_id = p.id left join people d on d.id = s.doer_id and d.active ${OBSTACLES} where p.id = $1 order by s.position`,
    [pieceId],
  );
  const open = await loadOpenSteps(reader);
  const first = open.findIndex((row) => row.piece_id === pieceId);
  const others = open.filter((row) => row.piece_id !== pieceId);
  const workload = toWorkload(others, book);
  return {
    steps: rows.map((row) => ({
      id: row.id,
      key: row.key,
      title: row.title,
      kind: row.kind,
      skill: row.skill,
      doer: doerKey(row, source.client_id),
      spanDays: row.span_days,
      effortMinutes: row.effort_minutes,
      remainingMinutes: row.remaining_minutes,
      sameDay: row.same_day,
      optional: row.optional,
      round: row.round,
      startedOn: dayOf(row.started_on),
      finishedOn: dayOf(row.finished_on),
      pinnedFinishOn: dayOf(row.pinned_finish_on),
      predecessorIds: row.predecessor_ids,
      blockedUntilOn: blockedUntil(row.obstacles_until, doerKey(row, source.client_id), book),
    })),
    plan: planInputOf(source, book).plan,
    doers: book.doers,
    taken: await loadOtherHours(reader, book),
    others: workload.map((step, index) => ({ ...step, pieceId: others[index]?.piece_id ?? '' })),
    at: Math.max(0, first),
    client: clientKey(source.client_id),
  };
}

/** What a change comes to: the piece before and after it, and the others that it makes later or less late. */
export interface PathOutcome {
  readonly steps: readonly HelpStep[];
  readonly changed: readonly HelpStep[];
  readonly before: Outcome;
  readonly after: Outcome;
  readonly others: readonly OtherEffect[];
}
export type PathOutcomeFailure = PathFailure | { readonly code: 'workdays.none_in_reach' | 'person.unknown' };

/** Tries changes of a piece's path on the whole agency's prediction, without storing anything. */
export async function tryPath(
  reader: Reader,
  book: CalendarBook,
  pieceId: string,
  changes: readonly TriedChange[],
): Promise<Result<PathOutcome, PathOutcomeFailure>> {
  const work = await loadAmongWork(reader, book, pieceId);
  if (!work) return fail({ code: 'step.not_on_path' });
  let changed: readonly HelpStep[] = work.steps;
  for (const change of changes) {
    if (change.kind === 'give') {
      const doer = change.personId ?? AGENCY_KEY;
      const step = changed.find(({ id }) => id === change.stepId);
      if (!step) return fail({ code: 'step.not_on_path' });
      if (isByClient(step.kind)) return fail({ code: 'step.client_decides' });
      if (step.finishedOn !== null) return fail({ code: 'step.already_finished' });
      if (!book.doers[doer]) return fail({ code: 'person.unknown' });
      changed = changed.map((step) => (step.id === change.stepId ? { ...step, doer } : step));
      continue;
    }
    const next = changePath(changed, [change], (added) => ({
      ...added,
      doer: isByClient(added.kind) ? work.client : AGENCY_KEY,
    }));
    if (!next.ok) return next;
    changed = next.value;
  }
  const [before, after] = [outcomeOf(work), outcomeOf(work, changed)];
  if (!before || !after) return fail({ code: 'workdays.none_in_reach' });
  return ok({ steps: work.steps, changed, before, after, others: effects(before, after) });
}

/** So long changes are looked for at most. */
const HELPS_MS = 2_000;

/** What would bring a late piece back. */
export async function findHelps(
  reader: Reader,
  book: CalendarBook,
  asked: {
    readonly pieceId: string;
    readonly able: Readonly<Record<string, readonly string[]>>;
    readonly shortest: Readonly<Record<string, number>>;
  },
): Promise<{ readonly helps: Helps; readonly steps: readonly HelpStep[] } | null> {
  const work = await loadAmongWork(reader, book, asked.pieceId);
  const end = performance.now() + HELPS_MS;
  const helps = work && whatHelps(work, { able: asked.able, shortest: asked.shortest, isEnough: () => performance.now() > end });
  return work && helps ? { helps, steps: work.steps } : null;
}

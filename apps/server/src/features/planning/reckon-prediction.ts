import {
  getDay,
  laterAfter,
  lateBy,
  predictWorkload,
  standsUntil,
  type Day,
  type LoadDay,
  type PredictedStep,
  type WorkloadStep,
} from '@zesting/core';
import { rowsOf, type Reader } from '../../platform/database/rows.js';
import { getDoer, type CalendarBook } from './calendars.js';
import { loadOtherHours } from './placement-work.js';
import { loadSources, pieceState, toPlanStep, type StepSource } from './piece-state.js';

/** A step of an open piece, as the prediction of load sees it. */
export interface OpenStepRow extends StepSource {
  piece_id: string;
  client_id: string;
  latest_finish_on: string | null;
  left_minutes: number;
  predicted_start_on: string | null;
  behind_steps: number;
  /** the days until which what stands in its way is expected to stand; null: nobody knows */
  obstacles_until: (string | null)[] | null;
}

/** SQL: until when what stands in the way of an open step `s` of `p` is expected to stand, one for each. */
export const OBSTACLES = `left join lateral (select array_agg(o.until_on::text) as until from obstacles o
  where o.piece_id = p.id and o.settled_at is null and (o.step_id is null or o.step_id = s.id)) t on s.finished_on is null`;

/** The steps of all open pieces, or of those among these, finished ones too, older pieces first. */
export const loadOpenSteps = (reader: Reader, pieceIds: readonly string[] | null = null): Promise<OpenStepRow[]> =>
  rowsOf<OpenStepRow>(
    reader,
    `select s.id, s.piece_id, p.client_id, s.title, s.kind, d.id as doer_id, s.span_days, s.same_day, s.predecessor_ids, s.started_on, s.finished_on,
       s.latest_finish_on, s.pinned_finish_on, coalesce(s.remaining_minutes, s.effort_minutes) as left_minutes, s.predicted_start_on, s.predicted_finish_on, s.behind_steps,
       t.until as obstacles_until, t.until is not null as obstructed
     from pieces p join steps s on s.piece_id = p.id left join people d on d.id = s.doer_id and d.active
     ${OBSTACLES}
     where p.list is not null and ($1::uuid[] is null or p.id = any($1)) order by p.number, p.id, s.position`,
    [pieceIds],
  );

/**
 * Predicts the whole agency's work from the steps of all open pieces; with `until`, no further than the end of that step.
 * @param taken the hours that duties take, as `loadOtherHours` has them
 */
export function predictSteps(
  rows: readonly OpenStepRow[],
  book: CalendarBook,
  taken: readonly LoadDay[],
  until?: string,
): Map<string, PredictedStep> {
  const { steps } = predictWorkload({ steps: toWorkload(rows, book), doers: book.doers, taken, ...(until === undefined ? {} : { until }) });
  return new Map(steps.map((step) => [step.id, step]));
}

/**
 * The minutes that everybody is predicted to work on what they have, and on their duties, day by day.
 * @param untilOn no further than this day; absent: to the end
 */
export const predictedLoad = async (reader: Reader, book: CalendarBook, untilOn?: Day): Promise<readonly LoadDay[]> => {
  const { load } = predictWorkload({
    steps: toWorkload(await loadOpenSteps(reader), book),
    doers: book.doers,
    taken: await loadOtherHours(reader, book),
    ...(untilOn === undefined ? {} : { untilOn }),
  });
  return untilOn === undefined ? load : load.filter(({ on }) => on <= untilOn);
};

/** The steps as core predicts them, in the order given. */
export const toWorkload = (rows: readonly OpenStepRow[], book: CalendarBook): WorkloadStep[] =>
  rows.map((row) => {
    const step = toPlanStep(row, row.client_id);
    return {
      ...step,
      effortMinutes: row.left_minutes,
      latestFinishOn: row.latest_finish_on === null ? null : getDay(row.latest_finish_on),
      blockedUntilOn: blockedUntil(row.obstacles_until, step.doer, book),
    };
  });

/** The last day on which obstacles keep whoever does a step from it. */
export const blockedUntil = (untils: readonly (string | null)[] | null, doer: string, book: CalendarBook): Day | null =>
  untils === null
    ? null
    : standsUntil(
        untils.map((on) => ({ untilOn: on === null ? null : getDay(on) })),
        getDoer(book, doer).todayOn,
      );

/** The stored columns of a prediction, as the full recompute must find them. */
export const storedPrediction = (id: string, predicted: PredictedStep | undefined) => ({
  id,
  predicted_start_on: predicted?.startOn ?? null,
  predicted_finish_on: predicted?.finishOn ?? null,
  behind_steps: predicted?.behindSteps ?? 0,
});

/** What the prediction of a step is now, where that is not what is stored. */
export interface ChangedPrediction extends ReturnType<typeof storedPrediction> {
  readonly piece_id: string;
  /** what was stored when it was read: a newer prediction that was stored meanwhile stays */
  readonly was: readonly [start: string | null, finish: string | null, behind: number];
}

/**
 * Predicts anew what a change can reach: the work of the pieces given, or of the whole agency. Returns the steps whose stored prediction
 * differs; those of pieces that are not open lose theirs.
 */
export async function reckonPrediction(
  reader: Reader,
  book: CalendarBook,
  pieceIds: readonly string[] | null = null,
): Promise<ChangedPrediction[]> {
  const rows = await loadOpenSteps(reader, pieceIds);
  const predicted = predictSteps(rows, book, await loadOtherHours(reader, book));
  const changed = rows.flatMap((row) => {
    const stored = storedPrediction(row.id, predicted.get(row.id));
    const isSame =
      row.predicted_start_on === stored.predicted_start_on &&
      row.predicted_finish_on === stored.predicted_finish_on &&
      row.behind_steps === stored.behind_steps;
    const was = [row.predicted_start_on, row.predicted_finish_on, row.behind_steps] as const;
    return isSame ? [] : [{ ...stored, piece_id: row.piece_id, was }];
  });
  const left = await rowsOf<Pick<OpenStepRow, 'id' | 'piece_id' | 'predicted_start_on' | 'predicted_finish_on' | 'behind_steps'>>(
    reader,
    `select s.id, s.piece_id, s.predicted_start_on, s.predicted_finish_on, s.behind_steps from steps s join pieces p on p.id = s.piece_id
     where s.predicted_start_on is not null and p.list is null and ($1::uuid[] is null or p.id = any($1))`,
    [pieceIds],
  );
  return [
    ...changed,
    ...left.map((row) => ({
      ...storedPrediction(row.id, undefined),
      piece_id: row.piece_id,
      was: [row.predicted_start_on, row.predicted_finish_on, row.behind_steps] as const,
    })),
  ];
}

/** What asks for a prediction. */
export interface Wanted {
  /** the rows that ask, to be taken out once what they ask for is stored */
  readonly rowIds: readonly number[];
  /** the pieces whose prediction can differ; null: all */
  readonly pieceIds: readonly string[] | null;
}

/** Beyond this share of the open pieces the whole is as quick, and comes to the same. */
const WHOLE_SHARE = 0.5;

/**
 * How far the changes that ask for a prediction can reach: from a piece to everybody who has a step of it, from a person to every piece with an
 * open step of theirs, and on. What is not reached shares no hours with what is, so its prediction stays.
 * @param wholeShare beyond this share of the open pieces it is all of them
 */
export async function reachOfWanted(reader: Reader, wholeShare = WHOLE_SHARE): Promise<Wanted> {
  const asked = await rowsOf<{ id: number; piece_id: string | null; person_id: string | null }>(
    reader,
    'select id, piece_id, person_id from predictions_wanted',
  );
  const rowIds = asked.map((row) => row.id);
  if (asked.some((row) => row.piece_id === null && row.person_id === null)) return { rowIds, pieceIds: null };
  const [open] = await rowsOf<{ count: number }>(reader, 'select count(*) as count from pieces where list is not null');
  const pieces = new Set(asked.flatMap((row) => row.piece_id ?? []));
  const people = new Set(asked.flatMap((row) => row.person_id ?? []));
  let [newPieces, newPeople] = [[...pieces], [...people]];
  // who finished a step of a changed piece had it until a moment ago; of the other pieces what is finished takes nobody's hours
  let isFirst = true;
  while (newPieces.length > 0 || newPeople.length > 0) {
    if (pieces.size > wholeShare * (open?.count ?? 0)) return { rowIds, pieceIds: null };
    const doers = await rowsOf<{ id: string }>(
      reader,
      'select distinct doer_id as id from steps where piece_id = any($1) and doer_id is not null and ($2 or finished_on is null)',
      [newPieces, isFirst],
    );
    newPeople = [...newPeople, ...doers.flatMap(({ id }) => (people.has(id) ? [] : [id]))];
    for (const id of newPeople) people.add(id);
    const theirs = await rowsOf<{ id: string }>(
      reader,
      'select distinct piece_id as id from steps s where doer_id = any($1) and finished_on is null and exists (select 1 from pieces p where p.id = s.piece_id and p.list is not null)',
      [newPeople],
    );
    newPieces = theirs.flatMap(({ id }) => (pieces.has(id) ? [] : [id]));
    for (const id of newPieces) pieces.add(id);
    newPeople = [];
    isFirst = false;
  }
  return { rowIds, pieceIds: [...pieces] };
}

interface CandidatesAsked {
  readonly stepId: string;
  readonly personIds: readonly string[];
  /** no further person is looked at after so long */
  readonly milliseconds: number;
}

/** A step, and the work of everybody as it would be with each who could have it. */
async function withEach(reader: Reader, book: CalendarBook, stepId: string) {
  const open = await loadOpenSteps(reader);
  const pieceId = open.find((row) => row.id === stepId)?.piece_id;
  const [source] = pieceId === undefined ? [] : await loadSources(reader, [pieceId]);
  if (!source) return undefined;
  const rowsWith = (personId: string): OpenStepRow[] => {
    const given = { ...source, steps: source.steps.map((step) => (step.id === stepId ? { ...step, doer_id: personId } : step)) };
    const plan = new Map(pieceState(given, book).plan?.steps.map((step) => [step.id, step]));
    return open.map((row) =>
      row.piece_id === pieceId
        ? {
            ...row,
            doer_id: row.id === stepId ? personId : row.doer_id,
            latest_finish_on: plan.get(row.id)?.latestFinishOn ?? row.latest_finish_on,
          }
        : row,
    );
  };
  return { open, pieceId: source.id, rowsWith, taken: await loadOtherHours(reader, book) };
}

/** When a step would end if it were given to each of these persons, by all that everybody has to do; nothing for whom the time was too short. */
export async function predictedFor(
  reader: Reader,
  book: CalendarBook,
  { stepId, personIds, milliseconds }: CandidatesAsked,
): Promise<Record<string, string | null>> {
  const work = await withEach(reader, book, stepId);
  if (!work) return {};
  const end = performance.now() + milliseconds;
  const found: Record<string, string | null> = {};
  for (const personId of personIds) {
    if (performance.now() > end) break;
    found[personId] = predictSteps(work.rowsWith(personId), book, work.taken, stepId).get(stepId)?.finishOn ?? null;
  }
  return found;
}

/** Which other pieces become late, or later, if a step is given to each of these persons, the worst first; nothing for whom the time was too short. */
export async function delayedBy(
  reader: Reader,
  book: CalendarBook,
  { stepId, personIds, milliseconds }: CandidatesAsked,
): Promise<Record<string, readonly string[]>> {
  const work = await withEach(reader, book, stepId);
  if (!work) return {};
  const lateWith = (rows: readonly OpenStepRow[]) => {
    const steps = toWorkload(rows, book).map((step, index) => ({ ...step, pieceId: rows[index]?.piece_id ?? '' })); // one for each row
    return lateBy({ steps, doers: book.doers }, predictWorkload({ steps, doers: book.doers, taken: work.taken }));
  };
  const end = performance.now() + milliseconds;
  const lateNow = lateWith(work.open);
  const found: Record<string, readonly string[]> = {};
  for (const personId of personIds) {
    if (performance.now() > end) break;
    found[personId] = laterAfter(lateNow, lateWith(work.rowsWith(personId)), work.pieceId);
  }
  return found;
}

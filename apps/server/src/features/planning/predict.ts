import { TakenHours, type Day, type InstantText, type LoadDay, type Result } from '@zesting/core';
import type { App } from '../../platform/app.js';
import { rowsOf, type Tx } from '../../platform/database/transaction.js';
import { ok } from '@zesting/core';
import { tellClients } from '../../platform/live/live.js';
import { loadCalendars } from './calendars.js';
import type { AbsenceAsked, AbsenceOutcome } from './absence.js';
import type { ChoicesAsked, GivenOutcome, RosterAsked, RosterFound } from './roster.js';
import type { findHelps, PathOutcome, PathOutcomeFailure, TriedChange } from './among-work.js';
import type { PredictAnswer, PredictTask, WantedPrediction } from './predict.worker.js';
import { reachOfWanted, reckonPrediction, type ChangedPrediction } from './reckon-prediction.js';
import { replanPieces } from './replan.js';

const WORKER = new URL('./predict.worker.js', import.meta.url);
/** The prediction of the whole agency takes a second where thousands of pieces are open; what takes so long is a fault. */
const PATIENCE_MS = 120_000;
/** So many pieces are locked and written at a time. */
const BATCH = 50;

/**
 * Predicts anew what changes since the last prediction can reach, and stores what differs, all in the caller's transaction: for loading the
 * demo and for proofs. While people work, `predictApart` does it.
 * @param wholeShare as `reachOfWanted` has it
 * @returns how many pieces changed
 */
export async function predict(tx: Tx, now: InstantText, wholeShare?: number): Promise<number> {
  const { rowIds, pieceIds: reached } = await reachOfWanted(tx, wholeShare);
  const changed = await reckonPrediction(tx, await loadCalendars(tx, now), reached);
  const pieceIds = [...new Set(changed.map((row) => row.piece_id))].sort();
  await store(tx, changed, pieceIds, now);
  await forget(tx, rowIds);
  return pieceIds.length;
}

/** What asked for a prediction is answered. */
const forget = (tx: Tx, rowIds: readonly number[]): Promise<unknown> =>
  tx.query('delete from predictions_wanted where id = any($1)', [rowIds]);

/**
 * The same in a thread of its own, under one snapshot and without a lock; what differs is stored in short transactions. A change that comes
 * meanwhile asks for the next prediction, which waits for this one.
 * @returns how many pieces changed
 */
export async function predictApart(app: App): Promise<number> {
  const task: PredictTask = { kind: 'wanted', now: app.clock.now() };
  const { changed, rowIds } = (await app.work.ask<PredictTask, PredictAnswer>(WORKER, task, PATIENCE_MS)) as WantedPrediction; // of this task
  const byPiece = new Map<string, ChangedPrediction[]>();
  for (const row of changed) {
    const rows = byPiece.get(row.piece_id);
    if (rows) rows.push(row);
    else byPiece.set(row.piece_id, [row]);
  }
  const pieceIds = [...byPiece.keys()].sort();
  for (let from = 0; from < pieceIds.length; from += BATCH) {
    const batch = pieceIds.slice(from, from + BATCH);
    await app.write(async (tx, now) => {
      await store(
        tx,
        batch.flatMap((id) => byPiece.get(id) ?? []),
        batch,
        now,
      );
      return ok(await tellClients(tx, batch, 'dates'));
    });
  }
  await app.write(async (tx) => ok(await forget(tx, rowIds)));
  return pieceIds.length;
}

/** Stores predictions of pieces, and plans these anew for the danger that follows. Latest dates do not depend on predictions, so once is enough. */
async function store(tx: Tx, changed: readonly ChangedPrediction[], pieceIds: readonly string[], now: InstantText): Promise<void> {
  if (pieceIds.length === 0) return;
  await rowsOf(tx, 'select 1 from pieces where id = any($1) order by id for no key update', [pieceIds]);
  await tx.query(
    `update steps s set predicted_start_on = n.predicted_start_on, predicted_finish_on = n.predicted_finish_on, behind_steps = n.behind_steps
     from jsonb_to_recordset($1) as n(id uuid, predicted_start_on date, predicted_finish_on date, behind_steps int, was_start date, was_finish date, was_behind int)
     where s.id = n.id and (s.predicted_start_on, s.predicted_finish_on, s.behind_steps) is not distinct from (n.was_start, n.was_finish, n.was_behind)`,
    [
      JSON.stringify(
        changed.map(({ was: [start, finish, behind], ...row }) => ({ ...row, was_start: start, was_finish: finish, was_behind: behind })),
      ),
    ],
  );
  await replanPieces(tx, pieceIds, now);
}

/** How long the dialog that asks who could do a step may wait for predictions. */
const CANDIDATES_MS = 2_000;

/** When a step would end if each of these persons had it; nothing for those for whom there was no time. */
export async function predictCandidates(
  app: App,
  stepId: string,
  personIds: readonly string[],
): Promise<Readonly<Record<string, string | null>>> {
  const task: PredictTask = { kind: 'candidates', now: app.clock.now(), stepId, personIds, milliseconds: CANDIDATES_MS };
  return (await app.work.ask<PredictTask, PredictAnswer>(WORKER, task, PATIENCE_MS)) as Readonly<Record<string, string | null>>; // of this task
}

/** Which other pieces become late, or later, if each of these persons had a step, the worst first; nothing for those for whom there was no time. */
export async function delaysByCandidates(
  app: App,
  stepId: string,
  personIds: readonly string[],
): Promise<Readonly<Record<string, readonly string[]>>> {
  const task: PredictTask = { kind: 'delays', now: app.clock.now(), stepId, personIds, milliseconds: CANDIDATES_MS };
  return (await app.work.ask<PredictTask, PredictAnswer>(WORKER, task, PATIENCE_MS)) as Readonly<Record<string, readonly string[]>>; // of this task
}

/** What a change of a piece's path would come to, in the thread that predicts. */
export async function outcomeOfPath(
  app: App,
  pieceId: string,
  changes: readonly TriedChange[],
): Promise<Result<PathOutcome, PathOutcomeFailure>> {
  const task: PredictTask = { kind: 'path', now: app.clock.now(), pieceId, changes };
  return (await app.work.ask<PredictTask, PredictAnswer>(WORKER, task, PATIENCE_MS)) as Result<PathOutcome, PathOutcomeFailure>; // of this task
}

/** What an absence would come to, and who could take over, in the thread that predicts. */
export async function outcomeOfAbsence(app: App, asked: AbsenceAsked): Promise<AbsenceOutcome> {
  const task: PredictTask = { kind: 'absence', now: app.clock.now(), ...asked };
  return (await app.work.ask<PredictTask, PredictAnswer>(WORKER, task, PATIENCE_MS)) as AbsenceOutcome; // of this task
}

/** The programme that says who takes which steps, in the thread that predicts. */
export async function rosterFor(app: App, asked: RosterAsked): Promise<RosterFound> {
  const task: PredictTask = { kind: 'roster', now: app.clock.now(), ...asked };
  return (await app.work.ask<PredictTask, PredictAnswer>(WORKER, task, PATIENCE_MS)) as RosterFound; // of this task
}

/** The best of some ways to give steps, in the thread that predicts. */
export async function bestOfChoices(app: App, asked: ChoicesAsked): Promise<GivenOutcome> {
  const task: PredictTask = { kind: 'given', now: app.clock.now(), ...asked };
  return (await app.work.ask<PredictTask, PredictAnswer>(WORKER, task, PATIENCE_MS)) as GivenOutcome; // of this task
}

/** What would bring a late piece back, in the thread that predicts; null where somebody on its path never works. */
export async function helpsFor(app: App, asked: Parameters<typeof findHelps>[2]): ReturnType<typeof findHelps> {
  const task: PredictTask = { kind: 'helps', now: app.clock.now(), ...asked };
  return (await app.work.ask<PredictTask, PredictAnswer>(WORKER, task, PATIENCE_MS)) as Awaited<ReturnType<typeof findHelps>>; // of this task
}

/** The minutes that everybody is predicted to work, day by day, reckoned now. @param untilOn no further than this day */
export async function predictedLoadOf(app: App, untilOn?: Day): Promise<readonly LoadDay[]> {
  const task: PredictTask = { kind: 'load', now: app.clock.now(), ...(untilOn === undefined ? {} : { untilOn }) };
  return (await app.work.ask<PredictTask, PredictAnswer>(WORKER, task, PATIENCE_MS)) as readonly LoadDay[]; // of this task
}

/** So long an answer of the load stands for the next: who types on a form, or goes through the requests, does not have it reckoned at every step. */
const LOAD_KEPT_MS = 30_000;
/** Nobody waits longer for it: what was reckoned last is told, or what the calendars alone say. */
const LOAD_WAITED_MS = 3_000;

interface KnownLoad {
  at: number;
  reckoning: Promise<void>;
  last: TakenHours;
}
const loads = new WeakMap<App, KnownLoad>();

/**
 * The hours that are spoken for, by the prediction of everybody's load: not older than half a minute, unless reckoning them takes long or fails. A form
 * is opened and a request read also then.
 */
export async function takenHours(app: App): Promise<TakenHours> {
  const known = loads.get(app) ?? { at: -Infinity, reckoning: Promise.resolve(), last: new TakenHours() };
  loads.set(app, known);
  if (performance.now() - known.at >= LOAD_KEPT_MS) {
    known.at = performance.now();
    known.reckoning = predictedLoadOf(app).then(
      (load) => void (known.last = new TakenHours(load)),
      () => void (known.at = -Infinity), // asked anew by whoever comes next
    );
  }
  let timer: NodeJS.Timeout | undefined;
  const patience = new Promise<void>((resolve) => (timer = setTimeout(resolve, LOAD_WAITED_MS)));
  await Promise.race([known.reckoning, patience]);
  clearTimeout(timer);
  return known.last;
}

import { parentPort, workerData } from 'node:worker_threads';
import pg from 'pg';
import type { Day, InstantText, LoadDay, Result } from '@zesting/core';
import '../../platform/database/types.js';
import type { WorkAnswer, WorkerStart, WorkMessage } from '../../platform/work/work.js';
import { loadCalendars, type Reader } from './calendars.js';
import { findAbsence, type AbsenceAsked, type AbsenceOutcome } from './absence.js';
import { findHelps, tryPath, type PathOutcome, type PathOutcomeFailure, type TriedChange } from './among-work.js';
import { bestChoice, findRoster, type ChoicesAsked, type GivenOutcome, type RosterAsked, type RosterFound } from './roster.js';
import { delayedBy, predictedFor, predictedLoad, reachOfWanted, reckonPrediction, type ChangedPrediction } from './reckon-prediction.js';

/**
 * What the predictor is asked: the prediction of what changed, everybody's load, when a step would end if each of some persons had it and what
 * else is late by it, what a change of a
 * path comes to, what an absence does, what would bring a late piece back, or who could take the steps that nobody has.
 */
export type PredictTask =
  | { readonly kind: 'wanted'; readonly now: InstantText }
  | { readonly kind: 'load'; readonly now: InstantText; readonly untilOn?: Day }
  | {
      readonly kind: 'candidates' | 'delays';
      readonly now: InstantText;
      readonly stepId: string;
      readonly personIds: readonly string[];
      readonly milliseconds: number;
    }
  | { readonly kind: 'path'; readonly now: InstantText; readonly pieceId: string; readonly changes: readonly TriedChange[] }
  | ({ readonly kind: 'absence'; readonly now: InstantText } & AbsenceAsked)
  | ({ readonly kind: 'roster'; readonly now: InstantText } & RosterAsked)
  | ({ readonly kind: 'given'; readonly now: InstantText } & ChoicesAsked)
  | ({ readonly kind: 'helps'; readonly now: InstantText } & Parameters<typeof findHelps>[2]);

/** What differs now, and the rows that asked for it. */
export interface WantedPrediction {
  readonly changed: readonly ChangedPrediction[];
  readonly rowIds: readonly number[];
}
export type PredictAnswer =
  | WantedPrediction
  | readonly LoadDay[]
  | Readonly<Record<string, string | null>>
  | Readonly<Record<string, readonly string[]>>
  | Result<PathOutcome, PathOutcomeFailure>
  | AbsenceOutcome
  | RosterFound
  | GivenOutcome
  | Awaited<ReturnType<typeof findHelps>>;

const { databaseUrl } = workerData as WorkerStart; // as `Work` starts it

/** Reads under one snapshot, holding no lock that a writer would wait for. */
async function underOneSnapshot<T>(work: (reader: Reader) => Promise<T>): Promise<T> {
  const client = new pg.Client({ connectionString: databaseUrl, options: '-c TimeZone=UTC -c jit=off', connectionTimeoutMillis: 5_000 });
  client.on('error', () => undefined); // the statement that was under way fails too, and says so
  await client.connect();
  try {
    await client.query('begin isolation level repeatable read read only');
    const reader: Reader = { query: async (sql: string, parameters?: unknown[]) => (await client.query(sql, parameters)).rows };
    return await work(reader);
  } finally {
    await client.end().catch(() => undefined);
  }
}

async function answer(task: PredictTask): Promise<PredictAnswer> {
  return underOneSnapshot(async (reader) => {
    if (task.kind === 'absence') return findAbsence(reader, task.now, task);
    const book = await loadCalendars(reader, task.now);
    if (task.kind === 'given') return bestChoice(reader, book, task);
    if (task.kind === 'roster') return findRoster(reader, book, task);
    if (task.kind === 'candidates') return predictedFor(reader, book, task);
    if (task.kind === 'delays') return delayedBy(reader, book, task);
    if (task.kind === 'path') return tryPath(reader, book, task.pieceId, task.changes);
    if (task.kind === 'helps') return findHelps(reader, book, task);
    if (task.kind === 'load') return predictedLoad(reader, book, task.untilOn);
    const { rowIds, pieceIds } = await reachOfWanted(reader);
    return { rowIds, changed: await reckonPrediction(reader, book, pieceIds) };
  });
}

parentPort?.on('message', ({ number, task }: WorkMessage<PredictTask>) => {
  const post = (said: Omit<WorkAnswer<PredictAnswer>, 'number'>) => parentPort?.postMessage({ number, ...said });
  answer(task).then(
    (value) => post({ answer: value }),
    (error: Error & { code?: string }) => post({ error: { message: error.message, ...(error.code ? { code: error.code } : {}) } }),
  );
});

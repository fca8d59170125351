import { runLimited } from './limited.js';
import type { SolveAnswer, SolveTask } from './solve.worker.js';

const WORKER = new URL('./solve.worker.js', import.meta.url);
/** The thread has a little longer than the solver, to come up and to answer; and so much memory. */
const EXTRA_MS = 15_000;
const MEGABYTES = 1_024;

/**
 * The best of an integer programme, by HiGHS in a thread of its own.
 * @param lp the programme, in the LP format
 * @param seconds the solver's time: what it has found by then is its answer
 * @param signal ends it when nobody waits any more
 * @returns undefined where nothing was found, or it was ended
 */
export const solve = (lp: string, seconds: number, signal?: AbortSignal): Promise<SolveAnswer | undefined> =>
  runLimited<SolveTask, SolveAnswer>(WORKER, { lp, seconds }, { milliseconds: seconds * 1000 + EXTRA_MS, megabytes: MEGABYTES }, signal);

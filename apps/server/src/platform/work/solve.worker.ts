import { createRequire } from 'node:module';
import { parentPort, workerData } from 'node:worker_threads';

/** A programme in the LP format, and how long it may take. */
export interface SolveTask {
  readonly lp: string;
  readonly seconds: number;
}

export interface SolveAnswer {
  /** the programme's columns with their values */
  readonly columns: Readonly<Record<string, number>>;
  readonly isProven: boolean;
}

/** As much of HiGHS as is asked here. */
interface Solver {
  readonly solve: (
    lp: string,
    options: { readonly time_limit: number; readonly mip_rel_gap: number },
  ) => { readonly Status: string; readonly Columns: Readonly<Record<string, { readonly Primal?: number }>> };
}

// the package is CommonJS, and its types say otherwise to some compilers
const loadHighs = createRequire(import.meta.url)('highs') as () => Promise<Solver>;
const { lp, seconds } = workerData as SolveTask; // as `solve` gives it
const solved = (await loadHighs()).solve(lp, { time_limit: seconds, mip_rel_gap: 0 });
const columns = Object.fromEntries(Object.entries(solved.Columns).map(([name, { Primal }]) => [name, Primal ?? 0]));
parentPort?.postMessage({ columns, isProven: solved.Status === 'Optimal' } satisfies SolveAnswer);

import { fail, isFeasible, ok, chosenIn, modelOf, proposalOf, propose, type Result } from '@zesting/core';
import { toCase, type BestFillingShape } from '@zesting/contract';
import type { App } from '../../../platform/app.js';
import { solve } from '../../../platform/work/solve.js';
import { planMonth } from './plan-month.js';

/** The solver has so long. */
const SOLVING_SECONDS = 45;

export type BestFailure = { code: 'slotting.not_found' | 'client.archived' };

/**
 * The best filling of a client's month, proven by an integer programme in a thread of its own; beside it what the quick method comes to.
 * @param signal ends it when nobody waits any more
 */
export async function bestFilling(
  app: App,
  clientId: string,
  month: string,
  signal: AbortSignal,
): Promise<Result<BestFillingShape, BestFailure>> {
  const started = performance.now();
  const plan = await planMonth(app, clientId, month);
  if (!plan) return fail({ code: 'client.archived' });
  const whole = toCase(plan);
  const quick = propose(whole);
  const model = modelOf(whole);
  const solved = await solve(model.lp, SOLVING_SECONDS, signal);
  if (!solved) return fail({ code: 'slotting.not_found' });
  const chosen = chosenIn(model, solved.columns);
  if (!isFeasible(whole, chosen)) return fail({ code: 'slotting.not_found' });
  const best = proposalOf(whole, chosen);
  // where the solver ran out of time the quick one may be the better of the two
  const { lines, value } = best.value >= quick.value ? best : quick;
  return ok({
    lines: lines.map((line) => ({ ...line, reasons: line.reasons.map(({ what, points }) => ({ what, points })) })),
    value,
    quickValue: quick.value,
    isProven: solved.isProven,
    milliseconds: Math.round(performance.now() - started),
  });
}

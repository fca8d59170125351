import { Problem } from './problem.js';

/** How many rows of a list an address has seen already, from its `after`; 0 without one. What is no whole number is invalid. */
export function listPlace(after: string | undefined): number {
  if (after === undefined) return 0;
  if (!/^\d{1,9}$/.test(after)) throw Problem.of('http.invalid', { errors: { after: ['isInt'] } });
  return Number(after);
}

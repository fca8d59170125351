/**
 * How good chances were that were said before: the mean squared distance to what came, from 0 (all certain and right) to 1.
 * @see Brier 1950, Verification of forecasts expressed in terms of probability
 */
export function brierScore(said: readonly { readonly chance: number; readonly came: boolean }[]): number {
  return said.reduce((sum, { chance, came }) => sum + (chance - (came ? 1 : 0)) ** 2, 0) / Math.max(1, said.length);
}

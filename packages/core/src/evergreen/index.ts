import { addDays, type Day } from '../time/index.js';

/** How a piece that lasts may go out again. */
export interface EvergreenRule {
  /** so many days lie at least between two times on one channel */
  readonly restDays: number;
  /** so often at most it goes out on one channel, the first time among them; null: as often as it fits */
  readonly timesMost: number | null;
  /** what it says holds until then, that day included; null: for good */
  readonly untilOn: Day | null;
}

/** When a piece may go out again on a channel. */
export interface AgainFrom {
  /** the first day on which it has rested */
  readonly fromOn: Day;
  /** how often more; null: as often as it fits */
  readonly timesLeft: number | null;
}

/**
 * When a piece that lasts may go out again on one channel: after its rest behind the latest day on which it stands there, out or still to come.
 * @param days on which it is out there or will be, in any order
 * @returns null where it may not: it was never out there, it was out often enough, or it will not hold so long
 */
export function againFrom(days: readonly Day[], { restDays, timesMost, untilOn }: EvergreenRule): AgainFrom | null {
  const last = [...days].sort().at(-1);
  const timesLeft = timesMost === null ? null : timesMost - days.length;
  if (last === undefined || (timesLeft !== null && timesLeft <= 0)) return null;
  const fromOn = addDays(last, restDays);
  return untilOn !== null && fromOn > untilOn ? null : { fromOn, timesLeft };
}

/** Whether a piece that lasts may go out on a channel on a day. @param days as `againFrom` has them */
export function mayGoAgain(on: Day, days: readonly Day[], rule: EvergreenRule): boolean {
  const again = againFrom(days, rule);
  return again !== null && on >= again.fromOn && (rule.untilOn === null || on <= rule.untilOn);
}

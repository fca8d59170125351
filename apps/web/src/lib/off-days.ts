import { parseDay, weekdayOf } from '@zesting/core';

/** Why somebody does not work on a day; undefined where they do. */
export type OffReason = (on: string) => string | undefined;

/** The weekday pattern and the single days off of up to two parties as one reason. */
export function offReason(
  parties: readonly { readonly whose: string; readonly weekdaysOff: readonly number[]; readonly days: ReadonlyMap<string, string> }[],
): OffReason {
  return (on) => {
    const day = parseDay(on);
    if (!day) return undefined;
    const reasons = parties.flatMap(({ whose, weekdaysOff, days }) => {
      const named = days.get(on);
      if (named) return [`${named}: ${whose} off`];
      return weekdaysOff.includes(weekdayOf(day)) ? [`Not a working day of ${whose}`] : [];
    });
    return reasons.length > 0 ? reasons.join('. ') : undefined;
  };
}

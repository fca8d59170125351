import { addDays, daysBetween, type Day } from '../time/index.js';

/** From its first day to its last, both included. */
export interface Period {
  readonly fromOn: Day;
  readonly toOn: Day;
}

/** Something of a campaign that stands on a day: a placement or a marker. */
export interface DatedItem {
  readonly id: string;
  readonly on: Day;
  /** it stays whatever moves: what is out, or of another */
  readonly isFixed: boolean;
  /** the first day on which it can be; null: any */
  readonly earliestOn: Day | null;
}

/** What would become of an item: all is well, it would lie in the past, before it can be ready, or outside the campaign. */
export type ItemOutcome = 'fine' | 'past' | 'out_of_reach' | 'outside';

export interface MovedItem {
  readonly id: string;
  readonly from: Day;
  readonly to: Day;
  readonly outcome: ItemOutcome;
  /** whether it was so already before the move */
  readonly wasSo: boolean;
}

/** By how many days a period moves as a whole; 0 where it is made longer or shorter, or stays. */
export const shiftOf = (before: Period, after: Period): number => {
  const shift = daysBetween(before.fromOn, after.fromOn);
  return daysBetween(before.toOn, after.toOn) === shift ? shift : 0;
};

/**
 * What a new period makes of what a campaign holds. Moved as a whole, everything that is not fixed moves along by as many days; made longer or shorter,
 * everything stays, and what lies outside is told.
 */
export function moveItems(items: readonly DatedItem[], before: Period, after: Period, todayOn: Day): MovedItem[] {
  const shift = shiftOf(before, after);
  const outcomeOf = ({ earliestOn, isFixed }: DatedItem, on: Day, { fromOn, toOn }: Period): ItemOutcome => {
    if (!isFixed && on < todayOn) return 'past';
    if (!isFixed && earliestOn !== null && on < earliestOn) return 'out_of_reach';
    return on < fromOn || on > toOn ? 'outside' : 'fine';
  };
  return items.map((item) => {
    const to = item.isFixed ? item.on : addDays(item.on, shift);
    const outcome = outcomeOf(item, to, after);
    return { id: item.id, from: item.on, to, outcome, wasSo: outcomeOf(item, item.on, before) === outcome };
  });
}

/** How many there are of each, in the order given; those of which there are none are left out. */
export function rollUp<Stage extends string>(
  order: readonly Stage[],
  stages: readonly Stage[],
): { readonly stage: Stage; readonly count: number }[] {
  return order.map((stage) => ({ stage, count: stages.filter((one) => one === stage).length })).filter(({ count }) => count > 0);
}

import { toInstantAfterGap, laterOf, type Day, type InstantText, type TimeOfDay } from '../time/index.js';
import { daysOfRule } from './rule.js';

/** One line of a client's rhythm: on which days, at what time, on which channel. */
export interface RhythmRule {
  readonly id: string;
  readonly channelId: string;
  /** as `readRule` gives it */
  readonly rule: string;
  /** in the client's zone */
  readonly at: TimeOfDay;
  /** what the rule is counted from: of two-weekly ones, the first week */
  readonly anchorOn: Day;
  /** the days on which it holds, both included; null: until it is changed */
  readonly fromOn: Day;
  readonly untilOn: Day | null;
  /** days of the rule that are left out */
  readonly exceptOn: readonly Day[];
  /** whether public holidays of the client's region are left out */
  readonly skipsHolidays: boolean;
}

/** Instants of wall clocks, each reckoned once: the same hours of the same days come again in every client of a zone. */
const reckoned = new Map<string, InstantText>();
const MOST_RECKONED = 100_000;

function instantOf(on: Day, at: TimeOfDay, zone: string): InstantText {
  const key = `${on} ${at} ${zone}`;
  let instant = reckoned.get(key);
  if (instant === undefined) {
    if (reckoned.size >= MOST_RECKONED) reckoned.clear();
    instant = toInstantAfterGap(on, at, zone);
    reckoned.set(key, instant);
  }
  return instant;
}

/** One opening on one channel. */
export interface Slot {
  readonly ruleId: string;
  readonly channelId: string;
  readonly on: Day;
  readonly at: TimeOfDay;
  /** the instant of it: where the clock jumps over the time, as much later */
  readonly publishAt: InstantText;
}

/**
 * The slots of a client from `from` to `to`, both included, by their instants; of the same instant in the order of the rules.
 * @param zone the client's
 * @param holidays public holidays of the client's region in that time
 */
export function slotsOf(rules: readonly RhythmRule[], zone: string, from: Day, to: Day, holidays: ReadonlySet<string>): Slot[] {
  const slots = rules.flatMap((rule) => {
    const until = rule.untilOn !== null && rule.untilOn < to ? rule.untilOn : to;
    return daysOfRule(rule.rule, rule.anchorOn, laterOf(from, rule.fromOn), until)
      .filter((day) => !rule.exceptOn.includes(day) && !(rule.skipsHolidays && holidays.has(day)))
      .map((on) => ({ ruleId: rule.id, channelId: rule.channelId, on, at: rule.at, publishAt: instantOf(on, rule.at, zone) }));
  });
  return slots.sort((a, b) => (a.publishAt < b.publishAt ? -1 : a.publishAt > b.publishAt ? 1 : 0));
}

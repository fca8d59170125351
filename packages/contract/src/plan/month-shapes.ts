import type { MarkerShape } from '../calendar/index.js';
import { PlanThemeShape } from './shapes.js';

/** A week of a month, as far as it lies in it. */
export class MonthWeekShape {
  /** 1 to 5 */
  number: number;
  fromOn: string;
  toOn: string;
  slots: number;
  filled: number;
  /** its theme, or that of the month */
  theme: string | null;
}

/** A line of the rhythm, with how often it comes in a month. */
export class MonthRuleShape {
  ruleId: string;
  channelName: string;
  rule: string;
  at: string;
  slots: number;
}

/** A piece that comes again by rule. */
export class MonthRecurringShape {
  dutyId: string;
  title: string;
  days: string[];
}

/** The frame of a client's month: what it is made of before a single idea. */
export class MonthFrameShape {
  month: string;
  /** by rule, of client and month */
  name: string;
  /** null: nobody has begun to plan it */
  startedAt: string | null;
  startedBy: string | null;
  weeks: MonthWeekShape[];
  rules: MonthRuleShape[];
  recurring: MonthRecurringShape[];
  themes: PlanThemeShape[];
  /** what begins in the month */
  markers: MarkerShape[];
  /** what began before and reaches into it */
  carried: MarkerShape[];
}

/** A month of a client that should be under way. */
export class MonthToStartShape {
  clientId: string;
  month: string;
  name: string;
  hasBegun: boolean;
}

export class MonthsToStartShape {
  /** by client, the months in order */
  months: MonthToStartShape[];
}

import type { GoalStanding } from '@zesting/core';
import type { GoalMeasure, GoalStepBody, StrategyKind } from './bodies.js';

export class GoalReadingShape {
  on: string;
  value: number;
}

export class GoalPaceShape {
  standing: GoalStanding;
  value: number | null;
  expected: number;
  neededPerWeek: number;
  neededNowPerWeek: number | null;
  realPerWeek: number | null;
  reachesOn: string | null;
}

export class GoalQuarterShape {
  year: number;
  quarter: number;
  endOn: string;
  expected: number;
  value: number | null;
}

export class GoalShape {
  id: string;
  name: string;
  channelId: string | null;
  measure: GoalMeasure;
  unit: string;
  startValue: number;
  target: number;
  startOn: string;
  byOn: string;
  pillarIds: string[];
  steps: GoalStepBody[];
  version: number;
  /** since its start, in the order of time: what was typed, or what was counted at the end of each week */
  readings: GoalReadingShape[];
  pace: GoalPaceShape;
  quarters: GoalQuarterShape[];
}

export class StrategyNoteShape {
  id: string;
  kind: StrategyKind;
  text: string;
  link: string | null;
  by: string;
  createdAt: string;
  version: number;
}

/** What a client is to get to, and what is known of its strategy. */
export class GoalsShape {
  todayOn: string;
  goals: GoalShape[];
  /** goals that were put away, the last first */
  archived: { id: string; name: string }[];
  /** pillars that serve no goal; empty while there is no goal */
  pillarsWithout: string[];
  notes: StrategyNoteShape[];
}

export class GoalMadeShape {
  goalId: string;
}

export class StrategyNoteMadeShape {
  noteId: string;
}

import type { Danger, PieceStage, StepKind } from '@zesting/core';

/** A step as the line draws it: where it stood, is predicted, and must end. */
export class LineStepShape {
  id: string;
  title: string;
  kind: StepKind;
  /** key into the doers of the line */
  doer: string;
  doerId: string | null;
  /** the person, "the client", or null where nobody has it */
  doerName: string | null;
  spanDays: number;
  effortMinutes: number;
  sameDay: boolean;
  round: number;
  predecessorIds: string[];
  startedOn: string | null;
  finishedOn: string | null;
  pinnedFinishOn: string | null;
  latestStartOn: string | null;
  latestFinishOn: string | null;
  earliestStartOn: string;
  earliestFinishOn: string;
  predictedStartOn: string | null;
  predictedFinishOn: string | null;
  danger: Danger | null;
  version: number;
}

export class LineAimShape {
  /** an instant */
  publishAt: string;
  leadDays: number;
}

export class LineSlotShape {
  /** a time of day */
  at: string;
  leadDays: number;
}

/** What a piece is planned by, beside its steps: so that a drag is reckoned where it is drawn. */
export class LinePlanShape {
  aims: LineAimShape[];
  publishZone: string;
  /** the client's date now */
  todayOn: string;
  slots: LineSlotShape[];
}

/** A day on which a piece goes out, or is to. */
export class LinePlacementShape {
  id: string;
  channelName: string;
  on: string;
  at: string | null;
  state: string;
  version: number;
}

export class LineRowShape {
  id: string;
  number: number;
  clientId: string;
  title: string;
  stage: PieceStage;
  danger: Danger | null;
  slackDays: number | null;
  aimOn: string | null;
  wishOn: string | null;
  version: number;
  steps: LineStepShape[];
  placements: LinePlacementShape[];
  plan: LinePlanShape;
}

/** When somebody works: minutes of Monday to Sunday, and the days that differ from these. */
export class LineDoerShape {
  key: string;
  zone: string;
  todayOn: string;
  todayCounts: boolean;
  weeklyMinutes: number[];
  days: LineDoerDayShape[];
}

export class LineDoerDayShape {
  on: string;
  minutes: number;
}

export class LineShape {
  todayOn: string;
  tightDays: number;
  rows: LineRowShape[];
  doers: LineDoerShape[];
  /** how many pieces there are in all; null on further pages */
  total: number | null;
  /** so many open ones the filter leaves out; null on further pages */
  leftOut: number | null;
  nextCursor: string | null;
}

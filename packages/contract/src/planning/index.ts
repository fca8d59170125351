import type { Danger, PieceStage, ReckoningList } from '@zesting/core';

export class RouteShape {
  id: string;
  name: string;
  formatId: string;
  formatName: string;
  steps: string[];
}

/** One step as the wheel draws it. */
export class WheelSegment {
  title: string;
  state: 'done' | 'current' | 'late' | 'blocked' | 'waiting';
  lateDays: number;
}

/** A piece as lists show it. */
export class PieceRow {
  id: string;
  number: number;
  clientId: string;
  title: string;
  formatName: string;
  pillarName: string | null;
  stage: PieceStage;
  list: ReckoningList | null;
  aimOn: string | null;
  danger: Danger | null;
  slackDays: number | null;
  lateFromOn: string | null;
  round: number;
  wheel: WheelSegment[];
  /** what is at hand, and who has it */
  currentStep: string | null;
  currentDoer: string | null;
}

export class PiecePage {
  items: PieceRow[];
  nextCursor: string | null;
}

/** A line of the desk's reckoning. */
export class DeskRow extends PieceRow {
  earliestPublishOn: string | null;
  packetDueOn: string | null;
  placementId: string | null;
}

export class DeskShape {
  todayOn: string;
  rows: DeskRow[];
  newRequests: number;
  /** pieces that are open in all; every one stands in `rows` */
  openPieces: number;
}

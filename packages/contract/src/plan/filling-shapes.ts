import type { FitReason } from '@zesting/core';

/** A slot in which nothing stands. */
export class FreeSlotShape {
  clientId: string;
  ruleId: string;
  channelId: string;
  channelName: string;
  on: string;
  at: string;
  pillarId: string | null;
  formatId: string | null;
}

export class FreeSlotsShape {
  slots: FreeSlotShape[];
}

export class FitReasonShape {
  what: FitReason['what'];
  points: number;
}

/** One line of a proposal: what stands in a slot, and what speaks for it. */
export class ProposedLineShape {
  slotId: string;
  candidateId: string;
  reasons: FitReasonShape[];
  /** whether the mix is owed its pillar */
  owed: boolean;
  /** whether what stands before or after it has the same pillar */
  inARow: boolean;
  /** whether what stands before or after it is about the same subject */
  likeBeside: boolean;
}

/** The best filling of a month that was found, beside what the quick method finds. */
export class BestFillingShape {
  lines: ProposedLineShape[];
  value: number;
  quickValue: number;
  /** whether it was proven that none is better; else it is the best that was found in the time */
  isProven: boolean;
  milliseconds: number;
}

/** What became of one piece of a month that is copied, or would. */
export class CopiedLineShape {
  /** the month it is copied into */
  to: string;
  fromOn: string;
  /** the same weekday of that month; null where it has no fifth */
  on: string | null;
  at: string;
  formatName: string;
  channelIds: string[];
  pillarId: string | null;
  outcome: 'copied' | 'no_such_day' | 'taken' | 'closed' | 'past' | 'no_route' | 'failed';
  /** the planned piece; null in a preview, and where none was made */
  pieceId: string | null;
}

export class CopyMonthShape {
  lines: CopiedLineShape[];
}

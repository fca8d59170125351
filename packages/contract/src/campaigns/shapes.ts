import type { Danger, ItemOutcome, PieceStage } from '@zesting/core';

export class StageCountShape {
  stage: PieceStage;
  count: number;
}

export class CampaignMarkerShape {
  id: string;
  kind: string;
  name: string;
  startOn: string;
  endOn: string;
}

/** A placement of a piece of a campaign. */
export class CampaignPlacementShape {
  id: string;
  channelId: string;
  /** null: it has no day */
  on: string | null;
  at: string | null;
  state: string;
}

export class CampaignPieceShape {
  id: string;
  number: number;
  title: string;
  stage: PieceStage;
  danger: Danger | null;
  aimOn: string | null;
  placements: CampaignPlacementShape[];
}

export class CampaignShape {
  id: string;
  clientId: string;
  name: string;
  aim: string;
  fromOn: string;
  toOn: string;
  channelIds: string[];
  version: number;
  /** how many pieces are at each stage, in the order of stages */
  stages: StageCountShape[];
  /** pieces that are overdue, out of reach or will be late */
  inDanger: number;
  /** days on which something of it goes out or went, in order */
  days: string[];
  markers: CampaignMarkerShape[];
}

export class CampaignsShape {
  todayOn: string;
  /** by their first day: those that touch the days asked for */
  campaigns: CampaignShape[];
  /** how many do not */
  outside: number;
  archived: { id: string; clientId: string; name: string }[];
}

/** One campaign with its pieces. */
export class CampaignPageShape {
  campaign: CampaignShape;
  pieces: CampaignPieceShape[];
  /** whether it was put away */
  isArchived: boolean;
}

/** What a new period would make of one thing of a campaign. */
export class CampaignMoveItemShape {
  kind: 'placement' | 'marker';
  id: string;
  name: string;
  /** the channel of a placement */
  channelId: string | null;
  from: string;
  to: string;
  outcome: ItemOutcome;
  wasSo: boolean;
}

/** What a new period would make of a campaign. */
export class CampaignMoveShape {
  /** by how many days all moves; 0: the period alone changes */
  byDays: number;
  items: CampaignMoveItemShape[];
  /** pieces without any day */
  undated: number;
}

export class CampaignMadeShape {
  campaignId: string;
}

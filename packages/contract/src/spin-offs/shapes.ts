import type { CopyShape, Danger, Fact, FactState, Offset, PieceStage, PlacementState } from '@zesting/core';
import type { ProposedDoerShape } from '../intake/piece-shapes.js';

export class SpreadLineShape {
  key: string;
  name: string;
  channelId: string | null;
  channelName: string | null;
  routeId: string;
  routeName: string;
  formatName: string;
  offset: { count: number; unit: Offset['unit'] };
  change: string;
  needsCopy: boolean;
  needsPicture: boolean;
  shape: CopyShape;
  callToAction: string;
  guidelineId: string | null;
  guidelineTitle: string | null;
  doers: { skill: string; personId: string; name: string }[];
  obstacle: string;
}

export class SpreadShape {
  id: string;
  clientId: string;
  name: string;
  formatId: string | null;
  formatName: string | null;
  lines: SpreadLineShape[];
  /** the day since which it is offered for its sources; null: it is not */
  usedSince: string | null;
  /** pieces that were made by it */
  made: number;
  version: number;
}

export class PutAwaySpreadShape {
  id: string;
  name: string;
}

export class SpreadsShape {
  spreads: SpreadShape[];
  archived: PutAwaySpreadShape[];
}

export class SpreadMadeShape {
  spreadId: string;
}

/** What an output would come to. */
export class PreviewedOutputShape {
  lineKey: string;
  name: string;
  title: string;
  channelName: string | null;
  formatName: string;
  /** null: it has no day */
  on: string | null;
  /** the usual time there */
  at: string | null;
  /** the last day on which work can begin; null: it has no day */
  beginBy: string | null;
  /** by its path and the calendars alone */
  earliestOn: string;
  /** after all that is taken on, and after the outputs before it here */
  predictedOn: string;
  /** `past`: its day is behind; `late`: no path gets there in time; `will_be_late`: the load does not let it */
  standing: 'fine' | 'will_be_late' | 'late' | 'past';
  doers: ProposedDoerShape[];
  change: string;
  obstacle: string;
  /** was made from this source already */
  isThere: boolean;
}

/** What stands on a day and speaks against it. */
export class PreviewedDayShape {
  on: string;
  /** closures, blackouts and public holidays */
  names: string[];
}

export class SpinOffPreviewShape {
  /** the source's day: its first placement's, else the one that is wished for; null: it has none */
  sourceOn: string | null;
  known: number;
  outputs: PreviewedOutputShape[];
  days: PreviewedDayShape[];
}

/** What a skill would have to do for one source. */
export class SpreadRoleShape {
  skill: string;
  minutes: number;
  /** the last day on which its first step can begin; null: it cannot be said */
  beginBy: string | null;
  finishBy: string | null;
  /** people who have it and may work for the client */
  people: string[];
  /** what these have free until the last of it, in minutes */
  freeMinutes: number;
}

/** What a spread would come to for a source on a day, before it is switched on. */
export class SpreadOutlookShape {
  on: string;
  outputs: PreviewedOutputShape[];
  roles: SpreadRoleShape[];
  /** sources of its kind over the last twelve weeks, per week */
  perWeek: number;
}

export class SpinOffsMadeShape {
  pieceIds: string[];
}

export class FactShape {
  fact: Fact;
  state: FactState;
  /** whether it is made anew for the output, and never follows */
  isAnew: boolean;
  /** as words: what the output says, what the source says, and what it said when that was last taken over or looked at */
  output: string;
  source: string;
  seen: string;
}

/** A piece's source, as the makers of the piece see it. */
export class SpinOffSourceShape {
  pieceId: string;
  number: number;
  title: string;
  /** whether the viewer may open it */
  canOpen: boolean;
  name: string;
  callToAction: string;
  obstacle: string;
  fromSecond: number | null;
  toSecond: number | null;
  offset: { count: number; unit: Offset['unit'] };
  facts: FactShape[];
  /** of what the source says now */
  mark: string;
}

/** Something made from a source. */
export class SpinOffRowShape {
  pieceId: string;
  number: number;
  title: string;
  formatName: string;
  stage: PieceStage;
  danger: Danger | null;
  aimOn: string | null;
  shelved: boolean;
  name: string;
  fromSecond: number | null;
  toSecond: number | null;
  /** where it stands */
  placements: { channelName: string; on: string | null; at: string | null; state: PlacementState; address: string | null }[];
  /** fields in which it is behind its source */
  stale: Fact[];
  /** how much was made from it in turn */
  outputs: number;
}

export class CoverageShape {
  covered: number;
  chosen: number;
  /** names of chosen channels that have nothing yet */
  missing: string[];
}

export class SpreadOfferShape {
  id: string;
  name: string;
  isUsed: boolean;
  outputs: number;
}

/** What a piece was made from, and what was made from it. */
export class SpinOffsShape {
  source: SpinOffSourceShape | null;
  outputs: SpinOffRowShape[];
  coverage: CoverageShape;
  /** spreads for its kind; those in use first */
  spreads: SpreadOfferShape[];
}

export class TreeSourceShape {
  pieceId: string;
  number: number;
  clientId: string;
  title: string;
  formatName: string;
  stage: PieceStage;
  danger: Danger | null;
  aimOn: string | null;
  coverage: CoverageShape;
  outputs: SpinOffRowShape[];
}

/** Sources with what was made from them. */
export class SpinOffTreeShape {
  sources: TreeSourceShape[];
  /** asks for the next ones; null: these are all */
  next: string | null;
  /** how many outputs are behind their sources, over all that is asked for */
  stale: number;
}

/** Where a placement of an output would go, or why it stays. */
export class AlongShape {
  placementId: string;
  pieceId: string;
  title: string;
  channelName: string;
  from: string;
  /** null: it stays */
  to: string | null;
  /** why it stays or cannot go there */
  problem: 'out' | 'sending' | 'past' | null;
}

export class AlongsShape {
  moves: AlongShape[];
}

import type { Danger } from '@zesting/core';

/** How much of one kind there is to do. */
export class ToMakeCell {
  formatId: string;
  formatName: string;
  /** what whoever does it must be able to do */
  skill: string;
  steps: number;
  /** of these, what can be done now */
  atHand: number;
  minutes: number;
  /** where such steps stand in their paths, on average: what is done first has the least */
  place: number;
}

export class ToMakeShape {
  /** by format; where there is nothing to do there is no cell */
  cells: ToMakeCell[];
}

/** One of the steps that are done one after another. */
export class SittingStep {
  stepId: string;
  stepTitle: string;
  pieceId: string;
  pieceNumber: number;
  pieceTitle: string;
  clientId: string;
  formatName: string;
  doerId: string | null;
  doerName: string | null;
  atHand: boolean;
  startedOn: string | null;
  latestFinishOn: string | null;
  danger: Danger | null;
  leftMinutes: number;
  /** lines of its checklist that nobody has ticked yet */
  linesOpen: number;
  /** what is written so far: the copy that channels share */
  copy: string;
  pictureId: string | null;
}

export class SittingShape {
  /** what can be done now first, by latest finish */
  steps: SittingStep[];
  /** whether these are all */
  isWhole: boolean;
}

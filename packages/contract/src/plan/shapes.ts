import type { LeadStanding, PieceStage, PlacementState, Purpose, RunwayCell, ThemePeriod } from '@zesting/core';
import { MarkerShape, MixRowShape, type MarkerKind } from '../calendar/index.js';
import { AudiencesBody, RhythmRuleBody, ThemeCycleBody } from './bodies.js';

export class RhythmRuleShape extends RhythmRuleBody {
  id: string;
  /** of every second or third week, the day it is counted from */
  anchorOn: string;
  exceptOn: string[];
  channelName: string;
  /** the next days on which it has a slot, at most five */
  nextOn: string[];
  version: number;
}

export class RhythmShape {
  /** the client's */
  todayOn: string;
  zone: string;
  /** those that hold today or later, by channel */
  rules: RhythmRuleShape[];
  /** rules that held before */
  ended: number;
  /** pieces wanted out a week, and a month; null: no number */
  perWeek: number | null;
  perMonth: number | null;
  audiences: AudiencesBody;
  /** slots of the next four weeks, by channel */
  slotsAhead: ChannelSlotsShape[];
}

export class ChannelSlotsShape {
  channelId: string;
  slots: number;
}

export class RuleMadeShape {
  ruleId: string;
}

/** What stands in a slot, or beside the slots of a day. */
export class PlannedShape {
  placementId: string;
  pieceId: string;
  pieceNumber: number;
  title: string;
  stage: PieceStage;
  state: PlacementState;
  channelId: string;
  channelName: string;
  pillarId: string | null;
  formatId: string;
  /** what it is about, below its pillar */
  subjectId: string | null;
  purpose: Purpose | null;
  on: string;
  at: string;
  /** whether a word of the day's theme stands in its title or notes; null: the day has none */
  isOnTheme: boolean | null;
  /** whether it is called by its format and day alone: still to be thought of */
  isUntitled: boolean;
}

export class PlanSlotShape {
  ruleId: string;
  channelId: string;
  channelName: string;
  on: string;
  at: string;
  pillarId: string | null;
  formatId: string | null;
  purpose: Purpose | null;
  /** whether the rhythm wants something here that was out before */
  fromStock: boolean;
  theme: string | null;
  /** names of the busy and quiet times in which it lies */
  seasons: string[];
  /** why nothing is to go out on that day; null: it is open */
  blackout: string | null;
  isPast: boolean;
  planned: PlannedShape | null;
}

/** What could stand in a slot. */
export class SlotCandidateShape {
  /** `again`: a piece that lasts and was out there before */
  kind: 'idea' | 'piece' | 'again';
  /** of the idea, of the placement that has no day yet, or of the placement that was out there last */
  id: string;
  title: string;
  pillarId: string | null;
  formatId: string | null;
  channelIds: string[] | null;
  /** themes of the month that it speaks to */
  themes: string[];
  /** busy and quiet times of the month that it speaks to, by name */
  seasons: string[];
  /** what it is about, below its pillar */
  subjectId: string | null;
  readyOn: string | null;
  notBeforeOn: string | null;
  expiresOn: string | null;
  worth: number;
  /** whether the subject that it is about was put into the month */
  hasTurn: boolean;
  waitsDays: number;
  /** the piece, where it is one */
  pieceId: string | null;
}

export class PlanRouteShape {
  routeId: string;
  name: string;
  formatId: string;
  formatName: string;
  /** the earliest day on which something new of it can be out; null: somebody on the path never works */
  readyOn: string | null;
}

export class PlanThemeShape {
  period: ThemePeriod;
  startOn: string;
  name: string;
  from: 'week' | 'month' | 'cycle';
}

export class PlanMixRowShape extends MixRowShape {
  /** how many of the month's slots it should have, in whole numbers */
  wanted: number;
}

/** A piece of a marker's run-up, and how it stands. */
export class RunUpShape {
  id: string;
  offsetDays: number;
  on: string;
  title: string;
  channelId: string;
  channelName: string;
  routeId: string;
  routeName: string;
  standing: LeadStanding;
  /** what was made of it */
  pieceId: string | null;
  pieceTitle: string | null;
  pieceStage: PieceStage | null;
  /** the day on which that stands; it stays when the marker is moved */
  pieceOn: string | null;
}

/** A marker whose preparation begins, or has begun. */
export class PreparedMarkerShape {
  id: string;
  name: string;
  kind: MarkerKind;
  kindId: string | null;
  kindName: string | null;
  /** null: the agency's own */
  clientId: string | null;
  startOn: string;
  endOn: string;
  leadDays: number;
  version: number;
  prepareOn: string;
  standing: LeadStanding;
  /** pieces of its run-up, and how many of them are made */
  runUps: number;
  made: number;
}

/** A piece that is, or could be, made on a production day. */
export class ProductionPieceShape {
  pieceId: string;
  title: string;
  formatName: string;
  isChosen: boolean;
  /** the day by which it has to be made; null: it has no date */
  needBy: string | null;
}

/** A production day: what is made on it, what stands in its way. */
export class ProductionDayShape {
  markerId: string;
  capacity: number;
  skill: string | null;
  place: string;
  /** 0: nothing was said of it yet */
  version: number;
  /** those that are chosen first */
  pieces: ProductionPieceShape[];
  blockedBy: string[];
  /** whether the agency does not work on it */
  isDayOff: boolean;
  /** pieces that cannot be made on it */
  shortage: number;
  /** where it is blocked: the day on which it could be made up for; null: there is none in time */
  makeUpOn: string | null;
}

/** A client's month: what the rhythm wants, what stands in it, what could, and what the mix still owes. */
export class WeekCountShape {
  mondayOn: string;
  /** pieces placed from that Monday to its Sunday */
  count: number;
}

/** How many pieces are wanted out, and how many are placed. */
export class PlanNumbersShape {
  perWeek: number | null;
  perMonth: number | null;
  /** the whole weeks that touch the month */
  weeks: WeekCountShape[];
  /** pieces placed in the month */
  count: number;
}

export class PlanMonthShape {
  month: string;
  todayOn: string;
  zone: string;
  hasRhythm: boolean;
  slots: PlanSlotShape[];
  /** what is placed in the month and stands in no slot */
  beside: PlannedShape[];
  /** the theme of the month, and those of its weeks */
  themes: PlanThemeShape[];
  cycle: ThemeCycleBody | null;
  markers: MarkerShape[];
  /** markers to come whose preparation begins in the month, or has begun */
  preparing: PreparedMarkerShape[];
  mix: PlanMixRowShape[];
  /** the longest run of one pillar, and days without anything at most */
  longestRun: number;
  longestRunPillarId: string | null;
  largestGapDays: number | null;
  /** pieces that ask something of people, of those of which is said what they ask */
  asking: number;
  askingOf: number;
  numbers: PlanNumbersShape;
  candidates: SlotCandidateShape[];
  /** how many ideas there are that are not among the candidates */
  candidatesHidden: number;
  routes: PlanRouteShape[];
}

/** What the open slots of a month ask to be made. */
export class MonthCostShape {
  formats: { formatId: string; name: string; count: number }[];
  /** slots that take any format: what they ask for is not known */
  ofAny: number;
  /** hands-on minutes by skill, and what those who can do it have left until the last open slot, after all that is taken on */
  skills: SkillCostShape[];
  untilOn: string | null;
}

export class SkillCostShape {
  skill: string;
  minutes: number;
  freeMinutes: number;
}

export class FilledSlotShape {
  ruleId: string;
  on: string;
  pieceId: string | null;
  /** the code of what kept it from being filled */
  problem: string | null;
}

export class FilledSlotsShape {
  slots: FilledSlotShape[];
}

/** A month of a client's year. */
export class YearMonthShape {
  month: string;
  theme: PlanThemeShape | null;
  /** weeks of it that have a theme of their own */
  weekThemes: number;
  /** slots that are not closed, and those in which something stands */
  slots: number;
  filled: number;
  /** placements that stand in no slot */
  beside: number;
}

/** A client's year in layers. */
export class YearShape {
  todayOn: string;
  hasRhythm: boolean;
  months: YearMonthShape[];
  /** each once, by its first day */
  markers: MarkerShape[];
  cycle: ThemeCycleBody | null;
}

/** A client's row of the runway strip. */
export class RunwayRowShape {
  clientId: string;
  todayOn: string;
  hasRhythm: boolean;
  /** days from today to the first hole; null: none in the horizon */
  days: number | null;
  /** one per day, from today */
  cells: RunwayCell[];
  /** slots of the next fourteen days in which nothing stands */
  holes: number;
}

export class RunwayShape {
  horizonDays: number;
  rows: RunwayRowShape[];
}

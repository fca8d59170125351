import type { DutyDoer, DutyState } from '@zesting/core';
import type { DutyPieceBody } from './bodies.js';

/** One time that a duty comes. */
export class DutyDayShape {
  /** the day of the rule: what it is known by */
  on: string;
  startOn: string;
  /** a working day of who does it */
  dueOn: string;
  doer: DutyDoer;
  state: DutyState | 'done' | 'left_out' | 'made';
  ticks: number[];
  /** who said so; null while nobody did */
  by: string | null;
  pieceId: string | null;
}

export class DutyShape {
  id: string;
  clientId: string | null;
  title: string;
  remark: string;
  checklist: string[];
  rule: string | null;
  fromOn: string;
  untilOn: string | null;
  leadDays: number;
  leadId: string;
  leadName: string;
  secondId: string | null;
  secondName: string | null;
  minutes: number;
  piece: DutyPieceBody | null;
  version: number;
  /** the date of who does it */
  todayOn: string;
  /** minutes that it takes in a month of the year to come, on average */
  minutesAMonth: number;
  /** the first that is neither done nor over; null: none is to come */
  next: DutyDayShape | null;
  /** how many of the last three months were missed, and the day of the rule of the last of them */
  missed: number;
  lastMissedOn: string | null;
  /** days of the next six weeks on which somebody should, and nobody of its people works */
  uncoveredOn: string[];
}

export class DutiesShape {
  /** those that hold today or later, by their next day: the first of them where there are very many */
  duties: DutyShape[];
  /** how many more there are */
  hidden: number;
}

/** What has been and what comes of one duty, in the order of time. */
export class DutyDaysShape {
  days: DutyDayShape[];
}

/** A time of a duty that is the viewer's to do. */
export class MyDutyShape {
  dutyId: string;
  clientId: string | null;
  clientCode: string | null;
  clientName: string | null;
  clientColour: number | null;
  title: string;
  remark: string;
  checklist: string[];
  minutes: number;
  day: DutyDayShape;
  /** how many earlier times of the last three months were missed */
  missedBefore: number;
}

export class MyDutiesShape {
  todayOn: string;
  rows: MyDutyShape[];
}

export class DutyMadeShape {
  dutyId: string;
}

/** A duty of somebody, as lead or second person. */
export class PersonDutyShape {
  id: string;
  title: string;
  clientId: string | null;
  isLead: boolean;
}

export class DutiesGivenShape {
  given: number;
}

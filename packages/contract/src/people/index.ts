import { Type } from 'class-transformer';
import {
  ArrayMaxSize,
  IsArray,
  IsBoolean,
  IsEmail,
  IsIn,
  IsObject,
  IsString,
  IsUUID,
  Matches,
  MaxLength,
  MinLength,
  ValidateNested,
} from 'class-validator';
import { IsWeek, IsNotBlank, IsDay, IsTimeOfDay, IsZone, Optional, OptionalOrNull } from '../fields/index.js';
import { ROUND_UP_RHYTHMS, type RoundUpRhythm } from '@zesting/core';

import { MoneyShape } from '../money/index.js';
import { TimeOffBody } from './time-off-bodies.js';

export * from './away-shapes.js';
export * from './team-shapes.js';
export * from './time-off-bodies.js';

/** One who could do a step. Load and time off are hours and dates; no titles of other clients' pieces. */
/** Other pieces that become late if a step is given to somebody, or later than they are. */
export class DelaysShape {
  personId: string;
  count: number;
  /** the worst of them, of the viewer's clients */
  titles: string[];
}

export class CandidateShape {
  personId: string;
  name: string;
  role: string;
  zone: string;
  /** 0 where the person lacks the skill, else 1 to 3 */
  skillLevel: number;
  openSteps: number;
  openMinutes: number;
  /** days off between today and the step's latest finish */
  timeOffOn: string[];
  /** when it is predicted to end if given to this person, by all that they have to do */
  predictedFinishOn: string | null;
  /** what is left of it costs so much; null: hours that are paid anyway, nothing is agreed, or the viewer is not told rates */
  cost: MoneyShape | null;
  /** the latest finish in this person's calendar */
  latestFinishOn: string | null;
  /** works for this client, or has finished steps for it */
  knowsClient: boolean;
  /** must not work for this client */
  isBarred: boolean;
  /** they usually do it for this client */
  isUsual: boolean;
}

export class AssignBody {
  @OptionalOrNull()
  @IsUUID()
  personId: string | null;
}

export const ROLES = ['lead', 'manager', 'staff', 'freelance'] as const;
export type PersonRole = (typeof ROLES)[number];

export class NewPersonBody {
  @IsString()
  @IsNotBlank()
  @MaxLength(100)
  name: string;

  @IsEmail()
  @MaxLength(200)
  email: string;

  @IsIn(ROLES)
  role: PersonRole;

  @IsZone()
  zone: string;

  @Matches(/^[A-Z]{2}(-[A-Z0-9]{1,4})?$/)
  region: string;

  @IsWeek()
  weeklyMinutes: number[];

  /** by skill: 1 can do it, 2 does it well, 3 does it best */
  @IsObject()
  skills: Record<string, number>;
}

export class PersonClientBody {
  @IsUUID()
  clientId: string;

  /** `own`: manages it, or works for it; `barred`: must not work for it */
  @IsIn(['own', 'barred'])
  relation: 'own' | 'barred';
}

export class EditPersonBody {
  @Optional()
  @IsString()
  @IsNotBlank()
  @MaxLength(100)
  name?: string;

  @Optional()
  @IsEmail()
  @MaxLength(200)
  email?: string;

  @Optional()
  @IsIn(ROLES)
  role?: PersonRole;

  @Optional()
  @IsZone()
  zone?: string;

  @Optional()
  @Matches(/^[A-Z]{2}(-[A-Z0-9]{1,4})?$/)
  region?: string;

  @Optional()
  @IsWeek()
  weeklyMinutes?: number[];

  @Optional()
  @IsObject()
  skills?: Record<string, number>;

  /** the right to make and change intake forms; leads have it anyway */
  @Optional()
  @IsBoolean()
  mayEditForms?: boolean;

  /** the whole list of clients known or barred */
  @Optional()
  @IsArray()
  @ArrayMaxSize(200)
  @ValidateNested({ each: true })
  @Type(() => PersonClientBody)
  clients?: PersonClientBody[];
}

/** Absences found in an iCalendar file, to be taken over. */
export class ImportTimeOffBody {
  @IsArray()
  @ArrayMaxSize(500)
  @ValidateNested({ each: true })
  @Type(() => FoundTimeOff)
  absences: FoundTimeOff[];
}

export class FoundTimeOff extends TimeOffBody {
  /** the event's own id: reading the file again replaces what it brought */
  @IsString()
  @IsNotBlank()
  @MaxLength(300)
  uid: string;
}

export class FoundTimeOffShape {
  absences: FoundTimeOff[];
  /** events that take no working day, or are marked as free or cancelled */
  leftOut: number;
}

/** How often a person's messages go out. */
export class RoundUpBody {
  @IsIn(ROUND_UP_RHYTHMS)
  rhythm: RoundUpRhythm;

  /** the time of the daily round-up in the person's zone */
  @IsTimeOfDay()
  at: string;
}

export class CoverBody {
  @IsUUID()
  coverId: string;

  @IsDay()
  startOn: string;

  @IsDay()
  endOn: string;
}

export class GiveStepsBody {
  @IsArray()
  @ArrayMaxSize(500)
  @IsUUID('all', { each: true })
  stepIds: string[];

  @IsUUID()
  personId: string;
}

export class SetPasswordBody {
  @IsString()
  @MinLength(10)
  @MaxLength(200)
  password: string;
}

export class InviteShape {
  name: string;
  email: string;
  agencyName: string;
}

/** A line of the list of people. */
export class PersonRow {
  id: string;
  name: string;
  email: string;
  role: PersonRole;
  zone: string;
  region: string;
  weeklyMinutes: number[];
  skills: Record<string, number>;
  active: boolean;
  /** no password set yet */
  isInvited: boolean;
  openSteps: number;
  openMinutes: number;
  /** the last day of the absence that covers today; null when here */
  awayUntil: string | null;
}

export class TimeOffShape {
  id: string;
  startOn: string;
  endOn: string;
  part: number;
  note: string;
  /** came from a calendar file */
  isImported: boolean;
}

export class CoverShape {
  id: string;
  managerId: string;
  managerName: string;
  coverId: string;
  coverName: string;
  startOn: string;
  endOn: string;
}

export class PersonClientShape {
  clientId: string;
  code: string;
  name: string;
  colour: number;
  relation: 'own' | 'barred';
}

export class PersonStepShape {
  stepId: string;
  title: string;
  skill: string;
  pieceId: string;
  pieceTitle: string;
  clientId: string;
  latestFinishOn: string | null;
  effortMinutes: number;
}

/** The whole of a person's page. Clients are those in the viewer's reach; so are the steps. */
export class PersonPageShape extends PersonRow {
  todayOn: string;
  timeOff: TimeOffShape[];
  clients: PersonClientShape[];
  covers: CoverShape[];
  steps: PersonStepShape[];
  /** open steps for clients that are not the viewer's */
  hiddenSteps: number;
  /** the region's public holidays over the next twelve months */
  holidays: { on: string; name: string }[];
  leftAt: string | null;
  roundUp: RoundUpBody;
  /** the right to make and change intake forms; leads have it anyway */
  mayEditForms: boolean;
  version: number;
  /** all fields may be changed; otherwise only the own time off and cover */
  canEdit: boolean;
  isSelf: boolean;
}

export class PersonMadeShape {
  personId: string;
}

import { Type } from 'class-transformer';
import {
  ArrayMaxSize,
  IsArray,
  IsBoolean,
  IsEmail,
  IsIn,
  IsInt,
  IsISO4217CurrencyCode,
  IsObject,
  IsString,
  IsUUID,
  Matches,
  Max,
  MaxLength,
  Min,
  ValidateNested,
} from 'class-validator';
import { ROUND_UP_RHYTHMS, type RoundUpRhythm } from '@zesting/core';
import { IsWeek, IsNotBlank, IsTimeOfDay, IsZone, Optional, OptionalOrNull } from '../fields/index.js';

/** What a visitor who is not signed in may know: whether there is an agency yet, and whether its first lead must show the set-up code. */
export class StartShape {
  state: 'empty' | 'ready';
  needsCode: boolean;
}

/** Sets up the agency with its first lead. */
export class SetUpBody {
  @IsString()
  @IsNotBlank()
  @MaxLength(100)
  agencyName: string;

  @IsZone()
  zone: string;

  @Matches(/^[A-Z]{2}(-[A-Z0-9]{1,4})?$/)
  region: string;

  @IsWeek()
  weeklyMinutes: number[];

  @IsTimeOfDay()
  cutOff: string;

  @IsString()
  @IsNotBlank()
  @MaxLength(100)
  name: string;

  @IsEmail()
  @MaxLength(200)
  email: string;

  @IsString()
  @MaxLength(200)
  password: string;

  /** whether it begins with the usual formats, routes, skills and a form */
  @IsBoolean()
  withStock: boolean;

  /** what the log says at the start, where Zesting can be reached from the internet */
  @Optional()
  @IsString()
  @MaxLength(40)
  code?: string;
}

/** An entry of one of the agency's lists. Without an id it is new. */
export class ListEntryBody {
  @Optional()
  @IsUUID()
  id?: string;

  @IsString()
  @IsNotBlank()
  @MaxLength(40)
  name: string;
}

export class ListEntryShape {
  id: string;
  name: string;
  /** how many routes, or people and routes, use it */
  uses: number;
}

/** How a new client signs off. */
export class DefaultPolicyBody {
  @IsIn(['any', 'all'])
  kind: 'any' | 'all';

  /** after so many of the client's working days without an answer a person may record that none came */
  @Optional()
  @IsInt()
  @Min(1)
  @Max(30)
  silenceDays?: number;
}

/** How much each mark of an idea counts beside the others, 0 to 9. */
export class IdeaWeightsBody {
  @IsInt()
  @Min(0)
  @Max(9)
  merit: number;

  @IsInt()
  @Min(0)
  @Max(9)
  ease: number;

  @IsInt()
  @Min(0)
  @Max(9)
  chance: number;
}

/** What the agency sets for itself. */
export class AgencySettingsShape {
  name: string;
  zone: string;
  region: string;
  /** Monday to Sunday: what nobody has yet is planned in these hours */
  weeklyMinutes: number[];
  /** work that arrives later than this in its doer's day begins on the next */
  cutOff: string;
  /** slack of so many working days or fewer is called tight */
  tightDays: number;
  /** of fees and rates, by ISO 4217 */
  currency: string;
  /** days ahead that anything should be asked for, and a launch */
  noticeDays: number;
  launchNoticeDays: number;
  /** a session ends so many days after signing in */
  sessionDays: number;
  /** pictures keep what a camera wrote beside them: where and when they were taken */
  keepsPlaces: boolean;
  /** Monday is 1: when managers are reminded to look through what goes out next; null: they are not */
  checkWeekday: number | null;
  /** what visitors' pages are lined with, `#rrggbb`; null: the client's colour alone */
  accent: string | null;
  /** changes with the mark; null without one */
  markAddress: string | null;
  /** whom mail comes from; null: as the installation says */
  mailFrom: MailFromBody | null;
  /** when a trial mail was last taken by the mail server */
  mailProvedAt: string | null;
  /** nothing is sent to people between these times of their day; the same twice: at any hour */
  quietFrom: string;
  quietTo: string;
  /** what a new person begins with */
  roundUp: RoundUpRhythm;
  roundUpAt: string;
  defaultPolicy: DefaultPolicyBody;
  ideaWeights: IdeaWeightsBody;
  /** the form that a new client gets a link to; null while there is none */
  defaultFormId: string | null;
  formats: ListEntryShape[];
  skills: ListEntryShape[];
  /** kinds of markers of its own */
  markerKinds: ListEntryShape[];
  archived: { formats: ListEntryShape[]; skills: ListEntryShape[]; markerKinds: ListEntryShape[] };
  isDemo: boolean;
  version: number;
}

export class MailFromBody {
  @IsString()
  @IsNotBlank()
  @MaxLength(100)
  @Matches(/^[^<>"\r\n]+$/)
  name: string;

  @IsEmail()
  @MaxLength(200)
  address: string;
}

export class EditAgencyBody {
  @Optional()
  @IsString()
  @IsNotBlank()
  @MaxLength(100)
  name?: string;

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
  @IsTimeOfDay()
  cutOff?: string;

  @Optional()
  @IsInt()
  @Min(0)
  @Max(20)
  tightDays?: number;

  /** of fees and rates; amounts that are agreed stay the figures they are */
  @Optional()
  @IsISO4217CurrencyCode()
  currency?: string;

  @Optional()
  @IsInt()
  @Min(0)
  @Max(365)
  noticeDays?: number;

  @Optional()
  @IsInt()
  @Min(0)
  @Max(365)
  launchNoticeDays?: number;

  @Optional()
  @IsInt()
  @Min(1)
  @Max(90)
  sessionDays?: number;

  @Optional()
  @IsBoolean()
  keepsPlaces?: boolean;

  /** null takes it away */
  @OptionalOrNull()
  @Matches(/^#[0-9a-f]{6}$/)
  accent?: string | null;

  /** null takes it away */
  @OptionalOrNull()
  @IsObject()
  @ValidateNested()
  @Type(() => MailFromBody)
  mailFrom?: MailFromBody | null;

  /** null: nobody is reminded */
  @OptionalOrNull()
  @IsInt()
  @Min(1)
  @Max(7)
  checkWeekday?: number | null;

  @Optional()
  @IsTimeOfDay()
  quietFrom?: string;

  @Optional()
  @IsTimeOfDay()
  quietTo?: string;

  @Optional()
  @IsIn(ROUND_UP_RHYTHMS)
  roundUp?: RoundUpRhythm;

  @Optional()
  @IsTimeOfDay()
  roundUpAt?: string;

  @Optional()
  @IsObject()
  @ValidateNested()
  @Type(() => DefaultPolicyBody)
  defaultPolicy?: DefaultPolicyBody;

  @Optional()
  @IsObject()
  @ValidateNested()
  @Type(() => IdeaWeightsBody)
  ideaWeights?: IdeaWeightsBody;

  @OptionalOrNull()
  @IsUUID()
  defaultFormId?: string | null;

  /** the whole list in its order: what is missing from it is archived */
  @Optional()
  @IsArray()
  @ArrayMaxSize(100)
  @ValidateNested({ each: true })
  @Type(() => ListEntryBody)
  formats?: ListEntryBody[];

  @Optional()
  @IsArray()
  @ArrayMaxSize(100)
  @ValidateNested({ each: true })
  @Type(() => ListEntryBody)
  skills?: ListEntryBody[];

  @Optional()
  @IsArray()
  @ArrayMaxSize(100)
  @ValidateNested({ each: true })
  @Type(() => ListEntryBody)
  markerKinds?: ListEntryBody[];
}

/** What was added of the starting stock: names of what was there already are left out. */
export class StockShape {
  formats: string[];
  routes: string[];
  skills: string[];
  form: boolean;
}

/** What comes next for an agency that begins, each with its state. */
export class BeginningShape {
  steps: BeginningStep[];
  isHidden: boolean;
}

export class BeginningStep {
  key: 'routes' | 'clients' | 'contacts' | 'forms' | 'people' | 'mail' | 'pieces';
  isDone: boolean;
  /** how many there are */
  count: number;
}

export class HideBeginningBody {
  @IsBoolean()
  hidden: boolean;
}

/** The agency's name, typed: so that nothing is removed by a slip. */
export class LeaveDemoBody {
  @IsString()
  @MaxLength(100)
  name: string;
}

/** What leaving the demo removes. */
export class DemoShape {
  clients: number;
  people: number;
  pieces: number;
  requests: number;
}

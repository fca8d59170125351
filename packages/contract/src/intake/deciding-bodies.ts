import { ArrayMaxSize, ArrayUnique, IsArray, IsBoolean, IsEmail, IsObject, IsString, IsUUID, MaxLength } from 'class-validator';
import type { Answers, BriefFact, FormItem, FormLanguage, VerdictWord } from '@zesting/core';
import { IsDay, IsNotBlank, OrNull } from '../fields/index.js';
import type { ProposedDoerShape } from './piece-shapes.js';

/** A question back to the requester, or an answer of theirs. */
export class RequestMessageBody {
  @IsString()
  @IsNotBlank()
  @MaxLength(4000)
  text: string;
}

/** Keeps a request on the idea list. */
export class KeepIdeaBody {
  /** a word to the requester; empty for none */
  @IsString()
  @MaxLength(2000)
  note: string;
}

/** Takes a mail that waits as a request. */
export class TakeMailBody {
  /** whether its sender is a contact of the client from now on, who may ask */
  @IsBoolean()
  asContact: boolean;
}

export class RequestOwnerBody {
  @IsUUID()
  ownerId: string;
}

/** Makes a request part of another that asks for the same. */
export class MergeRequestBody {
  @IsUUID()
  intoId: string;
}

/** Puts a request to a piece that is there already. */
export class AttachRequestBody {
  @IsUUID()
  pieceId: string;
}

/** What somebody asks for by telephone, taken down on a form. */
export class TakeDownBody {
  @IsUUID()
  formId: string;

  @IsString()
  @IsNotBlank()
  @MaxLength(100)
  name: string;

  /** null where they have none */
  @OrNull()
  @IsEmail()
  @MaxLength(200)
  email: string | null;

  @IsObject()
  answers: Answers;
}

/** A form by which something can be taken down, with what can be chosen filled in. */
export class AskableFormShape {
  formId: string;
  title: string;
  items: FormItem[];
  todayOn: string;
  language: FormLanguage;
}

export class TakenDownShape {
  requestId: string;
}

/** Something like what is asked for: asked, under way, or published. */
export class TwinShape {
  kind: 'request' | 'piece';
  id: string;
  number: number;
  title: string;
  /** how it stands: a state of requests or a stage of pieces */
  state: string;
  formatName: string | null;
  on: string;
  /** 0 to 1 */
  likeness: number;
  sharedWords: string[];
  /** its title is not alike, its text is */
  isInText: boolean;
}

/** What stands on the wished day. */
export class ClashShape {
  kind: 'placement' | 'blackout' | 'production_day' | 'day_off';
  name: string;
  pieceId: string | null;
}

/** Hours of a skill that the route takes, and what is free until the wished day. */
export class SkillHoursShape {
  skill: string;
  minutes: number;
  /** of all who have it, after what they have already; null without a day to reckon to */
  freeMinutes: number | null;
  people: number;
}

/** What would bring the wished day nearer: a step left out, or given fewer days. */
export class HelpShape {
  stepKey: string;
  title: string;
  /** the working days that it would have; null: it is left out */
  spanDays: number | null;
  /** the day that is predicted then */
  predictedOn: string;
}

/** How much of what a month includes is used. */
export class AllowanceLineShape {
  /** null: the hours of work */
  formatName: string | null;
  included: number;
  used: number;
  left: number;
  /** what would be left with the piece that is asked for; null where it is none of this line’s */
  leftThen: number | null;
}

/** What is left of a client's allowance in a month; no lines where none is agreed. */
export class AllowanceShape {
  /** such as 2027-03 */
  month: string;
  lines: AllowanceLineShape[];
}

/** What a contact has typed so far, to be told what is alike. */
export class KnownBody {
  @IsString()
  @MaxLength(200)
  title: string;

  /** the day that is wished for, whose month is told of; null: this one */
  @OrNull()
  @IsDay()
  on: string | null;
}

/** Something like what a contact asks for. */
export class KnownTwinShape {
  /** null while it is in the making and nobody of the client asked for it */
  title: string | null;
  formatName: string | null;
  on: string;
  standing: 'asked' | 'planned' | 'out';
}

/** What a contact of the client is told while they ask. */
export class KnownShape {
  name: string;
  email: string;
  alike: KnownTwinShape[];
  allowance: AllowanceShape;
}

/** A request judged with figures. */
export class VerdictShape {
  word: VerdictWord;
  routeId: string | null;
  wishOn: string | null;
  /** by the path and the calendars alone */
  earliestOn: string | null;
  /** after all that is taken on already, as its load is predicted */
  predictedOn: string | null;
  /** between that day and the wished one */
  slackDays: number | null;
  /** the last day on which work can begin for the wished one, by the path alone */
  beginBy: string | null;
  missing: BriefFact[];
  /** a question that asks for what is missing, ready to be sent; empty where nothing is */
  question: string;
  noticeOn: string;
  keepsNotice: boolean;
  isLaunch: boolean;
  skills: SkillHoursShape[];
  helps: HelpShape[];
  doers: ProposedDoerShape[];
  allowance: AllowanceShape;
  twins: TwinShape[];
  clashes: ClashShape[];
}

/** What the requester writes on their page, with files that were sent there. */
export class AnswerBackBody extends RequestMessageBody {
  @IsArray()
  @ArrayMaxSize(20)
  @ArrayUnique()
  @IsUUID('all', { each: true })
  assetIds: string[];
}

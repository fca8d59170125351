import { ArrayMaxSize, ArrayUnique, IsArray, IsEmail, IsObject, IsString, IsUUID, MaxLength } from 'class-validator';
import type { Answers, BriefFact, FormItem, FormLanguage, VerdictWord } from '@zesting/core';
import { IsNotBlank, OrNull } from '../fields/index.js';

/** A question back to the requester, or an answer of theirs. */
export class RequestMessageBody {
  @IsString()
  @IsNotBlank()
  @MaxLength(4000)
  text: string;
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

/** What would make an earlier day possible. */
export class HelpShape {
  leaveOut: string;
  title: string;
  earliestOn: string;
}

/** A request judged with figures. */
export class VerdictShape {
  word: VerdictWord;
  routeId: string | null;
  wishOn: string | null;
  earliestOn: string | null;
  slackDays: number | null;
  missing: BriefFact[];
  /** a question that asks for what is missing, ready to be sent; empty where nothing is */
  question: string;
  noticeOn: string;
  keepsNotice: boolean;
  isLaunch: boolean;
  skills: SkillHoursShape[];
  helps: HelpShape[];
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

import { ArrayMaxSize, ArrayMinSize, IsArray, IsIn, IsString, IsUUID, MaxLength } from 'class-validator';
import { IsDay, IsNotBlank, Optional, OptionalOrNull, OrNull } from '../fields/index.js';

/** The most questions that one is asked at a time. */
export const QUESTIONS_MOST = 30;
export const QUESTION_LENGTH = 500;
export const ANSWER_LENGTH = 10_000;

const Questions =
  (least: number): PropertyDecorator =>
  (target, key) => {
    IsArray()(target, key);
    ArrayMinSize(least)(target, key);
    ArrayMaxSize(QUESTIONS_MOST)(target, key);
    IsString({ each: true })(target, key);
    IsNotBlank({ each: true })(target, key);
    MaxLength(QUESTION_LENGTH, { each: true })(target, key);
  };

/** Questions that are kept to be asked again. */
export class QuestionSetBody {
  @IsString()
  @IsNotBlank()
  @MaxLength(100)
  title: string;

  /** the treatment it draws knowledge for; empty: any */
  @IsString()
  @MaxLength(60)
  treatment: string;

  @Questions(1)
  questions: string[];
}

export class NewQuestionSetBody extends QuestionSetBody {
  /** whose it is; null: for every client */
  @OrNull()
  @IsUUID()
  clientId: string | null;
}

/** Puts questions to somebody who knows. */
export class AskInterviewBody {
  @IsString()
  @IsNotBlank()
  @MaxLength(150)
  title: string;

  /** what it is for: an idea or a piece of the client; without either it is for the client */
  @OptionalOrNull()
  @IsUUID()
  ideaId?: string | null;

  @OptionalOrNull()
  @IsUUID()
  pieceId?: string | null;

  /** the contact who answers in the room; null: the team writes down what it hears */
  @OrNull()
  @IsUUID()
  contactId: string | null;

  /** who is asked, where it is no contact */
  @Optional()
  @IsString()
  @MaxLength(100)
  answerer?: string;

  /** by when; null: there is no hurry */
  @OrNull()
  @IsDay()
  dueOn: string | null;

  @Questions(1)
  questions: string[];
}

export class EditInterviewBody {
  @Optional()
  @IsString()
  @IsNotBlank()
  @MaxLength(150)
  title?: string;

  @OptionalOrNull()
  @IsDay()
  dueOn?: string | null;

  /** asked in addition */
  @Optional()
  @Questions(0)
  questions?: string[];
}

export class InterviewStateBody {
  @IsIn(['open', 'closed'])
  state: 'open' | 'closed';
}

/** An answer; an empty one takes it back. */
export class InterviewAnswerBody {
  @IsString()
  @MaxLength(ANSWER_LENGTH)
  text: string;
}

import {
  ArrayMaxSize,
  ArrayMinSize,
  ArrayUnique,
  IsArray,
  IsIn,
  IsInt,
  IsString,
  IsUUID,
  IsUrl,
  Max,
  MaxLength,
  Min,
} from 'class-validator';
import { IsDay, IsNotBlank, Optional, OptionalOrNull } from '../fields/index.js';

const Mark = (): PropertyDecorator => (target, key) => {
  OptionalOrNull()(target, key);
  IsInt()(target, key);
  Min(1)(target, key);
  Max(5)(target, key);
};

/** What of an idea can be told beside its one line. What is left out stays as it is, or is none. */
class IdeaDetails {
  @Optional()
  @IsString()
  @MaxLength(4000)
  note?: string;

  @OptionalOrNull()
  @IsUrl({ require_tld: false, protocols: ['http', 'https'], require_protocol: true })
  @MaxLength(2000)
  link?: string | null;

  @OptionalOrNull()
  @IsUUID()
  pillarId?: string | null;

  @OptionalOrNull()
  @IsUUID()
  formatId?: string | null;

  @OptionalOrNull()
  @IsUUID()
  channelId?: string | null;

  /** how good it is, 1 to 5; null: not weighed */
  @Mark()
  merit?: number | null;

  /** how little work it is */
  @Mark()
  ease?: number | null;

  /** how likely it is to work */
  @Mark()
  chance?: number | null;

  /** not to be out before this day; null: at any time */
  @OptionalOrNull()
  @IsDay()
  notBeforeOn?: string | null;

  /** the last day on which it is worth being out: of what follows a trend; null: it lasts */
  @OptionalOrNull()
  @IsDay()
  freshUntilOn?: string | null;
}

/** An idea, caught in one line. */
export class NewIdeaBody extends IdeaDetails {
  @IsString()
  @IsNotBlank()
  @MaxLength(200)
  title: string;

  /** null: for no client yet */
  @OptionalOrNull()
  @IsUUID()
  clientId?: string | null;
}

export class EditIdeaBody extends IdeaDetails {
  @Optional()
  @IsString()
  @IsNotBlank()
  @MaxLength(200)
  title?: string;

  /** an idea that has a client stays with it */
  @Optional()
  @IsUUID()
  clientId?: string;
}

export class IdeaStateBody {
  @IsIn(['open', 'dropped'])
  state: 'open' | 'dropped';
}

/** Ideas that become a part of another. */
export class CombineIdeasBody {
  @IsArray()
  @ArrayMinSize(1)
  @ArrayMaxSize(20)
  @ArrayUnique()
  @IsUUID('all', { each: true })
  ideaIds: string[];
}

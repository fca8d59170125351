import { Type } from 'class-transformer';
import { ArrayMaxSize, IsArray, IsIn, IsInt, IsString, Max, MaxLength, Min, ValidateNested } from 'class-validator';
import { IsNotBlank } from '../fields/index.js';

/** Something that is done by hand so many days after a placement is out. */
export class FollowUpItemBody {
  @IsString()
  @IsNotBlank()
  @MaxLength(200)
  words: string;

  /** 0: on the day itself */
  @IsInt()
  @Min(0)
  @Max(365)
  daysAfter: number;
}

export class FollowUpListBody {
  @IsArray()
  @ArrayMaxSize(20)
  @ValidateNested({ each: true })
  @Type(() => FollowUpItemBody)
  items: FollowUpItemBody[];
}

export class FollowUpStateBody {
  @IsIn(['open', 'done', 'left_out'])
  state: 'open' | 'done' | 'left_out';
}

export class FollowUpItemShape {
  words: string;
  daysAfter: number;
}

/** What is done after something goes out on a channel. */
export class FollowUpListShape {
  channelId: string;
  items: FollowUpItemShape[];
  version: number;
}

export class FollowUpListsShape {
  lists: FollowUpListShape[];
}

/** Something to be done after a placement went out. */
export class FollowUpShape {
  id: string;
  words: string;
  dueOn: string;
  state: 'open' | 'done' | 'left_out';
  settledBy: string | null;
  clientId: string;
  pieceId: string;
  pieceTitle: string;
  channelName: string;
  /** where it can be seen */
  address: string | null;
}

/** A client's today. */
export class FollowUpTodayShape {
  clientId: string;
  todayOn: string;
}

export class FollowUpsShape {
  todays: FollowUpTodayShape[];
  /** open ones up to seven days ahead, the earliest first */
  open: FollowUpShape[];
  hidden: number;
  /** settled today, the newest first */
  settled: FollowUpShape[];
}

import { IsBoolean, IsInt, IsString, IsUrl, Max, MaxLength, Min } from 'class-validator';
import { IsDay, IsTimeOfDay, OptionalOrNull, OrNull } from '../fields/index.js';

/** Whether something goes out by itself, and why not. */
export class SendingStopBody {
  @IsBoolean()
  isStopped: boolean;

  @IsString()
  @MaxLength(300)
  why: string;
}

/** What became of what a channel does not say. */
export class SettleSendingBody {
  @IsBoolean()
  isOut: boolean;

  /** where it can be seen */
  @OptionalOrNull()
  @IsUrl({ protocols: ['http', 'https'], require_protocol: true, require_tld: false })
  @MaxLength(2000)
  address?: string | null;

  @OptionalOrNull()
  @IsDay()
  on?: string | null;

  @OptionalOrNull()
  @IsTimeOfDay()
  at?: string | null;
}

/** How a channel is reached by itself. */
export class ChannelLinkBody {
  /** null: the simulated channel that ships with Zesting */
  @OrNull()
  @IsString()
  @MaxLength(500)
  address: string | null;

  /** left away: as it was; empty: none is sent */
  @OptionalOrNull()
  @IsString()
  @MaxLength(4000)
  token?: string | null;

  /** the last day on which the token holds; null: it does not end */
  @OrNull()
  @IsDay()
  accessEndsOn: string | null;

  /** those who get it, where the channel has several lists */
  @IsString()
  @MaxLength(200)
  audience: string;

  /** so many in 24 hours; null: no limit */
  @OrNull()
  @IsInt()
  @Min(1)
  @Max(10_000)
  dailyLimit: number | null;

  /** so many in a minute; null: no limit */
  @OptionalOrNull()
  @IsInt()
  @Min(1)
  @Max(1000)
  minuteLimit?: number | null;

  /** so many minutes late it may still go out by itself */
  @IsInt()
  @Min(0)
  @Max(1440)
  lateMinutes: number;
}

export class ChannelLinkShape {
  channelId: string;
  channelName: string;
  clientId: string;
  address: string | null;
  hasToken: boolean;
  accessEndsOn: string | null;
  audience: string;
  dailyLimit: number | null;
  minuteLimit: number | null;
  lateMinutes: number;
  version: number;
}

export class ChannelLinksShape {
  links: ChannelLinkShape[];
  /** whether simulated channels ship with this Zesting */
  canSimulate: boolean;
}

/** Whether a channel answered. */
export class ChannelTriedShape {
  /** what it calls itself; null where it did not answer */
  name: string | null;
  reason: string | null;
}

/** That nothing goes out by itself: on a channel, for a client, or at all. */
export class SendingStopShape {
  clientId: string | null;
  channelId: string | null;
  channelName: string | null;
  why: string;
  by: string;
  at: string;
}

/** A channel that is reached by itself. */
export class SendingChannelShape {
  channelId: string;
  channelName: string;
  clientId: string;
  accessEndsOn: string | null;
  /** within two weeks, or already */
  endsSoon: boolean;
}

export class SendingNowShape {
  stops: SendingStopShape[];
  channels: SendingChannelShape[];
}

import { Entity, PrimaryColumn } from 'typeorm';
import { IdColumn, IntColumn, JsonColumn, Refers } from '../../../platform/database/columns.js';

/** Something that is done by hand so many days after a placement is out. */
export interface FollowUpItem {
  readonly words: string;
  /** 0: on the day itself */
  readonly daysAfter: number;
}

/** What is done after something went out on a channel, in its order. */
@Entity('follow_up_lists')
export class FollowUpList {
  @Refers('Channel', 'fk_follow_up_lists_channel')
  @PrimaryColumn('uuid')
  channelId: string;
  @Refers('Client', 'fk_follow_up_lists_client')
  @IdColumn()
  clientId: string;
  @JsonColumn() items: FollowUpItem[];
  @IntColumn({ default: 1 }) version: number;
}

import type { PlacementWorkRule } from '@zesting/core';
import { Entity, PrimaryColumn } from 'typeorm';
import { IdColumn, IntColumn, JsonColumn, Refers } from '../../../platform/database/columns.js';

/** Something that is done around each placement of a channel. */
export interface FollowUpItem extends PlacementWorkRule {
  /** stays with it whatever else of it is changed */
  readonly key: string;
  readonly words: string;
  /** who does it; null: whoever comes to it */
  readonly personId: string | null;
  /** what it takes each time */
  readonly minutes: number;
}

/** What is done around everything that goes out on a channel, in its order. */
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

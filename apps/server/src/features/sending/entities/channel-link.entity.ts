import { Check, Entity, Index, PrimaryColumn } from 'typeorm';
import { DayColumn, IdColumn, InstantColumn, IntColumn, Refers, TextColumn } from '../../../platform/database/columns.js';

/** How a channel is reached by which placements go out by themselves; without one, somebody posts there. */
@Check(
  'ck_channel_links_numbers',
  '(coalesce(daily_limit, 1) > 0) and (coalesce(minute_limit, 1) > 0) and (late_minutes >= 0) and (late_minutes <= 1440)',
)
@Index('ix_channel_links_ending', ['accessEndsOn'], { where: 'access_ends_on is not null' })
@Entity('channel_links')
export class ChannelLink {
  @Refers('Channel', 'fk_channel_links_channel')
  @PrimaryColumn('uuid')
  channelId: string;
  @Refers('Client', 'fk_channel_links_client')
  @IdColumn()
  clientId: string;
  /** null: the simulated channel that ships with Zesting */
  @TextColumn({ nullable: true }) address: string | null;
  /** sealed with the server's key; empty: none is sent */
  @TextColumn() token: string;
  @DayColumn({ nullable: true }) accessEndsOn: string | null;
  /** those who get it, where a channel has several such lists */
  @TextColumn({ default: '' }) audience: string;
  /** so many in 24 hours; null: no limit */
  @IntColumn({ nullable: true }) dailyLimit: number | null;
  /** so many in a minute; null: no limit */
  @IntColumn({ nullable: true }) minuteLimit: number | null;
  /** so many minutes late it may still go out by itself */
  @IntColumn({ default: 30 }) lateMinutes: number;
  /** the end of access of which somebody was told */
  @DayColumn({ nullable: true }) toldEndsOn: string | null;
  @InstantColumn() madeAt: string;
  @IntColumn({ default: 1 }) version: number;
}

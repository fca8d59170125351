import { Column, Entity, PrimaryColumn } from 'typeorm';
import { BoolColumn, DayColumn, IdColumn, InstantColumn, IntColumn, TextColumn } from '../../../platform/database/columns.js';

/** One piece on one channel, at one date and time once it has one. Date, time and zone are kept; the instant is derived. */
@Entity('placements')
export class Placement {
  @PrimaryColumn('uuid', { generated: 'uuid' }) id: string;
  @IdColumn() pieceId: string;
  @IdColumn() clientId: string;
  @IdColumn() channelId: string;
  @DayColumn({ nullable: true }) onDay: string | null;
  @Column({ type: 'time', nullable: true }) atTime: string | null;
  @TextColumn() zone: string;
  @InstantColumn({ nullable: true }) publishAt: string | null;
  @InstantColumn({ nullable: true }) outAt: string | null;
  @TextColumn({ nullable: true }) outAddress: string | null;
  @BoolColumn() cancelled: boolean;
  @IntColumn() version: number;
  @InstantColumn() createdAt: string;
  @InstantColumn() updatedAt: string;
}

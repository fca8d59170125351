import { Check, Entity, Index } from 'typeorm';
import { DayColumn, IdColumn, IdKey, InstantColumn, IntColumn, Refers, TextColumn } from '../../../platform/database/columns.js';

/** Pieces that serve one aim over one period. */
@Check('ck_campaigns_order', 'to_on >= from_on')
@Index('ix_campaigns_client', ['clientId', 'fromOn'])
@Entity('campaigns')
export class Campaign {
  @IdKey() id: string;
  @Refers('Client', 'fk_campaigns_client')
  @IdColumn()
  clientId: string;
  @TextColumn() name: string;
  @TextColumn({ default: () => "''" }) aim: string;
  @DayColumn() fromOn: string;
  @DayColumn() toOn: string;
  /** where it is mainly seen */
  @IdColumn({ array: true, default: () => "'{}'" }) channelIds: string[];
  @InstantColumn({ nullable: true }) archivedAt: string | null;
  @IntColumn({ default: 1 }) version: number;
}

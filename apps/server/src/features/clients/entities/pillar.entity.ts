import { Check, Entity } from 'typeorm';
import { IdColumn, IdKey, InstantColumn, IntColumn, Made, Refers, TextColumn } from '../../../platform/database/columns.js';

/** One of the few subjects a client keeps returning to, and its share of the mix. */
@Check('ck_pillars_share', 'share >= 0 and share <= 100')
@Check('ck_pillars_colour', 'colour between 0 and 11')
@Made('create index ix_pillars_client on pillars (client_id, position)')
@Entity('pillars')
export class Pillar {
  @IdKey() id: string;
  @Refers('Client', 'fk_pillars_client')
  @IdColumn()
  clientId: string;
  @TextColumn() name: string;
  @IntColumn({ default: 0 }) position: number;
  @IntColumn({ default: 0 }) share: number;
  /** its step around the twelve colours */
  @IntColumn({ default: 0 }) colour: number;
  @InstantColumn({ nullable: true }) archivedAt: string | null;
}

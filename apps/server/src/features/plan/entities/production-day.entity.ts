import { Check, Entity, Index, PrimaryColumn } from 'typeorm';
import { IdColumn, IntColumn, Refers, TextColumn } from '../../../platform/database/columns.js';

/** What is made together on a marker of the kind production day, once somebody has said. */
@Check('ck_production_days_capacity', 'capacity between 1 and 100')
@Index('ix_production_days_client', ['clientId'])
@Entity('production_days')
export class StoredProductionDay {
  @Refers('Marker', 'fk_production_days_marker', { onDelete: 'CASCADE' })
  @PrimaryColumn('uuid')
  markerId: string;
  @Refers('Client', 'fk_production_days_client')
  @IdColumn()
  clientId: string;
  /** so many pieces can be made on it */
  @IntColumn() capacity: number;
  /** whose work it is; null: any */
  @TextColumn({ nullable: true }) skill: string | null;
  @TextColumn({ default: () => "''" }) place: string;
  /** pieces of the client; those that are gone or made are left out where it is read */
  @IdColumn({ array: true, default: () => "'{}'" }) pieceIds: string[];
  @IntColumn({ default: 1 }) version: number;
}

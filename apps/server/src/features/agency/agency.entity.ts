import { Column, Entity, PrimaryColumn } from 'typeorm';
import { BoolColumn, IntColumn, TextColumn } from '../../platform/database/columns.js';

/** The agency: one per database. */
@Entity('agencies')
export class Agency {
  @PrimaryColumn('uuid', { generated: 'uuid' }) id: string;
  @TextColumn() name: string;
  @TextColumn() zone: string;
  @TextColumn() region: string;
  @IntColumn({ array: true }) weeklyMinutes: number[];
  @Column({ type: 'time' }) cutOff: string;
  @IntColumn() tightDays: number;
  @IntColumn() sessionDays: number;
  @BoolColumn() keepsPlaces: boolean;
  @IntColumn() version: number;
}

import { Entity, Unique } from 'typeorm';
import { IdKey, InstantColumn, IntColumn, TextColumn } from '../../../platform/database/columns.js';

/** A kind of piece, as the agency calls it. */
@Unique('uq_formats_name', ['name'])
@Entity('formats')
export class Format {
  @IdKey() id: string;
  @TextColumn() name: string;
  @IntColumn({ default: 0 }) position: number;
  @InstantColumn({ nullable: true }) archivedAt: string | null;
}

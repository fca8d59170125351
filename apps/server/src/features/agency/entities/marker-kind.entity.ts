import { Entity } from 'typeorm';
import { IdKey, InstantColumn, IntColumn, Made, TextColumn } from '../../../platform/database/columns.js';

/** A kind of marker of the agency's own. */
@Made('create unique index uq_marker_kinds_name on marker_kinds (lower(name))')
@Entity('marker_kinds')
export class OwnMarkerKind {
  @IdKey() id: string;
  @TextColumn() name: string;
  @IntColumn({ default: 0 }) position: number;
  @InstantColumn({ nullable: true }) archivedAt: string | null;
}

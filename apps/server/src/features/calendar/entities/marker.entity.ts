import { Check, Entity, Index } from 'typeorm';
import { DayColumn, IdColumn, IdKey, IntColumn, Refers, TextColumn } from '../../../platform/database/columns.js';

/** What stands on the calendar and is no content. Without a client it is the agency’s. */
@Check('ck_markers_kind', "kind in ('launch', 'offer', 'event', 'production_day', 'blackout')")
@Check('ck_markers_order', 'start_on <= end_on')
@Index('ix_markers_client', ['clientId', 'startOn'])
@Entity('markers')
export class Marker {
  @IdKey() id: string;
  @Refers('Client', 'fk_markers_client')
  @IdColumn({ nullable: true })
  clientId: string | null;
  @TextColumn() kind: 'launch' | 'offer' | 'event' | 'production_day' | 'blackout';
  @TextColumn() name: string;
  @DayColumn() startOn: string;
  @DayColumn() endOn: string;
  @IntColumn({ default: 1 }) version: number;
}

import { MARKER_KINDS } from '@zesting/contract';
import { Check, Entity, Index } from 'typeorm';
import { DayColumn, IdColumn, IdKey, IntColumn, oneOf, Refers, TextColumn } from '../../../platform/database/columns.js';

/** A closure has a table of its own. */
const KINDS = MARKER_KINDS.filter((kind) => kind !== 'closure');

/** What stands on the calendar and is no content. Without a client it is the agency’s. */
@Check('ck_markers_kind', oneOf('kind', KINDS))
@Check('ck_markers_own', "(kind = 'own') = (kind_id is not null)")
@Check('ck_markers_lead', 'lead_days between 0 and 400')
@Check('ck_markers_order', 'start_on <= end_on')
@Index('ix_markers_client', ['clientId', 'startOn'])
@Entity('markers')
export class Marker {
  @IdKey() id: string;
  @Refers('Client', 'fk_markers_client')
  @IdColumn({ nullable: true })
  clientId: string | null;
  @TextColumn() kind: (typeof KINDS)[number];
  /** which of the agency's own kinds */
  @Refers('OwnMarkerKind', 'fk_markers_kind')
  @IdColumn({ nullable: true })
  kindId: string | null;
  @TextColumn() name: string;
  @DayColumn() startOn: string;
  @DayColumn() endOn: string;
  /** days before its first on which its preparation begins */
  @IntColumn({ nullable: true }) leadDays: number | null;
  @IntColumn({ default: 1 }) version: number;
}

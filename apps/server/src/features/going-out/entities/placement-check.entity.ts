import { Entity, PrimaryColumn } from 'typeorm';
import { IdColumn, InstantColumn, Refers, TextColumn } from '../../../platform/database/columns.js';

/** That somebody looked at a placement before it goes out: at its parts, day and time as they were then. */
@Entity('placement_checks')
export class PlacementCheck {
  @Refers('Placement', 'fk_placement_checks_placement')
  @PrimaryColumn('uuid')
  placementId: string;
  @Refers('Person', 'fk_placement_checks_person')
  @IdColumn()
  personId: string;
  @InstantColumn() checkedAt: string;
  /** the digest of what was looked at */
  @TextColumn() seen: string;
}

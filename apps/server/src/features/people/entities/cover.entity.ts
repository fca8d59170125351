import { Check, Entity, Index } from 'typeorm';
import { DayColumn, IdColumn, IdKey, Refers } from '../../../platform/database/columns.js';

/** Who looks after a manager’s clients while they are away. */
@Check('ck_covers_order', 'start_on <= end_on')
@Check('ck_covers_two', 'manager_id <> cover_id')
@Index('ix_covers_cover', ['coverId', 'startOn'])
@Index('ix_covers_manager', ['managerId', 'startOn'])
@Entity('covers')
export class Cover {
  @IdKey() id: string;
  @Refers('Person', 'fk_covers_manager')
  @IdColumn()
  managerId: string;
  @Refers('Person', 'fk_covers_cover')
  @IdColumn()
  coverId: string;
  @DayColumn() startOn: string;
  @DayColumn() endOn: string;
}

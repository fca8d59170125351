import { Check, Column, Entity, Index } from 'typeorm';
import { DayColumn, IdColumn, IdKey, Refers, TextColumn } from '../../../platform/database/columns.js';

/** Days on which a person does not work, or works a part of. */
@Check('ck_time_off_order', 'start_on <= end_on')
@Check('ck_time_off_part', '(part > (0)::numeric) and (part <= (1)::numeric)')
@Index('ix_time_off_person', ['personId', 'startOn'])
@Entity('time_off')
export class TimeOff {
  @IdKey() id: string;
  @Refers('Person', 'fk_time_off_person')
  @IdColumn()
  personId: string;
  @DayColumn() startOn: string;
  @DayColumn() endOn: string;
  @Column({ type: 'numeric', precision: 3, scale: 2, default: () => '1' }) part: number;
  @TextColumn({ default: () => "''" }) note: string;
  @TextColumn({ nullable: true }) sourceUid: string | null;
}

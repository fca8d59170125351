import { Check, Entity, Index } from 'typeorm';
import { DayColumn, IdColumn, IdKey, InstantColumn, IntColumn, oneOf, Refers, TextColumn } from '../../../platform/database/columns.js';

export const FOLLOW_UP_STATES = ['open', 'done', 'left_out'] as const;
export type FollowUpState = (typeof FOLLOW_UP_STATES)[number];

/** Something to be done after a placement went out. Made when it is out, by the list as it was then. */
@Check('ck_follow_ups_state', oneOf('state', FOLLOW_UP_STATES))
@Check('ck_follow_ups_settled', "(settled_at is null) = (state = 'open')")
@Index('uq_follow_ups_position', ['placementId', 'position'], { unique: true })
@Index('ix_follow_ups_open', ['clientId', 'dueOn'], { where: "state = 'open'" })
@Index('ix_follow_ups_settled', ['clientId', 'settledAt'], { where: 'settled_at is not null' })
@Entity('follow_ups')
export class FollowUp {
  @IdKey() id: string;
  @Refers('Placement', 'fk_follow_ups_placement')
  @IdColumn()
  placementId: string;
  @Refers('Client', 'fk_follow_ups_client')
  @IdColumn()
  clientId: string;
  @IntColumn() position: number;
  @TextColumn() words: string;
  @DayColumn() dueOn: string;
  @TextColumn({ default: () => "'open'" }) state: FollowUpState;
  @TextColumn({ nullable: true }) settledBy: string | null;
  @InstantColumn({ nullable: true }) settledAt: string | null;
}

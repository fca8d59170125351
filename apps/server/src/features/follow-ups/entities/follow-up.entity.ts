import { PLACEMENT_WORK_KINDS, type PlacementWorkKind } from '@zesting/core';
import { Check, Entity, Index } from 'typeorm';
import { DayColumn, IdColumn, IdKey, InstantColumn, IntColumn, oneOf, Refers, TextColumn } from '../../../platform/database/columns.js';

export const FOLLOW_UP_STATES = ['open', 'done', 'left_out'] as const;
export type FollowUpState = (typeof FOLLOW_UP_STATES)[number];

/**
 * Something to be done around a placement. Follow-ups are made when it is out, by the list as it was then; that it was put into its channel is written down
 * once somebody says so, for the time and the content that it was then: with another time or content it is to be done again.
 */
@Check('ck_follow_ups_kind', oneOf('kind', PLACEMENT_WORK_KINDS))
@Check('ck_follow_ups_meant', "(kind = 'enter') = (meant_at is not null and digests is not null)")
@Check('ck_follow_ups_state', oneOf('state', FOLLOW_UP_STATES))
@Check('ck_follow_ups_settled', "(settled_at is null) = (state = 'open')")
@Index('uq_follow_ups_followed', ['placementId', 'itemKey', 'dueOn'], { unique: true, where: "kind = 'follow_up'" })
@Index('uq_follow_ups_entered', ['placementId', 'itemKey', 'meantAt', 'digests'], { unique: true, where: "kind = 'enter'" })
@Index('ix_follow_ups_doer', ['personId', 'dueOn'], { where: "(state = 'open') and (person_id is not null)" })
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
  @TextColumn() kind: PlacementWorkKind;
  /** of the line of its list */
  @IdColumn() itemKey: string;
  @IntColumn() position: number;
  @TextColumn() words: string;
  @DayColumn() dueOn: string;
  @Refers('Person', 'fk_follow_ups_person')
  @IdColumn({ nullable: true })
  personId: string | null;
  @IntColumn({ default: 0 }) minutes: number;
  /** the time for which it was put in, and the digests of the shared part and of the channel's */
  @InstantColumn({ nullable: true }) meantAt: string | null;
  @TextColumn({ array: true, nullable: true }) digests: string[] | null;
  @TextColumn({ default: () => "'open'" }) state: FollowUpState;
  @TextColumn({ nullable: true }) settledBy: string | null;
  @InstantColumn({ nullable: true }) settledAt: string | null;
}

import { PLACEMENT_STATES, type PlacementState } from '@zesting/core';
import { Check, Entity, Index } from 'typeorm';
import {
  BoolColumn,
  DERIVED,
  DayColumn,
  IdColumn,
  IdKey,
  InstantColumn,
  IntColumn,
  Made,
  oneOf,
  Refers,
  TextColumn,
  TimeColumn,
} from '../../../platform/database/columns.js';

/** One piece on one channel, at one date and time once it has one. Date, time and zone are kept; the instant is derived. */
@Check('ck_placements_state', oneOf('state', PLACEMENT_STATES))
@Check('ck_placements_out_version', 'out_version_id is null or (out_at is not null and cardinality(out_digests) = 2)')
@Check('ck_placements_out', '(out_at is null) or (on_day is not null)')
@Check('ck_placements_time_zone', '((on_day is null) = (publish_at is null)) and ((on_day is null) = (at_time is null))')
@Index('ix_placements_calendar', ['clientId', 'onDay'])
@Index('ix_placements_channel', ['channelId'])
@Index('ix_placements_piece', ['pieceId'])
@Index('uq_placements_moment', ['pieceId', 'channelId', 'publishAt'], {
  unique: true,
  where: '(not cancelled) and (publish_at is not null)',
})
@Index('ix_placements_unaddressed', ['clientId', 'onDay'], { where: '(out_at is not null) and (out_address is null) and (not cancelled)' })
@Index('ix_placements_due', ['publishAt'], { where: "state = 'scheduled'" })
@Made("create index ix_placements_undated on placements (client_id) include (piece_id, created_at) where state = 'undated'")
@Entity('placements')
export class Placement {
  @IdKey() id: string;
  @Refers('Piece', 'fk_placements_piece')
  @IdColumn()
  pieceId: string;
  @Refers('Client', 'fk_placements_client')
  @IdColumn()
  clientId: string;
  @Refers('Channel', 'fk_placements_channel')
  @IdColumn()
  channelId: string;
  @DayColumn({ nullable: true }) onDay: string | null;
  @TimeColumn({ nullable: true }) atTime: string | null;
  @TextColumn() zone: string;
  @InstantColumn({ nullable: true }) publishAt: string | null;
  @InstantColumn({ nullable: true }) outAt: string | null;
  @TextColumn({ nullable: true }) outAddress: string | null;
  /** what went out: the version, and the digests of the shared part and of the channel's */
  @Refers('Version', 'fk_placements_out_version')
  @IdColumn({ nullable: true })
  outVersionId: string | null;
  @TextColumn({ array: true, nullable: true }) outDigests: string[] | null;
  @BoolColumn({ default: false }) cancelled: boolean;
  @IntColumn({ default: 1 }) version: number;
  @InstantColumn() createdAt: string;
  @InstantColumn() updatedAt: string;
  // kept by planning
  @TextColumn({ ...DERIVED, default: () => "'undated'" }) state: PlacementState;
}

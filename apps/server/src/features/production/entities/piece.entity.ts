import { DANGERS, PIECE_STAGES, PURPOSES, RECKONING_LISTS } from '@zesting/core';
import type { Content, Danger, PartDigests, PieceStage, Purpose, ReckoningList } from '@zesting/core';
import { Check, Entity, Index, Unique } from 'typeorm';
import {
  BoolColumn,
  DERIVED,
  DayColumn,
  IdColumn,
  IdKey,
  InstantColumn,
  IntColumn,
  JsonColumn,
  Made,
  oneOf,
  Refers,
  TextColumn,
} from '../../../platform/database/columns.js';

/** One item of content for one client. What follows from it (stage, dates) is written by planning. */
@Check('ck_pieces_stage', oneOf('stage', PIECE_STAGES))
@Check('ck_pieces_list', oneOf('list', RECKONING_LISTS))
@Check('ck_pieces_danger', oneOf('danger', DANGERS))
@Check('ck_pieces_purpose', oneOf('purpose', PURPOSES))
@Check('ck_pieces_round', 'round >= 1')
@Unique('uq_pieces_number', ['number'])
@Made('alter table pieces add column title_plain text generated always as (plain_letters(title)) stored')
@Made("create index ix_pieces_aim on pieces (coalesce(aim_on, 'infinity'), id)")
@Made('create index ix_pieces_client on pieces (client_id, created_at desc, id)')
@Made('create index ix_pieces_desk on pieces (list, late_from_on, slack_days, created_at, id) include (client_id) where list is not null')
@Made('create index ix_pieces_newest on pieces (created_at desc, id)')
@Made(
  'create index ix_pieces_open on pieces (client_id, list) include (id, stage, created_at, shelved, aim_on, number) where list is not null',
)
@Made('create index ix_pieces_title_plain on pieces using gin (title_plain gin_trgm_ops)')
@Index('ix_pieces_lead', ['leadId'], { where: 'lead_id is not null' })
@Entity('pieces')
export class Piece {
  @IdKey() id: string;
  @IntColumn({ default: () => "nextval('piece_numbers'::regclass)", insert: false, update: false }) number: number;
  @Refers('Client', 'fk_pieces_client')
  @IdColumn()
  clientId: string;
  @Refers('Route', 'fk_pieces_route')
  @IdColumn()
  routeId: string;
  /** which state of its route it goes by */
  @IntColumn({ default: 1 }) routeVersion: number;
  @Refers('Format', 'fk_pieces_format')
  @IdColumn()
  formatId: string;
  @Refers('Pillar', 'fk_pieces_pillar')
  @IdColumn({ nullable: true })
  pillarId: string | null;
  /** who answers for it; null: whoever answers for the client's */
  @Refers('Person', 'fk_pieces_lead')
  @IdColumn({ nullable: true })
  leadId: string | null;
  @TextColumn({ nullable: true }) purpose: Purpose | null;
  @TextColumn() title: string;
  @TextColumn({ default: () => "''" }) notes: string;
  @DayColumn({ nullable: true }) wishOn: string | null;
  @BoolColumn({ default: false }) shelved: boolean;
  @IntColumn({ default: 1 }) round: number;
  @JsonColumn() content: Content;
  @IntColumn({ default: 1 }) contentVersion: number;
  @JsonColumn() digests: PartDigests;
  @IntColumn({ default: 1 }) version: number;
  @InstantColumn() createdAt: string;
  // kept by planning
  @TextColumn({ ...DERIVED, default: () => "'planned'" }) stage: PieceStage;
  @TextColumn({ ...DERIVED, nullable: true }) list: ReckoningList | null;
  @DayColumn({ ...DERIVED, nullable: true }) aimOn: string | null;
  @InstantColumn({ ...DERIVED, nullable: true }) aimAt: string | null;
  @TextColumn({ ...DERIVED, nullable: true }) danger: Danger | null;
  @IntColumn({ ...DERIVED, nullable: true }) slackDays: number | null;
  @DayColumn({ ...DERIVED, nullable: true }) lateFromOn: string | null;
  @DayColumn({ ...DERIVED, nullable: true }) earliestPublishOn: string | null;
  @DayColumn({ ...DERIVED, nullable: true }) packetDueOn: string | null;
  @JsonColumn({ ...DERIVED, default: () => "'[]'" }) progress: unknown;
  @IntColumn({ ...DERIVED, default: 0 }) revision: number;
  @InstantColumn({ ...DERIVED, nullable: true }) plannedAt: string | null;
}

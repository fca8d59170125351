import type { Answers, FormField } from '@zesting/core';
import { Check, Entity, Index, Unique } from 'typeorm';
import {
  BoolColumn,
  DayColumn,
  IdColumn,
  IdKey,
  InstantColumn,
  IntColumn,
  JsonColumn,
  Made,
  Refers,
  TextColumn,
} from '../../../platform/database/columns.js';

/** One filled-in answer set, with the questions as they were asked. */
@Unique('uq_requests_number', ['number'])
@Check('ck_requests_reason', "(state = 'declined') = (decline_reason is not null)")
@Check('ck_requests_state', "state in ('new', 'accepted', 'declined')")
@Index('ix_requests_new', ['clientId'], { where: "state = 'new'" })
@Made('alter table requests add column title_plain text generated always as (plain_letters(title)) stored')
@Made("create index ix_requests_decided on requests (received_at desc, id desc) where state <> 'new'")
@Made('create index ix_requests_list on requests (client_id, received_at desc, id)')
@Made("create index ix_requests_new_newest on requests (received_at desc, id desc) where state = 'new'")
@Made('create index ix_requests_newest on requests (received_at desc, id)')
@Made('create index ix_requests_requester on requests (lower(requester_email), received_at)')
@Made('create index ix_requests_title_plain on requests using gin (title_plain gin_trgm_ops)')
@Entity('requests')
export class Request {
  @IdKey() id: string;
  @IntColumn({ default: () => "nextval('request_numbers'::regclass)", insert: false, update: false }) number: number;
  @Refers('Client', 'fk_requests_client')
  @IdColumn()
  clientId: string;
  @Refers('IntakeForm', 'fk_requests_form')
  @IdColumn()
  formId: string;
  @JsonColumn() fields: FormField[];
  @JsonColumn() answers: Answers;
  @TextColumn() title: string;
  @DayColumn({ nullable: true }) wishOn: string | null;
  @TextColumn() requesterName: string;
  @TextColumn() requesterEmail: string;
  @TextColumn({ default: () => "'new'" }) state: 'new' | 'accepted' | 'declined';
  @TextColumn({ nullable: true }) declineReason: string | null;
  @InstantColumn({ nullable: true }) readAt: string | null;
  @InstantColumn() receivedAt: string;
  @InstantColumn({ nullable: true }) decidedAt: string | null;
  @IntColumn({ default: 1 }) version: number;
  /** raised to revoke the receipt's link */
  @IntColumn({ default: 1 }) linkGeneration: number;
  @BoolColumn({ default: true }) linkOpen: boolean;
}

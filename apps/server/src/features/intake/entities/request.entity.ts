import { REQUEST_STATES, REQUEST_WAYS, type Answers, type FormItem, type RequestState, type RequestWay, type Sorted } from '@zesting/core';
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
  oneOf,
  Refers,
  TextColumn,
} from '../../../platform/database/columns.js';

/** One filled-in answer set, with the questions as they were asked. */
@Unique('uq_requests_number', ['number'])
@Check('ck_requests_reason', "(state = 'declined') = (decline_reason is not null)")
@Check('ck_requests_form', '(form_id is null) = (form_version is null)')
@Check('ck_requests_state', oneOf('state', REQUEST_STATES))
@Check('ck_requests_way', oneOf('way', REQUEST_WAYS))
@Index('ix_requests_form', ['formId'])
@Check('ck_requests_merged', "(state = 'merged') = (merged_into is not null)")
@Index('ix_requests_open', ['clientId'], { where: "state in ('new', 'asked_back')" })
@Made('alter table requests add column title_plain text generated always as (plain_letters(title)) stored')
@Made("create index ix_requests_decided on requests (received_at desc, id desc) where state not in ('new', 'asked_back')")
@Made('create index ix_requests_owner on requests (owner_id, received_at desc, id desc)')
@Made('create index ix_requests_list on requests (client_id, received_at desc, id)')
@Made("create index ix_requests_open_newest on requests (received_at desc, id desc) where state in ('new', 'asked_back')")
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
  /** how it came */
  @TextColumn() way: RequestWay;
  /** null where no form was asked */
  @Refers('IntakeForm', 'fk_requests_form')
  @IdColumn({ nullable: true })
  formId: string | null;
  @IntColumn({ nullable: true }) formVersion: number | null;
  @Refers('FormLink', 'fk_requests_link')
  @IdColumn({ nullable: true })
  linkId: string | null;
  /** what was asked, with the choices as they were */
  @JsonColumn() items: FormItem[];
  @JsonColumn() answers: Answers;
  @TextColumn() title: string;
  @DayColumn({ nullable: true }) wishOn: string | null;
  @TextColumn() requesterName: string;
  /** null where they have none */
  @TextColumn({ nullable: true }) requesterEmail: string | null;
  @Refers('Contact', 'fk_requests_contact')
  @IdColumn({ nullable: true })
  contactId: string | null;
  /** who answers for it at the agency */
  @Refers('Person', 'fk_requests_owner')
  @IdColumn({ nullable: true })
  ownerId: string | null;
  /** what the form’s rules and the answers say it takes */
  @JsonColumn({ default: () => "'{}'" }) takes: Sorted;
  @TextColumn({ default: () => "'new'" }) state: RequestState;
  @TextColumn({ nullable: true }) declineReason: string | null;
  /** the request that stands for this one too */
  @Refers('Request', 'fk_requests_merged_into')
  @IdColumn({ nullable: true })
  mergedInto: string | null;
  @InstantColumn({ nullable: true }) readAt: string | null;
  @InstantColumn() receivedAt: string;
  @InstantColumn({ nullable: true }) decidedAt: string | null;
  @IntColumn({ default: 1 }) version: number;
  /** raised to revoke the receipt's link */
  @IntColumn({ default: 1 }) linkGeneration: number;
  @BoolColumn({ default: true }) linkOpen: boolean;
}

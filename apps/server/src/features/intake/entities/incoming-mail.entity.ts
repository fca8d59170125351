import { Check, Entity, Index, PrimaryColumn, Unique } from 'typeorm';
import {
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

/** How a mail stands: waiting for somebody to say what it is, taken as a request or an answer, left, or written by a machine. */
export const MAIL_STATES = ['waiting', 'taken', 'left', 'automatic'] as const;
export type MailState = (typeof MAIL_STATES)[number];
/** Why a mail waits: no contact has this address, the contact may not ask, it answers somebody else’s request, more answers came than are taken. */
export const MAIL_REASONS = ['unknown_sender', 'may_not_ask', 'other_sender', 'too_many'] as const;
export type MailReason = (typeof MAIL_REASONS)[number];

/** A mail to a client’s request address. Its bytes are kept as they came. */
@Unique('uq_incoming_mails_message', ['clientId', 'messageId'])
@Check('ck_incoming_mails_state', oneOf('state', MAIL_STATES))
@Check('ck_incoming_mails_reason', `reason is null or ${oneOf('reason', MAIL_REASONS)}`)
@Made("create index ix_incoming_mails_aside on incoming_mails (state, received_at desc, id desc) where state <> 'taken'")
@Made('create index ix_incoming_mails_client on incoming_mails (client_id, received_at)')
@Entity('incoming_mails')
export class IncomingMail {
  @IdKey() id: string;
  @Refers('Client', 'fk_incoming_mails_client')
  @IdColumn()
  clientId: string;
  /** as it stands in the mail; made of its bytes where there is none */
  @TextColumn() messageId: string;
  @TextColumn() fromName: string;
  @TextColumn() fromEmail: string;
  @TextColumn() subject: string;
  /** the beginning, plain */
  @TextColumn() text: string;
  /** names of what came with it */
  @JsonColumn() files: string[];
  /** of its bytes, as they came */
  @TextColumn() hash: string;
  @IntColumn() bytes: number;
  @TextColumn() state: MailState;
  @TextColumn({ nullable: true }) reason: MailReason | null;
  /** the request that it became or answers */
  @Index('ix_incoming_mails_request', { where: 'request_id is not null' })
  @Refers('Request', 'fk_incoming_mails_request')
  @IdColumn({ nullable: true })
  requestId: string | null;
  /** the idea that it became */
  @Refers('Idea', 'fk_incoming_mails_idea')
  @IdColumn({ nullable: true })
  ideaId: string | null;
  @InstantColumn() receivedAt: string;
}

/** A mail about a request, in or out: an answer to it is found by its Message-ID. */
@Index('ix_request_mails_request', ['requestId'])
@Entity('request_mails')
export class RequestMail {
  @PrimaryColumn('text') messageId: string;
  @Refers('Request', 'fk_request_mails_request')
  @PrimaryColumn('uuid')
  requestId: string;
}

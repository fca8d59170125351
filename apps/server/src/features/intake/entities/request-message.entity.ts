import { Check, Entity, Index } from 'typeorm';
import { IdColumn, IdKey, InstantColumn, Refers, TextColumn } from '../../../platform/database/columns.js';

/** Something said between the agency and the requester about a request. */
@Check('ck_request_messages_author', "author in ('agency', 'requester')")
@Index('ix_request_messages_request', ['requestId', 'at', 'id'])
@Entity('request_messages')
export class RequestMessage {
  @IdKey() id: string;
  @Refers('Request', 'fk_request_messages_request')
  @IdColumn()
  requestId: string;
  @TextColumn() author: 'agency' | 'requester';
  @TextColumn() name: string;
  @TextColumn() text: string;
  @InstantColumn() at: string;
}

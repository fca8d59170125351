import type { Audience } from '@zesting/contract';
import type { Place } from '@zesting/core';
import { Check, Entity, Index } from 'typeorm';
import { IdColumn, IdKey, InstantColumn, IntColumn, JsonColumn, Made, Refers, TextColumn } from '../../../platform/database/columns.js';

/** Something said about a piece, at a place in it or about the whole: by a contact who wants it changed, or by one of the team. */
@Check('ck_remarks_answer', "(state <> 'answered') or (answer <> '')")
@Check('ck_remarks_settled', "(state = 'open') = (settled_at is null)")
@Check('ck_remarks_state', "state in ('open', 'settled', 'answered')")
@Check('ck_remarks_by', 'num_nonnulls(contact_id, author_id) = 1 and (contact_id is null) = (packet_id is null)')
@Check('ck_remarks_audience', "audience in ('team', 'client') and (contact_id is null or audience = 'client')")
@Index('ix_remarks_open', ['clientId'], { where: "(state = 'open') and (removed_at is null)" })
@Made('create index ix_remarks_piece on remarks (piece_id, round, position)')
@Entity('remarks')
export class Remark {
  @IdKey() id: string;
  @Refers('Client', 'fk_remarks_client')
  @IdColumn()
  clientId: string;
  @Refers('Piece', 'fk_remarks_piece')
  @IdColumn()
  pieceId: string;
  /** the packet in which the contact saw it; null for one of the team */
  @Refers('Packet', 'fk_remarks_packet')
  @IdColumn({ nullable: true })
  packetId: string | null;
  @Refers('Contact', 'fk_remarks_contact')
  @IdColumn({ nullable: true })
  contactId: string | null;
  @Refers('Person', 'fk_remarks_author')
  @IdColumn({ nullable: true })
  authorId: string | null;
  @TextColumn({ default: () => "'client'" }) audience: Audience;
  @IntColumn() round: number;
  @IntColumn() position: number;
  @TextColumn() text: string;
  /** where in the piece; null: the whole */
  @JsonColumn({ nullable: true }) place: Place | null;
  @IdColumn({ array: true, default: () => "'{}'" }) mentionIds: string[];
  @TextColumn({ default: () => "'open'" }) state: 'open' | 'settled' | 'answered';
  @TextColumn({ default: () => "''" }) answer: string;
  @TextColumn({ nullable: true }) settledBy: string | null;
  @InstantColumn({ nullable: true }) settledAt: string | null;
  @InstantColumn() createdAt: string;
  /** taken back: kept, shown to nobody */
  @InstantColumn({ nullable: true }) removedAt: string | null;
}

import { Check, Entity, Index } from 'typeorm';
import { IdColumn, IdKey, InstantColumn, IntColumn, Made, Refers, TextColumn } from '../../../platform/database/columns.js';

/** One thing that a contact wants changed: settled or answered before the next round. */
@Check('ck_remarks_answer', "(state <> 'answered') or (answer <> '')")
@Check('ck_remarks_settled', "(state = 'open') = (settled_at is null)")
@Check('ck_remarks_state', "state in ('open', 'settled', 'answered')")
@Index('ix_remarks_open', ['clientId'], { where: "state = 'open'" })
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
  @Refers('Packet', 'fk_remarks_packet')
  @IdColumn()
  packetId: string;
  @Refers('Contact', 'fk_remarks_contact')
  @IdColumn()
  contactId: string;
  @IntColumn() round: number;
  @IntColumn() position: number;
  @TextColumn() text: string;
  @TextColumn({ default: () => "'open'" }) state: 'open' | 'settled' | 'answered';
  @TextColumn({ default: () => "''" }) answer: string;
  @TextColumn({ nullable: true }) settledBy: string | null;
  @InstantColumn({ nullable: true }) settledAt: string | null;
  @InstantColumn() createdAt: string;
}

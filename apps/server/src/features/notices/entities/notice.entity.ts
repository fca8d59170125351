import { Entity, Index, PrimaryColumn } from 'typeorm';
import { IdColumn, InstantColumn, Refers, TextColumn } from '../../../platform/database/columns.js';

/** A message to a person, which waits for its round-up. */
@Index('ix_notices_waiting', ['dueAt'], { where: 'sent_at is null' })
@Index('uq_notices_key', ['personId', 'key'], { unique: true, where: '(sent_at is null) and (key is not null)' })
@Entity('notices')
export class Notice {
  @PrimaryColumn('bigint', { generated: 'identity', generatedIdentity: 'ALWAYS' }) id: number;
  @Refers('Person', 'fk_notices_person')
  @IdColumn()
  personId: string;
  @Refers('Client', 'fk_notices_client')
  @IdColumn({ nullable: true })
  clientId: string | null;
  @TextColumn() heading: string;
  @TextColumn() text: string;
  @TextColumn() path: string;
  @TextColumn({ nullable: true }) key: string | null;
  @TextColumn({ nullable: true }) movedFrom: string | null;
  @TextColumn({ nullable: true }) movedTo: string | null;
  @InstantColumn() dueAt: string;
  @InstantColumn() createdAt: string;
  @InstantColumn({ nullable: true }) sentAt: string | null;
}

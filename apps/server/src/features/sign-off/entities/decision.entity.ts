import type { Verdict } from '@zesting/core';
import { Check, Entity, Index, Unique } from 'typeorm';
import { IdColumn, IdKey, InstantColumn, IntColumn, Refers, TextColumn } from '../../../platform/database/columns.js';

/** What was said about named digests: a link of the client’s chain. Never changed. */
@Check('ck_decisions_agency', "(contact_id is not null) or ((recorded_by is not null) and (verdict = 'approve'))")
@Check('ck_decisions_remark', "(verdict = 'approve') or (remark <> '')")
@Check('ck_decisions_verdict', "verdict in ('approve', 'changes')")
@Unique('uq_decisions_sequence', ['clientId', 'sequence'])
@Index('ix_decisions_contact', ['contactId'])
@Index('ix_decisions_piece', ['pieceId', 'sequence'])
@Entity('decisions')
export class Decision {
  @IdKey() id: string;
  @Refers('Client', 'fk_decisions_client')
  @IdColumn()
  clientId: string;
  @IntColumn() sequence: number;
  @Refers('Packet', 'fk_decisions_packet')
  @IdColumn({ nullable: true })
  packetId: string | null;
  @Refers('Piece', 'fk_decisions_piece')
  @IdColumn()
  pieceId: string;
  @Refers('Version', 'fk_decisions_version')
  @IdColumn()
  versionId: string;
  @Refers('Contact', 'fk_decisions_contact')
  @IdColumn({ nullable: true })
  contactId: string | null;
  @TextColumn() verdict: Verdict;
  @TextColumn({ array: true }) digests: string[];
  /** by which the digests were made */
  @TextColumn() scheme: string;
  @TextColumn({ default: () => "''" }) remark: string;
  @InstantColumn() decidedAt: string;
  @Refers('Person', 'fk_decisions_recorder')
  @IdColumn({ nullable: true })
  recordedBy: string | null;
  @TextColumn({ default: () => "''" }) how: string;
  @TextColumn() head: string;
}

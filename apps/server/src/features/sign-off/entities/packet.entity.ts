import type { PartDigests, SignOffPolicy } from '@zesting/core';
import { Check, Entity, Index, PrimaryColumn } from 'typeorm';
import {
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

/** Piece versions sent to a client together. Its policy and approvers are frozen at sending. */
@Index('ix_packets_open', ['clientId', 'dueOn'], { where: 'closed_at is null' })
@Made('create index ix_packets_client on packets (client_id, sent_at desc)')
@Made('create index ix_packets_closed on packets (client_id, sent_at desc) where closed_at is not null')
@Entity('packets')
export class Packet {
  @IdKey() id: string;
  @Refers('Client', 'fk_packets_client')
  @IdColumn()
  clientId: string;
  @TextColumn() title: string;
  @TextColumn({ default: () => "''" }) message: string;
  @DayColumn() dueOn: string;
  @JsonColumn() policy: SignOffPolicy;
  @IdColumn({ array: true }) approverIds: string[];
  @InstantColumn() sentAt: string;
  @Refers('Person', 'fk_packets_person')
  @IdColumn()
  sentBy: string;
  @InstantColumn({ nullable: true }) closedAt: string | null;
  @InstantColumn({ nullable: true }) chasedAt: string | null;
}

/** One version in a packet, and what came of it. */
@Check('ck_packet_items_outcome', "outcome in ('approved', 'changes')")
@Index('ix_packet_items_piece', ['pieceId'])
@Index('ix_packet_items_version', ['versionId'])
@Index('ix_packet_items_waiting', ['packetId'], { where: 'outcome is null' })
@Index('uq_packet_items_open', ['pieceId'], { unique: true, where: 'outcome is null' })
@Entity('packet_items')
export class PacketItem {
  @Refers('Packet', 'fk_packet_items_packet')
  @PrimaryColumn('uuid')
  packetId: string;
  @Refers('Piece', 'fk_packet_items_piece')
  @PrimaryColumn('uuid')
  pieceId: string;
  @Refers('Version', 'fk_packet_items_version')
  @IdColumn()
  versionId: string;
  @IntColumn() round: number;
  @TextColumn({ nullable: true }) outcome: 'approved' | 'changes' | null;
}

/** All digests of a version, as one decision on the whole of it covers them. */
export const allDigests = (digests: PartDigests): string[] => [digests.shared, ...Object.values(digests.channels)];

import { Entity, PrimaryColumn } from 'typeorm';
import type { PartDigests, SignOffPolicy } from '@zesting/core';
import { DayColumn, IdColumn, InstantColumn, IntColumn, JsonColumn, TextColumn } from '../../../platform/database/columns.js';

/** Piece versions sent to a client together. Its policy and approvers are frozen at sending. */
@Entity('packets')
export class Packet {
  @PrimaryColumn('uuid', { generated: 'uuid' }) id: string;
  @IdColumn() clientId: string;
  @TextColumn() title: string;
  @TextColumn() message: string;
  @DayColumn() dueOn: string;
  @JsonColumn() policy: SignOffPolicy;
  @IdColumn({ array: true }) approverIds: string[];
  @InstantColumn() sentAt: string;
  @IdColumn() sentBy: string;
  @InstantColumn({ nullable: true }) closedAt: string | null;
  @InstantColumn({ nullable: true }) chasedAt: string | null;
}

/** One version in a packet, and what came of it. */
@Entity('packet_items')
export class PacketItem {
  @PrimaryColumn('uuid') packetId: string;
  @PrimaryColumn('uuid') pieceId: string;
  @IdColumn() versionId: string;
  @IntColumn() round: number;
  @TextColumn({ nullable: true }) outcome: 'approved' | 'changes' | null;
}

/** All digests of a version, as one decision on the whole of it covers them. */
export const allDigests = (digests: PartDigests): string[] => [digests.shared, ...Object.values(digests.channels)];

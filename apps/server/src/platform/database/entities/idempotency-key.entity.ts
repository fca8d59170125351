import { Entity, Index, PrimaryColumn } from 'typeorm';
import { InstantColumn, JsonColumn, TextColumn } from '../columns.js';

/** What a creation answered, kept for whoever sends it again. */
@Index('ix_idempotency_keys_age', ['createdAt'])
@Entity('idempotency_keys')
export class IdempotencyKey {
  @PrimaryColumn('text') key: string;
  @PrimaryColumn('text') caller: string;
  @PrimaryColumn('text') operation: string;
  @TextColumn() requestHash: string;
  @JsonColumn({ nullable: true }) answer: unknown;
  @InstantColumn() createdAt: string;
}

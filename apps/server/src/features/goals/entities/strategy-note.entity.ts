import { STRATEGY_KINDS, type StrategyKind } from '@zesting/contract';
import { Check, Entity, Index } from 'typeorm';
import { IdColumn, IdKey, InstantColumn, IntColumn, oneOf, Refers, TextColumn } from '../../../platform/database/columns.js';

/** What is known of a client's strategy. */
@Check('ck_strategy_notes_kind', oneOf('kind', STRATEGY_KINDS))
@Index('ix_strategy_notes_client', ['clientId', 'kind', 'createdAt'])
@Entity('strategy_notes')
export class StrategyNote {
  @IdKey() id: string;
  @Refers('Client', 'fk_strategy_notes_client')
  @IdColumn()
  clientId: string;
  @TextColumn() kind: StrategyKind;
  @TextColumn() text: string;
  @TextColumn({ nullable: true }) link: string | null;
  @Refers('Person', 'fk_strategy_notes_author')
  @IdColumn()
  authorId: string;
  @InstantColumn() createdAt: string;
  @InstantColumn({ nullable: true }) archivedAt: string | null;
  @IntColumn({ default: 1 }) version: number;
}

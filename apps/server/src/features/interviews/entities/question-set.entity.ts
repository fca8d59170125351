import { Entity, Index } from 'typeorm';
import { IdColumn, IdKey, InstantColumn, IntColumn, Refers, TextColumn } from '../../../platform/database/columns.js';

/** Questions that are kept to be asked again: of one client, or for all. */
@Index('ix_question_sets_client', ['clientId'])
@Entity('question_sets')
export class QuestionSet {
  @IdKey() id: string;
  @Refers('Client', 'fk_question_sets_client')
  @IdColumn({ nullable: true })
  clientId: string | null;
  @TextColumn() title: string;
  /** the way of treating a subject that it draws knowledge for; empty: any */
  @TextColumn({ default: () => "''" }) treatment: string;
  @TextColumn({ array: true }) questions: string[];
  @InstantColumn({ nullable: true }) archivedAt: string | null;
  @IntColumn({ default: 1 }) version: number;
}

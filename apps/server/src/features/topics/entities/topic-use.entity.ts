import { Check, Entity, Index, Unique } from 'typeorm';
import { IdColumn, IdKey, Refers, TextColumn } from '../../../platform/database/columns.js';

/** What an idea or a piece is about, and how it treats it. What became of an idea is told by the idea. */
@Check('ck_topic_uses_one', 'num_nonnulls(idea_id, piece_id) = 1')
@Unique('uq_topic_uses_idea', ['ideaId'])
@Unique('uq_topic_uses_piece', ['pieceId'])
@Index('ix_topic_uses_client', ['clientId', 'topicId'])
@Entity('topic_uses')
export class TopicUse {
  @IdKey() id: string;
  @Refers('Client', 'fk_topic_uses_client')
  @IdColumn()
  clientId: string;
  @Refers('StoredTopic', 'fk_topic_uses_topic')
  @IdColumn()
  topicId: string;
  /** empty: none in particular */
  @TextColumn({ default: () => "''" }) treatment: string;
  @Refers('Idea', 'fk_topic_uses_idea')
  @IdColumn({ nullable: true })
  ideaId: string | null;
  @Refers('Piece', 'fk_topic_uses_piece')
  @IdColumn({ nullable: true })
  pieceId: string | null;
}

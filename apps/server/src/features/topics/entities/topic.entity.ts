import { Entity, Index } from 'typeorm';
import { IdColumn, IdKey, InstantColumn, IntColumn, Made, Refers, TextColumn } from '../../../platform/database/columns.js';

/** A branch of a pillar: a topic, or with a parent a subtopic of it. */
@Index('ix_topics_client', ['clientId', 'pillarId', 'position'])
@Made(
  'create unique index uq_topics_name on topics (pillar_id, coalesce(parent_id, pillar_id), plain_letters(name)) where archived_at is null',
)
@Entity('topics')
export class StoredTopic {
  @IdKey() id: string;
  @Refers('Client', 'fk_topics_client')
  @IdColumn()
  clientId: string;
  @Refers('Pillar', 'fk_topics_pillar')
  @IdColumn()
  pillarId: string;
  /** null: it is a topic */
  @Refers('StoredTopic', 'fk_topics_parent')
  @IdColumn({ nullable: true })
  parentId: string | null;
  @TextColumn() name: string;
  @IntColumn({ default: 0 }) position: number;
  /** the months it is put into, `YYYY-MM` */
  @TextColumn({ array: true, default: () => "'{}'" }) months: string[];
  @InstantColumn({ nullable: true }) archivedAt: string | null;
  @IntColumn({ default: 1 }) version: number;
}

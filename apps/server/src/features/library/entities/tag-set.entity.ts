import { Check, Entity, Index, VersionColumn } from 'typeorm';
import { IdColumn, IdKey, InstantColumn, IntColumn, Refers, TextColumn } from '../../../platform/database/columns.js';

/** Tags that are kept under a name, in their order, and what they are meant for. */
@Check('ck_tag_sets_name', "name <> ''")
@Check('ck_tag_sets_tags', 'cardinality(tags) > 0')
@Check('ck_tag_sets_weekday', '(weekday >= 1) and (weekday <= 7)')
@Index('ix_tag_sets_client', ['clientId'], { where: 'archived_at is null' })
@Entity('tag_sets')
export class TagSet {
  @IdKey() id: string;
  @Refers('Client', 'fk_tag_sets_client')
  @IdColumn()
  clientId: string;
  @TextColumn() name: string;
  @TextColumn({ array: true }) tags: string[];
  @Refers('Pillar', 'fk_tag_sets_pillar')
  @IdColumn({ nullable: true })
  pillarId: string | null;
  @IntColumn({ nullable: true }) weekday: number | null;
  @InstantColumn() madeAt: string;
  @InstantColumn({ nullable: true }) archivedAt: string | null;
  @VersionColumn({ default: 1 }) version: number;
}

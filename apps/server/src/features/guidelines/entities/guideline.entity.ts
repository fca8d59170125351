import type { ChannelKind } from '@zesting/core';
import { Check, Entity, Index, VersionColumn } from 'typeorm';
import { IdColumn, IdKey, InstantColumn, Refers, TextColumn } from '../../../platform/database/columns.js';

/** How we make a kind of thing. What is null does not matter. */
@Check('ck_guidelines_title', "title <> ''")
@Check('ck_guidelines_text', "text <> ''")
@Index('ix_guidelines_client', ['clientId'], { where: 'archived_at is null' })
@Entity('guidelines')
export class Guideline {
  @IdKey() id: string;
  @TextColumn() title: string;
  @TextColumn() text: string;
  @Refers('Client', 'fk_guidelines_client')
  @IdColumn({ nullable: true })
  clientId: string | null;
  @Refers('Format', 'fk_guidelines_format')
  @IdColumn({ nullable: true })
  formatId: string | null;
  @TextColumn({ nullable: true }) channelKind: ChannelKind | null;
  @TextColumn({ nullable: true }) skill: string | null;
  @Refers('Person', 'fk_guidelines_edited_by')
  @IdColumn()
  editedBy: string;
  @InstantColumn() editedAt: string;
  @InstantColumn({ nullable: true }) archivedAt: string | null;
  @VersionColumn({ default: 1 }) version: number;
}

import type { BriefFact, FormatText, OutlineHeading } from '@zesting/core';
import { Entity, Unique } from 'typeorm';
import { BoolColumn, IdKey, InstantColumn, IntColumn, JsonColumn, TextColumn } from '../../../platform/database/columns.js';

/** A kind of piece, as the agency calls it. */
@Unique('uq_formats_name', ['name'])
@Entity('formats')
export class Format {
  @IdKey() id: string;
  @TextColumn() name: string;
  @IntColumn({ default: 0 }) position: number;
  @InstantColumn({ nullable: true }) archivedAt: string | null;
  /** which facts its brief needs */
  @JsonColumn({ default: () => '\'["about", "aim"]\'' }) needs: BriefFact[];
  /** what its pieces have besides the copy */
  @JsonColumn({ default: () => "'[]'" }) texts: FormatText[];
  /** the headings that their copy begins from */
  @JsonColumn({ default: () => "'[]'" }) outline: OutlineHeading[];
  /** their copy has headings, lists and links */
  @BoolColumn({ default: false }) isLaidOut: boolean;
  @IntColumn({ default: 1 }) writingVersion: number;
}

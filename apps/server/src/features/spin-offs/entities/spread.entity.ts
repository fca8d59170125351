import type { CopyShape, Offset } from '@zesting/core';
import { Check, Entity, Index, VersionColumn } from 'typeorm';
import { DayColumn, IdColumn, IdKey, InstantColumn, JsonColumn, Refers, TextColumn } from '../../../platform/database/columns.js';

/** One output of a spread, as it is stored. */
export interface SpreadLine {
  /** stays with what was made from the line */
  readonly key: string;
  readonly name: string;
  readonly channelId: string | null;
  readonly routeId: string;
  readonly offset: Offset;
  readonly change: string;
  readonly needsCopy: boolean;
  readonly needsPicture: boolean;
  readonly shape: CopyShape;
  readonly callToAction: string;
  readonly guidelineId: string | null;
  readonly doers: readonly { readonly skill: string; readonly personId: string }[];
  readonly obstacle: string;
}

/** What is made from each source of a kind, kept per client. */
@Check('ck_spreads_name', "name <> ''")
@Index('ix_spreads_client', ['clientId'], { where: 'archived_at is null' })
@Entity('spreads')
export class Spread {
  @IdKey() id: string;
  @Refers('Client', 'fk_spreads_client')
  @IdColumn()
  clientId: string;
  @TextColumn() name: string;
  /** of the sources that it is for; null: of any */
  @Refers('Format', 'fk_spreads_format')
  @IdColumn({ nullable: true })
  formatId: string | null;
  @JsonColumn() lines: SpreadLine[];
  /** the client's day since which it is offered; null: it is not */
  @DayColumn({ nullable: true }) usedSince: string | null;
  @InstantColumn() madeAt: string;
  @InstantColumn({ nullable: true }) archivedAt: string | null;
  @VersionColumn({ default: 1 }) version: number;
}

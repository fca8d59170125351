import type { RouteStep } from '@zesting/core';
import { Check, Entity } from 'typeorm';
import { IdColumn, IdKey, InstantColumn, IntColumn, JsonColumn, Refers, TextColumn } from '../../../platform/database/columns.js';

/** The steps that a kind of piece takes. */
@Check('ck_routes_rounds', 'rounds_allowed >= 1 and rounds_allowed <= 9')
@Entity('routes')
export class Route {
  @IdKey() id: string;
  @TextColumn() name: string;
  @Refers('Format', 'fk_routes_format')
  @IdColumn()
  formatId: string;
  @JsonColumn() steps: RouteStep[];
  @IntColumn({ nullable: true }) roundsAllowed: number | null;
  @InstantColumn({ nullable: true }) archivedAt: string | null;
  @IntColumn({ default: 1 }) version: number;
}

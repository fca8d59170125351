import type { AgreedAmountBody } from '@zesting/contract';
import { Entity, PrimaryColumn } from 'typeorm';
import { InstantColumn, IntColumn, JsonColumn, Refers, TextColumn } from '../../../platform/database/columns.js';

/** What an hour of somebody costs, since when. */
@Entity('rates')
export class Rate {
  @Refers('Person', 'fk_rates_person')
  @PrimaryColumn('uuid')
  personId: string;
  /** the first one first */
  @JsonColumn() agreed: AgreedAmountBody[];
  @TextColumn() setBy: string;
  @InstantColumn() setAt: string;
  @IntColumn() version: number;
}

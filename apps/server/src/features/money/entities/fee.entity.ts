import type { AgreedAmountBody } from '@zesting/contract';
import { Entity, PrimaryColumn } from 'typeorm';
import { InstantColumn, IntColumn, JsonColumn, Refers, TextColumn } from '../../../platform/database/columns.js';

/** What a client pays for a month, since when. */
@Entity('fees')
export class Fee {
  @Refers('Client', 'fk_fees_client')
  @PrimaryColumn('uuid')
  clientId: string;
  /** each from the first of a month on, the first one first */
  @JsonColumn() agreed: AgreedAmountBody[];
  @TextColumn() setBy: string;
  @InstantColumn() setAt: string;
  @IntColumn() version: number;
}

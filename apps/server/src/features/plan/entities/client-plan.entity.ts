import type { AudienceBody } from '@zesting/contract';
import { Check, Entity, PrimaryColumn } from 'typeorm';
import { IntColumn, JsonColumn, Refers, TextColumn } from '../../../platform/database/columns.js';

/** What of a client's plan there is once. Its row is locked by whoever changes the client's themes. */
@Check('ck_client_plans_from', "cycle_from ~ '^\\d{4}-\\d{2}$'")
@Entity('client_plans')
export class ClientPlan {
  @Refers('Client', 'fk_client_plans_client')
  @PrimaryColumn('uuid')
  clientId: string;
  /** themes that follow one another month by month; none: there is no cycle */
  @TextColumn({ array: true, default: () => "'{}'" }) cycleNames: string[];
  /** the month of the first */
  @TextColumn({ default: () => "'2000-01'" }) cycleFrom: string;
  /** pieces wanted out a week, and a month; null: no number */
  @IntColumn({ nullable: true }) perWeek: number | null;
  @IntColumn({ nullable: true }) perMonth: number | null;
  /** people who follow each channel, and the share that sees one post */
  @JsonColumn({ default: () => "'[]'" }) audiences: AudienceBody[];
  /** the share of a channel's people that a larger channel reaches too, whole percent */
  @IntColumn({ default: 30 }) overlap: number;
  @IntColumn({ default: 1 }) version: number;
}

import type { RoundUpRhythm } from '@zesting/core';
import { Column, Entity, PrimaryColumn } from 'typeorm';
import { BoolColumn, InstantColumn, IntColumn, JsonColumn, TextColumn } from '../../../platform/database/columns.js';
import type { DefaultForm } from '../../intake/index.js';

/** How a new client signs off. */
export interface DefaultPolicy {
  readonly kind: 'any' | 'all';
  readonly silenceDays?: number;
}

/** The agency: one per database. */
@Entity('agencies')
export class Agency {
  @PrimaryColumn('uuid', { generated: 'uuid' }) id: string;
  @TextColumn() name: string;
  @TextColumn() zone: string;
  @TextColumn() region: string;
  @IntColumn({ array: true }) weeklyMinutes: number[];
  @Column({ type: 'time' }) cutOff: string;
  @IntColumn() tightDays: number;
  @IntColumn() sessionDays: number;
  @BoolColumn() keepsPlaces: boolean;
  @TextColumn({ nullable: true }) accent: string | null;
  @TextColumn({ nullable: true }) markHash: string | null;
  @TextColumn({ nullable: true }) markMime: string | null;
  @TextColumn({ nullable: true }) mailName: string | null;
  @TextColumn({ nullable: true }) mailAddress: string | null;
  @InstantColumn({ nullable: true }) mailProvedAt: string | null;
  @Column({ type: 'time' }) quietFrom: string;
  @Column({ type: 'time' }) quietTo: string;
  @TextColumn() roundUp: RoundUpRhythm;
  @Column({ type: 'time' }) roundUpAt: string;
  @JsonColumn() defaultPolicy: DefaultPolicy;
  @JsonColumn({ nullable: true }) defaultForm: DefaultForm | null;
  @BoolColumn() hidesBeginning: boolean;
  @BoolColumn() isDemo: boolean;
  @IntColumn() version: number;
}

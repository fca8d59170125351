import { Column, Entity, PrimaryColumn } from 'typeorm';
import type { PersonRole } from '@zesting/contract';
import type { RoundUpRhythm } from '@zesting/core';
import { BoolColumn, InstantColumn, IntColumn, JsonColumn, TextColumn } from '../../../platform/database/columns.js';

/** Somebody at the agency: staff or freelance. */
@Entity('people')
export class Person {
  @PrimaryColumn('uuid', { generated: 'uuid' }) id: string;
  @TextColumn() name: string;
  @TextColumn() email: string;
  /** null until the invitation is answered */
  @TextColumn({ nullable: true }) passwordHash: string | null;
  @TextColumn() role: PersonRole;
  @TextColumn() zone: string;
  @TextColumn() region: string;
  @IntColumn({ array: true }) weeklyMinutes: number[];
  /** by skill: 1 can do it, 2 does it well, 3 does it best */
  @JsonColumn() skills: Record<string, number>;
  @BoolColumn() active: boolean;
  @IntColumn() linkGeneration: number;
  @InstantColumn({ nullable: true }) leftAt: string | null;
  @TextColumn() roundUp: RoundUpRhythm;
  @Column({ type: 'time' }) roundUpAt: string;
  @IntColumn() version: number;
}

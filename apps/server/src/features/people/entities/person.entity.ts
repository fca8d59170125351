import type { PersonRole } from '@zesting/contract';
import type { RoundUpRhythm } from '@zesting/core';
import { Check, Entity } from 'typeorm';
import {
  BoolColumn,
  IdKey,
  InstantColumn,
  IntColumn,
  JsonColumn,
  Made,
  TextColumn,
  TimeColumn,
} from '../../../platform/database/columns.js';

/** Somebody at the agency: staff or freelance. */
@Check('ck_people_left', 'active = (left_at is null)')
@Check('ck_people_role', "role in ('lead', 'manager', 'staff', 'freelance')")
@Check('ck_people_round_up', "round_up in ('at_once', 'hourly', 'daily')")
@Made('create unique index uq_people_email on people (lower(email))')
@Entity('people')
export class Person {
  @IdKey() id: string;
  @TextColumn() name: string;
  @TextColumn() email: string;
  /** null until the invitation is answered */
  @TextColumn({ nullable: true }) passwordHash: string | null;
  @TextColumn() role: PersonRole;
  @TextColumn() zone: string;
  @TextColumn() region: string;
  @IntColumn({ array: true }) weeklyMinutes: number[];
  /** by skill: 1 can do it, 2 does it well, 3 does it best */
  @JsonColumn({ default: () => "'{}'" }) skills: Record<string, number>;
  @BoolColumn({ default: true }) active: boolean;
  @IntColumn({ default: 1 }) linkGeneration: number;
  @InstantColumn({ nullable: true }) leftAt: string | null;
  @IntColumn({ default: 1 }) version: number;
  /** the right to make and change intake forms; leads have it anyway */
  @BoolColumn({ default: false }) mayEditForms: boolean;
  @TextColumn({ default: () => "'at_once'" }) roundUp: RoundUpRhythm;
  @TimeColumn({ default: () => "'08:00:00'" }) roundUpAt: string;
}

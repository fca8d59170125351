import type { BrandBody } from '@zesting/contract';
import { COPY_LANGUAGES, type Allowance, type CopyLanguage, type SignOffPolicy } from '@zesting/core';
import { Check, Entity, Unique } from 'typeorm';
import {
  BoolColumn,
  DERIVED,
  IdKey,
  InstantColumn,
  IntColumn,
  JsonColumn,
  oneOf,
  TextColumn,
  TimeColumn,
} from '../../../platform/database/columns.js';

/** An organisation served. */
@Unique('uq_clients_code', ['code'])
@Check('ck_clients_code', "code ~ '^[A-Z]{2,5}$'")
@Check('ck_clients_colour', 'colour >= 0 and colour <= 11')
@Check('ck_clients_language', oneOf('language', COPY_LANGUAGES))
@Entity('clients')
export class Client {
  @IdKey() id: string;
  @TextColumn() code: string;
  @TextColumn() name: string;
  @IntColumn() colour: number;
  @TextColumn() zone: string;
  @TextColumn() region: string;
  @IntColumn({ array: true }) weeklyMinutes: number[];
  @TimeColumn({ default: () => "'09:00:00'" }) usualTime: string;
  /** of its copy: words are looked for in it */
  @TextColumn({ default: () => "'en'" }) language: CopyLanguage;
  @JsonColumn() policy: SignOffPolicy;
  @IntColumn({ default: 2 }) roundsAgreed: number;
  @IntColumn({ default: 1 }) feedGeneration: number;
  @BoolColumn({ default: true }) feedPencilled: boolean;
  @JsonColumn({ default: () => '\'{"logos": [], "voice": "", "palette": [], "disclosure": "", "wordsNever": [], "wordsToUse": []}\'' })
  brand: BrandBody;
  /** what a month includes */
  @JsonColumn({ default: () => '\'{"hours": null, "formats": []}\'' }) allowance: Allowance;
  @InstantColumn({ nullable: true }) archivedAt: string | null;
  @IntColumn({ default: 1 }) version: number;
  @TextColumn({ array: true, default: () => "'{}'" }) observances: string[];
  @BoolColumn({ default: true }) feedOpen: boolean;
  // kept by sign-off
  @TextColumn({ ...DERIVED, default: () => "repeat('0'::text, 64)" }) chainHead: string;
}

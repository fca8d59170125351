import type { IdeaWeights, RoundUpRhythm } from '@zesting/core';
import { Check, Entity } from 'typeorm';
import {
  BoolColumn,
  IdColumn,
  IdKey,
  InstantColumn,
  IntColumn,
  JsonColumn,
  Made,
  Refers,
  TextColumn,
  TimeColumn,
} from '../../../platform/database/columns.js';

/** How a new client signs off. */
export interface DefaultPolicy {
  readonly kind: 'any' | 'all';
  readonly silenceDays?: number;
}

/** The agency: one per database. */
@Check('ck_agencies_accent', "accent ~ '^#[0-9a-f]{6}$'")
@Check('ck_agencies_check_weekday', '(check_weekday is null) or ((check_weekday >= 1) and (check_weekday <= 7))')
@Check('ck_agencies_currency', "currency ~ '^[A-Z]{3}$'")
@Check('ck_agencies_mail', '(mail_name is null) = (mail_address is null)')
@Check('ck_agencies_notice', 'notice_days >= 0 and notice_days <= 365 and launch_notice_days >= 0 and launch_notice_days <= 365')
@Check('ck_agencies_round_up', "round_up in ('at_once', 'hourly', 'daily')")
@Check('ck_agencies_session_days', 'session_days >= 1 and session_days <= 90')
@Check('ck_agencies_tight_days', 'tight_days >= 0 and tight_days <= 20')
@Made('create unique index uq_agencies_one on agencies ((true))')
@Entity('agencies')
export class Agency {
  @IdKey() id: string;
  @TextColumn() name: string;
  @TextColumn() zone: string;
  @TextColumn() region: string;
  @IntColumn({ array: true }) weeklyMinutes: number[];
  @TimeColumn({ default: () => "'12:00:00'" }) cutOff: string;
  @IntColumn({ default: 0 }) tightDays: number;
  /** of fees and rates, by ISO 4217 */
  @TextColumn({ default: () => "'EUR'" }) currency: string;
  /** days ahead that anything should be asked for, and a launch */
  @IntColumn({ default: 30 }) noticeDays: number;
  @IntColumn({ default: 90 }) launchNoticeDays: number;
  @IntColumn({ default: 1 }) version: number;
  @IntColumn({ default: 14 }) sessionDays: number;
  @BoolColumn({ default: false }) keepsPlaces: boolean;
  @BoolColumn({ default: false }) isDemo: boolean;
  @TextColumn({ nullable: true }) markHash: string | null;
  @TextColumn({ nullable: true }) markMime: string | null;
  @TextColumn({ nullable: true }) accent: string | null;
  @TextColumn({ nullable: true }) mailName: string | null;
  @TextColumn({ nullable: true }) mailAddress: string | null;
  @InstantColumn({ nullable: true }) mailProvedAt: string | null;
  @TimeColumn({ default: () => "'20:00:00'" }) quietFrom: string;
  @TimeColumn({ default: () => "'08:00:00'" }) quietTo: string;
  @TextColumn({ default: () => "'at_once'" }) roundUp: RoundUpRhythm;
  @TimeColumn({ default: () => "'08:00:00'" }) roundUpAt: string;
  @JsonColumn({ default: () => '\'{"kind": "any"}\'' }) defaultPolicy: DefaultPolicy;
  /** the form that a new client gets a link to */
  @Refers('IntakeForm', 'fk_agencies_default_form')
  @IdColumn({ nullable: true })
  defaultFormId: string | null;
  /** how much each mark of an idea counts */
  @JsonColumn({ default: () => '\'{"merit": 3, "ease": 2, "chance": 1}\'' }) ideaWeights: IdeaWeights;
  @BoolColumn({ default: false }) hidesBeginning: boolean;
  /** Monday is 1: when managers are reminded to look through what goes out next; null: they are not */
  @IntColumn({ nullable: true, default: 4 }) checkWeekday: number | null;
}

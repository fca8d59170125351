import { IsString, MaxLength } from 'class-validator';
import { IsDay, OrNull } from '../fields/index.js';

/** Between which days a piece may be out. */
export class EmbargoBody {
  /** the first day on which it may be out; null: any */
  @OrNull()
  @IsDay()
  notBeforeOn: string | null;

  /** the last day on which it may go out; null: any */
  @OrNull()
  @IsDay()
  notAfterOn: string | null;

  /** why, as whoever places it reads it; empty: nothing is said */
  @IsString()
  @MaxLength(200)
  why: string;
}

export class EmbargoRuleShape {
  notBeforeOn: string | null;
  notAfterOn: string | null;
  why: string;
  version: number;
}

/** Between which days a piece may be out. */
export class EmbargoShape {
  /** null: on any day */
  rule: EmbargoRuleShape | null;
}

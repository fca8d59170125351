import { IsBoolean, IsInt, IsNotEmpty, IsString, Matches, Max, MaxLength, Min } from 'class-validator';
import { IsWeek } from '../clients/index.js';
import { IsTimeOfDay, IsZone, Optional } from '../fields/index.js';

/** What the agency sets for itself. */
export class AgencySettingsShape {
  name: string;
  zone: string;
  region: string;
  /** Monday to Sunday: what nobody has yet is planned in these hours */
  weeklyMinutes: number[];
  /** work that arrives later than this in its doer's day begins on the next */
  cutOff: string;
  /** slack of so many working days or fewer is called tight */
  tightDays: number;
  /** a session ends so many days after signing in */
  sessionDays: number;
  /** pictures keep what a camera wrote beside them: where and when they were taken */
  keepsPlaces: boolean;
  version: number;
}

export class EditAgencyBody {
  @Optional()
  @IsString()
  @IsNotEmpty()
  @MaxLength(100)
  name?: string;

  @Optional()
  @IsZone()
  zone?: string;

  @Optional()
  @Matches(/^[A-Z]{2}(-[A-Z0-9]{1,4})?$/)
  region?: string;

  @Optional()
  @IsWeek()
  weeklyMinutes?: number[];

  @Optional()
  @IsTimeOfDay()
  cutOff?: string;

  @Optional()
  @IsInt()
  @Min(0)
  @Max(20)
  tightDays?: number;

  @Optional()
  @IsInt()
  @Min(1)
  @Max(90)
  sessionDays?: number;

  @Optional()
  @IsBoolean()
  keepsPlaces?: boolean;
}

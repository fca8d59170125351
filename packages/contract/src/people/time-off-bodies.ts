import { IsIn, IsString, MaxLength } from 'class-validator';
import { IsDay, Optional } from '../fields/index.js';
export class TimeOffBody {
  @IsDay()
  startOn: string;

  @IsDay()
  endOn: string;

  /** the share of each day that is lost: 1 or 0.5 */
  @IsIn([1, 0.5])
  part: number;

  @Optional()
  @IsString()
  @MaxLength(100)
  note?: string;
}

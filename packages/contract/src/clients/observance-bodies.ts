import { ArrayMaxSize, IsArray, IsBoolean, IsString, IsUUID, MaxLength } from 'class-validator';
import { IsDay, IsNotBlank, OrNull } from '../fields/index.js';

/** Takes a day of note for a client, or leaves it. */
export class TakeObservanceBody {
  @IsString()
  @IsNotBlank()
  @MaxLength(150)
  name: string;

  @IsBoolean()
  isTaken: boolean;
}

/** A day of note that comes every year. */
export class OwnObservanceBody {
  /** null: for all clients to take */
  @OrNull()
  @IsUUID()
  clientId: string | null;

  @IsString()
  @IsNotBlank()
  @MaxLength(100)
  name: string;

  /** one of its days: month and day of the month are kept */
  @IsDay()
  on: string;

  /** words for what it is about */
  @IsArray()
  @ArrayMaxSize(12)
  @IsString({ each: true })
  @IsNotBlank({ each: true })
  @MaxLength(40, { each: true })
  subjects: string[];
}

import { ArrayMaxSize, ArrayUnique, IsArray, IsBoolean, IsIn, IsInt, IsString, IsUUID, Max, MaxLength, Min } from 'class-validator';
import type { SignOffPolicy } from '@zesting/core';
import { IsNotBlank, Optional } from '../fields/index.js';

/** A sign-off policy as it is sent: only what its kind needs is kept. */
export class PolicyBody {
  @IsIn(['any', 'all', 'named', 'n_of', 'agency'])
  kind: SignOffPolicy['kind'];

  @Optional()
  @IsArray()
  @ArrayMaxSize(20)
  @ArrayUnique()
  @IsUUID('all', { each: true })
  contactIds?: string[];

  @Optional()
  @IsInt()
  @Min(1)
  @Max(20)
  count?: number;

  @Optional()
  @IsBoolean()
  inTurn?: boolean;

  @Optional()
  @IsInt()
  @Min(1)
  @Max(30)
  silenceDays?: number;

  @Optional()
  @IsUUID()
  personId?: string;

  /** how the client agreed that the agency decides: a lead may leave it out */
  @Optional()
  @IsString()
  @IsNotBlank()
  @MaxLength(500)
  consent?: string;
}

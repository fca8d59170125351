import { Type } from 'class-transformer';
import { ArrayMaxSize, ArrayMinSize, IsArray, ValidateNested } from 'class-validator';
import { GiveOneBody } from '../people/index.js';

/** Steps that are given to somebody, all or none. */
export class GiveOutBody {
  @IsArray()
  @ArrayMinSize(1)
  @ArrayMaxSize(200)
  @ValidateNested({ each: true })
  @Type(() => GiveOneBody)
  gives: GiveOneBody[];
}

import { Type } from 'class-transformer';
import { ArrayMaxSize, ArrayMinSize, IsArray, IsIn, IsString, IsUUID, Matches, MaxLength, ValidateNested } from 'class-validator';
import type { FigureOrder } from '@zesting/core';
import { Optional } from '../fields/index.js';

/** A table as it was read from a file: its heads, and the lines below them. */
export class TableShape {
  heads: string[];
  rows: string[][];
}

export class TableRowBody {
  /** in the order of the columns */
  @IsArray()
  @ArrayMaxSize(60)
  @IsString({ each: true })
  @MaxLength(10_000, { each: true })
  cells: string[];
}

/** The lines of a table to be taken as requests, and what its columns are. */
export class TakeTableBody {
  @IsUUID()
  formId: string;

  /** in the order of the table: `field:` and the key of a question, `name`, `email`, or empty for what is left out */
  @IsArray()
  @ArrayMinSize(1)
  @ArrayMaxSize(60)
  @IsString({ each: true })
  @MaxLength(100, { each: true })
  @Matches(/^(field:.+|name|email|)$/, { each: true })
  columns: string[];

  /** the lines below the heads; one in which nothing stands is left out */
  @IsArray()
  @ArrayMinSize(1)
  @ArrayMaxSize(500)
  @ValidateNested({ each: true })
  @Type(() => TableRowBody)
  rows: TableRowBody[];

  /** who asks where no column says it */
  @IsString()
  @MaxLength(100)
  askedBy: string;

  /** which of the figures in 3/4 is the day, once somebody was asked */
  @Optional()
  @IsIn(['day_first', 'month_first'])
  order?: FigureOrder;
}

export class TableTakenShape {
  requests: number;
}

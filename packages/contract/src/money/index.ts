import { Type } from 'class-transformer';
import { ArrayMaxSize, IsArray, IsInt, Max, Min, ValidateNested } from 'class-validator';
import { IsDay, OrNull } from '../fields/index.js';

/** What is agreed from a day on. */
export class AgreedAmountBody {
  @IsDay()
  fromOn: string;

  /** in the smallest unit of the agency's currency; null: nothing is agreed from then on */
  @OrNull()
  @IsInt()
  @Min(0)
  @Max(1_000_000_000_000)
  amount: number | null;
}

/** All that was agreed, one of a day. */
export class AgreedAmountsBody {
  @IsArray()
  @ArrayMaxSize(60)
  @ValidateNested({ each: true })
  @Type(() => AgreedAmountBody)
  agreed: AgreedAmountBody[];
}

/** A client's fee of a month, or what somebody's hour costs, since when. */
export class AgreedAmountsShape {
  agreed: AgreedAmountBody[];
  /** by ISO 4217 */
  currency: string;
  version: number;
}

/** An amount of money. */
export class MoneyShape {
  /** in the smallest unit of the currency */
  amount: number;
  /** by ISO 4217 */
  currency: string;
}

/** A client's month in money. */
export class ClientMoneyShape {
  clientId: string;
  /** what is agreed for the month; null: nothing */
  fee: number | null;
  /** as they were logged; of a step that ended without any, its effort */
  workedMinutes: number;
  /** the fee over the hours worked; null without either */
  perHour: number | null;
  /** what the hours cost by everybody's rates; null: the viewer is not told rates */
  cost: number | null;
  /** minutes of people without a rate, which are not in the cost */
  unratedMinutes: number;
}

/** A month in money. */
export class MoneyMonthShape {
  month: string;
  currency: string;
  clients: ClientMoneyShape[];
}

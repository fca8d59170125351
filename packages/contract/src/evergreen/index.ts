import { IsInt, Max, Min } from 'class-validator';
import { IsDay, OrNull } from '../fields/index.js';

/** That a piece lasts, and how it may go out again. */
export class EvergreenBody {
  /** so many days lie at least between two times on one channel */
  @IsInt()
  @Min(1)
  @Max(3650)
  restDays: number;

  /** so often at most on one channel, the first time among them; null: as often as it fits */
  @OrNull()
  @IsInt()
  @Min(2)
  @Max(1000)
  timesMost: number | null;

  /** what it says holds until then; null: for good */
  @OrNull()
  @IsDay()
  untilOn: string | null;
}

/** How a piece may go out again. */
export class EvergreenRuleShape {
  version: number;
  restDays: number;
  timesMost: number | null;
  untilOn: string | null;
}

/** A piece that lasts, on one channel on which it was out. */
export class StockRowShape {
  pieceId: string;
  pieceNumber: number;
  title: string;
  pillarId: string | null;
  formatId: string;
  formatName: string;
  channelId: string;
  channelName: string;
  /** the placement that was out there last */
  placementId: string;
  /** on how many days it is out there or will be */
  times: number;
  /** the latest of them */
  lastOn: string;
  /** the first day on which it has rested; null: it does not go out there again */
  fromOn: string | null;
  /** how often more; null: as often as it fits, or not again */
  timesLeft: number | null;
}

/** Whether a piece lasts, and when it may go out again. */
export class EvergreenShape {
  /** null: nobody said that it does */
  rule: EvergreenRuleShape | null;
  /** a row for each channel on which it was out */
  rows: StockRowShape[];
}

/** A client's pieces that last, by channel: those that rested longest first. */
export class EvergreenStockShape {
  rows: StockRowShape[];
}

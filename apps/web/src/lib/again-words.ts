import type { StockRowShape } from '@zesting/contract';
import { count, dayWords } from './format';

/** How often a piece of the stock was out on a channel, and when it may go out there again. */
export function againWords({ times, lastOn, fromOn, timesLeft }: StockRowShape, todayOn: string): string {
  const before = `${count(times, 'time')}, last ${dayWords(lastOn)}`;
  if (fromOn === null) return `${before}; not again`;
  const left = timesLeft === null ? '' : `, ${count(timesLeft, 'time')} more`;
  return fromOn <= todayOn ? `${before}; rested${left}` : `${before}; rests until ${dayWords(fromOn)}${left}`;
}

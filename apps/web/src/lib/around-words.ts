import type { FollowUpItemShape } from '@zesting/contract';
import { count } from './format';

/** "the day before", "3 days later, for 5 days": when something is done around what goes out. */
export function aroundWhen({ kind, days, forDays }: Pick<FollowUpItemShape, 'kind' | 'days' | 'forDays'>): string {
  if (kind === 'enter') return days === 0 ? 'by the day itself' : days === 1 ? 'by the day before' : `by ${count(days, 'day')} before`;
  const from = days === 0 ? 'the same day' : `${count(days, 'day')} later`;
  return forDays === 1 ? from : `${from}, for ${count(forDays, 'day')}`;
}

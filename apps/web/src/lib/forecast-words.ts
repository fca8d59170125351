import type { AnswerForecastShape } from '@zesting/contract';

/** A chance in words that do not say more than is known. @param chance from 0 to 1 */
export function chanceWords(chance: number): string {
  if (chance < 0.05) return 'hardly any chance';
  if (chance > 0.95) return 'almost certain';
  return `a chance of about ${Math.min(9, Math.max(1, Math.round(chance * 10)))} in 10`;
}

/**
 * How likely answers are there by a day, and what that goes by.
 * @param dueOn an answer is asked for by the end of this day
 */
export function answerWords({ days, own, all }: AnswerForecastShape, dueOn: string): string {
  const chance = days.findLast(({ on }) => on <= dueOn)?.chance ?? 0;
  const cases = `${all} earlier ${all === 1 ? 'round' : 'rounds'}${own > 0 ? `, ${own} of this client` : ''}`;
  return `${firstUpper(chanceWords(chance))} that the answer is there by then, going by ${cases}.`;
}

/** How long a step usually takes, and most of the time. */
export function daysWords(usualDays: number | null, mostDays: number | null): string {
  const days = (count: number) => `${count} working ${count === 1 ? 'day' : 'days'}`;
  if (usualDays === null) return 'longer than was seen to end';
  if (mostDays === null || mostDays === usualDays)
    return mostDays === null
      ? `${days(usualDays)} in half of the cases, in others longer than was seen to end`
      : `${days(usualDays)} mostly`;
  return `${days(usualDays)} in half of the cases, up to ${mostDays} in four of five`;
}

export const firstUpper = (words: string): string => words.charAt(0).toUpperCase() + words.slice(1);

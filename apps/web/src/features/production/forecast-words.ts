/** A chance in words that do not say more than is known. @param chance from 0 to 1 */
export function chanceWords(chance: number): string {
  if (chance < 0.05) return 'hardly any chance';
  if (chance > 0.95) return 'almost certain';
  return `a chance of about ${Math.min(9, Math.max(1, Math.round(chance * 10)))} in 10`;
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

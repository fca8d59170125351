import { isMonth } from '@zesting/core';

/** The month that an address asks for; without a sound one that of today. */
export const monthOf = (asked: string | null, todayOn: string): string => (asked !== null && isMonth(asked) ? asked : todayOn.slice(0, 7));

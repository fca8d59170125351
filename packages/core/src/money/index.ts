import type { Day } from '../time/index.js';

/** What is agreed from a day on, until the next: a fee of a month, or what an hour costs. */
export interface AgreedAmount {
  readonly fromOn: Day;
  /** in the smallest unit of the currency; null: nothing is agreed from then on */
  readonly amount: number | null;
}

/** What is agreed on a day; null: nothing. The order of the list is of no matter. */
export function amountOn(agreed: readonly AgreedAmount[], on: Day): number | null {
  let found: AgreedAmount | undefined;
  for (const one of agreed) if (one.fromOn <= on && one.fromOn >= (found?.fromOn ?? '')) found = one;
  return found?.amount ?? null;
}

/** What an hour brings: an amount over minutes, rounded to the smallest unit; null where there are no minutes. */
export const perHour = (amount: number, minutes: number): number | null => (minutes > 0 ? Math.round((amount * 60) / minutes) : null);

/** What minutes cost at an hour's price, rounded to the smallest unit. */
export const costOf = (minutes: number, hourly: number): number => Math.round((minutes * hourly) / 60);

/**
 * How many digits a currency has after its point.
 * @param currency by ISO 4217
 * @throws RangeError where it is no currency's code
 * @see ISO 4217: the minor unit of each currency, as CLDR has it for `Intl.NumberFormat`
 */
export const minorDigits = (currency: string): number =>
  new Intl.NumberFormat('en', { style: 'currency', currency }).resolvedOptions().maximumFractionDigits ?? 2;

/**
 * An amount that somebody typed, in the smallest unit of its currency: digits, with or without marks of thousands, and a point or a comma before no more
 * digits than the currency has. Both marks are understood as far as they can mean only one thing: "1.250" is 1250 where the currency has two digits.
 * @returns undefined where it is no amount
 */
export function parseAmount(text: string, currency: string): number | undefined {
  const digits = minorDigits(currency);
  const plain = text.trim().replace(/[\s\u00a0\u202f’']/g, '');
  const match = /^(\d{1,3}(?:[.,]\d{3})+|\d+)(?:[.,](\d*))?$/.exec(plain);
  const [, whole, part = ''] = match ?? [];
  if (whole === undefined || part.length > digits) return undefined;
  if (new Set(whole.replace(/\d/g, '')).size > 1) return undefined;
  const amount = Number(whole.replace(/\D/g, '') + part.padEnd(digits, '0'));
  return Number.isSafeInteger(amount) ? amount : undefined;
}

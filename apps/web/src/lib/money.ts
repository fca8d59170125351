import { minorDigits } from '@zesting/core';

/** An amount in words: "£1,250.00". @param amount in the smallest unit of the currency */
export const moneyWords = (amount: number, currency: string): string =>
  new Intl.NumberFormat('en-GB', { style: 'currency', currency }).format(amount / 10 ** minorDigits(currency)).replace('-', '−');

/** An amount as it is typed: "1,250.00". */
export function moneyFigures(amount: number, currency: string): string {
  const digits = minorDigits(currency);
  return new Intl.NumberFormat('en-GB', { minimumFractionDigits: digits, maximumFractionDigits: digits }).format(amount / 10 ** digits);
}

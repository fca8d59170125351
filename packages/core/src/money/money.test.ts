import fc from 'fast-check';
import { getDay } from '../time/index.js';
import { amountOn, costOf, minorDigits, parseAmount, perHour } from './index.js';

describe('money', () => {
  it('is what was agreed last before a day', () => {
    const agreed = [
      { fromOn: getDay('2027-03-01'), amount: 120_000 },
      { fromOn: getDay('2027-01-01'), amount: 100_000 },
      { fromOn: getDay('2027-06-01'), amount: null },
    ];
    const on = (day: string) => amountOn(agreed, getDay(day));
    expect([on('2026-12-31'), on('2027-01-01'), on('2027-02-28'), on('2027-03-01'), on('2027-05-31'), on('2027-06-01')]).toEqual([
      null,
      100_000,
      100_000,
      120_000,
      120_000,
      null,
    ]);
    expect(amountOn([], getDay('2027-01-01'))).toBeNull();
  });

  it('by the hour, worked by hand', () => {
    expect(perHour(120_000, 18 * 60)).toBe(6667); // 1,200.00 over 18 hours: 66.67
    expect(perHour(120_000, 0)).toBeNull();
    expect(costOf(90, 4_500)).toBe(6_750);
  });

  // the minor units that ISO 4217 lists: yen has none, most have two, the dinars of Bahrain, Kuwait and Tunisia three
  it.each([
    ['JPY', 0],
    ['EUR', 2],
    ['GBP', 2],
    ['KWD', 3],
    ['BHD', 3],
    ['TND', 3],
  ])('%s has %d digits', (currency, digits) => expect(minorDigits(currency)).toBe(digits));

  it.each([
    ['1250', 'GBP', 125_000],
    ['1,250.50', 'GBP', 125_050],
    ['1.250,5', 'EUR', 125_050],
    ['1.250', 'EUR', 125_000],
    ['1 250,05', 'EUR', 125_005],
    ['1’250', 'EUR', 125_000],
    ['12.5', 'EUR', 1_250],
    ['0,5', 'EUR', 50],
    ['1,234,567', 'JPY', 1_234_567],
    ['12.', 'EUR', 1_200],
    ['1.2345', 'EUR', undefined],
    ['1,2,3', 'EUR', undefined],
    ['1.234,567.8', 'EUR', undefined],
    ['12.5', 'JPY', undefined],
    ['-5', 'EUR', undefined],
    ['five', 'EUR', undefined],
    ['', 'EUR', undefined],
    ['99999999999999999', 'EUR', undefined],
  ])('%j of %s is %s', (text, currency, amount) => expect(parseAmount(text, currency)).toBe(amount));

  it('reads what it writes, in whatever way it is written', () => {
    const locales = ['en-GB', 'de-DE', 'de-CH', 'fr-FR', 'da-DK'];
    fc.assert(
      fc.property(
        fc.integer({ min: 0, max: 2_000_000_000 }),
        fc.constantFrom('EUR', 'JPY'),
        fc.constantFrom(...locales),
        (amount, currency, locale) => {
          const digits = minorDigits(currency);
          const written = new Intl.NumberFormat(locale, { minimumFractionDigits: digits, maximumFractionDigits: digits }).format(
            amount / 10 ** digits,
          );
          expect(parseAmount(written, currency)).toBe(amount);
        },
      ),
    );
  });
});

import { addDays, getDay } from '@zesting/core';
import { aimDays } from './piece-filter';

describe('the days of an aim', () => {
  it('are whole weeks from Monday, and whole months', () => {
    const sunday = getDay('2027-02-28');
    expect(aimDays('week', sunday)).toEqual({ from: '2027-02-22', to: '2027-02-28' });
    expect(aimDays('next_week', sunday)).toEqual({ from: '2027-03-01', to: '2027-03-07' });
    expect(aimDays('month', sunday)).toEqual({ from: '2027-02-01', to: '2027-02-28' });
    expect(aimDays('next_month', getDay('2027-12-31'))).toEqual({ from: '2028-01-01', to: '2028-01-31' });
  });

  it('hold today, and what comes next follows without a gap, on every day of four years', () => {
    for (let count = 0; count < 1461; count++) {
      const today = addDays(getDay('2026-01-01'), count);
      for (const [now, next] of [
        ['week', 'next_week'],
        ['month', 'next_month'],
      ] as const) {
        const [first, then] = [aimDays(now, today), aimDays(next, today)];
        expect(first.from <= today && today <= first.to).toBe(true);
        expect(then.from).toBe(addDays(first.to, 1));
      }
    }
  });
});

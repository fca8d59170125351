import { observances, publicHolidays } from './holidays.js';

const days = (region: string, year: number) => publicHolidays(region, year, year).map((holiday) => holiday.on);

describe('public holidays', () => {
  it('match the bank holidays of England and Wales in 2026 as gov.uk lists them (from memory)', () => {
    const listed = ['2026-01-01', '2026-04-03', '2026-04-06', '2026-05-04', '2026-05-25', '2026-08-31', '2026-12-25', '2026-12-28'];
    for (const day of listed) expect(days('GB-ENG', 2026)).toContain(day); // 26 December is a Saturday: Monday 28 stands in
  });

  it('know New Zealand’s own days: Waitangi Day and Labour Day', () => {
    expect(days('NZ-AUK', 2026)).toEqual(expect.arrayContaining(['2026-02-06', '2026-10-26']));
  });

  it('leave out observances: Mother’s Day is a day of work', () => {
    expect(publicHolidays('US-CA', 2026, 2026).map((holiday) => holiday.name)).not.toContain("Mother's Day");
    expect(days('US-CA', 2026)).toContain('2026-07-03'); // Independence Day falls on a Saturday: Friday stands in
  });

  it('offer observances apart: none of them is a day off, and Mother’s Day is among them', () => {
    for (const region of ['US-CA', 'GB-ENG', 'NZ-AUK']) {
      const off = new Set(publicHolidays(region, 2026, 2027).map((day) => `${day.on} ${day.name}`));
      for (const day of observances(region, 2026, 2027)) expect(off).not.toContain(`${day.on} ${day.name}`);
    }
    expect(observances('US-CA', 2026, 2026).map((day) => day.name)).toContain("Mother's Day");
    expect(observances('GB-ENG', 2026, 2026).map((day) => day.name)).toContain('Easter Sunday');
  });

  it('span several years, both ends included', () => {
    const years = publicHolidays('GB-ENG', 2026, 2028).map((holiday) => holiday.on.slice(0, 4));
    expect([...new Set(years)]).toEqual(['2026', '2027', '2028']);
  });
});

import { getDay, weekdayOf } from './index.js';
import { isMonth, lastOfMonth, monthOfSpan, monthWeeks, nextMonth, weeksOf } from './month.js';

describe('the weeks of a month', () => {
  it('begin on a Monday and end on a Sunday, whole weeks only', () => {
    const weeks = weeksOf('2027-03');
    expect([weeks[0]?.[0], weeks.at(-1)?.[6], weeks.length]).toEqual(['2027-03-01', '2027-04-04', 5]);
  });

  it('need six rows where a long month begins on a Sunday, and four where February fits', () => {
    expect([weeksOf('2026-08').length, weeksOf('2027-02').length]).toEqual([6, 4]);
  });

  it('cross the turn of the year', () => {
    expect([nextMonth('2026-12', 1), nextMonth('2027-01', -1), nextMonth('2027-01', -13)]).toEqual(['2027-01', '2026-12', '2025-12']);
  });
});

it('a month is one of twelve, and ends on its last day', () => {
  expect(['2027-01', '2027-12', '2027-00', '2027-13', '2027-1', 'March', ''].map(isMonth)).toEqual([
    true,
    true,
    false,
    false,
    false,
    false,
    false,
  ]);
  expect(['2027-02', '2028-02', '2027-12', '2027-04'].map(lastOfMonth)).toEqual(['2027-02-28', '2028-02-29', '2027-12-31', '2027-04-30']);
});

it('a span is about the month of today, else about that of its first week', () => {
  const of = (from: string, to: string, today: string) => monthOfSpan(getDay(from), getDay(to), getDay(today));
  expect(of('2026-11-30', '2026-12-13', '2026-11-30')).toBe('2026-11');
  expect(of('2026-11-30', '2026-12-13', '2026-12-01')).toBe('2026-12');
  expect(of('2026-11-30', '2026-12-13', '2026-12-14')).toBe('2026-12');
  expect(of('2026-11-30', '2026-11-30', '2026-12-14')).toBe('2026-11');
  expect(of('2026-12-28', '2027-01-10', '2026-12-01')).toBe('2026-12');
  expect(of('2026-08-31', '2026-11-29', '2026-12-01')).toBe('2026-09');
});

describe('the weeks of a month as plans number them', () => {
  it('are four or five, each with a weekday, and hold every day of the month once', () => {
    const odd: string[] = [];
    for (let month = '1990-01'; month <= '2199-12'; month = nextMonth(month, 1)) {
      const weeks = monthWeeks(month);
      const days = weeks.flat();
      const isWhole =
        days[0] === `${month}-01` && days.at(-1) === lastOfMonth(month) && days.length === Number(lastOfMonth(month).slice(8));
      if (weeks.length < 4 || weeks.length > 5 || !isWhole || weeks.some((week) => week.every((on) => weekdayOf(on) > 5))) odd.push(month);
    }
    expect(odd).toEqual([]);
  });

  it('begin with the weekend before the first Monday', () => {
    expect(monthWeeks('2026-11').map((week) => [week[0], week.at(-1)])).toEqual([
      ['2026-11-01', '2026-11-08'],
      ['2026-11-09', '2026-11-15'],
      ['2026-11-16', '2026-11-22'],
      ['2026-11-23', '2026-11-29'],
      ['2026-11-30', '2026-11-30'],
    ]);
    expect(monthWeeks('2027-02')).toHaveLength(4);
  });
});

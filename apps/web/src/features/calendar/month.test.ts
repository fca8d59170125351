import { nextMonth, weeksOf } from './month';

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

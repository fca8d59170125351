import { getDay } from '../time/index.js';
import { periodStart, themeOfCycle, themeOn, type Theme } from './index.js';

const cycle = { names: ['Plan', 'Sow', 'Plant', 'Grow', 'Cut', 'Keep'], fromMonth: '2027-01' };

describe('a cycle of themes', () => {
  it('comes again: of six from January, July has January’s, also in later years', () => {
    expect(themeOfCycle(cycle, '2027-07')).toBe(themeOfCycle(cycle, '2027-01'));
    expect(themeOfCycle(cycle, '2027-07')).toBe('Plan');
    expect(themeOfCycle(cycle, '2028-12')).toBe('Keep');
  });

  it('has nothing before it begins, and nothing where it is empty', () => {
    expect(['2026-12', '2026-07', '2020-01'].map((month) => themeOfCycle(cycle, month))).toEqual([undefined, undefined, undefined]);
    expect(themeOfCycle({ names: ['Only'], fromMonth: '2027-01' }, '2026-12')).toBeUndefined();
    expect(themeOfCycle({ names: [], fromMonth: '2027-01' }, '2027-03')).toBeUndefined();
  });
});

describe('the theme of a day', () => {
  const themes: Theme[] = [
    { period: 'month', startOn: getDay('2027-03-01'), name: 'Spring fair' },
    { period: 'week', startOn: getDay('2027-03-29'), name: 'Easter' },
  ];

  it('is its week’s, else its month’s, else the cycle’s', () => {
    expect(themeOn(getDay('2027-03-31'), themes, cycle)).toEqual({ name: 'Easter', from: 'week' });
    expect(themeOn(getDay('2027-04-02'), themes, cycle)).toEqual({ name: 'Easter', from: 'week' }); // its week began in March
    expect(themeOn(getDay('2027-03-28'), themes, cycle)).toEqual({ name: 'Spring fair', from: 'month' });
    expect(themeOn(getDay('2027-04-05'), themes, cycle)).toEqual({ name: 'Grow', from: 'cycle' });
    expect(themeOn(getDay('2027-04-05'), themes, null)).toBeNull();
  });

  it('of a month that begins on a Monday is not taken for the week’s', () => {
    const of = (period: Theme['period']): Theme[] => [{ period, startOn: getDay('2027-03-01'), name: 'M' }];
    expect([themeOn(getDay('2027-03-20'), of('week'), null), themeOn(getDay('2027-03-20'), of('month'), null)?.from]).toEqual([
      null,
      'month',
    ]);
    expect(themeOn(getDay('2027-03-02'), of('month'), null)?.from).toBe('month');
  });

  it('counts weeks from Monday', () => {
    expect(periodStart(getDay('2027-03-01'), 'week')).toBe('2027-03-01');
    expect(periodStart(getDay('2027-03-07'), 'week')).toBe('2027-03-01');
    expect(periodStart(getDay('2027-03-31'), 'month')).toBe('2027-03-01');
  });
});

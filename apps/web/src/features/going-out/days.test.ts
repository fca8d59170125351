import type { ClientClockShape, GoingOutRowShape } from '@zesting/contract';
import { dayThere, daysOf } from './days';

const must = [{ code: 'not_signed', severity: 'must', place: 'copy' }] as const;
const should = [{ code: 'blackout', severity: 'should', place: 'date' }] as const;
const check = { by: 'Max', at: '2027-03-01T09:00:00Z' };
const row = (id: string, on: string, more: Partial<GoingOutRowShape> = {}) =>
  ({ id, on, clientId: 'a', state: 'scheduled', findings: [], check: null, ...more }) as unknown as GoingOutRowShape; // what is looked at here
const rows = [
  row('out', '2027-03-01', { state: 'out' }),
  row('fine', '2027-03-01', { check }),
  row('bare', '2027-03-02', { findings: [...must] }),
  row('odd', '2027-03-04', { findings: [...should] }),
];

describe('the days of what goes out', () => {
  it('count what is out, what is not ready, and what nobody has looked at', () => {
    const days = daysOf(rows, 'all', '2027-03-01');
    expect(days.map(({ name, total, out, unready, unchecked }) => [name, total, out, unready, unchecked])).toEqual([
      ['Today', 2, 1, 0, 0],
      ['Tomorrow', 1, 0, 1, 1],
      [null, 1, 0, 0, 1],
    ]);
  });

  it('show what is asked for, and leave out days without it', () => {
    const shown = (what: 'unready' | 'unchecked') => daysOf(rows, what, '2027-03-01').flatMap((day) => day.rows.map(({ id }) => id));
    expect(shown('unready')).toEqual(['bare']); // what somebody decides does not stop it
    expect(shown('unchecked')).toEqual(['bare', 'odd']);
    expect(daysOf(rows, 'unready', '2027-03-01').map(({ on, total }) => [on, total])).toEqual([['2027-03-02', 1]]);
  });

  it('say what a client’s clock calls them where it is another day there', () => {
    const clocks = (todayOn: string) => [{ clientId: 'a', todayOn } as ClientClockShape]; // nothing else is asked
    expect(dayThere(row('x', '2027-03-02'), clocks('2027-03-02'), '2027-03-01')).toBe('today there');
    expect(dayThere(row('x', '2027-03-03'), clocks('2027-03-02'), '2027-03-01')).toBe('tomorrow there');
    expect(dayThere(row('x', '2027-03-04'), clocks('2027-03-02'), '2027-03-01')).toBeNull();
    expect(dayThere(row('x', '2027-03-01'), clocks('2027-03-01'), '2027-03-01')).toBeNull();
  });
});

import { getDay } from '@zesting/core';
import { axisOf, ticksOf } from './axis';

const day = getDay;
const period = (fromOn: string, toOn: string) => ({ fromOn: day(fromOn), toOn: day(toOn) });

describe('the axis of campaigns', () => {
  it('runs over whole months', () => {
    expect(axisOf('2027-02', 1)).toEqual(period('2027-02-01', '2027-02-28'));
    expect(axisOf('2027-11', 3)).toEqual(period('2027-11-01', '2028-01-31'));
    expect(axisOf('2027-03', 12)).toEqual(period('2027-03-01', '2028-02-29'));
  });

  it('is divided by Mondays, and in a year by months', () => {
    expect(ticksOf(axisOf('2027-03', 1), 1).map(({ on }) => on)).toEqual([
      '2027-03-01',
      '2027-03-08',
      '2027-03-15',
      '2027-03-22',
      '2027-03-29',
    ]);
    expect(ticksOf(axisOf('2027-04', 1), 1)[0]?.on).toBe('2027-04-05');
    expect(ticksOf(axisOf('2027-03', 12), 12)).toHaveLength(12);
  });
});

import { daysInMonth, draggedOf } from './year-drag';

describe('a marker that is dragged to another month', () => {
  it.each([
    ['2027-03-19', '2027-03-19', '2027-06', '2027-06-19', '2027-06-19'],
    ['2027-03-31', '2027-03-31', '2027-02', '2027-02-28', '2027-02-28'],
    ['2028-01-31', '2028-02-02', '2028-02', '2028-02-29', '2028-03-02'], // as long as it was
    ['2027-03-30', '2027-04-02', '2027-12', '2027-12-30', '2028-01-02'],
  ])('%s to %s in %s is %s to %s', (startOn, endOn, month, start, end) =>
    expect(daysInMonth({ startOn, endOn }, month)).toEqual({ startOn: start, endOn: end }),
  );

  it('is told from a theme', () => {
    expect([draggedOf('theme', 'theme:2027-03'), draggedOf('marker', 'theme:2027-03')]).toEqual(['2027-03', undefined]);
  });
});

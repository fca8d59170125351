import { clockMinutes, leftAfter } from './index.js';

describe('hours by the clock', () => {
  it.each([
    ['2027-03-09T09:00:00Z', '2027-03-09T10:30:00Z', 90],
    ['2027-03-09T09:00:00Z', '2027-03-09T09:00:10Z', 1],
    ['2027-03-09T09:00:00Z', '2027-03-09T09:02:29Z', 2],
    ['2027-03-09T09:00:00Z', '2027-03-09T09:02:30Z', 3],
    ['2027-03-09T22:00:00Z', '2027-03-10T10:00:00Z', 720],
    ['2027-03-09T18:00:00Z', '2027-03-10T09:00:00Z', null],
    // over the hour that the clocks skip in London, an instant is an instant
    ['2027-03-28T00:30:00Z', '2027-03-28T01:30:00Z', 60],
  ] as const)('from %s to %s are %p minutes', (from, until, minutes) => expect(clockMinutes(from, until)).toBe(minutes));

  it('leave what is left, and never less than nothing', () => {
    expect([leftAfter(120, 45), leftAfter(30, 45), leftAfter(0, 1)]).toEqual([75, 0, 0]);
  });
});

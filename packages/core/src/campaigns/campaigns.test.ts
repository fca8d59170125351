import fc from 'fast-check';
import { addDays, getDay, type Day } from '../time/index.js';
import { moveItems, rollUp, shiftOf, type DatedItem } from './index.js';

const day = getDay;
const period = (fromOn: string, toOn: string) => ({ fromOn: day(fromOn), toOn: day(toOn) });
const item = (id: string, on: string, more: Partial<DatedItem> = {}): DatedItem => ({
  id,
  on: day(on),
  isFixed: false,
  earliestOn: null,
  ...more,
});
const told = (...args: Parameters<typeof moveItems>) =>
  moveItems(...args).map(({ id, to, outcome, wasSo }) => `${id} ${to} ${outcome}${wasSo ? ', as before' : ''}`);

describe('a campaign that moves', () => {
  const before = period('2027-03-08', '2027-03-26');
  const items = [
    item('out', '2027-03-09', { isFixed: true }),
    item('soon', '2027-03-15', { earliestOn: day('2027-03-12') }),
    item('later', '2027-03-25'),
  ];

  it('takes along what is not fixed, and says what becomes of it', () => {
    expect(told(items, before, period('2027-03-03', '2027-03-21'), day('2027-03-09'))).toEqual([
      'out 2027-03-09 fine, as before',
      'soon 2027-03-10 out_of_reach',
      'later 2027-03-20 fine, as before',
    ]);
    expect(told(items, before, period('2027-02-26', '2027-03-16'), day('2027-03-09'))).toEqual([
      'out 2027-03-09 fine, as before',
      'soon 2027-03-05 past',
      'later 2027-03-15 fine, as before',
    ]);
    // what is out stays behind when the rest goes on
    expect(told(items, before, period('2027-03-15', '2027-04-02'), day('2027-03-09'))[0]).toBe('out 2027-03-09 outside');
  });

  it('leaves all where it is when it is made longer or shorter, and says what lies outside', () => {
    expect(told(items, before, period('2027-03-08', '2027-03-20'), day('2027-03-09'))).toEqual([
      'out 2027-03-09 fine, as before',
      'soon 2027-03-15 fine, as before',
      'later 2027-03-25 outside',
    ]);
    expect(shiftOf(before, period('2027-03-01', '2027-03-26'))).toBe(0);
    expect(shiftOf(before, period('2027-03-01', '2027-03-19'))).toBe(-7);
  });

  it('can have something today, and on the very day on which it is ready', () => {
    const today = item('today', '2027-03-16', { earliestOn: day('2027-03-09') });
    expect(told([today], before, period('2027-03-01', '2027-03-19'), day('2027-03-09'))).toEqual(['today 2027-03-09 fine, as before']);
    expect(told([item('free', '2027-03-16')], before, period('2027-03-01', '2027-03-19'), day('2027-03-01'))).toEqual([
      'free 2027-03-09 fine, as before',
    ]);
  });

  const days = fc.integer({ min: 0, max: 200 }).map((after): Day => addDays(day('2027-01-01'), after));
  const anyItem = fc.record({ id: fc.string(), on: days, isFixed: fc.boolean(), earliestOn: fc.option(days) });

  it('comes back to where it was when it is moved back', () => {
    fc.assert(
      fc.property(
        fc.array(anyItem),
        days,
        fc.integer({ min: 0, max: 60 }),
        fc.integer({ min: -90, max: 90 }),
        (all, fromOn, length, by) => {
          const here = { fromOn, toOn: addDays(fromOn, length) };
          const there = { fromOn: addDays(here.fromOn, by), toOn: addDays(here.toOn, by) };
          const moved = moveItems(all, here, there, day('2027-01-01'));
          for (const [index, { from, to }] of moved.entries()) {
            expect(from).toBe(all[index]?.on);
            expect(to).toBe(all[index]?.isFixed ? from : addDays(from, by));
          }
          const back = moveItems(
            all.map((one, index) => ({ ...one, on: moved[index]?.to ?? one.on })),
            there,
            here,
            day('2027-01-01'),
          );
          expect(back.map(({ to }) => to)).toEqual(all.map(({ on }) => on));
        },
      ),
    );
  });

  it('is outside only of what it really lies outside, and nothing fixed is ever late', () => {
    fc.assert(
      fc.property(fc.array(anyItem), days, days, days, days, days, (all, a, b, c, d, todayOn) => {
        const order = (x: Day, y: Day) => (x < y ? { fromOn: x, toOn: y } : { fromOn: y, toOn: x });
        const after = order(c, d);
        for (const [index, { to, outcome }] of moveItems(all, order(a, b), after, todayOn).entries()) {
          if (outcome === 'outside') expect(to < after.fromOn || to > after.toOn).toBe(true);
          if (outcome === 'fine') expect(to >= after.fromOn && to <= after.toOn).toBe(true);
          if (all[index]?.isFixed) expect(['fine', 'outside']).toContain(outcome);
        }
      }),
    );
  });
});

it('counts stages in their order, and leaves out those that nothing is at', () => {
  expect(rollUp(['planned', 'approved', 'published'], ['published', 'planned', 'published'])).toEqual([
    { stage: 'planned', count: 1 },
    { stage: 'published', count: 2 },
  ]);
});

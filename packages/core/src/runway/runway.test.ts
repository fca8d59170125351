import fc from 'fast-check';
import { addDays, getDay, getTimeOfDay, toInstantAfterGap, type Day } from '../time/index.js';
import { bindSlots, runwayOf, type Placed } from './index.js';
import type { Slot } from '../cadence/index.js';

const today = getDay('2027-03-01');
const slot = (on: string, at = '09:00', channelId = 'feed'): Slot => ({
  ruleId: 'r',
  channelId,
  on: getDay(on),
  at: getTimeOfDay(at),
  publishAt: toInstantAfterGap(getDay(on), getTimeOfDay(at), 'UTC'),
});
const placed = (id: string, on: string, state: Placed['state'] = 'scheduled', at = '09:00', channelId = 'feed'): Placed => ({
  id,
  channelId,
  on: getDay(on),
  at: getTimeOfDay(at),
  state,
});
const ids = (slots: Slot[], placements: Placed[]) => bindSlots(slots, placements).slots.map(({ placed: one }) => one?.id ?? null);

describe('what stands in which slot', () => {
  it('is the nearest of its channel on its date', () => {
    const slots = [slot('2027-03-02', '09:00'), slot('2027-03-02', '17:00'), slot('2027-03-03')];
    expect(ids(slots, [placed('late', '2027-03-02', 'scheduled', '16:00')])).toEqual([null, 'late', null]);
    expect(ids(slots, [placed('elsewhere', '2027-03-02', 'scheduled', '09:00', 'blog')])).toEqual([null, null, null]);
    expect(ids(slots, [placed('the day after', '2027-03-04')])).toEqual([null, null, null]);
  });

  it('is one each: the nearest pair first, whoever comes later takes what is left or stands beside', () => {
    const slots = [slot('2027-03-02', '09:00'), slot('2027-03-02', '12:00')];
    const two = [placed('a', '2027-03-02', 'scheduled', '10:00'), placed('b', '2027-03-02', 'scheduled', '09:30')];
    expect(ids(slots, two)).toEqual(['b', 'a']);
    const tie = [placed('a', '2027-03-02', 'scheduled', '10:30'), placed('b', '2027-03-02', 'scheduled', '10:30')];
    expect(ids(slots, tie)).toEqual(['a', 'b']); // both an hour and a half from both: the first goes to the earlier slot
    expect(ids([slot('2027-03-02', '09:50'), slot('2027-03-02', '10:20')], [placed('a', '2027-03-02', 'scheduled', '10:10')])).toEqual([
      null,
      'a',
    ]);
    const three = bindSlots(slots, [...two, placed('c', '2027-03-02', 'scheduled', '18:00')]);
    expect(three.beside.map(({ id }) => id)).toEqual(['c']);
  });
});

const NOW = '2027-03-01T12:00:00.000Z';
const runway = (slots: Slot[], placements: Placed[], blackouts: string[] = [], now = NOW) =>
  runwayOf(bindSlots(slots, placements).slots, today, now, new Set(blackouts), 42);

describe('the runway', () => {
  it('ends at the first slot in which nothing signed stands', () => {
    const slots = ['2027-03-02', '2027-03-04', '2027-03-09'].map((on) => slot(on));
    expect(runway(slots, []).days).toBe(1);
    expect(runway(slots, [placed('a', '2027-03-02')]).days).toBe(3);
    expect(runway(slots, [placed('a', '2027-03-02'), placed('b', '2027-03-04', 'pencilled')]).days).toBe(3);
    expect(runway(slots, [placed('a', '2027-03-02'), placed('b', '2027-03-04', 'out'), placed('c', '2027-03-09')]).days).toBeNull();
  });

  it('does not count what is over, blacked out, or beyond the horizon', () => {
    expect(runway([slot('2027-03-01', '09:00'), slot('2027-03-01', '17:00')], []).days).toBe(0); // at noon only the second is to come
    expect(runway([slot('2027-03-01', '09:00')], []).days).toBeNull();
    expect(runway([slot('2027-03-01', '12:00')], []).days).toBeNull(); // at that very minute it is over
    expect(runway([slot('2027-03-02'), slot('2027-03-05')], [], ['2027-03-02']).days).toBe(4);
    expect(runway([slot('2027-04-11')], []).days).toBe(41);
    expect(runway([slot('2027-04-12')], []).days).toBeNull();
  });

  it('shows the worst of each day', () => {
    const slots = [
      slot('2027-03-01', '09:00'),
      slot('2027-03-02'),
      slot('2027-03-02', '17:00'),
      slot('2027-03-03'),
      slot('2027-03-04'),
      slot('2027-03-05'),
    ];
    const cells = runway(
      slots,
      [placed('a', '2027-03-02'), placed('b', '2027-03-03', 'pencilled'), placed('c', '2027-03-04')],
      ['2027-03-05'],
    ).cells;
    expect(cells).toHaveLength(42);
    expect(cells.slice(0, 7)).toEqual(['none', 'hole', 'pencilled', 'scheduled', 'closed', 'none', 'none']);
    const mixed = [slot('2027-03-06', '09:00'), slot('2027-03-06', '17:00')];
    expect(runway(mixed, [placed('a', '2027-03-06', 'pencilled')], ['2027-03-07']).cells.slice(5, 7)).toEqual(['hole', 'none']);
    // what of today is over was kept, or is past helping
    expect(runway([slot('2027-03-01', '09:00')], [placed('a', '2027-03-01', 'out')]).cells[0]).toBe('scheduled');
    expect(runway([slot('2027-03-01', '09:00'), slot('2027-03-01', '10:00')], [placed('a', '2027-03-01', 'out')]).cells[0]).toBe(
      'scheduled',
    );
  });

  it('is never shorter for a blackout more, never longer for a slot more, and ends where its cells say', () => {
    const ahead = fc.integer({ min: 0, max: 50 });
    const states = fc.constantFrom('scheduled' as const, 'pencilled' as const, 'out' as const, 'missed' as const);
    fc.assert(
      fc.property(
        fc.uniqueArray(ahead, { maxLength: 20 }),
        fc.array(fc.tuple(ahead, states), { maxLength: 20 }),
        ahead,
        ahead,
        (slotDays, placements, moreSlot, closed) => {
          const on = (after: number): Day => addDays(today, after);
          const there = placements.map(([after, state], index) => placed(String(index), on(after), state));
          const days = (all: number[], blackouts: string[]) =>
            runway(
              all.sort((a, b) => a - b).map((after) => slot(on(after))),
              there,
              blackouts,
            );
          const as = days(slotDays, []);
          const least = (found: number | null) => found ?? 42;
          expect(least(days(slotDays, [on(closed)]).days)).toBeGreaterThanOrEqual(least(as.days));
          if (!slotDays.includes(moreSlot)) expect(least(days([...slotDays, moreSlot], []).days)).toBeLessThanOrEqual(least(as.days));
          const first = as.cells.findIndex((cell) => cell === 'hole' || cell === 'pencilled');
          expect(as.days).toBe(first < 0 ? null : first);
        },
      ),
    );
  });
});

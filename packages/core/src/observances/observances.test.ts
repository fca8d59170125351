import fc from 'fast-check';
import { daysOfRule } from '../cadence/index';
import { getDay } from '../time/index';
import { fitOfObservances, MOVING_DAYS, movingDayIn, WORLD_DAYS, worldDaysIn, yearlyDaysIn } from './index';

describe('yearly days of note', () => {
  it('come on their date each year, the 29th of February in leap years alone', () => {
    const leap = [{ name: 'Leap', month: 2, day: 29, subjects: [] }];
    expect(yearlyDaysIn(leap, 2027, 2033).map(({ on }) => on)).toEqual(['2028-02-29', '2032-02-29']);
  });

  it('stand in the order of their dates, each year all of them', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1990, max: 2190 }), fc.integer({ min: 0, max: 5 }), (from, more) => {
        const all = worldDaysIn(from, from + more);
        expect(all).toHaveLength((WORLD_DAYS.length + MOVING_DAYS.length) * (more + 1));
        expect(all.map(({ on }) => on)).toEqual(all.map(({ on }) => on).sort());
      }),
    );
  });

  // dates as the resolutions have them: A/RES/47/193 (water), A/RES/72/211 (bees), A/RES/67/200 (forests), A/RES/63/111 (oceans); from memory
  it.each([
    ['World Water Day', '2027-03-22'],
    ['International Day of Forests', '2027-03-21'],
    ['World Bee Day', '2027-05-20'],
    ['World Oceans Day', '2027-06-08'],
  ])('%s is on %s', (name, on) => expect(worldDaysIn(2027, 2027).find((day) => day.name === name)?.on).toBe(on));

  it('are told apart by their names', () => {
    const names = [...WORLD_DAYS, ...MOVING_DAYS].map(({ name }) => name);
    expect(new Set(names).size).toBe(names.length);
  });

  // as calendars of 2027 show them: the first Saturday of July is the third, the third Thursday of November the eighteenth
  it.each([
    ['International Day of Cooperatives', '2027-07-03'],
    ['World Habitat Day', '2027-10-04'],
    ['World Philosophy Day', '2027-11-18'],
    ['World Maritime Day', '2027-09-30'],
    ['World Leprosy Day', '2027-01-31'],
  ])('%s moves, and is on %s', (name, on) => expect(worldDaysIn(2027, 2027).find((day) => day.name === name)?.on).toBe(on));

  it('that move are where the recurrence rule of RFC 5545 has them, in every year', () => {
    const WEEKDAYS = ['MO', 'TU', 'WE', 'TH', 'FR', 'SA', 'SU'];
    fc.assert(
      fc.property(
        fc.integer({ min: 1990, max: 2199 }),
        fc.record({
          name: fc.constant(''),
          subjects: fc.constant([]),
          month: fc.integer({ min: 1, max: 12 }),
          weekday: fc.integer({ min: 1, max: 7 }),
          nth: fc.constantFrom(1, 2, 3, 4, -1),
        }),
        (year, moving) => {
          const rule = `FREQ=YEARLY;BYMONTH=${moving.month};BYDAY=${moving.nth}${WEEKDAYS[moving.weekday - 1] ?? ''}`;
          const [first, last] = [getDay(`${year}-01-01`), getDay(`${year}-12-31`)];
          expect(daysOfRule(rule, first, first, last)).toEqual([movingDayIn(moving, year)]);
        },
      ),
    );
  });
});

describe('how a day of note fits a client', () => {
  const nursery = ['In season', 'How to grow', 'Native trees', 'Water', 'Soil'];
  const fit = (name: string, texts = nursery) =>
    fitOfObservances(texts)(WORLD_DAYS.find((day) => day.name === name) ?? { name, subjects: [] });

  it('is said by the words that it has in common with the pillars', () => {
    expect(fit('International Day of Forests')).toEqual(['trees']);
    expect(fit('World Water Day')).toEqual(['water']);
    expect(fit('World Soil Day')).toEqual(['soil']);
    expect(fit('World Radio Day')).toEqual([]);
  });

  it('is not said by words that every such day has, nor by short ones', () => {
    expect(fit('World Poetry Day', ['World of wool', 'The day'])).toEqual([]);
    expect(fitOfObservances(['Us'])({ name: 'Day of us', subjects: [] })).toEqual([]);
  });

  it('takes short words only as they are, and of two that are much alike the first', () => {
    expect(fit('Human Rights Day', ['Moss lawns'])).toEqual([]);
    expect(fit('World Oceans Day', ['By the sea'])).toEqual(['sea']);
    expect(fit('World Book and Copyright Day', ['Books and tools'])).toEqual(['books']);
  });

  it('has each word once, and needs pillars', () => {
    expect(fitOfObservances(['Bread'])({ name: 'Bread Day', subjects: ['bread', 'Bread'] })).toEqual(['bread']);
    for (const { name, subjects } of WORLD_DAYS) expect(fitOfObservances([])({ name, subjects })).toEqual([]);
  });
});

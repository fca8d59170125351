import fc from 'fast-check';
import { fromDayNumber, getDay, type Day } from '../time/index.js';
import { daysOfRule, inMonth, monthPattern, readRule, ruleOf, toPattern, type Pattern } from './index.js';

const day = getDay;
const days = (rule: string, anchor: string, from: string, to: string) => daysOfRule(rule, day(anchor), day(from), day(to));

describe('a rule', () => {
  it('is read without regard to case, and with its name before it', () => {
    expect(readRule(' rrule:freq=monthly;byday=-1fr; ')).toEqual({ ok: true, value: 'FREQ=MONTHLY;BYDAY=-1FR' });
  });

  it.each([
    '',
    'every Monday',
    'FREQ=HOURLY',
    'BYDAY=MO',
    'FREQ=WEEKLY;BYDAY=XX',
    'FREQ=WEEKLY;BYHOUR=9',
    'FREQ=DAILY;UNTIL=19971224T000000Z',
    'FREQ=WEEKLY;INTERVAL=0',
    'FREQ=WEEKLY;INTERVAL=-1',
    'FREQ=WEEKLY;FREQ=DAILY',
    'FREQ=MONTHLY;BYMONTHDAY=32',
    'FREQ=MONTHLY;BYMONTHDAY=0',
    'FREQ=YEARLY;BYMONTH=13',
    'FREQ=WEEKLY;BYDAY',
    'FREQ=WEEKLY;BYDAY=MO;DTSTART=19970902',
    `FREQ=MONTHLY;BYMONTHDAY=${Array.from({ length: 100 }, () => 1).join(',')}`,
  ])('is not “%s”', (text) => expect(readRule(text)).toEqual({ ok: false, failure: { code: 'rhythm.rule_wrong' } }));

  it.each([
    'FREQ=DAILY;INTERVAL=9999;COUNT=1',
    'FREQ=WEEKLY;WKST=SU;BYDAY=MO,SU',
    'FREQ=MONTHLY;BYDAY=+1MO,-5FR,TU',
    'FREQ=MONTHLY;BYMONTHDAY=1,-31,+9',
    'BYYEARDAY=366,-1,100;FREQ=YEARLY',
    'FREQ=YEARLY;BYWEEKNO=53,-1;BYMONTH=12,1',
    'FREQ=MONTHLY;BYDAY=MO,TU,WE,TH,FR;BYSETPOS=-1',
    `FREQ=MONTHLY;BYMONTHDAY=${Array.from({ length: 88 }, () => 1).join(',')}`, // 199 signs
  ])('is “%s”', (rule) => expect(readRule(rule)).toEqual({ ok: true, value: rule }));

  it.each([
    'FREQ=MONTHLY;BYDAY=MO,,TU',
    'FREQ=MONTHLY;BYDAY=0MO',
    'FREQ=MONTHLY;BYDAY=100MO',
    'FREQ=MONTHLY;BYMONTHDAY=1,32',
    'FREQ=MONTHLY;BYMONTHDAY=x1',
    'FREQ=MONTHLY;BYMONTHDAY=1x',
    'FREQ=YEARLY;BYYEARDAY=367',
    'FREQ=YEARLY;BYWEEKNO=54',
    'FREQ=YEARLY;BYMONTH=-1',
    'FREQ=MONTHLY;BYDAY=MO;BYSETPOS=0',
    'FREQ=WEEKLY;INTERVAL=10000',
    'FREQ=WEEKLY;COUNT=0',
    'FREQ=WEEKLY;COUNT=x1',
    'FREQ=WEEKLY;WKST=MON',
    'XFREQ=WEEKLY',
    'FREQ=WEEKLYX',
    'FREQ=WEEKLY;;BYDAY=MO',
    'FREQ=WEEKLY;BYDAY==MO',
    'INTERVAL=2;BYDAY=MO',
    'RRULE:RRULE:FREQ=DAILY',
  ])('is not “%s” either', (text) => expect(readRule(text).ok).toBe(false));

  it('that has no day at all has an end', () =>
    expect(days('FREQ=YEARLY;BYMONTH=2;BYMONTHDAY=30', '2027-01-01', '2027-01-01', '2030-01-01')).toEqual([]));

  it('gives the same days whether it is looked at from its anchor or from years later', () => {
    const rules = fc.constantFrom(
      'FREQ=DAILY;INTERVAL=5',
      'FREQ=DAILY;INTERVAL=3;BYDAY=MO,SU',
      'FREQ=DAILY;BYMONTH=2,3',
      'FREQ=WEEKLY;INTERVAL=2;BYDAY=SU,MO',
      'FREQ=WEEKLY;INTERVAL=3;WKST=SU;BYDAY=SU,SA',
      'FREQ=WEEKLY;INTERVAL=2',
      'FREQ=WEEKLY;INTERVAL=2;BYDAY=MO,WE,FR;BYSETPOS=-1',
      'FREQ=WEEKLY;COUNT=60;BYDAY=TU',
      'FREQ=MONTHLY;INTERVAL=2;BYDAY=-1FR',
      'FREQ=YEARLY;INTERVAL=3;BYYEARDAY=1,100,200',
    );
    fc.assert(
      fc.property(
        rules,
        fc.integer({ min: 20_000, max: 20_020 }),
        fc.integer({ min: 0, max: 1_500 }),
        fc.integer({ min: 0, max: 60 }),
        (rule, anchor, later, length) => {
          const [anchorOn, from, to] = [anchor, anchor + later, anchor + later + length].map(fromDayNumber) as [Day, Day, Day]; // three of them
          const whole = daysOfRule(rule, anchorOn, anchorOn, to);
          expect(daysOfRule(rule, anchorOn, from, to)).toEqual(whole.filter((on) => on >= from));
        },
      ),
      { numRuns: 500 },
    );
  });

  it('every other month from 31 January keeps to the 31st, and its last day to the last', () => {
    expect(days('FREQ=MONTHLY;INTERVAL=2;BYMONTHDAY=31', '2027-01-31', '2027-01-01', '2027-12-31')).toEqual([
      '2027-01-31',
      '2027-03-31',
      '2027-05-31',
      '2027-07-31',
    ]);
    expect(days('FREQ=MONTHLY;INTERVAL=2;BYMONTHDAY=-1', '2027-01-31', '2027-01-01', '2027-12-31')).toEqual([
      '2027-01-31',
      '2027-03-31',
      '2027-05-31',
      '2027-07-31',
      '2027-09-30',
      '2027-11-30',
    ]);
  });

  it('goes to a pattern and back', () => {
    const pattern: fc.Arbitrary<Pattern> = fc.oneof(
      fc.record({ kind: fc.constant('days' as const), every: fc.integer({ min: 1, max: 30 }) }),
      fc.record({
        kind: fc.constant('weeks' as const),
        every: fc.integer({ min: 1, max: 8 }),
        weekdays: fc.uniqueArray(fc.integer({ min: 1, max: 7 }), { minLength: 1 }).map((all) => all.sort((a, b) => a - b)),
      }),
      fc.record({ kind: fc.constant('date' as const), every: fc.integer({ min: 1, max: 12 }), date: fc.constantFrom(-1, 1, 15, 31) }),
      fc.record({
        kind: fc.constant('nth' as const),
        every: fc.integer({ min: 1, max: 12 }),
        nth: fc.constantFrom(-1, 1, 2, 3, 4, 5),
        weekday: fc.integer({ min: 1, max: 7 }),
      }),
    );
    fc.assert(
      fc.property(pattern, (one) => {
        expect(readRule(ruleOf(one))).toEqual({ ok: true, value: ruleOf(one) });
        expect(toPattern(ruleOf(one))).toEqual(one);
      }),
    );
    expect(toPattern('FREQ=MONTHLY;BYDAY=MO,TU;BYSETPOS=-1')).toBeUndefined();
    expect(toPattern('FREQ=WEEKLY;BYDAY=1MO')).toBeUndefined();
    for (const none of [
      'FREQ=DAILY;COUNT=3',
      'FREQ=DAILY;BYDAY=MO',
      'FREQ=DAILY;INTERVAL=2;',
      'FREQ=WEEKLY;BYMONTHDAY=3',
      'FREQ=WEEKLY;BYDAY=MO,1TU',
      'XFREQ=WEEKLY;BYDAY=MO',
      'FREQ=WEEKLY;BYDAY=MO;WKST=SU',
      'FREQ=MONTHLY;BYMONTHDAY=1,15',
      'FREQ=MONTHLY;BYMONTHDAY=-3',
      'FREQ=MONTHLY;BYDAY=-2FR',
      'FREQ=MONTHLY;BYDAY=1MO,2TU',
      'FREQ=MONTHLY;BYDAY=FR',
    ])
      expect(toPattern(none)).toBeUndefined();
    expect(ruleOf({ kind: 'weeks', every: 1, weekdays: [7, 1, 3] })).toBe('FREQ=WEEKLY;BYDAY=MO,WE,SU');
    expect(ruleOf({ kind: 'date', every: 3, date: 9 })).toBe('FREQ=MONTHLY;INTERVAL=3;BYMONTHDAY=9');
  });
});

describe('a day’s place in its month', () => {
  it('is the nth of its weekday, and the same in another month', () => {
    expect(monthPattern(day('2027-03-16'))).toEqual({ nth: 3, weekday: 2 });
    expect(inMonth(day('2027-03-16'), '2027-04')).toBe('2027-04-20');
    expect(inMonth(day('2027-03-31'), '2027-06')).toBe('2027-06-30'); // a fifth Wednesday in both
    expect(inMonth(day('2027-03-31'), '2027-04')).toBeNull(); // April 2027 has four
    expect(inMonth(day('2027-03-01'), '2027-02')).toBe('2027-02-01');
  });

  it('goes there and back', () => {
    fc.assert(
      fc.property(fc.integer({ min: 18_000, max: 25_000 }), fc.integer({ min: 18_000, max: 25_000 }), (a, b) => {
        const there = inMonth(fromDayNumber(a), fromDayNumber(b).slice(0, 7));
        if (there !== null) expect(inMonth(there, fromDayNumber(a).slice(0, 7))).toBe(fromDayNumber(a));
        else expect(monthPattern(fromDayNumber(a)).nth).toBe(5);
      }),
    );
  });
});

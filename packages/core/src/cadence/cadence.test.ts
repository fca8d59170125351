import fc from 'fast-check';
import { addDays, dayIn, fromDayNumber, getDay, getTimeOfDay, timeIn, toDayNumber, type Day } from '../time/index.js';
import { daysOfRule, inMonth, monthPattern, readRule, ruleOf, slotsOf, toPattern, type Pattern, type RhythmRule } from './index.js';

const day = getDay;
const days = (rule: string, anchor: string, from: string, to: string) => daysOfRule(rule, day(anchor), day(from), day(to));

/** RFC 5545, 3.8.5.3: its examples that choose days. COUNT and UNTIL are given by what is looked at. */
describe('the examples of RFC 5545, 3.8.5.3', () => {
  it.each<[what: string, rule: string, anchor: string, from: string, to: string, expected: string[]]>([
    ['daily for ten occurrences', 'FREQ=DAILY;COUNT=10', '1997-09-02', '1997-01-01', '1997-12-31', range('1997-09-02', 10)],
    ['every other day', 'FREQ=DAILY;INTERVAL=2', '1997-09-02', '1997-09-02', '1997-09-10', list('1997-09', 2, 4, 6, 8, 10)],
    [
      'every ten days, five times',
      'FREQ=DAILY;INTERVAL=10;COUNT=5',
      '1997-09-02',
      '1997-01-01',
      '1998-01-01',
      [...list('1997-09', 2, 12, 22), ...list('1997-10', 2, 12)],
    ],
    [
      'weekly for ten',
      'FREQ=WEEKLY;COUNT=10',
      '1997-09-02',
      '1997-01-01',
      '1998-01-01',
      [...list('1997-09', 2, 9, 16, 23, 30), ...list('1997-10', 7, 14, 21, 28), '1997-11-04'],
    ],
    [
      'every other week',
      'FREQ=WEEKLY;INTERVAL=2;WKST=SU',
      '1997-09-02',
      '1997-09-01',
      '1997-10-31',
      [...list('1997-09', 2, 16, 30), ...list('1997-10', 14, 28)],
    ],
    [
      'weekly on Tuesday and Thursday',
      'FREQ=WEEKLY;COUNT=10;WKST=SU;BYDAY=TU,TH',
      '1997-09-02',
      '1997-01-01',
      '1998-01-01',
      [...list('1997-09', 2, 4, 9, 11, 16, 18, 23, 25, 30), '1997-10-02'],
    ],
    [
      'every other week on Monday, Wednesday and Friday',
      'FREQ=WEEKLY;INTERVAL=2;WKST=SU;BYDAY=MO,WE,FR',
      '1997-09-01',
      '1997-09-01',
      '1997-10-04',
      [...list('1997-09', 1, 3, 5, 15, 17, 19, 29), ...list('1997-10', 1, 3)],
    ],
    [
      'monthly on the first Friday',
      'FREQ=MONTHLY;COUNT=10;BYDAY=1FR',
      '1997-09-05',
      '1997-01-01',
      '1999-01-01',
      [
        '1997-09-05',
        '1997-10-03',
        '1997-11-07',
        '1997-12-05',
        '1998-01-02',
        '1998-02-06',
        '1998-03-06',
        '1998-04-03',
        '1998-05-01',
        '1998-06-05',
      ],
    ],
    [
      'every other month on the first and last Sunday',
      'FREQ=MONTHLY;INTERVAL=2;COUNT=10;BYDAY=1SU,-1SU',
      '1997-09-07',
      '1997-01-01',
      '1999-01-01',
      [
        '1997-09-07',
        '1997-09-28',
        '1997-11-02',
        '1997-11-30',
        '1998-01-04',
        '1998-01-25',
        '1998-03-01',
        '1998-03-29',
        '1998-05-03',
        '1998-05-31',
      ],
    ],
    [
      'monthly on the second-to-last Monday',
      'FREQ=MONTHLY;COUNT=6;BYDAY=-2MO',
      '1997-09-22',
      '1997-01-01',
      '1999-01-01',
      ['1997-09-22', '1997-10-20', '1997-11-17', '1997-12-22', '1998-01-19', '1998-02-16'],
    ],
    [
      'the third-to-the-last day of the month',
      'FREQ=MONTHLY;BYMONTHDAY=-3',
      '1997-09-28',
      '1997-09-01',
      '1998-02-28',
      ['1997-09-28', '1997-10-29', '1997-11-28', '1997-12-29', '1998-01-29', '1998-02-26'],
    ],
    [
      'the 2nd and 15th',
      'FREQ=MONTHLY;COUNT=10;BYMONTHDAY=2,15',
      '1997-09-02',
      '1997-01-01',
      '1999-01-01',
      [
        '1997-09-02',
        '1997-09-15',
        '1997-10-02',
        '1997-10-15',
        '1997-11-02',
        '1997-11-15',
        '1997-12-02',
        '1997-12-15',
        '1998-01-02',
        '1998-01-15',
      ],
    ],
    [
      'the first and last day',
      'FREQ=MONTHLY;COUNT=10;BYMONTHDAY=1,-1',
      '1997-09-30',
      '1997-01-01',
      '1999-01-01',
      [
        '1997-09-30',
        '1997-10-01',
        '1997-10-31',
        '1997-11-01',
        '1997-11-30',
        '1997-12-01',
        '1997-12-31',
        '1998-01-01',
        '1998-01-31',
        '1998-02-01',
      ],
    ],
    [
      'every Tuesday, every other month',
      'FREQ=MONTHLY;INTERVAL=2;BYDAY=TU',
      '1997-09-02',
      '1997-09-01',
      '1997-12-31',
      [...list('1997-09', 2, 9, 16, 23, 30), ...list('1997-11', 4, 11, 18, 25)],
    ],
    [
      'yearly in June and July',
      'FREQ=YEARLY;COUNT=10;BYMONTH=6,7',
      '1997-06-10',
      '1997-01-01',
      '2002-01-01',
      [1997, 1998, 1999, 2000, 2001].flatMap((year) => [`${year}-06-10`, `${year}-07-10`]),
    ],
    [
      'every third year on the 1st, 100th and 200th day',
      'FREQ=YEARLY;INTERVAL=3;COUNT=10;BYYEARDAY=1,100,200',
      '1997-01-01',
      '1997-01-01',
      '2007-01-01',
      [
        '1997-01-01',
        '1997-04-10',
        '1997-07-19',
        '2000-01-01',
        '2000-04-09',
        '2000-07-18',
        '2003-01-01',
        '2003-04-10',
        '2003-07-19',
        '2006-01-01',
      ],
    ],
    [
      'every 20th Monday of the year',
      'FREQ=YEARLY;BYDAY=20MO',
      '1997-05-19',
      '1997-01-01',
      '1999-12-31',
      ['1997-05-19', '1998-05-18', '1999-05-17'],
    ],
    [
      'Monday of week 20',
      'FREQ=YEARLY;BYWEEKNO=20;BYDAY=MO',
      '1997-05-12',
      '1997-01-01',
      '1999-12-31',
      ['1997-05-12', '1998-05-11', '1999-05-17'],
    ],
    [
      'every Thursday in March',
      'FREQ=YEARLY;BYMONTH=3;BYDAY=TH',
      '1997-03-13',
      '1997-01-01',
      '1998-12-31',
      [...list('1997-03', 13, 20, 27), ...list('1998-03', 5, 12, 19, 26)],
    ],
    [
      'every Friday the 13th',
      'FREQ=MONTHLY;BYDAY=FR;BYMONTHDAY=13',
      '1997-09-02',
      '1997-09-03',
      '2000-12-31',
      ['1998-02-13', '1998-03-13', '1998-11-13', '1999-08-13', '2000-10-13'],
    ],
    [
      'the Saturday after the first Sunday',
      'FREQ=MONTHLY;BYDAY=SA;BYMONTHDAY=7,8,9,10,11,12,13',
      '1997-09-13',
      '1997-09-01',
      '1997-12-31',
      ['1997-09-13', '1997-10-11', '1997-11-08', '1997-12-13'],
    ],
    [
      'election day',
      'FREQ=YEARLY;INTERVAL=4;BYMONTH=11;BYDAY=TU;BYMONTHDAY=2,3,4,5,6,7,8',
      '1996-11-05',
      '1996-01-01',
      '2004-12-31',
      ['1996-11-05', '2000-11-07', '2004-11-02'],
    ],
    [
      'the third of Tuesday, Wednesday, Thursday',
      'FREQ=MONTHLY;COUNT=3;BYDAY=TU,WE,TH;BYSETPOS=3',
      '1997-09-04',
      '1997-01-01',
      '1998-01-01',
      ['1997-09-04', '1997-10-07', '1997-11-06'],
    ],
    [
      'the second-to-last weekday',
      'FREQ=MONTHLY;BYDAY=MO,TU,WE,TH,FR;BYSETPOS=-2',
      '1997-09-29',
      '1997-09-01',
      '1998-03-31',
      ['1997-09-29', '1997-10-30', '1997-11-27', '1997-12-30', '1998-01-29', '1998-02-26', '1998-03-30'],
    ],
    [
      'weeks that begin on Monday',
      'FREQ=WEEKLY;INTERVAL=2;COUNT=4;BYDAY=TU,SU;WKST=MO',
      '1997-08-05',
      '1997-01-01',
      '1998-01-01',
      list('1997-08', 5, 10, 19, 24),
    ],
    [
      'weeks that begin on Sunday',
      'FREQ=WEEKLY;INTERVAL=2;COUNT=4;BYDAY=TU,SU;WKST=SU',
      '1997-08-05',
      '1997-01-01',
      '1998-01-01',
      list('1997-08', 5, 17, 19, 31),
    ],
    [
      'dates that a month does not have are left out',
      'FREQ=MONTHLY;BYMONTHDAY=15,30;COUNT=5',
      '2007-01-15',
      '2007-01-01',
      '2007-12-31',
      ['2007-01-15', '2007-01-30', '2007-02-15', '2007-03-15', '2007-03-30'],
    ],
  ])('%s', (_, rule, anchor, from, to, expected) => {
    expect(days(rule, anchor, from, to)).toEqual(expected);
  });
});

function list(month: string, ...dates: number[]): string[] {
  return dates.map((date) => `${month}-${String(date).padStart(2, '0')}`);
}
function range(from: string, count: number): Day[] {
  return Array.from({ length: count }, (_, index) => addDays(day(from), index));
}

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

const weekdays = (overrides: Partial<RhythmRule> = {}): RhythmRule => ({
  id: 'r',
  channelId: 'feed',
  rule: 'FREQ=WEEKLY;BYDAY=MO,TU,WE,TH,FR',
  at: getTimeOfDay('09:00'),
  anchorOn: day('2027-01-01'),
  fromOn: day('2027-01-01'),
  untilOn: null,
  exceptOn: [],
  skipsHolidays: false,
  ...overrides,
});
const march = (rules: RhythmRule[], zone = 'Europe/London', holidays: string[] = []) =>
  slotsOf(rules, zone, day('2027-03-01'), day('2027-03-31'), new Set(holidays));

describe('slots of a period', () => {
  it('are 23 from Monday to Friday in March 2027: five each of the first three weekdays, four of the others', () => {
    const slots = march([weekdays()]);
    expect(slots).toHaveLength(23);
    const of = (weekday: number) => slots.filter(({ on }) => ((toDayNumber(on) + 3) % 7) + 1 === weekday).length;
    expect([1, 2, 3, 4, 5, 6, 7].map(of)).toEqual([5, 5, 5, 4, 4, 0, 0]);
  });

  it('leave out what is excepted, holidays where the rule skips them, and days on which it does not hold', () => {
    expect(march([weekdays({ exceptOn: [day('2027-03-03')] })])).toHaveLength(22);
    const holidays = ['2027-03-26', '2027-03-28'];
    expect(march([weekdays()], 'Europe/London', holidays)).toHaveLength(23);
    expect(march([weekdays({ skipsHolidays: true })], 'Europe/London', holidays).map(({ on }) => on)).not.toContain('2027-03-26');
    expect(march([weekdays({ fromOn: day('2027-03-08'), untilOn: day('2027-03-09') })]).map(({ on }) => on)).toEqual([
      '2027-03-08',
      '2027-03-09',
    ]);
  });

  it('count from the anchor, also where the rule holds only later', () => {
    const rule = { rule: 'FREQ=WEEKLY;INTERVAL=2;BYDAY=MO', anchorOn: day('2027-03-01') };
    const all = march([weekdays(rule)]).map(({ on }) => on);
    expect(all).toEqual(['2027-03-01', '2027-03-15', '2027-03-29']);
    expect(march([weekdays({ ...rule, fromOn: day('2027-03-09') })]).map(({ on }) => on)).toEqual(all.slice(1));
  });

  it('keep the time on the client’s wall through its changes of the clock (IANA: London 28 March 2027, Los Angeles 14 March), and move on where it jumps over one', () => {
    const london = march([weekdays({ rule: 'FREQ=DAILY' })]);
    expect(london.map(({ publishAt }) => timeIn(publishAt, 'Europe/London'))).toEqual(london.map(() => '09:00'));
    expect([london[26]?.publishAt, london[27]?.publishAt]).toEqual(['2027-03-27T09:00:00Z', '2027-03-28T08:00:00Z']);
    const gap = march([weekdays({ rule: 'FREQ=DAILY', at: getTimeOfDay('02:30') })], 'America/Los_Angeles').find(
      ({ on }) => on === '2027-03-14',
    );
    expect([gap?.at, timeIn(gap?.publishAt ?? '', 'America/Los_Angeles')]).toEqual(['02:30', '03:30']);
  });

  it('end with the rule or with the period, whichever is first, and of the same instant stand in the order of the rules', () => {
    const until = (day_: string) => march([weekdays({ untilOn: day(day_) })]).at(-1)?.on;
    expect([until('2027-03-30'), until('2027-03-31'), until('2027-06-30')]).toEqual(['2027-03-30', '2027-03-31', '2027-03-31']);
    const ids = march(['b', 'a', 'c'].map((id) => weekdays({ id, rule: 'FREQ=WEEKLY;BYDAY=WE' }))).map(({ ruleId }) => ruleId);
    expect(ids.slice(0, 6)).toEqual(['b', 'a', 'c', 'b', 'a', 'c']);
  });

  it('stand in the order of their instants', () => {
    const slots = march([weekdays({ id: 'late', at: getTimeOfDay('17:00') }), weekdays({ id: 'early', rule: 'FREQ=WEEKLY;BYDAY=WE' })]);
    expect(slots.map(({ publishAt }) => publishAt)).toEqual([...slots.map(({ publishAt }) => publishAt)].sort());
    expect(slots.slice(2, 4).map(({ ruleId }) => ruleId)).toEqual(['early', 'late']);
  });

  it('of a period are those of its parts, in every zone', () => {
    fc.assert(
      fc.property(
        fc.constantFrom('Europe/London', 'Pacific/Auckland', 'America/Los_Angeles', 'Australia/Lord_Howe'),
        fc.constantFrom(
          'FREQ=WEEKLY;INTERVAL=3;BYDAY=SU,MO',
          'FREQ=MONTHLY;BYMONTHDAY=-1',
          'FREQ=DAILY;INTERVAL=5',
          'FREQ=MONTHLY;INTERVAL=2;BYDAY=-1FR',
        ),
        fc.integer({ min: 20_700, max: 21_000 }),
        fc.integer({ min: 0, max: 90 }),
        fc.integer({ min: 0, max: 90 }),
        (zone, rule, start, before, after) => {
          const [from, middle, to] = [start, start + before, start + before + after].map(fromDayNumber) as [Day, Day, Day];
          const rules = [weekdays({ rule }), weekdays({ id: 'other', at: getTimeOfDay('02:30'), skipsHolidays: true })];
          const of = (a: Day, b: Day) => slotsOf(rules, zone, a, b, new Set([addDays(from, 7)]));
          const whole = of(from, to);
          expect(whole).toEqual([...of(from, middle), ...of(addDays(middle, 1), to)]);
          for (const slot of whole) expect(dayIn(slot.publishAt, zone)).toBe(slot.on);
        },
      ),
    );
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

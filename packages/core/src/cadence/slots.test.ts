import fc from 'fast-check';
import { addDays, dayIn, fromDayNumber, getDay, getTimeOfDay, timeIn, toDayNumber, type Day } from '../time/index.js';
import { slotsOf, type RhythmRule } from './index.js';

const day = getDay;
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

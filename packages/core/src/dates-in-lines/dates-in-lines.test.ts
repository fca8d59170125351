import fc from 'fast-check';
import { addDays, getDay, weekdayOf } from '../time/index.js';
import { kindOf, readDatedLines } from './index.js';

const today = getDay('2026-11-27');
const read = (text: string, order?: 'day_first' | 'month_first') =>
  readDatedLines(text, today, order).lines.map(({ on, until, title, doubt }) =>
    [on === until ? (on ?? '') : `${on} ${until}`, title, ...(doubt ? [doubt] : [])].join(' | '),
  );

describe('dates in lines', () => {
  it.each([
    ['Mon 7 Dec live talk', '2026-12-07 | live talk'],
    ['12.12. winter sale starts', '2026-12-12 | winter sale starts'],
    ['email: gift guide 15 Dec', '2026-12-15 | email: gift guide'],
    ['- Tuesday, 8th December 2026: open evening', '2026-12-08 | open evening'],
    ['December 24 – shop closed', '2026-12-24 | shop closed'],
    ['2027-03-16 Spring catalogue', '2027-03-16 | Spring catalogue'],
    ['Market on the square (12–14 December)', '2026-12-12 2026-12-14 | Market on the square'],
    ['12.–14.12. Markt', '2026-12-12 2026-12-14 | Markt'],
    ['30.12.2026–2.1.2027 Betriebsferien', '2026-12-30 2027-01-02 | Betriebsferien'],
    ['30 Dec to 2 January holidays', '2026-12-30 2027-01-02 | holidays'],
    ['Dec 12-14 fair', '2026-12-12 2026-12-14 | fair'],
    ['am 3. Januar Inventur', '2027-01-03 | Inventur'],
    ['5 November looked back', '2026-11-05 | looked back'],
    ['5 October next year', '2027-10-05 | next year'],
    ['13/12 concert', '2026-12-13 | concert'],
    ['12/13 concert', '2026-12-13 | concert'],
    ['29 Feb leap talk', '2028-02-29 | leap talk'],
    ['31 Nov nothing', ' | nothing | no_such_day'],
    ['14–12 Dec fair', ' | fair | no_such_day'],
    ['Tue 7 Dec live talk', '2026-12-07 | live talk | weekday_differs'],
    ['15 Dec', '2026-12-15 |  | no_title'],
    ['just words', ' | just words | no_day'],
    ['room 12 is painted', ' | room 12 is painted | no_day'],
  ])('%s', (line, expected) => {
    expect(read(line)).toEqual([expected]);
  });

  it('reads days alone under a heading, until the next one', () => {
    expect(read('December\n3 open evening\nMon 7: live talk\n12-14 market\n\nJanuary 2027:\n5 stocktaking')).toEqual([
      '2026-12-03 | open evening',
      '2026-12-07 | live talk',
      '2026-12-12 2026-12-14 | market',
      '2027-01-05 | stocktaking',
    ]);
  });

  it('asks about the order once, unless one of the lines says it', () => {
    expect(readDatedLines('3/4 talk\n5/6 fair', today).isAmbiguous).toBe(true);
    expect(readDatedLines('3/4 talk\n25/6 fair', today)).toMatchObject({
      isAmbiguous: false,
      lines: [{ on: '2027-04-03' }, { on: '2027-06-25' }],
    });
    expect(readDatedLines('3/4 talk\n6/25 fair', today)).toMatchObject({
      isAmbiguous: false,
      lines: [{ on: '2027-03-04' }, { on: '2027-06-25' }],
    });
    expect(readDatedLines('3/3 talk', today).isAmbiguous).toBe(false);
    expect(readDatedLines('3.4. talk', today).isAmbiguous).toBe(false);
    expect([read('3/4 talk', 'month_first'), read('3/4 talk', 'day_first')]).toEqual([['2027-03-04 | talk'], ['2027-04-03 | talk']]);
  });

  it('counts lines as they were pasted', () => {
    expect(readDatedLines('\r\n1 Dec a\r\n\r\n2 Dec b', today).lines.map(({ line }) => line)).toEqual([2, 4]);
  });

  it.each([
    ['winter sale', 'offer'],
    ['20 % on all', 'offer'],
    ['Shop closed', 'closure'],
    ['Photo day in the yard', 'production_day'],
    ['New range', 'launch'],
    ['no posts please', 'blackout'],
    ['concert', 'event'],
  ])('takes %s for: %s', (text, kind) => {
    expect(kindOf(text)).toBe(kind);
  });

  it('reads any day of the coming year in every shape', () => {
    const months = [
      'January',
      'February',
      'March',
      'April',
      'May',
      'June',
      'July',
      'August',
      'September',
      'October',
      'November',
      'December',
    ];
    const weekdays = ['Mon', 'Tue', 'Wed', 'Thu', 'Fri', 'Sat', 'Sun'];
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 330 }), (ahead) => {
        const on = addDays(today, ahead);
        const [, month, day] = on.split('-').map(Number) as [number, number, number];
        const name = months[month - 1] ?? '';
        const shapes = [
          `${weekdays[weekdayOf(on) - 1]} ${day} ${name} x`,
          `${name.slice(0, 3)} ${day} x`,
          `x ${day}. ${name}`,
          `${day}.${month}. x`,
          `${on} x`,
          `x ${String(day).padStart(2, '0')}.${String(month).padStart(2, '0')}.${on.slice(2, 4)}`,
        ];
        for (const shape of shapes) expect([shape, ...read(shape)]).toEqual([shape, `${on} | x`]);
      }),
    );
  });

  it('takes whatever is pasted', () => {
    const pieces = fc.constantFrom('7', '12.', '31', ' ', 'Dec', 'Mon', '–', '/', 'to', '.', '2027', 'x', '\n', ':', '(', '-');
    fc.assert(
      fc.property(
        fc.oneof(
          fc.string(),
          fc.array(pieces, { maxLength: 12 }).map((all) => all.join('')),
        ),
        (text) => {
          for (const { on, until } of readDatedLines(text, today).lines)
            expect(on === null ? until : until && until >= on).toBe(on === null ? null : true);
        },
      ),
    );
  });
});

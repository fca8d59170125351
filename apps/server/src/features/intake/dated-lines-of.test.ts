import { getDay, readDatedLines } from '@zesting/core';
import { datedLinesOf } from './dated-lines-of';

const READING = { zone: 'Pacific/Auckland', todayOn: getDay('2027-03-01') };
const linesOf = async (text: string, reading = READING): Promise<string> => {
  const read = await datedLinesOf(Buffer.from(text), reading);
  return read.ok ? read.value : read.failure.code;
};
const calendar = (...events: string[][]): string =>
  [
    'BEGIN:VCALENDAR',
    'VERSION:2.0',
    'PRODID:x',
    ...events.flatMap((event) => ['BEGIN:VEVENT', ...event, 'END:VEVENT']),
    'END:VCALENDAR',
    '',
  ].join('\r\n');

describe('a file of dates as lines', () => {
  it('has the days of a calendar by the client’s clock', async () => {
    const text = calendar(
      ['UID:1', 'DTSTART;VALUE=DATE:20270403', 'DTEND;VALUE=DATE:20270404', 'SUMMARY:Spring fair'],
      ['UID:2', 'DTSTART;VALUE=DATE:20270410', 'DTEND;VALUE=DATE:20270413', 'SUMMARY:Three days'],
      // 20:00 UTC is the next morning in Auckland
      ['UID:3', 'DTSTART:20270420T200000Z', 'DTEND:20270420T210000Z', 'SUMMARY:Morning there'],
      ['UID:4', 'DTSTART:20270505T230000', 'DTEND:20270506T000000', 'SUMMARY:Until\\, midnight'],
      ['UID:5', 'DTSTART;VALUE=DATE:20260101', 'SUMMARY:Long ago'],
      ['UID:6', 'DTSTART;VALUE=DATE:20270601', 'STATUS:CANCELLED', 'SUMMARY:Not at all'],
    );
    expect((await linesOf(text)).split('\n')).toEqual([
      '2027-04-03 Spring fair',
      '10.04.2027–12.04.2027 Three days',
      '2027-04-21 Morning there',
      '2027-05-05 Until, midnight',
    ]);
  });

  it('has repetitions with their exceptions, so far ahead as is read', async () => {
    const weekly = ['UID:1', 'DTSTART;VALUE=DATE:20270301', 'RRULE:FREQ=WEEKLY;COUNT=3', 'EXDATE;VALUE=DATE:20270308', 'SUMMARY:Market'];
    expect((await linesOf(calendar(weekly))).split('\n')).toEqual(['2027-03-01 Market', '2027-03-15 Market']);
    const daily = ['UID:1', 'DTSTART;VALUE=DATE:20200101', 'RRULE:FREQ=DAILY', 'SUMMARY:Always'];
    expect((await linesOf(calendar(daily))).split('\n').length).toBeLessThanOrEqual(500);
  });

  it('has the lines of a table, which are read like any other; a list stays as it is', async () => {
    const text = await linesOf('Day;What;Where\n07.12.2027;"Live talk, in the hall";North\n;"";\n24/12/2027;Closed;All');
    expect(text).toBe('Day What Where\n07.12.2027 Live talk, in the hall North\n\n24/12/2027 Closed All');
    expect(readDatedLines(text, READING.todayOn).lines.map(({ on, title }) => [on, title])).toEqual([
      [null, 'Day What Where'],
      ['2027-12-07', 'Live talk, in the hall North'],
      ['2027-12-24', 'Closed All'],
    ]);
    expect(await linesOf('Mon 7 Dec live talk\n12 Dec sale')).toBe('Mon 7 Dec live talk\n12 Dec sale');
    expect(await linesOf('12 Dec sale')).toBe('12 Dec sale');
  });

  it.each([
    ['', 'table.empty'],
    ['a\0b', 'table.unreadable'],
    ['BEGIN:VCALENDAR\n"broken', 'table.unreadable'],
  ])('%j is refused', async (text, code) => expect(await linesOf(text)).toBe(code));
});

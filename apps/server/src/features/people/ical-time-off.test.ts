import { getDay, MONDAY_TO_FRIDAY, toCalendar } from '@zesting/core';
import { readTimeOff } from './ical-time-off.js';

const calendar = toCalendar({ weeklyMinutes: MONDAY_TO_FRIDAY, holidays: [getDay('2027-03-26')] });
const reading = { zone: 'Europe/London', calendar, todayOn: getDay('2027-03-01') };

const file = (...events: string[][]) =>
  [
    'BEGIN:VCALENDAR',
    'VERSION:2.0',
    'PRODID:test',
    ...events.flatMap((lines) => ['BEGIN:VEVENT', ...lines, 'END:VEVENT']),
    'END:VCALENDAR',
  ].join('\r\n');

function found(text: string, zone = 'Europe/London'): string[] {
  const result = readTimeOff(text, { ...reading, zone });
  if (!result.ok) throw new Error(result.failure.code);
  return result.value.absences.map(({ startOn, endOn, part, note }) => `${startOn} ${endOn} ${part} ${note}`);
}

describe('absences from a calendar file', () => {
  // RFC 5545 3.6.1: DTEND of a whole-day event is the day after its last
  it('takes whole-day events without their end day, without weekends and holidays', () => {
    const event = ['UID:1', 'SUMMARY:Away', 'DTSTART;VALUE=DATE:20270325', 'DTEND;VALUE=DATE:20270331'];
    expect(found(file(event))).toEqual(['2027-03-25 2027-03-25 1 Away', '2027-03-29 2027-03-30 1 Away']);
  });

  it('takes a morning as half a day, six hours as a day, an hour not at all', () => {
    const timed = (uid: string, from: string, to: string) => [
      `UID:${uid}`,
      `SUMMARY:${uid}`,
      `DTSTART:20270302T${from}Z`,
      `DTEND:20270302T${to}Z`,
    ];
    expect(found(file(timed('morning', '080000', '120000')))).toEqual(['2027-03-02 2027-03-02 0.5 morning']);
    expect(found(file(timed('long', '080000', '140000')))).toEqual(['2027-03-02 2027-03-02 1 long']);
    expect(found(file(timed('short', '080000', '090000')))).toEqual([]);
  });

  it('lays timed events on the days of the person’s zone', () => {
    const night = ['UID:n', 'SUMMARY:Night', 'DTSTART:20270302T200000Z', 'DTEND:20270303T010000Z'];
    expect(found(file(night), 'Pacific/Auckland')).toEqual(['2027-03-03 2027-03-03 0.5 Night']); // 09:00 to 14:00 there
  });

  // RFC 5545 3.8.5.3, "weekly on Tuesday", cut to three
  it('repeats, leaves out exceptions, and reads a moved occurrence where it went', () => {
    const weekly = [
      'UID:w',
      'SUMMARY:Course',
      'DTSTART;VALUE=DATE:20270302',
      'DTEND;VALUE=DATE:20270303',
      'RRULE:FREQ=WEEKLY;COUNT=3',
      'EXDATE;VALUE=DATE:20270309',
    ];
    const moved = [
      'UID:w',
      'SUMMARY:Course',
      'RECURRENCE-ID;VALUE=DATE:20270316',
      'DTSTART;VALUE=DATE:20270317',
      'DTEND;VALUE=DATE:20270318',
    ];
    expect(found(file(weekly, moved))).toEqual(['2027-03-02 2027-03-02 1 Course', '2027-03-17 2027-03-17 1 Course']);
  });

  it('leaves out what is free, cancelled or over, and says how many', () => {
    const day = ['DTSTART;VALUE=DATE:20270302', 'DTEND;VALUE=DATE:20270303'];
    const text = file(
      ['UID:a', 'TRANSP:TRANSPARENT', ...day],
      ['UID:b', 'STATUS:CANCELLED', ...day],
      ['UID:c', 'DTSTART;VALUE=DATE:20270201', 'DTEND;VALUE=DATE:20270202'],
    );
    const result = readTimeOff(text, reading);
    expect(result.ok && result.value).toEqual({ absences: [], leftOut: 3 });
  });

  it('refuses what is no calendar', () => {
    for (const text of ['', 'hello', 'BEGIN:VCARD\r\nEND:VCARD', 'BEGIN:VCALENDAR\r\nBEGIN:VEVENT'])
      expect(readTimeOff(text, reading).ok).toBe(false);
  });

  it('takes an event that lasts for good as one span, whatever century it ends in', () => {
    const away = ['UID:g', 'SUMMARY:Gone', 'DTSTART;VALUE=DATE:20000101', 'DTEND;VALUE=DATE:99980101'];
    const spans = found(file(away));
    expect(spans.at(-1)).toMatch(/ 2199-12-31 1 Gone$/);
    expect(spans[0]).toBe('2027-03-01 2027-03-05 1 Gone');
    expect(found(file(['UID:t', 'SUMMARY:Timed', 'DTSTART:20270302T000000Z', 'DTEND:99980302T000000Z']))[0]).toMatch(/^2027-03-02/);
  });

  it('keeps zones that a file defines to that file', () => {
    const zone = (offset: string) =>
      file(['UID:z', 'SUMMARY:Zoned', 'DTSTART;TZID=Europe/London:20270302T080000', 'DTEND;TZID=Europe/London:20270302T120000']).replace(
        'BEGIN:VEVENT',
        `BEGIN:VTIMEZONE\r\nTZID:Europe/London\r\nBEGIN:STANDARD\r\nDTSTART:19700101T000000\r\nTZOFFSETFROM:${offset}\r\nTZOFFSETTO:${offset}\r\nEND:STANDARD\r\nEND:VTIMEZONE\r\nBEGIN:VEVENT`,
      );
    const plain = file([
      'UID:p',
      'SUMMARY:Plain',
      'DTSTART;TZID=Europe/London:20270302T080000',
      'DTEND;TZID=Europe/London:20270302T120000',
    ]);
    const before = found(plain);
    expect(found(zone('+1400'))).toEqual(['2027-03-01 2027-03-01 0.5 Zoned']); // eight there is six in the evening of the day before here
    expect(found(plain)).toEqual(before);
  });

  it('refuses what is no calendar, an event without a beginning, and more than can be taken over', () => {
    const code = (text: string) => {
      const result = readTimeOff(text, reading);
      return result.ok ? 'read' : result.failure.code;
    };
    expect(code('no calendar')).toBe('time_off.file_unreadable');
    expect(code(file(['UID:x', 'SUMMARY:Nothing']))).toBe('time_off.file_unreadable');
    const many = Array.from({ length: 300 }, (_, index) => [
      `UID:${index}`,
      'SUMMARY:Often',
      'DTSTART;VALUE=DATE:20270302',
      'DTEND;VALUE=DATE:20270303',
      'RRULE:FREQ=WEEKLY;COUNT=20',
    ]);
    expect(code(file(...many))).toBe('time_off.too_many');
  });
});

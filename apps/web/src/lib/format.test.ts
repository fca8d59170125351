import { bytesWords, count, dayWords, minutesWords, monthWords, signed, zoneWords } from './format';

describe('dates in words', () => {
  it('name the weekday, and the year only when it is another one', () => {
    expect(dayWords('2027-03-16', '2027')).toBe('Tue 16 Mar');
    expect(dayWords('2027-03-16', '2026')).toBe('Tue 16 Mar 2027');
    expect(dayWords('2027-03-16', null)).toBe('Tue 16 Mar 2027');
    expect(monthWords('2027-03')).toBe('March 2027');
  });
});

describe('figures in words', () => {
  it('agree in number, show hours, and use a real minus sign', () => {
    expect([count(1, 'day'), count(3, 'day'), minutesWords(90), minutesWords(60), minutesWords(0), signed(-3), signed(2)]).toEqual([
      '1 day',
      '3 days',
      '1 h 30 min',
      '1 h',
      '0 min',
      '−3',
      '2',
    ]);
    expect(zoneWords('America/Los_Angeles')).toBe('Los Angeles');
  });

  it('give sizes of files in steps of a thousand', () => {
    expect([0, 999, 512_000, 1_500_000, 62_914_560, 2_147_483_648].map(bytesWords)).toEqual([
      '0 kB',
      '1 kB',
      '512 kB',
      '1.5 MB',
      '63 MB',
      '2.1 GB',
    ]);
  });
});

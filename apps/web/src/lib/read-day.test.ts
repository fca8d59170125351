import type { Day } from '@zesting/core';
import { readDay } from './read-day';
import { readWords } from './read-words';

const WEDNESDAY = '2027-03-03' as Day;
const read = (text: string, todayOn = WEDNESDAY) => readDay(text, todayOn, readWords.en);

describe('a day as people type it', () => {
  it.each([
    ['2027-03-16', '2027-03-16'],
    ['16/3', '2027-03-16'],
    ['16.3.', '2027-03-16'],
    ['16-3', '2027-03-16'],
    ['16 3 28', '2028-03-16'],
    ['16032028', '2028-03-16'],
    ['160328', '2028-03-16'],
    ['4/12', '2027-12-04'], // the day comes first
    ['12/04/2026', '2026-04-12'],
    ['1/1', '2028-01-01'], // it has passed this year
    ['3/3', '2027-03-03'],
    ['16', '2027-03-16'],
    ['2', '2027-04-02'],
    ['31', '2027-03-31'],
    ['29/2', '2028-02-29'],
    ['+5', '2027-03-08'],
    ['today', '2027-03-03'],
    ['Tomorrow', '2027-03-04'],
    ['friday', '2027-03-05'],
    ['tue', '2027-03-09'],
    ['next friday', '2027-03-12'],
    ['in 3 days', '2027-03-06'],
    ['in two weeks', '2027-03-17'],
    ['16 march', '2027-03-16'],
    ['March 16', '2027-03-16'],
    ['Tue 16 Mar 2027', '2027-03-16'],
    ['1 jan', '2028-01-01'],
  ])('%s', (text, on) => expect(read(text)).toBe(on));

  it.each(['', '31/2', '0/3', '32', '16/13', 'gibberish', 'mon 8 apples', '2027-02-29', '16/3/207'])('is not “%s”', (text) =>
    expect(read(text)).toBeUndefined(),
  );

  it('of the thirty-first is found behind shorter months', () => {
    expect(read('31', '2027-04-02' as Day)).toBe('2027-05-31');
  });
});

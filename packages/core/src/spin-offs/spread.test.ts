import { getDay } from '../time/index.js';
import { MONDAY_TO_FRIDAY, toCalendar } from '../workdays/index.js';
import { clipTime, coverageOf, dayAlong, areClipTimes, offsetDay, readClipTime } from './spread.js';
import { slidesOf } from './slides.js';

// 2027-03-26 is Good Friday, 2027-03-29 Easter Monday
const calendar = toCalendar({ weeklyMinutes: MONDAY_TO_FRIDAY, holidays: [getDay('2027-03-26'), getDay('2027-03-29')] });
const on = (day: string, count: number, unit: 'days' | 'working_days') => {
  const found = offsetDay(calendar, getDay(day), { count, unit });
  return found.ok ? found.value : found.failure.code;
};

describe('the day of an output', () => {
  it('is counted from the source in days, or in working days over Easter', () => {
    expect([on('2027-03-25', 1, 'days'), on('2027-03-25', -3, 'days'), on('2027-03-25', 0, 'working_days')]).toEqual([
      '2027-03-26',
      '2027-03-22',
      '2027-03-25',
    ]);
    expect([on('2027-03-25', 1, 'working_days'), on('2027-03-30', -1, 'working_days')]).toEqual(['2027-03-30', '2027-03-25']);
  });

  it('goes along with its source by what its offset says, or by as many days where it was put by hand', () => {
    const move = { from: getDay('2027-03-24'), to: getDay('2027-03-25') };
    const along = (day: string) => dayAlong(calendar, { count: 1, unit: 'working_days' }, move, getDay(day));
    expect(along('2027-03-25')).toEqual({ ok: true, value: '2027-03-30' });
    expect(along('2027-04-07')).toEqual({ ok: true, value: '2027-04-08' });
  });
});

describe('clips out of a long piece', () => {
  it('have times that are written and read as people do', () => {
    expect([0, 75, 3600, 3675].map(clipTime)).toEqual(['0:00', '1:15', '1:00:00', '1:01:15']);
    expect(['75', '1:15', '0:01:15', '1:01:15', ' 2:00 '].map(readClipTime)).toEqual([75, 75, 75, 3675, 120]);
    expect(['', '1:75', '1:2:3:4', '-1', '1.5', 'x:10'].map(readClipTime)).toEqual(Array(6).fill(undefined));
  });

  it('end after they begin', () => expect([areClipTimes({ from: 10, to: 40 }), areClipTimes({ from: 10, to: 10 })]).toEqual([true, false]));
});

describe('coverage', () => {
  it('is how many of the chosen channels have something', () => {
    expect(coverageOf(['a', 'b', 'b', 'c'], ['c', 'd'])).toEqual({ covered: 1, chosen: 3, missing: ['a', 'b'] });
    expect(coverageOf([], ['a'])).toEqual({ covered: 0, chosen: 0, missing: [] });
  });
});

describe('slides of an article', () => {
  it('are one per main heading with the first paragraph below it', () => {
    const article =
      '# Undyed\n\nBefore all.\n\n## The grey ewe\n\nShe was grey.\nAll her life.\n\nMore of her.\n\n### Aside\n\nNo.\n\n## The white ram\n## Neither\nLast.';
    expect(slidesOf(article)).toEqual(['1. The grey ewe\nShe was grey.\nAll her life.', '2. The white ram', '3. Neither\nLast.']);
  });

  it('are found by short lines that stand alone where nothing is marked', () => {
    expect(slidesOf('What wool is\r\n\r\nIt grows.\r\n\r\nHow it is spun\r\n\r\nBy hand. Slowly.')).toEqual([
      '1. What wool is\nIt grows.',
      '2. How it is spun\nBy hand. Slowly.',
    ]);
  });

  it('are the whole where there is no heading, and none of nothing', () => {
    expect([slidesOf('Just a line.'), slidesOf(' \n '), slidesOf('# Only\nOne.')]).toEqual([['Just a line.'], [], ['1. Only\nOne.']]);
  });
});

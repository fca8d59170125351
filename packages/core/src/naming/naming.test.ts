import fc from 'fast-check';
import { addDays, fromDayNumber, getDay } from '../time/index.js';
import { fileNames, isUntitledPiece, plainTitle, untitledPiece } from './index.js';

describe('titles in file names', () => {
  it.each([
    ['Moss lawns, honestly', 'moss-lawns-honestly'],
    ['Crème brûlée & Øl', 'creme-brulee-ol'],
    ['The four o’clock loaf', 'the-four-oclock-loaf'],
    ['../../etc/passwd', 'etc-passwd'],
    ['Łódź, Đorđe and Þór', 'lodz-dorde-and-thor'],
    ['苔', 'untitled'],
    ['Rye/white — ½ price', 'rye-white-price'],
    ['Ήλιος και сад', 'hlios-kai-sad'],
  ])('%s becomes %s', (title, plain) => {
    expect(plainTitle(title)).toBe(plain);
  });
});

describe('file names', () => {
  it('sort in publishing order, the undated last, whatever order they are given in', () => {
    const names = fileNames([
      { on: null, clientCode: 'moss', title: 'Later', extension: 'PNG' },
      { on: getDay('2027-03-20'), clientCode: 'moss', title: 'Second', extension: 'png' },
      { on: getDay('2027-03-16'), clientCode: 'moss', title: 'First', extension: 'txt' },
    ]);
    expect(names).toEqual(['03_undated_MOSS_later.png', '02_2027-03-20_MOSS_second.png', '01_2027-03-16_MOSS_first.txt']);
  });

  it('are unique, plain, and sorted by name they are sorted by day', () => {
    const file = fc.record({
      on: fc.integer({ min: 0, max: 400 }).map((days) => addDays(getDay('2027-01-01'), days)),
      clientCode: fc.constant('MOSS'),
      title: fc.string({ maxLength: 200 }),
      extension: fc.constant('png'),
    });
    fc.assert(
      fc.property(fc.array(file, { maxLength: 120 }), (files) => {
        const names = fileNames(files);
        expect(new Set(names.map((name) => name.toLowerCase())).size).toBe(files.length);
        for (const name of names) expect(name).toMatch(/^[0-9A-Za-z_-]{1,120}\.png$/);
        const days = names.map((name, index) => ({ name, on: files[index]?.on ?? '' })).sort((a, b) => (a.name < b.name ? -1 : 1));
        expect(days.map(({ on }) => on)).toEqual(days.map(({ on }) => on).sort());
      }),
    );
  });
});

describe('a piece without a title', () => {
  it('is called by its format and day, and is known by that', () => {
    fc.assert(
      fc.property(
        fc.constantFrom('Still', 'Short clip', 'Still for', 'A.*'),
        fc.option(fc.integer({ min: 10_000, max: 40_000 })),
        (format, number) => {
          expect(isUntitledPiece(untitledPiece(format, number === null ? null : fromDayNumber(number)), format)).toBe(true);
        },
      ),
    );
    expect(untitledPiece('Still', getDay('2027-03-16'))).toBe('Still for Tuesday 16 March 2027');
  });

  it.each([
    'Still for life',
    'Still for Tuesday',
    'Stills for Tuesday 16 March 2027',
    'Still',
    'Still for Tuesday 16 March 2027, again',
    'A Still without a title',
  ])('is not “%s”', (title) => expect(isUntitledPiece(title, 'Still')).toBe(false));
});

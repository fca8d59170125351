import type { FormItem } from '../intake/index';
import { getDay } from '../time/index';
import { guessColumns, readRows, type Column } from './index';

const ITEMS: FormItem[] = [
  { key: 'head', kind: 'section', label: 'First' },
  { key: 'about', kind: 'short', label: 'What is it about?', needed: true, serves: 'title' },
  { key: 'when', kind: 'day', label: 'When should it be out?', serves: 'wish_date' },
  { key: 'cost', kind: 'money', label: 'Budget' },
  { key: 'kind', kind: 'one_of', label: 'Kind', options: [{ value: 'c1', label: 'A clip' }, { value: 'still' }] },
  { key: 'where', kind: 'several_of', label: 'Where', options: [{ value: 'Blog' }, { value: 'Feed, wide' }, { value: 'Mail' }] },
  { key: 'paid', kind: 'yes_no', label: 'Paid for' },
  { key: 'days', kind: 'span', label: 'Days of the fair' },
  { key: 'seconds', kind: 'number', label: 'Seconds', needed: true, shownIf: { field: 'kind', is: 'is', value: 'c1' } },
  { key: 'files', kind: 'files', label: 'Files' },
];
const AROUND = { todayOn: getDay('2027-03-01'), askedBy: 'Ann' };
const one = (columns: Column[], ...cells: string[]) => readRows(ITEMS, columns, [cells], AROUND);
const answer = (key: string, cell: string) => one(['field:about', `field:${key}`], 'About', cell).rows[0]?.answers[key];

describe('columns', () => {
  it('are guessed by their heads, each thing once, and never for files', () => {
    expect(
      guessColumns(['What is it about', 'OUT WHEN?', 'budget', 'E-Mail', 'Asked by', 'It is about', 'Files', '', 'Weather'], ITEMS),
    ).toEqual(['field:about', 'field:when', 'field:cost', 'email', 'name', '', '', '', '']);
  });

  it('are known by what tables head a title and a day with', () => {
    expect(guessColumns(['Betreff', 'Datum', 'Link'], ITEMS)).toEqual(['field:about', 'field:when', '']);
  });
});

describe('cells', () => {
  it.each([
    ['1,234.50', '1234.50'],
    ['1.234,50', '1234.50'],
    ['1 234,5', '1234.5'],
    ['£ 12', '12'],
    ['12 EUR', '12'],
    ['1,234', '1234'],
    ['1,5', '1.5'],
    ['1234.5', '1234.5'],
    ['1.234.567', '1234567'],
    ['-3', '-3'],
  ])('an amount %j is %s', (cell, amount) => expect(answer('cost', cell)).toBe(amount));

  it.each([
    ['2027-04-03', '2027-04-03'],
    ['2027-04-03T09:00:00.000Z', '2027-04-03'],
    ['Sat 3 April', '2027-04-03'],
    ['3.4.2027', '2027-04-03'],
    ['3. April 2027', '2027-04-03'],
  ])('a day %j is %s', (cell, day) => expect(answer('when', cell)).toBe(day));

  it('choices go by what is read or kept, several of them divided', () => {
    expect(answer('kind', ' a CLIP ')).toBe('c1');
    expect(answer('kind', 'Still')).toBe('still');
    expect(answer('where', 'blog; Mail')).toEqual(['Blog', 'Mail']);
    expect(answer('where', 'Blog, Mail')).toEqual(['Blog', 'Mail']);
    expect(answer('where', 'feed, wide')).toEqual(['Feed, wide']);
    expect(answer('where', 'Feed, wide; Mail')).toEqual(['Feed, wide', 'Mail']);
    expect([answer('paid', 'Ja'), answer('paid', 'x'), answer('paid', 'no')]).toEqual(['yes', 'yes', 'no']);
    expect(answer('days', '3–5 April')).toEqual(['2027-04-03', '2027-04-05']);
    expect(answer('days', '2027-04-03')).toEqual(['2027-04-03', '2027-04-03']);
  });
});

describe('lines', () => {
  it('are checked as the form would, and every problem is told with its line and its cell', () => {
    const columns: Column[] = ['field:about', 'field:when', 'field:kind', 'email', ''];
    const read = readRows(
      ITEMS,
      columns,
      [
        ['Good', '2027-04-03', 'still', 'ben@b.test', 'left out'],
        ['', 'someday', 'a song', 'nowhere', ''],
        [' ', '', '', '', ''],
        ['Clip', '2027-01-01', 'A clip', '', ''],
      ],
      AROUND,
    );
    expect(read.rows.map(({ line, name, email }) => [line, name, email])).toEqual([
      [2, 'Ann', 'ben@b.test'],
      [3, 'Ann', 'nowhere'],
      [5, 'Ann', null],
    ]);
    expect(read.problems).toEqual([
      { line: 3, about: 'field:about', cell: '', problem: 'required' },
      { line: 3, about: 'field:when', cell: 'someday', problem: 'not_a_date' },
      { line: 3, about: 'field:kind', cell: 'a song', problem: 'not_an_option' },
      { line: 3, about: 'email', cell: 'nowhere', problem: 'not_an_email' },
      { line: 5, about: 'field:when', cell: '2027-01-01', problem: 'in_the_past' },
      { line: 5, about: 'field:seconds', cell: '', problem: 'required' },
    ]);
  });

  it('need somebody who asks', () => {
    expect(readRows(ITEMS, ['field:about', 'name'], [['A', '']], { ...AROUND, askedBy: ' ' }).problems).toEqual([
      { line: 2, about: 'name', cell: '', problem: 'no_name' },
    ]);
  });

  it('say together which figure is the day, and ask where they do not', () => {
    const days = (...cells: string[]) =>
      readRows(
        ITEMS,
        ['field:about', 'field:when'],
        cells.map((cell) => ['A', cell]),
        AROUND,
      );
    expect(days('4/3/2027', '4/30/2027').rows.map(({ answers }) => answers['when'])).toEqual(['2027-04-03', '2027-04-30']);
    expect(days('4/3/2027', '30/4/2027')).toMatchObject({ isAmbiguous: false, rows: [{ answers: { when: '2027-03-04' } }, {}] });
    expect(days('4/3/2027').isAmbiguous).toBe(true);
    expect(days('2027-04-03').isAmbiguous).toBe(false);
    expect(
      readRows(ITEMS, ['field:about', 'field:when'], [['A', '4/3/2027']], { ...AROUND, order: 'month_first' }).rows[0]?.answers['when'],
    ).toBe('2027-04-03');
  });

  it('keep what cannot be told apart from an own name of an object', () => {
    expect(one(['field:about', 'field:__proto__' as Column], 'A', 'x').rows[0]?.answers).toEqual({ about: 'A' });
  });
});

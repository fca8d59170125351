import exceljs from 'exceljs';
import { readTable } from './read-table';

const csv = async (text: string | Buffer) => {
  const read = await readTable(Buffer.from(text as string));
  return read.ok ? read.value : read.failure.code;
};

describe('a table of CSV', () => {
  // RFC 4180 2, rules 1 to 7, with its own examples
  it.each([
    ['each record on a line of its own', 'aaa,bbb,ccc\r\nzzz,yyy,xxx\r\n', [['zzz', 'yyy', 'xxx']]],
    ['the last without an end', 'aaa,bbb,ccc\r\nzzz,yyy,xxx', [['zzz', 'yyy', 'xxx']]],
    ['spaces are part of a field', 'a,b\r\n x , y', [[' x ', ' y']]],
    ['fields in quotes', '"aaa","bbb","ccc"\r\nzzz,yyy,xxx', [['zzz', 'yyy', 'xxx']]],
    ['breaks and commas within quotes', 'aaa,bbb,ccc\r\n"z\r\nz","y,y",xxx', [['z\r\nz', 'y,y', 'xxx']]],
    ['a quote within quotes', 'aaa,bbb,ccc\r\n"z","b""bb","c"', [['z', 'b"bb', 'c']]],
  ])('%s', async (_, text, rows) => expect((await csv(text)) as object).toMatchObject({ rows }));

  it('is divided by semicolons or tabs too, has short and long lines, and ends with its last', async () => {
    expect(await csv('a;b\n1,5;"x;y"\n2\n;;\n;')).toEqual({
      heads: ['a', 'b'],
      rows: [
        ['1,5', 'x;y'],
        ['2', ''],
      ],
    });
    expect(await csv('a\tb\n1\t2\t3')).toEqual({ heads: ['a', 'b', ''], rows: [['1', '2', '3']] });
  });

  it('is UTF-8 with or without a mark, else Windows-1252', async () => {
    expect(await csv('\ufeffüber\n5 €')).toEqual({ heads: ['über'], rows: [['5 €']] });
    expect(await csv(Buffer.from([0xfc, 0x62, 0x65, 0x72, 0x0a, 0x35, 0x20, 0x80]))).toEqual({ heads: ['über'], rows: [['5 €']] });
  });

  it.each([
    ['nothing', '', 'table.empty'],
    ['heads alone', 'a,b\n', 'table.empty'],
    ['a quote that never ends', 'a\n"b', 'table.unreadable'],
    ['no text', 'a\n\0', 'table.unreadable'],
    ['a zip that is no sheet', Buffer.from('PK\u0003\u0004junk'), 'table.unreadable'],
    ['too many lines', `a\n${'b\n'.repeat(501)}`, 'table.too_large'],
    ['too many columns', `${'a,'.repeat(60)}a\nb`, 'table.too_large'],
    ['too long a cell', `a\n${'b'.repeat(10_001)}`, 'table.too_large'],
    ['too much in all', `a\n${`${'b'.repeat(9_000)}\n`.repeat(70)}`, 'table.too_large'],
  ])('%s is refused', async (_, text, code) => expect(await csv(text)).toBe(code));
});

describe('a table of XLSX', () => {
  it('is its first sheet: days, numbers, results of formulas, words of links, rich text, gaps', async () => {
    const book = new exceljs.Workbook();
    const sheet = book.addWorksheet('Requests');
    sheet.addRow(['About', 'When', 'Cost', 'Page', 'Rich', 'Sum']);
    sheet.addRow([
      'The oven',
      new Date(Date.UTC(2027, 3, 3)),
      12.5,
      { text: 'the shop', hyperlink: 'https://kiln.test' },
      { richText: [{ text: 'very ' }, { text: 'hot', font: { bold: true } }] },
      { formula: '1+1', result: 2 },
    ]);
    sheet.getCell('A5').value = 'After a gap';
    book.addWorksheet('Other').addRow(['not read']);
    const read = await readTable(Buffer.from(await book.xlsx.writeBuffer()));
    expect(read).toEqual({
      ok: true,
      value: {
        heads: ['About', 'When', 'Cost', 'Page', 'Rich', 'Sum'],
        rows: [
          ['The oven', '2027-04-03', '12.5', 'the shop', 'very hot', '2'],
          ['', '', '', '', '', ''],
          ['', '', '', '', '', ''],
          ['After a gap', '', '', '', '', ''],
        ],
      },
    });
  });
});

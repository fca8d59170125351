import { sheetColumn, totalsOf, type SheetColumn, type SheetLine } from '@zesting/core';
import { stringify } from 'csv-stringify/sync';

/** A sheet that is taken away. */
export interface SheetTaken {
  readonly columns: readonly SheetColumn[];
  readonly lines: readonly SheetLine[];
}

const WIDE: Partial<Record<SheetColumn, number>> = { title: 44, campaign: 26, channels: 30, step: 24, doer: 20, format: 18, pillar: 18 };

/** What a cell holds: hours as a number with a part, so that they can be added up. */
function cellOf(line: SheetLine, column: SheetColumn): string | number | null {
  const { kind, of } = sheetColumn(column);
  const said = of(line);
  return kind === 'minutes' && typeof said === 'number' ? said / 60 : said;
}

const headOf = (column: SheetColumn): string => {
  const { name, kind } = sheetColumn(column);
  return kind === 'minutes' ? `${name} (h)` : name;
};

/**
 * As CSV (RFC 4180): commas, lines ended by CR LF, UTF-8 with the mark by which spreadsheets know it. Texts that a spreadsheet would reckon with, such as
 * a title that begins with "=", get an apostrophe before them: clients write titles, too.
 */
export const sheetAsCsv = ({ columns, lines }: SheetTaken): string =>
  stringify([columns.map(headOf), ...lines.map((line) => columns.map((column) => csvCell(cellOf(line, column))))], {
    bom: true,
    record_delimiter: '\r\n',
    escape_formulas: true,
  });

/** A number as text is what it is: one below zero must not be taken for a formula. */
const csvCell = (value: string | number | null): string | number =>
  typeof value === 'number' ? Math.round(value * 100) / 100 : (value ?? '');

/** As XLSX: texts are texts, days are days, hours and counts are numbers, and what can be added up is, below. */
export async function sheetAsXlsx({ columns, lines }: SheetTaken): Promise<Buffer> {
  const { default: sheets } = await import('exceljs'); // large, and needed for tables alone
  const book = new sheets.Workbook();
  const sheet = book.addWorksheet('Pieces', { views: [{ state: 'frozen', ySplit: 1 }] });
  const formats = { day: 'yyyy-mm-dd', minutes: '0.00', number: '0', text: '@' } as const;
  sheet.columns = columns.map((column) => {
    const { kind } = sheetColumn(column);
    return { header: headOf(column), width: WIDE[column] ?? 12, style: { numFmt: formats[kind] } };
  });
  for (const line of lines)
    sheet.addRow(
      columns.map((column) => {
        const value = cellOf(line, column);
        // a date of a spreadsheet is a day without a zone: its library reads it as UTC
        return sheetColumn(column).kind === 'day' && value !== null ? new Date(`${value}T00:00:00Z`) : value;
      }),
    );
  sheet.getRow(1).font = { bold: true };
  if (lines.length > 0) sheet.autoFilter = { from: { row: 1, column: 1 }, to: { row: lines.length + 1, column: columns.length } };
  addTotals(sheet, { columns, lines });
  return Buffer.from(await book.xlsx.writeBuffer());
}

/** The last row: hours added up by the spreadsheet itself, of the rows that its own filter leaves. */
function addTotals(sheet: import('exceljs').Worksheet, { columns, lines }: SheetTaken): void {
  const totals = totalsOf(lines);
  const sums: Partial<Record<SheetColumn, number>> = { left: totals.leftMinutes / 60, worked: totals.workedMinutes / 60 };
  const row = sheet.getRow(lines.length + 2);
  for (const [index, column] of columns.entries()) {
    const result = sums[column];
    if (result === undefined || lines.length === 0) continue;
    const { letter } = sheet.getColumn(index + 1);
    row.getCell(index + 1).value = { formula: `SUBTOTAL(109,${letter}2:${letter}${lines.length + 1})`, result };
  }
  row.font = { bold: true };
}

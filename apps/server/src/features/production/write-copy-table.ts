import type { CopyRowShape } from '@zesting/contract';
import { stringify } from 'csv-stringify/sync';

/** The columns of a copy table that is taken away: those that are pasted back come last, in their order. */
const COLUMNS: readonly { readonly head: string; readonly of: (row: CopyRowShape) => string; readonly width: number }[] = [
  { head: 'Day', of: ({ on }) => on, width: 12 },
  { head: 'Time', of: ({ at }) => at ?? '', width: 8 },
  { head: 'Channel', of: ({ channelName }) => channelName, width: 18 },
  { head: 'No.', of: ({ pieceNumber }) => String(pieceNumber), width: 6 },
  { head: 'Piece', of: ({ title }) => title, width: 30 },
  { head: 'Purpose', of: ({ purpose }) => purpose ?? '', width: 12 },
  { head: 'Copy', of: ({ copy }) => copy, width: 70 },
  { head: 'Tags', of: ({ tags }) => tags.map((tag) => `#${tag}`).join(' '), width: 30 },
  { head: 'First comment', of: ({ firstComment }) => firstComment, width: 30 },
  { head: 'Link', of: ({ link }) => link, width: 30 },
];

const cellsOf = (row: CopyRowShape): string[] => COLUMNS.map(({ of }) => of(row));

/** As CSV (RFC 4180): commas, lines ended by CR LF, UTF-8 with the mark by which spreadsheets know it. */
export const toCsv = (rows: readonly CopyRowShape[]): string =>
  stringify([COLUMNS.map(({ head }) => head), ...rows.map(cellsOf)], { bom: true, record_delimiter: '\r\n' });

/** As XLSX: every cell is text, whatever it begins with. */
export async function toXlsx(rows: readonly CopyRowShape[]): Promise<Buffer> {
  const { default: sheets } = await import('exceljs'); // large, and needed for tables alone
  const book = new sheets.Workbook();
  const sheet = book.addWorksheet('Copy', { views: [{ state: 'frozen', ySplit: 1 }] });
  sheet.columns = COLUMNS.map(({ head, width }) => ({ header: head, width, style: { alignment: { wrapText: true, vertical: 'top' } } }));
  sheet.addRows(rows.map(cellsOf));
  sheet.getRow(1).font = { bold: true };
  return Buffer.from(await book.xlsx.writeBuffer());
}

import { parse } from 'csv-parse/sync';
import type exceljs from 'exceljs';
import iconv from 'iconv-lite';
import { fail, ok, type Result } from '@zesting/core';

/** A table as texts: its heads, and the lines below them. */
export interface ReadTable {
  readonly heads: string[];
  readonly rows: string[][];
}

/** So many lines below the heads, columns, and signs in one cell and in all. */
export const TABLE_LIMITS = { rows: 500, columns: 60, cell: 10_000 } as const;
/** Bytes of the whole: so much a call carries. */
const BYTES = 600_000;

type Failure = { code: 'table.unreadable' | 'table.empty' | 'table.too_large' };

/**
 * Reads a table: XLSX (ECMA-376; its first sheet) or CSV (RFC 4180; divided by commas, semicolons or tabs, as UTF-8 or Windows-1252). Days come as ISO 8601.
 */
export async function readTable(bytes: Buffer): Promise<Result<ReadTable, Failure>> {
  const isZip = bytes.subarray(0, 4).equals(Buffer.from([0x50, 0x4b, 3, 4]));
  let lines: string[][];
  try {
    lines = isZip ? await sheetLines(bytes) : csvLines(textOf(bytes));
  } catch {
    return fail({ code: 'table.unreadable' });
  }
  const width = Math.max(0, ...lines.map((line) => line.findLastIndex((cell) => cell.trim() !== '') + 1));
  const [heads, ...rows] = lines.map((line) => Array.from({ length: width }, (_, at) => line[at] ?? ''));
  while (rows.at(-1)?.every((cell) => cell.trim() === '')) rows.pop();
  if (!heads || width === 0 || rows.length === 0) return fail({ code: 'table.empty' });
  const cells = lines.flat();
  const isLarge =
    rows.length > TABLE_LIMITS.rows ||
    width > TABLE_LIMITS.columns ||
    cells.some((cell) => cell.length > TABLE_LIMITS.cell) ||
    cells.reduce((sum, cell) => sum + Buffer.byteLength(cell), 0) > BYTES;
  return isLarge ? fail({ code: 'table.too_large' }) : ok({ heads, rows });
}

/** Bytes as text: UTF-8, else what spreadsheet programs in the West write without saying so. */
function textOf(bytes: Buffer): string {
  try {
    return new TextDecoder('utf-8', { fatal: true }).decode(bytes);
  } catch {
    return iconv.decode(bytes, 'win1252'); // Node’s own decoder takes it for Latin-1
  }
}

/** The lines of CSV, divided by that sign which makes most columns of its heads. */
function csvLines(text: string): string[][] {
  if (text.includes('\0')) throw new Error('no text');
  const read = (delimiter: string, to?: number): string[][] =>
    parse(text, { delimiter, bom: true, relax_column_count: true, skip_empty_lines: false, ...(to === undefined ? {} : { to }) });
  const widths = [',', ';', '\t'].map((delimiter) => ({ delimiter, width: widthOf(() => read(delimiter, 1)) }));
  const best = widths.reduce((wide, one) => (one.width > wide.width ? one : wide));
  return read(best.delimiter);
}

/** How many columns the heads have; none where they cannot be read so. */
function widthOf(read: () => string[][]): number {
  try {
    return read()[0]?.length ?? 0;
  } catch {
    return 0;
  }
}

async function sheetLines(bytes: Buffer): Promise<string[][]> {
  const { default: sheets } = await import('exceljs'); // large, and needed for these alone
  const book = new sheets.Workbook();
  await book.xlsx.load(bytes as unknown as ArrayBuffer); // the package's own word for a buffer
  const [sheet] = book.worksheets;
  if (!sheet) return [];
  const lines: string[][] = [];
  sheet.eachRow({ includeEmpty: true }, (row, number) => {
    if (number > TABLE_LIMITS.rows + 2) return;
    const line: string[] = [];
    row.eachCell({ includeEmpty: true }, (cell, at) => {
      if (at <= TABLE_LIMITS.columns + 1) line[at - 1] = cellText(cell.value);
    });
    lines.push(Array.from(line, (text) => text ?? ''));
  });
  return lines;
}

/** What stands in a cell: of a formula its result, of a link its words, of a day its ISO form. */
function cellText(value: exceljs.CellValue): string {
  if (value === null || value === undefined) return '';
  if (value instanceof Date) return value.toISOString().slice(0, 10);
  if (typeof value !== 'object') return String(value);
  if ('richText' in value) return value.richText.map(({ text }) => text).join('');
  if ('text' in value) return cellText(value.text as exceljs.CellValue); // a link's words may be rich text
  if ('result' in value) return cellText(value.result ?? null);
  return '';
}

import type { Response } from 'express';

/** The type of a spreadsheet. */
export const XLSX = 'application/vnd.openxmlformats-officedocument.spreadsheetml.sheet';

/** Answers with a table that is kept as a file. */
export function sendTable(response: Response, name: string, type: string, bytes: string | Buffer): void {
  response.set({
    'Content-Type': type,
    'Content-Disposition': `attachment; filename="${name}"`,
    'X-Content-Type-Options': 'nosniff',
    'Cache-Control': 'private, no-store',
  });
  response.end(bytes);
}

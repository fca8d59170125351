import { fail, ok, readRows, type Column, type FoundProblem, type Result } from '@zesting/core';
import type { TakeTableBody } from '@zesting/contract';
import type { Viewer } from '../../../platform/access/access.js';
import type { App } from '../../../platform/app.js';
import { once } from '../../../platform/http/idempotency.js';
import { runLimited } from '../../../platform/work/limited.js';
import { askedOfClient } from '../queries/asked-form.js';
import type { readTable, ReadTable } from '../read-table.js';
import { putRequest, type PutFailure } from './submit-request.js';

const READING = { milliseconds: 20_000, megabytes: 256 };

/** Reads a table in a thread of its own, for what comes from outside may never end; nothing is kept. */
export async function readTableFile(
  bytes: Buffer,
): Promise<Result<ReadTable, { code: 'table.unreadable' | 'table.empty' | 'table.too_large' }>> {
  const script = new URL('../read-table.worker.js', import.meta.url);
  return (await runLimited<Buffer, Awaited<ReturnType<typeof readTable>>>(script, bytes, READING)) ?? fail({ code: 'table.unreadable' });
}

export type TableFailure =
  PutFailure | { code: 'form.unknown' | 'idempotency.other_body' } | { code: 'table.rows_wrong'; problems: readonly FoundProblem[] };

/** Takes the lines of a table as requests: all of them or none. Nobody is written to: who asks hears once something is decided. */
export function takeTable(
  app: App,
  viewer: Viewer,
  clientId: string,
  body: TakeTableBody,
  key: string,
): Promise<Result<number, TableFailure>> {
  return app.write<number, TableFailure>((tx, now) =>
    once<number, TableFailure>(
      tx,
      { key, caller: `${viewer.personId}:${clientId}`, operation: 'request.take_table', body, now },
      async () => {
        const form = await askedOfClient(tx, body.formId, clientId, now);
        if (!form) return fail({ code: 'form.unknown' });
        const { columns, rows: lines, askedBy, order } = body;
        const cells = lines.map((line) => line.cells);
        const around = { todayOn: form.todayOn, askedBy, ...(order ? { order } : {}) };
        const { rows, problems } = readRows(form.items, columns as Column[], cells, around);
        if (problems.length > 0) return fail({ code: 'table.rows_wrong', problems });
        for (const { name, email, answers } of rows) {
          const put = await putRequest(tx, form, { way: 'table', name, email, answers, linkId: null, takenDownBy: viewer.name }, now);
          if (!put.ok) return put;
        }
        return ok(rows.length);
      },
    ),
  );
}

import { stringify } from 'csv-stringify/sync';
import type { PackContents, Packed } from './contents.js';

type Column = readonly [head: string, of: (packed: Packed, contents: PackContents) => string];

/** The columns of a schedule, in the order that docs/formats.md tells. */
export const SCHEDULE_COLUMNS: readonly Column[] = [
  ['client', (_, { client }) => client.code],
  ['date', ({ row }) => row.on ?? ''],
  ['time', ({ row }) => row.at?.slice(0, 5) ?? ''],
  ['zone', ({ row }) => row.zone],
  ['instant', ({ row }) => new Date(row.publishAt).toISOString().replace('.000Z', 'Z')],
  ['channel', ({ row }) => row.channelName],
  ['title', ({ row }) => row.pieceTitle],
  ['text', ({ handOut }) => handOut.text],
  ['tags', ({ handOut }) => handOut.tags],
  ['first_comment', ({ handOut }) => handOut.firstComment],
  ['link', ({ handOut }) => handOut.link],
  ['files', ({ media }) => media.map(({ name }) => name).join(' ')],
  ['alternative_texts', ({ media }) => media.map(({ alt }) => alt).join(' | ')],
  ['state', ({ row }) => row.state],
  ['address', ({ row }) => row.outAddress ?? ''],
  ['texts', ({ handOut }) => handOut.texts.map(({ name, text }) => `${name}: ${text}`).join('\n\n')],
];

/** A schedule for outside tools, as CSV (RFC 4180): commas, lines ended by CR LF, UTF-8 with the mark by which spreadsheets know it. */
export const scheduleOf = (contents: PackContents): string =>
  stringify(
    [SCHEDULE_COLUMNS.map(([head]) => head), ...contents.packed.map((packed) => SCHEDULE_COLUMNS.map(([, of]) => of(packed, contents)))],
    {
      bom: true,
      record_delimiter: '\r\n',
    },
  );

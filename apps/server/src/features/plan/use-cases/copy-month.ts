import { firstOfMonth, inMonth, lastOfMonth, ok, type Day, type InstantText, type Purpose, type Result } from '@zesting/core';
import type { CopiedLineShape, CopyMonthBody } from '@zesting/contract';
import type { Viewer } from '../../../platform/access/access.js';
import type { App } from '../../../platform/app.js';
import { rowsOf, type Reader } from '../../../platform/database/rows.js';
import { putPiece } from '../../calendar/index.js';
import { blackoutsBetween, rhythmsOf } from '../queries/rhythm-of.js';
import { routeOf } from './fill-slot.js';

interface StandingRow {
  readonly on: Day;
  readonly at: string;
  readonly formatId: string;
  readonly formatName: string;
  readonly pillarId: string | null;
  readonly purpose: Purpose | null;
  readonly channelIds: string[];
}

/**
 * Copies what stands in one month of a client into others, on the same weekday of each: a third Tuesday for a third Tuesday. Each piece becomes a planned
 * one of its format, pillar and channels, that is still to be thought of. Left out is what has no such day there, what lies in the past or on a closed
 * day, and what would stand where something of the channel stands already. Each line is a transaction of its own.
 */
export async function copyMonth(app: App, viewer: Viewer, clientId: string, body: CopyMonthBody): Promise<CopiedLineShape[]> {
  const standing = await app.read<StandingRow>(
    `select min(l.on_day) as on, (array_agg(to_char(l.at_time, 'HH24:MI') order by l.publish_at))[1] as at, p.format_id as "formatId", f.name as "formatName",
       p.pillar_id as "pillarId", p.purpose, array_agg(distinct l.channel_id) as "channelIds"
     from placements l join pieces p on p.id = l.piece_id join formats f on f.id = p.format_id join channels h on h.id = l.channel_id and h.archived_at is null
     where l.client_id = $1 and l.on_day between $2 and $3 and not l.cancelled and not p.shelved
     group by p.id, p.number, p.format_id, f.name, p.pillar_id, p.purpose order by min(l.publish_at), p.number`,
    [clientId, firstOfMonth(body.from), lastOfMonth(body.from)],
  );
  const lines: CopiedLineShape[] = [];
  for (const to of [...body.to].sort()) {
    // in a preview what was told before stands there too
    const told = new Set<string>();
    for (const row of standing) {
      const line = body.isPreview
        ? await lineOf(app.manager, clientId, row, to, app.clock.now(), told)
        : await copyLine(app, viewer, clientId, row, to);
      for (const channelId of line.outcome === 'copied' ? line.channelIds : []) told.add(`${channelId} ${line.on}`);
      lines.push(line);
    }
  }
  return lines;
}

/** What would become of one piece in another month. */
async function lineOf(
  reader: Reader,
  clientId: string,
  row: StandingRow,
  to: string,
  now: InstantText,
  told: ReadonlySet<string>,
): Promise<CopiedLineShape> {
  const on = inMonth(row.on, to);
  const { formatId: _formatId, on: fromOn, ...rest } = row;
  const line = { ...rest, to, fromOn, on, pieceId: null };
  if (on === null) return { ...line, outcome: 'no_such_day' };
  const [rhythm] = await rhythmsOf(reader, [clientId], on, now);
  if (!rhythm || on <= rhythm.todayOn) return { ...line, outcome: 'past' };
  if ((await blackoutsBetween(reader, [clientId], on, on)).get(clientId)?.has(on)) return { ...line, outcome: 'closed' };
  const taken = await rowsOf<{ channelId: string }>(
    reader,
    `select distinct l.channel_id as "channelId" from placements l join pieces p on p.id = l.piece_id
     where l.client_id = $1 and l.on_day = $2 and l.channel_id = any($3) and not l.cancelled and not p.shelved`,
    [clientId, on, row.channelIds],
  );
  const there = new Set(taken.map(({ channelId }) => channelId));
  const channelIds = row.channelIds.filter((id) => !there.has(id) && !told.has(`${id} ${on}`));
  if (channelIds.length === 0) return { ...line, outcome: 'taken' };
  return { ...line, channelIds, outcome: 'copied' };
}

async function copyLine(app: App, viewer: Viewer, clientId: string, row: StandingRow, to: string): Promise<CopiedLineShape> {
  const copied: Result<CopiedLineShape, { code: string }> = await app.write<CopiedLineShape, { code: string }>(async (tx, now) => {
    // two who copy at once do not fill a day twice
    await rowsOf(tx, 'select 1 from clients where id = $1 for no key update', [clientId]);
    const line = await lineOf(tx, clientId, row, to, now, new Set());
    if (line.outcome !== 'copied' || line.on === null) return ok(line);
    const routeId = await routeOf(tx, row.formatId);
    if (routeId === undefined) return ok({ ...line, outcome: 'no_route' as const });
    const piece = await putPiece(
      tx,
      viewer,
      clientId,
      {
        routeId,
        channelIds: line.channelIds,
        wishOn: line.on,
        isPencilled: true,
        ...(row.pillarId === null ? {} : { pillarId: row.pillarId }),
        purpose: row.purpose,
      },
      now,
      { at: row.at },
    );
    return piece.ok ? ok({ ...line, pieceId: piece.value }) : piece;
  });
  if (copied.ok) return copied.value;
  const { formatId: _formatId, on: fromOn, ...rest } = row;
  return { ...rest, to, fromOn, on: inMonth(row.on, to), outcome: 'failed', pieceId: null };
}

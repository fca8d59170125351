import type { CalendarEntryShape, CalendarShape, MarkerShape, PlacementShape } from '@zesting/contract';
import type { App } from '../../../platform/app.js';
import { publicHolidays } from '../../../platform/time/holidays.js';

const ENTRY = `l.id, l.piece_id as "pieceId", l.client_id as "clientId", l.channel_id as "channelId", h.name as "channelName", l.on_day as on, l.at_time as at,
  l.zone, l.state, l.out_address as "outAddress", l.version, p.title as "pieceTitle", p.number as "pieceNumber", p.stage, l.publish_at as "publishAt"`;
const FROM = 'from placements l join channels h on h.id = l.channel_id join pieces p on p.id = l.piece_id';
const TRAY = 200;

/** Placements from `from` to `to` (both included, each in its client's zone), the tray of undated ones, and markers. */
export async function calendarOf(app: App, clientIds: readonly string[], from: string, to: string): Promise<CalendarShape> {
  const entries = await app.read<CalendarEntryShape>(
    `select ${ENTRY} ${FROM} where l.client_id = any($1) and l.on_day between $2 and $3 and not l.cancelled and not p.shelved
     order by l.on_day, l.publish_at, p.number`,
    [clientIds, from, to],
  );
  const tray = await app.read<CalendarEntryShape>(
    `select ${ENTRY} ${FROM} where l.client_id = any($1) and l.on_day is null and not l.cancelled and not p.shelved and p.list is not null
     order by (p.stage in ('approved', 'scheduled')) desc, p.aim_on nulls last, p.number, h.position limit ${TRAY}`,
    [clientIds],
  );
  return { entries, tray, markers: await markersOf(app, clientIds, from, to) };
}

async function markersOf(app: App, clientIds: readonly string[], from: string, to: string): Promise<MarkerShape[]> {
  const clients = await app.read<{ id: string; region: string }>('select id, region from clients where id = any($1)', [clientIds]);
  const closures = await app.read<{ client_id: string; on: string; name: string }>(
    `select k.client_id, d::date as on, k.name from client_closures k,
       generate_series(greatest(k.start_on, $2::date), least(k.end_on, $3::date), interval '1 day') d where k.client_id = any($1) and k.end_on >= $2 and k.start_on <= $3`,
    [clientIds, from, to],
  );
  const holidays = clients.flatMap((client) =>
    publicHolidays(client.region, Number(from.slice(0, 4)), Number(to.slice(0, 4)))
      .filter((holiday) => holiday.on >= from && holiday.on <= to)
      .map<MarkerShape>((holiday) => ({ on: holiday.on, name: holiday.name, kind: 'holiday', clientId: client.id })),
  );
  return [...holidays, ...closures.map<MarkerShape>((row) => ({ on: row.on, name: row.name, kind: 'closure', clientId: row.client_id }))];
}

/** One placement as the contract shows it. */
export async function placementShape(app: App, placementId: string): Promise<PlacementShape> {
  const [row] = await app.read<CalendarEntryShape>(`select ${ENTRY} ${FROM} where l.id = $1`, [placementId]);
  if (!row) throw new Error('the placement went away');
  const { pieceTitle: _title, pieceNumber: _number, stage: _stage, publishAt: _at, ...placement } = row;
  return placement;
}

import type { StationsShape } from '@zesting/contract';
import type { App } from '../../../platform/app.js';

interface Row {
  station: keyof StationsShape;
  count: number;
  oldest_days: number | null;
}

/** Days that a thing may wait at a station before the line under its name is full. */
const LIMIT_DAYS: Record<keyof StationsShape, number> = { requests: 2, production: 21, signOff: 5, calendar: 7 };

/** How many things wait at each station in the viewer's reach, and how old the oldest is. */
export async function stationsOf(app: App, clientIds: readonly string[]): Promise<StationsShape> {
  const rows = await app.read<Row>(
    `select 'requests' as station, count(*) as count, floor(extract(epoch from $2::timestamptz - min(received_at)) / 86400)::int as oldest_days
       from requests where client_id = any($1) and state = 'new'
     union all select 'production', count(*), floor(extract(epoch from $2::timestamptz - min(created_at)) / 86400)::int
       from pieces where client_id = any($1) and stage in ('planned', 'in_production', 'in_review') and list is not null
     union all select 'signOff', count(*), floor(extract(epoch from $2::timestamptz - min(k.sent_at)) / 86400)::int
       from packets k join packet_items i on i.packet_id = k.id and i.outcome is null where k.client_id = any($1) and k.closed_at is null
     union all select 'calendar', count(*), floor(extract(epoch from $2::timestamptz - min(l.created_at)) / 86400)::int
       from pieces p join placements l on l.piece_id = p.id and l.state = 'undated'
       where p.client_id = any($1) and p.list is not null and p.stage in ('approved', 'scheduled')`,
    [clientIds, app.clock.now()],
  );
  const shape = (station: keyof StationsShape) => {
    const row = rows.find((other) => other.station === station);
    return { count: row?.count ?? 0, oldestDays: row?.oldest_days ?? null, limitDays: LIMIT_DAYS[station] };
  };
  return { requests: shape('requests'), production: shape('production'), signOff: shape('signOff'), calendar: shape('calendar') };
}

import { addDays, dayIn, getDay, leadStanding, prepareOn, type Day, type RouteStep } from '@zesting/core';
import type { PreparedMarkerShape, RunUpShape } from '@zesting/contract';
import type { App } from '../../../platform/app.js';
import { earliestByPath } from '../../planning/index.js';

interface Row extends Omit<RunUpShape, 'on' | 'standing' | 'pieceOn'> {
  readonly clientId: string;
  readonly zone: string;
  readonly startOn: Day;
  readonly steps: RouteStep[];
  readonly pieceOn: string | null;
}

/** The pieces that go before and after a marker, in the order of their days, and how each stands. */
export async function runUpOf(app: App, markerId: string): Promise<RunUpShape[]> {
  const rows = await app.read<Row>(
    `select u.id, u.offset_days as "offsetDays", u.title, u.channel_id as "channelId", h.name as "channelName", u.route_id as "routeId", r.name as "routeName",
       r.steps, u.client_id as "clientId", c.zone, m.start_on as "startOn", u.piece_id as "pieceId", p.title as "pieceTitle", p.stage as "pieceStage",
       (select min(l.on_day) from placements l where l.piece_id = p.id and not l.cancelled) as "pieceOn"
     from run_ups u join markers m on m.id = u.marker_id join channels h on h.id = u.channel_id join routes r on r.id = u.route_id
       join clients c on c.id = u.client_id left join pieces p on p.id = u.piece_id
     where u.marker_id = $1 order by u.offset_days, u.created_at, u.id`,
    [markerId],
  );
  const [first] = rows;
  if (!first) return [];
  const earliest = await earliestByPath(
    app,
    first.clientId,
    rows.map(({ steps }) => steps),
  );
  const todayOn = dayIn(app.clock.now(), first.zone);
  return rows.map(({ clientId: _clientId, zone: _zone, startOn, steps: _steps, ...row }, index) => {
    const on = addDays(getDay(startOn), row.offsetDays);
    return { ...row, on, standing: leadStanding(on, 0, todayOn, earliest[index] ?? null) };
  });
}

/** So many are told. */
const TOLD = 20;

/**
 * The markers to come whose preparation begins in a period or has begun, the nearest first.
 * @param earliestOn the earliest day on which anything new can be out
 */
export async function preparing(app: App, clientId: string, todayOn: Day, to: Day, earliestOn: Day | null): Promise<PreparedMarkerShape[]> {
  const rows = await app.read<Omit<PreparedMarkerShape, 'prepareOn' | 'standing'> & { startOn: Day; leadDays: number }>(
    `select m.id, m.name, m.kind, m.kind_id as "kindId", (select k.name from marker_kinds k where k.id = m.kind_id) as "kindName", m.client_id as "clientId", m.start_on as "startOn", m.end_on as "endOn", m.lead_days as "leadDays", m.version, count(u.id)::int as "runUps", count(u.piece_id)::int as made
     from markers m left join run_ups u on u.marker_id = m.id
     where (m.client_id = $1 or m.client_id is null) and m.lead_days is not null and m.start_on >= $2 and m.start_on - m.lead_days <= $3
     group by m.id order by m.start_on, m.name limit ${TOLD}`,
    [clientId, todayOn, to],
  );
  return rows.map((row) => ({
    ...row,
    prepareOn: prepareOn(row.startOn, row.leadDays),
    standing: leadStanding(row.startOn, row.leadDays, todayOn, earliestOn),
  }));
}

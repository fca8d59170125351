import { compareInstants, dayAlong, getDay, getTimeOfDay, ok, toInstantAfterGap, type Result } from '@zesting/core';
import type { AlongShape, MoveAlongBody } from '@zesting/contract';
import type { Viewer } from '../../../platform/access/access.js';
import type { App } from '../../../platform/app.js';
import { rowsOf, type Reader } from '../../../platform/database/rows.js';
import { putPlacement, type MoveFailure } from '../../calendar/index.js';
import { clientKey, getDoer, loadCalendars } from '../../planning/index.js';
import type { SpinOff } from '../entities/spin-off.entity.js';

/** SQL: why a placement `l` stays where it is; null: it does not. */
const STAYS = "case when l.out_at is not null then 'out' when l.state in ('sending', 'unsure') then 'sending' end";

interface Row extends Pick<SpinOff, 'pieceId' | 'offset'> {
  readonly placementId: string;
  readonly clientId: string;
  readonly title: string;
  readonly channelName: string;
  readonly zone: string;
  readonly on: string;
  readonly at: string;
  readonly stays: 'out' | 'sending' | null;
}

/** Where the placements of a source's outputs would go if they moved along with it; what is out, on its way, or would lie in the past stays. */
export async function alongOf(app: App, reader: Reader, sourceId: string, { from, to }: MoveAlongBody): Promise<AlongShape[]> {
  const rows = await rowsOf<Row>(
    reader,
    `select l.id as "placementId", s.piece_id as "pieceId", s.client_id as "clientId", s."offset", p.title, h.name as "channelName", l.zone,
       l.on_day as "on", to_char(l.at_time, 'HH24:MI') as "at", ${STAYS} as stays
     from spin_offs s join pieces p on p.id = s.piece_id join placements l on l.piece_id = p.id join channels h on h.id = l.channel_id
     where s.source_id = $1 and not p.shelved and not l.cancelled and l.on_day is not null order by l.publish_at, l.id`,
    [sourceId],
  );
  const [first] = rows;
  if (!first) return [];
  const now = app.clock.now();
  const book = await loadCalendars(reader, now, new Set([first.clientId]));
  const { calendar } = getDoer(book, clientKey(first.clientId));
  return rows.map(({ placementId, pieceId, title, channelName, zone, on, at, offset, stays }) => {
    const known = { placementId, pieceId, title, channelName, from: on };
    if (stays) return { ...known, to: null, problem: stays };
    const day = dayAlong(calendar, offset, { from: getDay(from), to: getDay(to) }, getDay(on));
    if (!day.ok || compareInstants(toInstantAfterGap(day.value, getTimeOfDay(at), zone), now) <= 0)
      return { ...known, to: null, problem: 'past' as const };
    return { ...known, to: day.value, problem: null };
  });
}

/** Moves what was made from a source along with it: all that can, or nothing. The source stays where it was put. @returns what moved */
export function moveAlong(app: App, viewer: Viewer, sourceId: string, body: MoveAlongBody): Promise<Result<AlongShape[], MoveFailure>> {
  return app.write<AlongShape[], MoveFailure>(async (tx, now) => {
    await rowsOf(tx, 'select 1 from pieces where id in (select piece_id from spin_offs where source_id = $1) order by id for update', [
      sourceId,
    ]);
    const moves = (await alongOf(app, tx, sourceId, body)).filter(({ to, from }) => to !== null && to !== from);
    for (const { placementId, to: on } of moves) {
      const moved = await putPlacement(app, tx, viewer, placementId, { on, scope: 'this' }, null, now);
      if (!moved.ok) return moved;
    }
    return ok(moves);
  });
}

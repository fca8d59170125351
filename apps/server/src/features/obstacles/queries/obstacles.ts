import type { ObstacleRow, ObstacleRowsShape, ObstacleShape, ObstaclesShape } from '@zesting/contract';
import { dayIn, daysBetween } from '@zesting/core';
import type { Viewer } from '../../../platform/access/access.js';
import type { App } from '../../../platform/app.js';
import { teamOf } from '../../team-notes/index.js';

const COLUMNS = `o.id, o.piece_id as "pieceId", o.step_id as "stepId", s.title as "stepTitle", o.words, o.whose, o.person_id as "personId", w.name as "personName",
  o.until_on as "untilOn", r.name as "raisedBy", o.raised_at as "raisedAt", o.settled_at as "settledAt", e.name as "settledBy",
  o.settled_words as "settledWords", o.version`;
const FROM = `from obstacles o join people r on r.id = o.raised_by left join people w on w.id = o.person_id left join people e on e.id = o.settled_by
  left join steps s on s.id = o.step_id`;

type Columns = Omit<ObstacleShape, 'sinceOn' | 'days'>;

/** How old an obstacle is, in days where the viewer is. */
function aged<T extends Columns>(row: T, app: App, viewer: Viewer): T & Pick<ObstacleShape, 'sinceOn' | 'days'> {
  const sinceOn = dayIn(row.raisedAt, viewer.zone);
  return { ...row, sinceOn, days: daysBetween(sinceOn, dayIn(app.clock.now(), viewer.zone)) };
}

/** So many of what is settled are shown. */
const MOST_SETTLED = 20;

/** What stands in the way of a piece, what did, and whose one can be. */
export async function obstaclesOf(app: App, viewer: Viewer, pieceId: string): Promise<ObstaclesShape> {
  const open = await app.read<Columns>(
    `select ${COLUMNS} ${FROM} where o.piece_id = $1 and o.settled_at is null order by o.raised_at, o.id`,
    [pieceId],
  );
  const settled = await app.read<Columns>(
    `select ${COLUMNS} ${FROM} where o.piece_id = $1 and o.settled_at is not null order by o.settled_at desc, o.id limit ${MOST_SETTLED}`,
    [pieceId],
  );
  return {
    open: open.map((row) => aged(row, app, viewer)),
    settled: settled.map((row) => aged(row, app, viewer)),
    team: await teamOf(app.manager, { pieceId }),
  };
}

const MOST_ROWS = 100;

/** What stands in the way anywhere: of those who manage, of all their clients' open pieces; of others, what they must see to themselves. */
export async function openObstacles(app: App, viewer: Viewer, clientId: string | undefined): Promise<ObstacleRowsShape> {
  const clientIds = clientId === undefined ? viewer.clientIds : viewer.clientIds.filter((id) => id === clientId);
  const manages = viewer.role === 'lead' || viewer.role === 'manager';
  const where = `where o.settled_at is null and p.list is not null and ((o.client_id = any($1) and $3) or (o.person_id = $2 and ($4::uuid is null or o.client_id = $4)
    and (o.client_id = any($1) or exists (select 1 from steps x where x.piece_id = o.piece_id and (x.doer_id = $2 or x.with_id = $2)))))`;
  const values = [clientIds, viewer.personId, manages, clientId ?? null];
  const rows = await app.read<Columns & Pick<ObstacleRow, 'clientId' | 'pieceTitle' | 'isMine'>>(
    `select ${COLUMNS}, o.client_id as "clientId", p.title as "pieceTitle", o.person_id is not distinct from $2 as "isMine"
     ${FROM} join pieces p on p.id = o.piece_id ${where} order by o.person_id is distinct from $2, o.raised_at, o.id limit ${MOST_ROWS}`,
    values,
  );
  const [counted] = await app.read<{ total: number }>(
    `select count(*) as total from obstacles o join pieces p on p.id = o.piece_id ${where}`,
    values,
  );
  return { rows: rows.map((row) => aged(row, app, viewer)), total: counted?.total ?? 0 };
}

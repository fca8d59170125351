import { compareDesk, dayIn, RECKONING_LISTS, type ReckoningList } from '@zesting/core';
import type { DeskRow, DeskShape, PiecePage, PieceRow } from '@zesting/contract';
import type { Viewer } from '../../../platform/access/access.js';
import type { App } from '../../../platform/app.js';

/** The columns of a piece row; joins are the same for every list of pieces. */
const ROW = `p.id, p.number, p.client_id as "clientId", p.title, f.name as "formatName", l.name as "pillarName", p.stage, p.list, p.aim_on as "aimOn",
  p.danger, p.slack_days as "slackDays", p.late_from_on as "lateFromOn", p.round, p.progress as wheel, s.title as "currentStep",
  case when s.kind = 'sign_off' then 'the client' else d.name end as "currentDoer"`;
const FROM = `from pieces p join formats f on f.id = p.format_id left join pillars l on l.id = p.pillar_id
  left join lateral (select * from steps s where s.piece_id = p.id and s.finished_on is null order by s.position limit 1) s on true
  left join people d on d.id = s.doer_id`;

const PAGE = 100;

/** Pieces in the viewer's reach, newest first. `cursor` is the last id of the page before. */
export async function listPieces(app: App, viewer: Viewer, clientId: string | undefined, cursor: string | undefined): Promise<PiecePage> {
  const clientIds = clientId === undefined ? viewer.clientIds : viewer.clientIds.filter((id) => id === clientId);
  const items = await app.read<PieceRow>(
    `select ${ROW} ${FROM} where p.client_id = any($1)
       and ($2::uuid is null or (p.created_at, p.id) < (select created_at, id from pieces where id = $2))
     order by p.created_at desc, p.id desc limit ${PAGE + 1}`,
    [clientIds, cursor ?? null],
  );
  const more = items.length > PAGE;
  return { items: items.slice(0, PAGE), nextCursor: more ? (items[PAGE - 1]?.id ?? null) : null };
}

/** So many of each list are on the desk at first, and so many of one list that is asked for by itself. */
const FIRST_OF_LIST = 20;
const MOST_OF_LIST = 500;

/**
 * The reckoning: every open piece in the viewer's reach counts on exactly one list, most dangerous first; the first of each are shown.
 * @param list asks for more of that one alone
 */
export async function deskOf(app: App, viewer: Viewer, clientId: string | undefined, list?: ReckoningList): Promise<DeskShape> {
  const clientIds = clientId === undefined ? viewer.clientIds : viewer.clientIds.filter((id) => id === clientId);
  const counted = await app.read<{ list: ReckoningList; total: number; ids: string[] }>(
    `select x.list, x.total, array(
       select id from pieces where list = x.list and client_id = any($1)
       order by late_from_on nulls last, slack_days nulls last, created_at, id limit $3) as ids
     from (select list, count(*) as total from pieces where client_id = any($1) and list is not null and ($2::text is null or list = $2) group by list) x`,
    [clientIds, list ?? null, list === undefined ? FIRST_OF_LIST : MOST_OF_LIST],
  );
  const rows = await app.read<DeskRow & { createdAt: string; list: ReckoningList }>(
    `select ${ROW}, p.earliest_publish_on as "earliestPublishOn", p.packet_due_on as "packetDueOn", p.created_at as "createdAt",
       case when p.list = 'will_be_late' then (select jsonb_build_object('step', w.title, 'doer', case when w.kind = 'sign_off' then 'the client' else h.name end,
           'latestFinishOn', w.latest_finish_on, 'predictedFinishOn', w.predicted_finish_on, 'behindSteps', w.behind_steps)
         from steps w left join people h on h.id = w.doer_id where w.piece_id = p.id and w.danger = 'will_be_late' order by w.position limit 1) end as late,
       (select x.id from placements x where x.piece_id = p.id and x.state in ('missed', 'pencilled', 'undated')
        order by array_position(array['missed', 'pencilled', 'undated'], x.state), x.publish_at limit 1) as "placementId"
     ${FROM} where p.id = any($1)`,
    [counted.flatMap((row) => row.ids)],
  );
  const [requests] = await app.read<{ count: number }>(
    "select count(*) as count from requests where client_id = any($1) and state = 'new'",
    [clientIds],
  );
  const counts = new Map(counted.map((row) => [row.list, row.total]));
  return {
    todayOn: dayIn(app.clock.now(), viewer.zone),
    rows: [...rows].sort(compareDeskRows).map(({ createdAt: _, ...row }) => row),
    lists: RECKONING_LISTS.flatMap((name) => (counts.has(name) ? [{ list: name, count: counts.get(name) ?? 0 }] : [])),
    newRequests: requests?.count ?? 0,
    openPieces: [...counts.values()].reduce((sum, count) => sum + count, 0),
  };
}

const compareDeskRows = (
  a: DeskRow & { createdAt: string; list: ReckoningList },
  b: DeskRow & { createdAt: string; list: ReckoningList },
): number => compareDesk(a as Parameters<typeof compareDesk>[0], b as Parameters<typeof compareDesk>[1]); // days come as text from the database

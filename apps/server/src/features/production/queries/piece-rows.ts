import { compareDesk, dayIn, RECKONING_LISTS, type PieceOrder, type PieceStage, type PiecesShown, type ReckoningList } from '@zesting/core';
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

/** What is asked of the list of pieces. */
export interface PiecesAsked {
  readonly clientId?: string | undefined;
  /** the last id of the page before */
  readonly cursor?: string | undefined;
  readonly shown?: PiecesShown;
  readonly stage?: PieceStage | undefined;
  /** whose step is at hand: a person's id, or `nobody` */
  readonly doer?: string | undefined;
  readonly order?: PieceOrder;
}

/** What a piece stands by in each order; the id tells apart what stands equal. */
const ORDERS: Record<PieceOrder, { readonly by: string; readonly way: 'asc' | 'desc' }> = {
  newest: { by: 'p.created_at', way: 'desc' },
  aim: { by: "coalesce(p.aim_on, 'infinity'::date)", way: 'asc' },
  slack: { by: 'coalesce(p.slack_days, 1000000)', way: 'asc' },
};
const SHOWN: Record<PiecesShown, string> = { open: 'p.list is not null', done: 'p.list is null', all: 'true' };

/** A page of the pieces in the viewer's reach. */
export async function listPieces(app: App, viewer: Viewer, asked: PiecesAsked): Promise<PiecePage> {
  const { clientId, cursor, shown = 'all', stage, doer, order = 'newest' } = asked;
  const clientIds = clientId === undefined ? viewer.clientIds : viewer.clientIds.filter((id) => id === clientId);
  const { by, way } = ORDERS[order];
  // who has a step at hand has it on what is open; slack is reckoned for that alone
  const isOpen = shown === 'open' || doer !== undefined || order === 'slack';
  const where = `p.client_id = any($1) and ${isOpen ? SHOWN.open : SHOWN[shown]} and ($2::text is null or p.stage = $2)
    and ($3::text is null or case when $3 = 'nobody' then s.id is not null and s.doer_id is null and s.kind <> 'sign_off' else s.doer_id::text = $3 end)`;
  const values = [clientIds, stage ?? null, doer ?? null];
  const after = by.replaceAll('p.', 'c.');
  const items = await app.read<PieceRow>(
    `select ${ROW} ${FROM} where ${where}
       and ($4::uuid is null or (${by}, p.id) ${way === 'asc' ? '>' : '<'} (select ${after}, c.id from pieces c where c.id = $4))
     order by ${by} ${way}, p.id ${way} limit ${PAGE + 1}`,
    [...values, cursor ?? null],
  );
  const more = items.length > PAGE;
  const [count] =
    isOpen && cursor === undefined ? await app.read<{ total: number }>(`select count(*) as total ${FROM} where ${where}`, values) : [];
  return { items: items.slice(0, PAGE), total: count?.total ?? null, nextCursor: more ? (items[PAGE - 1]?.id ?? null) : null };
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

import {
  compareDesk,
  dayIn,
  RECKONING_LISTS,
  type PieceOrder,
  type PieceStage,
  type PiecesShown,
  type ReckoningList,
  type Danger,
} from '@zesting/core';
import type { DeskRow, DeskShape, PiecePage, PieceRow } from '@zesting/contract';
import type { Viewer } from '../../../platform/access/access.js';
import type { App } from '../../../platform/app.js';
import { leadOf } from '../../notices/index.js';
import { isFreeStep, isClientsStep } from '../../planning/index.js';

/** The columns of a piece row; joins are the same for every list of pieces. What can be worked on side by side is named together. */
const COLUMNS = `p.id, p.number, p.client_id as "clientId", p.title, f.name as "formatName", l.name as "pillarName", p.stage, p.list, p.aim_on as "aimOn",
  p.danger, p.slack_days as "slackDays", p.late_from_on as "lateFromOn", p.round, p.progress as wheel`;
const ROW = `${COLUMNS}, s.titles as "currentStep", s.names as "currentDoer"`;
/** On the desk, a piece whose step nobody has is about that step alone. */
const DESK_ROW = `${COLUMNS}, case when p.list = 'no_doer' then coalesce(s.unheld, s.titles) else s.titles end as "currentStep",
  case when p.list = 'no_doer' and s.unheld is not null then null else s.names end as "currentDoer", coalesce(s.for_word, false) as "waitsForWord", s.material_due_on as "materialDueOn"`;
const AT_HAND = `left join lateral (select string_agg(s.title, ', ' order by s.position) as titles,
      case when bool_or(${isClientsStep('s')} or d.name is not null)
        then string_agg(distinct case when ${isClientsStep('s')} then 'the client' else coalesce(d.name || coalesce(' with ' || w.name, ''), 'nobody') end, ', ') end as names,
      string_agg(s.title, ', ' order by s.position) filter (where s.doer_id is null and not ${isClientsStep('s')}) as unheld, array_agg(s.doer_id) as doers,
      bool_or(s.kind = 'sign_off') as for_word, min(y.due_on) as material_due_on
    from steps s left join people d on d.id = s.doer_id left join people w on w.id = s.with_id and w.active left join deliveries y on y.step_id = s.id where s.piece_id = p.id and s.finished_on is null and ${isFreeStep('s')}) s on true`;
const FROM = `from pieces p join formats f on f.id = p.format_id left join pillars l on l.id = p.pillar_id ${AT_HAND}`;

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
  readonly formatId?: string | undefined;
  readonly channelId?: string | undefined;
  readonly pillarId?: string | undefined;
  readonly campaignId?: string | undefined;
  readonly danger?: Danger | undefined;
  /** who answers for it */
  readonly leadId?: string | undefined;
  /** days between which its aim lies */
  readonly from?: string | undefined;
  readonly to?: string | undefined;
}

/** What a piece stands by in each order; the id tells apart what stands equal. */
const ORDERS: Record<PieceOrder, { readonly by: string; readonly way: 'asc' | 'desc' }> = {
  newest: { by: 'p.created_at', way: 'desc' },
  aim: { by: "coalesce(p.aim_on, 'infinity'::date)", way: 'asc' },
  slack: { by: 'coalesce(p.slack_days, 1000000)', way: 'asc' },
};
const SHOWN: Record<PiecesShown, string> = { open: 'p.list is not null', done: 'p.list is null', all: 'true' };

/** Which pieces of the viewer's reach are asked for, as SQL over `p` and its steps at hand `s`, with its values `$1` to `$11`. */
export function asksFor(
  viewer: Viewer,
  asked: PiecesAsked,
): { readonly where: string; readonly values: readonly unknown[]; readonly isOpen: boolean } {
  const { clientId, shown = 'all', stage, doer, order, danger } = asked;
  const clientIds = clientId === undefined ? viewer.clientIds : viewer.clientIds.filter((id) => id === clientId);
  // who has a step at hand has it on what is open; slack and danger are reckoned for that alone
  const isOpen = shown === 'open' || doer !== undefined || danger !== undefined || order === 'slack';
  const where = `p.client_id = any($1) and ${isOpen ? SHOWN.open : SHOWN[shown]} and ($2::text is null or p.stage = $2)
    and ($3::text is null or case when $3 = 'nobody' then s.unheld is not null else $3 = any(s.doers::text[]) end)
    and ($4::uuid is null or p.format_id = $4) and ($5::uuid is null or p.pillar_id = $5) and ($6::text is null or p.danger = $6)
    and ($7::uuid is null or exists (select 1 from placements x where x.piece_id = p.id and x.channel_id = $7 and not x.cancelled))
    and ($8::uuid is null or exists (select 1 from campaign_pieces g where g.piece_id = p.id and g.campaign_id = $8))
    and ($9::date is null or p.aim_on >= $9) and ($10::date is null or p.aim_on <= $10)
    and ($11::uuid is null or $11 = ${leadOf('p')})`;
  const { formatId, pillarId, channelId, campaignId, from, to, leadId } = asked;
  const values = [clientIds, stage, doer, formatId, pillarId, danger, channelId, campaignId, from, to, leadId].map(
    (value) => value ?? null,
  );
  return { where, values, isOpen };
}

/** The rows of a page of what is asked for, in its order; one more than the page has where there are more. */
async function pageOf(app: App, asked: PiecesAsked, { where, values }: ReturnType<typeof asksFor>, columns: string): Promise<PieceRow[]> {
  const { cursor, order = 'newest' } = asked;
  const { by, way } = ORDERS[order];
  const after = by.replaceAll('p.', 'c.');
  return app.read<PieceRow>(
    `select ${columns} ${FROM} where ${where}
       and ($12::uuid is null or (${by}, p.id) ${way === 'asc' ? '>' : '<'} (select ${after}, c.id from pieces c where c.id = $12))
     order by ${by} ${way}, p.id ${way} limit ${PAGE + 1}`,
    [...values, cursor ?? null],
  );
}

/** Stands for the steps at hand where nobody asks who has them. */
export const NOBODY_AT_HAND = '(select null::text as unheld, null::uuid[] as doers) s';

/** Steps at hand are looked at only where who has them is asked. */
const fromOf = (values: readonly unknown[]): string => (values[2] === null ? `from pieces p cross join ${NOBODY_AT_HAND}` : FROM);

const countOf = async (app: App, { where, values }: ReturnType<typeof asksFor>): Promise<number> => {
  const [count] = await app.read<{ total: number }>(`select count(*) as total ${fromOf(values)} where ${where}`, values);
  return count?.total ?? 0;
};

/** The ids of what is asked for, and no more than so many: what is open by its aim, the soonest first; then what is done, the latest first. */
export async function askedIds(app: App, asks: ReturnType<typeof asksFor>, most: number): Promise<string[]> {
  const rows = await app.read<{ id: string }>(
    `select p.id ${fromOf(asks.values)} where ${asks.where} order by p.list is null, case when p.list is not null then ${ORDERS.aim.by} end, p.aim_on desc nulls last, p.id limit ${most}`,
    asks.values,
  );
  return rows.map(({ id }) => id);
}

/** How many pieces there are of what is asked for, and how many open ones the filter leaves out. */
export async function countsOf(
  app: App,
  viewer: Viewer,
  asked: PiecesAsked,
  asks: ReturnType<typeof asksFor>,
): Promise<{ total: number; leftOut: number }> {
  const total = await countOf(app, asks);
  // what is done is left out of nothing
  const isNarrowed = asks.isOpen && asks.values.slice(1).some((value) => value !== null);
  if (!isNarrowed) return { total, leftOut: 0 };
  const whole = await countOf(app, asksFor(viewer, { clientId: asked.clientId, shown: 'open' }));
  return { total, leftOut: whole - total };
}

/** A page of the pieces in the viewer's reach. */
export async function listPieces(app: App, viewer: Viewer, asked: PiecesAsked): Promise<PiecePage> {
  const asks = asksFor(viewer, asked);
  const items = await pageOf(app, asked, asks, ROW);
  const more = items.length > PAGE;
  const counted = asks.isOpen && asked.cursor === undefined ? await countsOf(app, viewer, asked, asks) : { total: null, leftOut: null };
  return { items: items.slice(0, PAGE), ...counted, nextCursor: more ? (items[PAGE - 1]?.id ?? null) : null };
}

/** The ids of a page of open pieces, as `listPieces` has them. */
export async function openPieceIds(
  app: App,
  viewer: Viewer,
  asked: PiecesAsked,
): Promise<{ ids: string[]; total: number | null; leftOut: number | null; nextCursor: string | null }> {
  const open = { ...asked, shown: 'open' as const };
  const asks = asksFor(viewer, open);
  const ids = (await pageOf(app, open, asks, 'p.id')).map(({ id }) => id);
  const counted = asked.cursor === undefined ? await countsOf(app, viewer, open, asks) : { total: null, leftOut: null };
  return { ids: ids.slice(0, PAGE), ...counted, nextCursor: ids.length > PAGE ? (ids[PAGE - 1] ?? null) : null };
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
    `select ${DESK_ROW}, p.earliest_publish_on as "earliestPublishOn", p.packet_due_on as "packetDueOn", p.created_at as "createdAt",
       case when p.list = 'will_be_late' then (select jsonb_build_object('step', w.title, 'doer', case when ${isClientsStep('w')} then 'the client' else h.name end,
           'latestFinishOn', w.latest_finish_on, 'predictedFinishOn', w.predicted_finish_on, 'behindSteps', w.behind_steps)
         from steps w left join people h on h.id = w.doer_id where w.piece_id = p.id and w.danger = 'will_be_late' order by w.position limit 1) end as late,
       (select x.id from placements x where x.piece_id = p.id and x.state in ('missed', 'pencilled', 'undated')
        order by array_position(array['missed', 'pencilled', 'undated'], x.state), x.publish_at limit 1) as "placementId",
       case when p.list = 'trouble' then (select x.state from placements x where x.piece_id = p.id and x.state in ('unsure', 'failed', 'missed')
         order by array_position(array['unsure', 'failed', 'missed'], x.state) limit 1) end as trouble
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

import type { RequestPage, RequestRow } from '@zesting/contract';
import { daysBetween, getDay, isOpenRequest, type Day, type Sorted } from '@zesting/core';
import type { Viewer } from '../../../platform/access/access.js';
import type { App } from '../../../platform/app.js';
import { earliestOfRoute, findRoute, loadCalendars, type CalendarBook } from '../../planning/index.js';

/** The columns of a row of requests, of `requests r`. */
export const REQUEST_ROW = `r.id, r.number, r.client_id as "clientId", r.title, r.requester_name as "requesterName", r.received_at as "receivedAt", r.wish_on as "wishOn",
  r.state, r.way, r.owner_id as "ownerId", r.read_at is not null as "isRead"`;
const PAGE = 50;
const OPEN = "r.state in ('new', 'asked_back')";

interface Asked {
  readonly clientId: string | undefined;
  readonly cursor: string | undefined;
  readonly formId: string | undefined;
  readonly ownerId: string | undefined;
  readonly isOpen: boolean;
  /** those that can wait least first; only those to decide */
  readonly byDanger: boolean;
}

/** Where a request stands in the list: unread, to be decided, waiting for its requester, decided. */
const rankOf = (row: string): string =>
  `case when ${row}.state = 'new' and ${row}.read_at is null then 3 when ${row}.state = 'new' then 2 when ${row}.state = 'asked_back' then 1 else 0 end`;

/** Requests, those not decided first and unread first among them, newest first. */
export async function requestPage(app: App, viewer: Viewer, asked: Asked): Promise<RequestPage> {
  const { clientId, cursor, formId, ownerId, isOpen, byDanger } = asked;
  if (byDanger) return openByDanger(app, viewer, asked);
  const clientIds = clientId === undefined ? viewer.clientIds : viewer.clientIds.filter((id) => id === clientId);
  const rank = rankOf('r');
  const after = `($2::uuid is null or (${rank}, r.received_at, r.id) < (select ${rankOf('o')}, o.received_at, o.id from requests o where o.id = $2))`;
  const narrowed = '($3::uuid is null or r.form_id = $3) and ($4::uuid is null or r.owner_id = $4)';
  // those not decided are few; of the others a page is read off an index, however many there are
  const part = (where: string, order: string) =>
    `(select ${REQUEST_ROW}, r.takes, ${rank} as rank, r.received_at as at from requests r
      where r.client_id = any($1) and ${where} and ${narrowed} and ${after} order by ${order} limit ${PAGE + 1})`;
  const decided = isOpen ? '' : `union all ${part(`not (${OPEN})`, 'r.received_at desc, r.id desc')}`;
  const rows = await app.read<Found & { rank: number; at: string }>(
    `select * from (${part(OPEN, `${rank} desc, r.received_at desc, r.id desc`)} ${decided}) both_parts
     order by rank desc, at desc, id desc limit ${PAGE + 1}`,
    [clientIds, cursor ?? null, formId ?? null, ownerId ?? null],
  );
  const found = rows.map(({ rank: _, at: __, ...item }) => item);
  return {
    items: await withSlack(app, found.slice(0, PAGE)),
    nextCursor: found.length > PAGE ? (found[PAGE - 1]?.id ?? null) : null,
  };
}

type Found = Omit<RequestRow, 'slackDays'> & { readonly takes: Sorted };

/** So many requests wait for a decision at most before the rest is left to the other order. */
const OPEN_LIMIT = 300;

/** Those to decide: what can wait least first (the least slack), then what waits longest. Those without a wished day come last. */
async function openByDanger(app: App, viewer: Viewer, { clientId, formId, ownerId }: Asked): Promise<RequestPage> {
  const rows = await app.read<Found>(
    `select ${REQUEST_ROW}, r.takes from requests r where r.client_id = any($1) and ${OPEN}
       and ($2::uuid is null or r.form_id = $2) and ($3::uuid is null or r.owner_id = $3)
     order by r.received_at, r.id limit ${OPEN_LIMIT}`,
    [clientId === undefined ? viewer.clientIds : viewer.clientIds.filter((id) => id === clientId), formId ?? null, ownerId ?? null],
  );
  const items = await withSlack(app, rows);
  const first = (row: RequestRow): number => row.slackDays ?? Infinity;
  return { items: items.sort((a, b) => (first(a) === first(b) ? 0 : first(a) - first(b))), nextCursor: null };
}

/** How many days each request that is to be decided has to spare, by the route that its rules say. */
async function withSlack(app: App, rows: readonly Found[]): Promise<RequestRow[]> {
  const reckoned = new Set(rows.filter((row) => isOpenRequest(row.state) && row.wishOn !== null && row.takes.routeId !== undefined));
  const clientIds = new Set([...reckoned].map(({ clientId }) => clientId));
  const book = reckoned.size > 0 ? await loadCalendars(app.manager, app.clock.now(), clientIds) : null;
  const earliest = new Map<string, Day | null>();
  /** Reckoned once per client and route. */
  const earliestOn = async (clientId: string, routeId: string, calendars: CalendarBook): Promise<Day | null> => {
    const key = `${clientId} ${routeId}`;
    const known = earliest.get(key);
    if (known !== undefined) return known;
    const route = await findRoute(app.manager, routeId);
    const reckonedOn = route.ok ? earliestOfRoute(route.value, clientId, calendars) : null;
    const on = reckonedOn?.ok ? reckonedOn.value : null;
    earliest.set(key, on);
    return on;
  };
  const items: RequestRow[] = [];
  for (const found of rows) {
    const { takes, ...row } = found;
    const on = book && takes.routeId && reckoned.has(found) ? await earliestOn(row.clientId, takes.routeId, book) : null;
    items.push({ ...row, slackDays: on && row.wishOn ? daysBetween(on, getDay(row.wishOn)) : null });
  }
  return items;
}

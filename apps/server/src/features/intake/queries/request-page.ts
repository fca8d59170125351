import type { RequestPage, RequestRow } from '@zesting/contract';
import type { Viewer } from '../../../platform/access/access.js';
import type { App } from '../../../platform/app.js';

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
}

/** Where a request stands in the list: unread, to be decided, waiting for its requester, decided. */
const rankOf = (row: string): string =>
  `case when ${row}.state = 'new' and ${row}.read_at is null then 3 when ${row}.state = 'new' then 2 when ${row}.state = 'asked_back' then 1 else 0 end`;

/** Requests, those not decided first and unread first among them, newest first. */
export async function requestPage(app: App, viewer: Viewer, { clientId, cursor, formId, ownerId, isOpen }: Asked): Promise<RequestPage> {
  const clientIds = clientId === undefined ? viewer.clientIds : viewer.clientIds.filter((id) => id === clientId);
  const rank = rankOf('r');
  const after = `($2::uuid is null or (${rank}, r.received_at, r.id) < (select ${rankOf('o')}, o.received_at, o.id from requests o where o.id = $2))`;
  const narrowed = '($3::uuid is null or r.form_id = $3) and ($4::uuid is null or r.owner_id = $4)';
  // those not decided are few; of the others a page is read off an index, however many there are
  const part = (where: string, order: string) =>
    `(select ${REQUEST_ROW}, ${rank} as rank, r.received_at as at from requests r
      where r.client_id = any($1) and ${where} and ${narrowed} and ${after} order by ${order} limit ${PAGE + 1})`;
  const decided = isOpen ? '' : `union all ${part(`not (${OPEN})`, 'r.received_at desc, r.id desc')}`;
  const rows = await app.read<RequestRow & { rank: number; at: string }>(
    `select * from (${part(OPEN, `${rank} desc, r.received_at desc, r.id desc`)} ${decided}) both_parts
     order by rank desc, at desc, id desc limit ${PAGE + 1}`,
    [clientIds, cursor ?? null, formId ?? null, ownerId ?? null],
  );
  const items = rows.map(({ rank: _, at: __, ...item }) => item);
  return { items: items.slice(0, PAGE), nextCursor: items.length > PAGE ? (items[PAGE - 1]?.id ?? null) : null };
}

import type { RequestCountShape, RequestHeadShape, RequestPage, RequestRow } from '@zesting/contract';
import {
  answerClock,
  dayIn,
  factsMissing,
  getDay,
  isOpenRequest,
  judge,
  pausesOf,
  type Answers,
  type BriefFact,
  type Day,
  type FormItem,
  type InstantText,
  type Stands,
} from '@zesting/core';
import type { Viewer } from '../../../platform/access/access.js';
import type { App } from '../../../platform/app.js';
import { AGENCY_KEY, findRoutes, getDoer, getPlanClient, Outlooks, type Outlook, type Route } from '../../planning/index.js';

/** The columns of a row of requests, of `requests r`. */
export const REQUEST_ROW = `r.id, r.number, r.client_id as "clientId", r.title, r.requester_name as "requesterName", r.received_at as "receivedAt", r.wish_on as "wishOn",
  r.state, r.way, r.owner_id as "ownerId", r.read_at is not null as "isRead", r.takes`;
/** What of a row is reckoned, where it is decided. */
const UNRECKONED = { slackDays: null, beginBy: null, stands: null, age: null, weight: 1 } as const;
const PAGE = 50;
const OPEN = "r.state in ('new', 'asked_back')";

export interface RequestsAsked {
  readonly clientId: string | undefined;
  readonly cursor: string | undefined;
  readonly formId: string | undefined;
  readonly ownerId: string | undefined;
  /** those to decide, ideas kept for later, or all */
  readonly shown: 'open' | 'ideas' | 'all';
  /** those that can wait least first; only those to decide */
  readonly byDanger: boolean;
  /** only those to decide of which this stands in the way */
  readonly stands: Stands | undefined;
}

/** Where a request stands in the list: unread, to be decided, waiting for its requester, decided. */
const rankOf = (row: string): string =>
  `case when ${row}.state = 'new' and ${row}.read_at is null then 3 when ${row}.state = 'new' then 2 when ${row}.state = 'asked_back' then 1 else 0 end`;

/** Requests, those not decided first and unread first among them, newest first; and how many are to be decided by client. */
export async function requestPage(app: App, viewer: Viewer, asked: RequestsAsked): Promise<RequestPage> {
  const clientIds = asked.clientId === undefined ? viewer.clientIds : viewer.clientIds.filter((id) => id === asked.clientId);
  const page = await (asked.byDanger || asked.stands ? openByDanger(app, clientIds, asked) : newestFirst(app, clientIds, asked));
  return { ...page, counts: await openCounts(app, viewer) };
}

type Page = Omit<RequestPage, 'counts'>;

async function newestFirst(app: App, clientIds: readonly string[], { cursor, formId, ownerId, shown }: RequestsAsked): Promise<Page> {
  const rank = rankOf('r');
  const after = `($2::uuid is null or (${rank}, r.received_at, r.id) < (select ${rankOf('o')}, o.received_at, o.id from requests o where o.id = $2))`;
  const narrowed = '($3::uuid is null or r.form_id = $3) and ($4::uuid is null or r.owner_id = $4)';
  // those not decided are few; of the others a page is read off an index, however many there are
  const part = (where: string, order: string) =>
    `(select ${REQUEST_ROW}, ${rank} as rank, r.received_at as at from requests r
      where r.client_id = any($1) and ${where} and ${narrowed} and ${after} order by ${order} limit ${PAGE + 1})`;
  const open = part(OPEN, `${rank} desc, r.received_at desc, r.id desc`);
  const decided = part(`not (${OPEN})${shown === 'ideas' ? " and r.state = 'idea'" : ''}`, 'r.received_at desc, r.id desc');
  const parts = shown === 'open' ? open : shown === 'ideas' ? decided : `${open} union all ${decided}`;
  const rows = await app.read<Found & { rank: number; at: string }>(
    `select * from (${parts}) parts order by rank desc, at desc, id desc limit ${PAGE + 1}`,
    [clientIds, cursor ?? null, formId ?? null, ownerId ?? null],
  );
  const found = rows.map(({ rank: _, at: __, ...item }) => item);
  return {
    items: await withFigures(app, found.slice(0, PAGE)),
    nextCursor: found.length > PAGE ? (found[PAGE - 1]?.id ?? null) : null,
  };
}

/** How many requests wait, by client. */
const openCounts = (app: App, viewer: Viewer): Promise<RequestCountShape[]> =>
  app.read<RequestCountShape>(
    `select r.client_id as "clientId", count(*)::int as open, (count(*) filter (where r.state = 'asked_back'))::int as asked,
       (count(*) filter (where r.state = 'new' and r.read_at is null))::int as unread
     from requests r where r.client_id = any($1) and ${OPEN} group by r.client_id`,
    [viewer.clientIds],
  );

type Found = RequestHeadShape;

/** So many requests wait for a decision at most before the rest is left to the other order. */
const OPEN_LIMIT = 300;

/**
 * Those to decide: what must be begun first comes first, then the requester that counts most, then the one that waits longest against its promise.
 * Those without a wished day come last.
 */
async function openByDanger(app: App, clientIds: readonly string[], { formId, ownerId, stands }: RequestsAsked): Promise<Page> {
  const rows = await app.read<Found>(
    `select ${REQUEST_ROW} from requests r where r.client_id = any($1) and ${OPEN}
       and ($2::uuid is null or r.form_id = $2) and ($3::uuid is null or r.owner_id = $3)
     order by r.received_at, r.id limit ${OPEN_LIMIT}`,
    [clientIds, formId ?? null, ownerId ?? null],
  );
  const items = (await withFigures(app, rows)).filter((row) => stands === undefined || isSo(row, stands));
  return { items: items.sort(byDanger), nextCursor: null };
}

const isSo = (row: RequestRow, stands: Stands): boolean => (stands === 'answer_late' ? row.age?.isLate === true : row.stands === stands);

const NEVER = '9999-12-31';

function byDanger(a: RequestRow, b: RequestRow): number {
  const [one, other] = [a.beginBy ?? NEVER, b.beginBy ?? NEVER];
  if (one !== other) return one < other ? -1 : 1;
  const over = ({ age }: RequestRow) => (age ? age.days - age.promised : 0);
  return b.weight - a.weight || over(b) - over(a);
}

interface Facts {
  readonly id: string;
  readonly items: readonly FormItem[];
  readonly answers: Answers;
  readonly promised: number;
  readonly weight: number;
  readonly messages: readonly { readonly author: 'agency' | 'requester'; readonly at: InstantText }[];
}

/** What is reckoned of the requests that are to be decided, by the route that their rules say. */
async function withFigures(app: App, rows: readonly Found[]): Promise<RequestRow[]> {
  const open = rows.filter(({ state }) => isOpenRequest(state));
  if (open.length === 0) return rows.map((row) => ({ ...row, ...UNRECKONED }));
  const [outlooks, facts, needs, found] = await Promise.all([
    Outlooks.load(app),
    app.read<Facts>(
      `select r.id, r.items, r.answers, coalesce((v.content ->> 'answerDays')::int, 0) as promised, coalesce(x.weight, 1) as weight,
         coalesce((select jsonb_agg(jsonb_build_object('author', m.author, 'at', m.at) order by m.at, m.id) from request_messages m
           where m.request_id = r.id), '[]') as messages
       from requests r left join form_versions v on v.form_id = r.form_id and v.number = r.form_version left join contacts x on x.id = r.contact_id
       where r.id = any($1)`,
      [open.map(({ id }) => id)],
    ),
    app.read<{ id: string; needs: BriefFact[] }>('select id, needs from formats'),
    findRoutes(
      app.manager,
      open.flatMap(({ takes }) => takes.routeId ?? []),
    ),
  ]);
  const factsOf = new Map(facts.map((row) => [row.id, row]));
  const needsOf = new Map(needs.map((format) => [format.id, format.needs]));
  const routes = new RoutesKnown(found, outlooks);
  const agency = getDoer(outlooks.book, AGENCY_KEY);
  const items: RequestRow[] = [];
  for (const row of rows) {
    const known = factsOf.get(row.id);
    if (!known || !isOpenRequest(row.state)) {
      items.push({ ...row, ...UNRECKONED });
      continue;
    }
    const route = routes.of(row.takes.routeId, row.clientId);
    const wishOn = row.wishOn === null ? null : getDay(row.wishOn);
    const { word, slackDays } = judge({
      todayOn: getPlanClient(outlooks.book, row.clientId).todayOn,
      wishOn,
      earliestOn: route?.outlook?.earliestOn ?? null,
      predictedOn: route?.outlook?.predictedOn ?? null,
      missing: route ? factsMissing(needsOf.get(route.route.format_id) ?? [], known.items, known.answers) : [],
      isLaunch: false,
      noticeDays: 0,
      launchNoticeDays: 0,
      twins: 0,
      clashes: 0,
    });
    const on = (at: InstantText): Day => dayIn(at, agency.zone);
    const clock = answerClock(on(row.receivedAt as InstantText), agency.todayOn, {
      pauses: pausesOf(known.messages.map(({ author, at }) => ({ author, on: on(at) }))),
      calendar: agency.calendar,
      promisedDays: known.promised,
    });
    items.push({
      ...row,
      slackDays,
      beginBy: route && wishOn ? beginByOf(outlooks, route.route, row.clientId, wishOn) : null,
      stands: word === 'ready' || word === 'look' ? null : word,
      age: { days: clock.ageDays, promised: known.promised, dueOn: clock.dueOn, isLate: clock.isLate },
      weight: known.weight,
    });
  }
  return items;
}

const beginByOf = (outlooks: Outlooks, route: Route, clientId: string, wishOn: Day): Day | null => {
  const by = outlooks.beginBy(route.steps, clientId, wishOn);
  return by.ok ? by.value : null;
};

/** Routes and what they come to, each reckoned once per client. */
class RoutesKnown {
  private readonly known = new Map<string, Outlook | null>();

  constructor(
    private readonly routes: ReadonlyMap<string, Route>,
    private readonly outlooks: Outlooks,
  ) {}

  of(routeId: string | undefined, clientId: string): { readonly route: Route; readonly outlook: Outlook | null } | null {
    const route = routeId === undefined ? undefined : this.routes.get(routeId);
    if (!route) return null;
    const key = `${clientId} ${route.id}`;
    let outlook = this.known.get(key);
    if (outlook === undefined) {
      const reckoned = this.outlooks.of(route.steps, clientId);
      outlook = reckoned.ok ? reckoned.value : null;
      this.known.set(key, outlook);
    }
    return { route, outlook };
  }
}

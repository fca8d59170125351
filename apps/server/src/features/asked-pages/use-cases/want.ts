import { linksOn, ok, type Content, type InstantText } from '@zesting/core';
import type { App } from '../../../platform/app.js';
import { rowsOf, type Tx } from '../../../platform/database/transaction.js';
import { addJob } from '../../../platform/jobs/jobs.js';

/** The task that asks the pages whose turn it is. */
export const ASK = 'pages_ask';

/** The task that looks where a piece leads. */
export const WANT = 'pages_want';

/** So far ahead the pages of what goes out are asked again and again. */
const HOURS_AHEAD = 8 * 24;
/** What was written is asked now, and once more where no answer came. */
const WRITTEN_HOURS = 2;
/** Longer addresses are asked of nobody. */
const LONGEST = 2000;
/** So many pages of a piece are asked, the first of them. */
const MOST = 50;
/** Whoever presses again and again has a page asked no more often than that. */
const SOONEST = "interval '2 seconds'";

const hoursAfter = (now: InstantText, hours: number): string => new Date(Date.parse(now) + hours * 3_600_000).toISOString();

interface Wanted {
  readonly address: string;
  readonly until: string;
}

/**
 * Has pages asked until some time. One that answered keeps its turn; one that was never asked, and one that nobody wanted any more, is asked at once.
 * @param isNow whether all of them are asked at once, but for those that just were
 */
export async function wantPages(tx: Tx, wanted: readonly Wanted[], now: InstantText, isNow = false): Promise<void> {
  const latest = new Map<string, string>();
  for (const { address, until } of wanted) if (address.length <= LONGEST && (latest.get(address) ?? '') < until) latest.set(address, until);
  if (latest.size === 0) return;
  // in one order, so that two at once wait for each other and do not lock each other out
  const rows = [...latest].map(([address, until]) => ({ address, until })).sort((a, b) => (a.address < b.address ? -1 : 1));
  await tx.query(
    `insert into asked_pages as a (address, next_at, wanted_until)
       select address, $2::timestamptz, until from jsonb_to_recordset($1::jsonb) as w(address text, until timestamptz)
     on conflict (address) do update set wanted_until = greatest(a.wanted_until, excluded.wanted_until),
       next_at = case when $3::boolean and a.asked_at between excluded.next_at - ${SOONEST} and excluded.next_at then a.next_at
         when $3::boolean then excluded.next_at else coalesce(a.next_at, greatest(excluded.next_at, a.asked_at + interval '1 hour')) end`,
    [JSON.stringify(rows), now, isNow],
  );
  await addJob(tx, ASK, {}, { key: ASK, queue: ASK, priority: 5 });
}

/**
 * Has the pages asked that a piece leads to, by a job once its change is committed: many pieces lead to one page, and none is to wait for what another
 * does with it.
 */
export async function wantLater(tx: Tx, { id }: { readonly id: string }): Promise<void> {
  if ((await linksOfPiece(tx, id)).length > 0) await addJob(tx, WANT, { pieceId: id }, { key: `${WANT}:${id}`, priority: 5 });
}

export async function wantOfPiece(app: App, pieceId: string): Promise<void> {
  await app.write(async (tx, now) => {
    const until = hoursAfter(now, WRITTEN_HOURS);
    const addresses = await linksOfPiece(tx, pieceId);
    await wantPages(
      tx,
      addresses.map((address) => ({ address, until })),
      now,
    );
    return ok(null);
  });
}

/** The pages that a piece leads to, over all its channels. */
export async function linksOfPiece(tx: Tx, pieceId: string): Promise<string[]> {
  const [piece] = await rowsOf<{ content: Content }>(tx, 'select content from pieces where id = $1', [pieceId]);
  if (!piece) return [];
  return [...new Set(Object.keys(piece.content.channels).flatMap((channelId) => linksOn(piece.content, channelId)))].slice(0, MOST);
}

/** Has the pages asked of everything that goes out in the next days, until it is out. @returns how many placements were looked at */
export async function wantNext(app: App): Promise<number> {
  const now = app.clock.now();
  const next = await app.read<{ channelId: string; publishAt: string; content: Content }>(
    `select l.channel_id as "channelId", l.publish_at as "publishAt", p.content from placements l join pieces p on p.id = l.piece_id and not p.shelved
     where l.client_id in (select id from clients where archived_at is null) and l.on_day between ($1::timestamptz)::date - 1 and ($2::timestamptz)::date + 1
       and l.publish_at > $1::timestamptz and l.publish_at <= $2::timestamptz and l.state in ('pencilled', 'scheduled')`,
    [now, hoursAfter(now, HOURS_AHEAD)],
  );
  const wanted = next.flatMap(({ channelId, publishAt, content }) =>
    linksOn(content, channelId).map((address) => ({ address, until: new Date(publishAt).toISOString() })),
  );
  await app.write(async (tx) => {
    await wantPages(tx, wanted, now);
    // also where nothing new is wanted: those whose turn came meanwhile
    await addJob(tx, ASK, {}, { key: ASK, queue: ASK, priority: 5 });
    return ok(null);
  });
  return next.length;
}

import { ACCESS_WARNING_DAYS, ok } from '@zesting/core';
import type { Logger } from 'pino';
import type { App } from '../../platform/app.js';
import { rowsOf } from '../../platform/database/transaction.js';
import { replan } from '../planning/index.js';
import { tellEnding } from './tell.js';
import { claim } from './use-cases/claim.js';
import { goOn, leaseSeconds } from './use-cases/go-on.js';

/** So many are taken up at a time, and no more of one channel than that: a channel that hangs holds nobody else up for long. */
const AT_ONCE = 24;
const OF_ONE_CHANNEL = 4;
/** So many that came due are looked at in one turn. */
const DUE = 200;

/** Takes up what is due, then brings it to the channels; what comes due on the way is taken along. */
export async function sendDue(app: App, log: Logger): Promise<void> {
  await claimDue(app, log);
  await drain(app, log);
  await app.write(async (tx, now) => ok(await tellEnding(app, tx, now, ACCESS_WARNING_DAYS)));
}

/** Takes up placements whose time has come and whose channel is reached by itself. What is too late is missed from now on; one that breaks keeps nothing else up. */
export async function claimDue(app: App, log?: Logger): Promise<void> {
  const now = app.clock.now();
  let last: { at: string; id: string } | undefined;
  for (;;) {
    const due: { id: string; pieceId: string; at: string }[] = await app.read(
      `select l.id, l.piece_id as "pieceId", to_char(l.publish_at, 'YYYY-MM-DD"T"HH24:MI:SS.US"Z"') as at from placements l join channel_links n on n.channel_id = l.channel_id
       where l.state = 'scheduled' and l.publish_at <= $1 and ($2::timestamptz is null or (l.publish_at, l.id) > ($2, $3))
       order by l.publish_at, l.id limit ${DUE}`,
      [now, last?.at ?? null, last?.id ?? null],
    );
    for (const { id, pieceId } of due)
      await takeUp(app, id, pieceId).catch((error: unknown) => log?.warn({ err: error, placementId: id }, 'a placement was not taken up'));
    last = due.at(-1);
    if (due.length < DUE) return;
  }
}

async function takeUp(app: App, id: string, pieceId: string): Promise<void> {
  const claimed = await claim(app, id, null);
  if (claimed.ok) return;
  // what was not taken up is planned anew: it may have become too late since anybody looked
  await app.write(async (tx, at) => {
    await rowsOf(tx, 'select 1 from pieces where id = $1 for no key update', [pieceId]);
    return ok(await replan(tx, [pieceId], at));
  });
}

/** Goes on with all sendings that are due, until none is. One that breaks is left until its turn comes again. */
export async function drain(app: App, log?: Logger): Promise<void> {
  for (;;) {
    const taken = await take(app);
    if (taken.length === 0) return;
    await Promise.all(
      taken.map((id) =>
        goOn(app, id).catch((error: unknown) => log?.warn({ err: error, sendingId: id }, 'a sending was not gone on with')),
      ),
    );
  }
}

/** Sendings that are due, now in our hands: nobody else takes them for a while. */
async function take(app: App): Promise<string[]> {
  const taken = await app.write<string[], never>(async (tx, now) => {
    const rows = await rowsOf<{ id: string }>(
      tx,
      `with taken as (update sendings s set next_at = $1::timestamptz + make_interval(secs => $2) where s.id in (
         select id from sendings where id in (select id from (
             select id, next_at, row_number() over (partition by channel_id order by next_at, id) as turn from sendings where next_at <= $1
           ) due where turn <= ${OF_ONE_CHANNEL} order by next_at, id limit ${AT_ONCE})
         and next_at <= $1 for update skip locked)
       returning s.id) select id from taken`,
      [now, leaseSeconds(app)],
    );
    return ok(rows.map(({ id }) => id));
  });
  return taken.ok ? taken.value : [];
}

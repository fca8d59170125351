import { answerState, ok } from '@zesting/core';
import type { Logger } from 'pino';
import type { App } from '../../../platform/app.js';
import { askPage } from '../page-asker.js';

/** So many pages are asked at a time. */
const AT_ONCE = 8;
/** How long an answer counts, in hours: a page that is there is asked seldom, one that is not soon again. */
const HOURS = { there: 12, gone: 1, silent: 1 } as const;
/** Where nobody can be asked: how long is waited. */
const PAUSE_HOURS = 0.25;
/** Answers that nobody wants any more are kept so long. */
const KEPT_DAYS = 90;

interface Due {
  readonly address: string;
}

/**
 * Asks the pages whose turn it is, one after another by some. Where the asker itself cannot be reached nothing is learnt of any page, and what was
 * known stays.
 * @param only these alone; undefined: all that are due
 * @returns how many answered or were found silent
 */
export async function askDue(app: App, log?: Logger, only?: readonly string[]): Promise<number> {
  const asker = app.config.pageAsker;
  if (asker === null) return 0;
  let count = 0;
  for (;;) {
    const due = await app.read<Due>(
      `select address from asked_pages where next_at <= $1::timestamptz and ($2::text[] is null or address = any($2::text[])) order by next_at, address limit ${AT_ONCE}`,
      [app.clock.now(), only ?? null],
    );
    if (due.length === 0) return count;
    const answers = await Promise.all(due.map(async ({ address }) => ({ address, answer: await askPage(asker, address) })));
    const learnt = answers.flatMap(({ address, answer }) => (answer.isKnown ? [{ address, status: answer.status }] : []));
    if (learnt.length < answers.length) log?.warn({ unasked: answers.length - learnt.length }, 'pages could not be asked');
    await keep(
      app,
      learnt,
      answers.flatMap(({ address, answer }) => (answer.isKnown ? [] : address)),
    );
    count += learnt.length;
    if (learnt.length === 0) return count; // the asker is away: later
  }
}

/** Keeps what was learnt, and when each is asked again: as long as its answer is wanted. */
async function keep(app: App, learnt: readonly { address: string; status: number | null }[], unasked: readonly string[]): Promise<void> {
  const rows = learnt.map(({ address, status }) => ({ address, status, hours: HOURS[answerState(status)] }));
  await app.write(async (tx, now) => {
    await tx.query(
      `update asked_pages a set status = w.status, asked_at = $2::timestamptz,
         next_at = case when $2::timestamptz + make_interval(mins => (w.hours * 60)::int) <= a.wanted_until
           then $2::timestamptz + make_interval(mins => (w.hours * 60)::int) end
       from jsonb_to_recordset($1::jsonb) as w(address text, status int, hours float) where a.address = w.address`,
      [JSON.stringify(rows), now],
    );
    await tx.query('update asked_pages set next_at = $2::timestamptz + make_interval(mins => $3::int) where address = any($1::text[])', [
      unasked,
      now,
      PAUSE_HOURS * 60,
    ]);
    return ok(null);
  });
}

/** Forgets pages that nobody has wanted for long. */
export async function clearAsked(app: App): Promise<void> {
  await app.write(async (tx, now) => {
    await tx.query(`delete from asked_pages where wanted_until < $1::timestamptz - make_interval(days => ${KEPT_DAYS})`, [now]);
    return ok(null);
  });
}

import type { ExpectedShape, ReceiptShape } from '@zesting/contract';
import { answerClock, dayIn, isOpenRequest, pausesOf, type InstantText } from '@zesting/core';
import { VISITED } from '../../../platform/access/visited.js';
import type { App } from '../../../platform/app.js';
import { AGENCY_KEY, getDoer, loadCalendars } from '../../planning/index.js';
import { STATE_OUTSIDE } from '../../production/index.js';

/** Of the pieces that came of a request, the one that is least far; of those on the shelf only where there is no other. */
const LEAST_FAR = `(select p.stage from piece_requests b join pieces p on p.id = b.piece_id where b.request_id = r.id
  order by array_position(array['planned', 'in_production', 'in_review', 'with_client', 'approved', 'scheduled', 'published', 'shelved'], p.stage), p.number limit 1)`;

interface Row extends Omit<ReceiptShape, 'answerBy' | 'expected'> {
  readonly feed_pencilled: boolean;
  readonly promised: number;
}

/** So many days are told. */
const EXPECTED = 20;

/** What a requester sees of their request; of one that was merged, how the one stands that it was merged into. */
export async function receiptOf(app: App, requestId: string): Promise<ReceiptShape> {
  const [row] = await app.read<Row>(
    `select r.number, r.title, coalesce(v.content ->> 'language', 'en') as language, ${VISITED}, r.received_at as "receivedAt",
         r.wish_on as "wishOn", c.feed_pencilled,
         coalesce((v.content ->> 'answerDays')::int, 0) as promised, r.state = 'merged' as "isMerged", coalesce(m.state, r.state) as state,
         coalesce(m.decline_reason, r.decline_reason) as "declineReason",
         case when p.stage in ('planned', 'shelved') then 'planned' when p.stage in ('in_production', 'in_review') then 'in_production'
           when p.stage = 'with_client' then 'with_client' when p.stage in ('approved', 'scheduled') then 'approved' else p.stage end as progress,
         r.state in ('new', 'asked_back') as "canWithdraw",
         coalesce((select jsonb_agg(jsonb_build_object('author', t.author, 'text', t.text, 'at', t.at) order by t.at, t.id)
           from request_messages t where t.request_id = r.id), '[]') as messages,
         array(select name from assets f where f.request_id = r.id order by f.created_at, f.id) as files
       from requests r join clients c on c.id = r.client_id left join form_versions v on v.form_id = r.form_id and v.number = r.form_version
         left join requests m on m.id = r.merged_into cross join agencies a left join lateral ${LEAST_FAR} p on true where r.id = $1`,
    [requestId],
  );
  if (!row) throw new Error('the request went away');
  const { feed_pencilled: hasPencilled, promised, ...receipt } = row;
  const expected = await app.read<ExpectedShape>(
    `select h.name as "channelName", l.on_day as "on", ${STATE_OUTSIDE} as state from piece_requests b join pieces p on p.id = b.piece_id and not p.shelved
       join placements l on l.piece_id = p.id and not l.cancelled join channels h on h.id = l.channel_id
     where b.request_id = $1 and (l.state in ('scheduled', 'sending', 'unsure', 'out') or (l.state = 'pencilled' and $2)) order by l.on_day, h.position, l.id limit ${EXPECTED}`,
    [requestId, hasPencilled],
  );
  return { ...receipt, answerBy: isOpenRequest(receipt.state) ? await answerBy(app, receipt, promised) : null, expected };
}

/** By when the agency answers, by its promise; not while the requester owes an answer. */
async function answerBy(
  app: App,
  { receivedAt, messages }: Pick<ReceiptShape, 'receivedAt' | 'messages'>,
  promisedDays: number,
): Promise<string | null> {
  if (promisedDays === 0) return null;
  const { calendar, zone, todayOn } = getDoer(await loadCalendars(app.manager, app.clock.now(), new Set()), AGENCY_KEY);
  const on = (at: string) => dayIn(at as InstantText, zone);
  const pauses = pausesOf(messages.map(({ author, at }) => ({ author, on: on(at) })));
  const { dueOn, isLate } = answerClock(on(receivedAt), todayOn, { pauses, calendar, promisedDays });
  return isLate ? null : dueOn;
}

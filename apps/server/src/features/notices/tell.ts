import { getTimeOfDay, joinMoves, roundUpAt, type InstantText, type Moved, type QuietHours, type RoundUpRhythm } from '@zesting/core';
import type { App } from '../../platform/app.js';
import { rowsOf, type Tx } from '../../platform/database/transaction.js';
import { addJobIn } from '../../platform/jobs/jobs.js';
import { queueMail, type Mail } from '../../platform/mail/mail.js';
import { hearersOf } from './managers.js';
import { IsNull } from 'typeorm';
import { Notice as Waiting } from './entities/notice.entity.js';

/** The job that sends the round-ups that are due. */
export const SEND_ROUND_UPS = 'notices_send';

export interface Notice {
  readonly clientId: string | null;
  readonly heading: string;
  readonly text: string;
  /** where it leads, inside the application */
  readonly path: string;
  /** what it is about: one that still waits under the same key is replaced, and `untell` takes it away */
  readonly key?: string;
}

/** The agency's quiet hours, as its row has them. */
export const quietHours = (row: { readonly quiet_from: string; readonly quiet_to: string }): QuietHours => ({
  from: getTimeOfDay(row.quiet_from.slice(0, 5)),
  to: getTimeOfDay(row.quiet_to.slice(0, 5)),
});

interface PersonRow {
  quiet_from: string;
  quiet_to: string;
  round_up: RoundUpRhythm;
  round_up_at: string;
  zone: string;
}

/** How long a notice waits for others of the same hand-off, in seconds. */
const quietSeconds = (app: App): number => (app.config.testing ? 1 : 20);

interface Urgency {
  /** does not wait for the person's next round-up, only for the end of quiet hours */
  readonly atOnce?: boolean;
}

/** When a notice to the person goes out; undefined for one who left. */
export async function dueAt(
  app: App,
  tx: Tx,
  personId: string,
  now: InstantText,
  { atOnce = false }: Urgency = {},
): Promise<InstantText | undefined> {
  const [person] = await rowsOf<PersonRow>(
    tx,
    'select p.round_up, p.round_up_at, p.zone, a.quiet_from, a.quiet_to from people p cross join agencies a where p.id = $1 and p.active',
    [personId],
  );
  if (!person) return undefined;
  const setting = {
    rhythm: atOnce ? ('at_once' as const) : person.round_up,
    at: getTimeOfDay(person.round_up_at.slice(0, 5)),
    zone: person.zone,
    quiet: quietHours(person),
  };
  const due = roundUpAt(setting, now, quietSeconds(app));
  // what waits longer is found by the clock; where that starts nothing, a test sends what is due itself
  if (setting.rhythm === 'at_once' && app.config.hasClockJobs) await addJobIn(tx, SEND_ROUND_UPS, personId, quietSeconds(app) + 0.2);
  return due;
}

/** What waits for a person goes out at another time. */
export const putOff = (tx: Tx, personId: string, due: InstantText): Promise<unknown> =>
  tx.update(Waiting, { personId, sentAt: IsNull() }, { dueAt: due });

/** Puts a notice into the person's next round-up, in the transaction of what it tells. */
export async function tell(app: App, tx: Tx, personId: string, notice: Notice, urgency: Urgency = {}): Promise<void> {
  const now = app.clock.now();
  const due = await dueAt(app, tx, personId, now, urgency);
  if (due === undefined) return;
  await tx.query(
    `insert into notices (person_id, client_id, heading, text, path, key, due_at, created_at) values ($1, $2, $3, $4, $5, $6, $7, $8)
     on conflict (person_id, key) where sent_at is null and key is not null
     do update set heading = excluded.heading, text = excluded.text, path = excluded.path`,
    [personId, notice.clientId, notice.heading, notice.text, notice.path, notice.key ?? null, due, now],
  );
}

/** Tells a move; several before anybody heard are one, and one that is taken back is none. */
export async function tellMove(
  app: App,
  tx: Tx,
  personId: string,
  notice: Notice & { readonly key: string },
  move: Moved,
  words: (joined: Moved) => string,
): Promise<void> {
  const [waiting] = await rowsOf<{ id: number; moved_from: string; moved_to: string }>(
    tx,
    'select id, moved_from, moved_to from notices where person_id = $1 and key = $2 and sent_at is null for update',
    [personId, notice.key],
  );
  const joined = joinMoves(waiting ? { from: waiting.moved_from, to: waiting.moved_to } : null, move);
  if (!joined) return untell(tx, notice.key, personId);
  await tell(app, tx, personId, { ...notice, text: words(joined) });
  await tx.update(Waiting, { personId, key: notice.key, sentAt: IsNull() }, { movedFrom: joined.from, movedTo: joined.to });
}

/** Takes back what still waits under a key, since it was undone: from one person's round-up or from all. */
export async function untell(tx: Tx, key: string, personId: string | null = null): Promise<void> {
  await tx.delete(Waiting, { key, sentAt: IsNull(), ...(personId === null ? {} : { personId }) });
}

/** What somebody is reminded of once: what it is about, who hears it, and by when it was due. */
export interface RemindedOf {
  readonly thing: string;
  readonly thingId: string;
  readonly receiverId: string;
  readonly dueOn: string;
}

/** Writes down that somebody is reminded of something on its day. @returns false where that was written down before, by whichever server */
export async function noteReminder(tx: Tx, { thing, thingId, receiverId, dueOn }: RemindedOf, now: InstantText): Promise<boolean> {
  const rows = await rowsOf(
    tx,
    `with noted as (insert into reminders (thing, thing_id, receiver_id, stage, due_on, sent_at) values ($1, $2, $3, 'due_day', $4, $5)
       on conflict do nothing returning 1) select * from noted`,
    [thing, thingId, receiverId, dueOn, now],
  );
  return rows.length > 0;
}

/**
 * Tells those who manage a client; of a piece whoever answers for it, where there is somebody.
 * @param notice its `pieceId` is the piece that it is about
 */
export async function tellManagers(
  app: App,
  tx: Tx,
  { pieceId, ...notice }: Notice & { readonly clientId: string; readonly pieceId?: string },
  urgency: Urgency = {},
): Promise<void> {
  for (const { id } of await hearersOf(tx, notice.clientId, pieceId, app.clock.now())) await tell(app, tx, id, notice, urgency);
}

/** Tells a contact or requester something by mail at once, with their personal link. @returns the mail's Message-ID */
export async function tellOutside(
  tx: Tx,
  to: { readonly email: string; readonly name: string },
  subject: string,
  paragraphs: readonly string[],
  link: { text: string; address: string },
  threading: Pick<Mail, 'replyTo' | 'inReplyTo'> = {},
): Promise<string> {
  return queueMail(tx, { to: to.email, subject, paragraphs: [hello(to.name), ...paragraphs], links: [link], ...threading });
}

export const hello = (name: string): string => `Hello ${name.split(' ')[0] ?? name},`;

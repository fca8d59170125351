import { readFile } from 'node:fs/promises';
import { fail, ideaOfMail, newWords, ok, titleOfMail, type FormItem, type InstantText, type Result } from '@zesting/core';
import type { Viewer } from '../../../platform/access/access.js';
import { recordActivity } from '../../../platform/activity.js';
import type { App } from '../../../platform/app.js';
import { rowsOf, type Reader, type Tx } from '../../../platform/database/transaction.js';
import { mailboxOf, readBeside, type CameIn } from '../../../platform/mail/inbox.js';
import { queueMail } from '../../../platform/mail/mail.js';
import type { MailFile, ReadMail } from '../../../platform/mail/read-mail.js';
import { addContact } from '../../clients/index.js';
import { hello, tellManagers } from '../../notices/index.js';
import { keepIdea, type Catcher } from '../../plan/index.js';
import { addAsset, claimFiles } from '../../production/index.js';
import { IncomingMail, type MailReason } from '../entities/incoming-mail.entity.js';
import { putAnswer } from './ask-back.js';
import { mailReceipt } from './mail-receipt.js';
import { insertRequest } from './new-request.js';
import { ownerOf } from './sort-request.js';
import { answersTo, knowMail } from './tell-requester.js';

/** So much of a mail's words is read here; all of it stays in the mail itself. */
const TEXT_MOST = 20_000;
/** So many files of one mail are taken. */
const FILES_MOST = 50;
/** So many mails come to one client's address within an hour: beyond, their senders are asked to try later. */
export const MAILS_AN_HOUR = 120;
const BYTES_AN_HOUR = 2 * 1024 ** 3;

/** What a request that came by mail holds. */
const MAIL_ITEMS = [
  { key: 'words', kind: 'long', label: 'What the mail says', serves: 'about' },
  { key: 'files', kind: 'files', label: 'What came with it', serves: 'material' },
  { key: 'not_taken', kind: 'long', label: 'What came with it and could not be kept' },
] as const satisfies readonly FormItem[];

/** What becomes of a mail. */
type Place =
  | { readonly as: 'automatic' }
  | { readonly as: 'waiting'; readonly reason: MailReason; readonly requestId: string | null }
  | { readonly as: 'idea'; readonly by: Catcher; readonly title: string }
  | { readonly as: 'request'; readonly contactId: string | null; readonly name: string }
  | { readonly as: 'answer'; readonly requestId: string; readonly name: string };

interface Mailbox {
  readonly clientId: string;
  readonly clientName: string;
}

/** The client whose request address it is. */
export async function mailboxClient(app: App, address: string): Promise<Mailbox | undefined> {
  const [client] = await app.read<Mailbox>(
    'select id as "clientId", name as "clientName" from clients where lower(code) = $1 and archived_at is null',
    [mailboxOf(app.config, address) ?? ''],
  );
  return client;
}

/**
 * Takes a mail in: from a contact who may ask it becomes a request, or an answer to the request that its heads name; what nobody knows waits for a
 * word; what a machine wrote is kept apart and never answered. The same mail twice is one.
 */
export async function takeMail(app: App, { mail, raw, to }: CameIn): Promise<'kept' | 'too_many'> {
  const box = await mailboxClient(app, to);
  if (!box) throw new Error('the client went away');
  if (!(await hasRoom(app, box.clientId))) return 'too_many';
  const { hash } = await app.files.storeMade(raw); // bytes without a row harm nobody
  const row = { ...box, hash, bytes: raw.length };
  const place = await placeOf(app.manager, box.clientId, mail);
  const stored = place.as === 'request' || place.as === 'answer' || place.as === 'idea' ? await storeFiles(app, mail.files) : NO_FILES;
  const put = await app.write<null, PutFailure>((tx, now) => keep(app, tx, { row, mail, place, stored }, now));
  if (put.ok) return 'kept';
  // more answers than are taken, or files that went meanwhile: somebody looks at it
  const requestId = place.as === 'answer' ? place.requestId : null;
  const aside = { as: 'waiting', reason: 'too_many', requestId } as const;
  await app.write<null, PutFailure>((tx, now) => keep(app, tx, { row, mail, place: aside, stored: NO_FILES }, now));
  return 'kept';
}

type PutFailure = { code: 'file.unknown' | 'ask.too_much' };

/** Whether more mail is taken for a client within this hour. */
async function hasRoom(app: App, clientId: string): Promise<boolean> {
  const [recent] = await app.read<{ count: number; bytes: number }>(
    `select count(*)::int as count, coalesce(sum(bytes), 0)::float8 as bytes from incoming_mails
     where client_id = $1 and received_at > $2::timestamptz - interval '1 hour'`,
    [clientId, app.clock.now()],
  );
  return recent === undefined || (recent.count < MAILS_AN_HOUR && recent.bytes < BYTES_AN_HOUR);
}

interface Coming {
  readonly row: Mailbox & { readonly hash: string; readonly bytes: number };
  readonly mail: ReadMail;
  readonly place: Place;
  readonly stored: Stored;
}

async function keep(app: App, tx: Tx, { row, mail, place, stored }: Coming, now: InstantText): Promise<Result<null, PutFailure>> {
  const { clientId, clientName, hash, bytes } = row;
  const [kept] = await rowsOf<{ id: string }>(
    tx,
    `insert into incoming_mails (client_id, message_id, from_name, from_email, subject, text, files, hash, bytes, state, reason, request_id, received_at)
     values ($1, $2, $3, $4, $5, $6, $7, $8, $9, $10, $11, $12, $13) on conflict (client_id, message_id) do nothing returning id`,
    [
      clientId,
      mail.messageId || `<${hash}>`,
      mail.fromName.slice(0, 200),
      mail.fromEmail.slice(0, 320),
      mail.subject.slice(0, 500),
      plain(mail.text),
      JSON.stringify(mail.files.map(({ name }) => plain(name).slice(0, 150))),
      hash,
      bytes,
      place.as === 'waiting' || place.as === 'automatic' ? place.as : 'taken',
      place.as === 'waiting' ? place.reason : null,
      place.as === 'waiting' || place.as === 'answer' ? place.requestId : null,
      now,
    ],
  );
  if (!kept) return ok(null); // sent once more: it is here already
  if (place.as === 'automatic') return ok(null);
  if (place.as === 'waiting') {
    await recordMail(tx, clientId, 'client.mail_waits', mail.fromName || mail.fromEmail, mail.subject, now);
    await tellManagers(app, tx, {
      clientId,
      heading: `A mail waits: ${mail.subject || 'without a subject'}`,
      text: `${mail.fromEmail} wrote to the request address of ${clientName}, and is nobody who may ask. Say whether it is a request.`,
      path: '/requests/mails',
      key: `mails:${clientId}`,
    });
    return ok(null);
  }
  if (place.as === 'idea') {
    await putMailIdea(app, tx, { mailId: kept.id, clientId, clientName, mail, by: place.by, title: place.title, stored }, now);
    return ok(null);
  }
  const { name } = place;
  if (place.as === 'answer') return putMailAnswer(app, tx, { clientId, mail, requestId: place.requestId, name, stored }, now);
  const { contactId } = place;
  const put = await putMailRequest(app, tx, { mailId: kept.id, clientId, clientName, mail, contactId, name, stored }, now);
  return put.ok ? ok(null) : put;
}

/** Makes the request that a mail is, and tells its sender. @returns its id */
async function putMailRequest(
  app: App,
  tx: Tx,
  coming: Mailbox & {
    readonly mailId: string;
    readonly mail: ReadMail;
    readonly contactId: string | null;
    readonly name: string;
    readonly stored: Stored;
    readonly takenBy?: string;
  },
  now: InstantText,
): Promise<Result<string, PutFailure>> {
  const { mailId, clientId, clientName, mail, contactId, name, stored, takenBy } = coming;
  const assetIds = await addFiles(tx, clientId, stored, now);
  const notTaken = stored.refused
    .map((file) => `${plain(file).slice(0, 150)}: this kind of file is not taken, or it is damaged`)
    .join('\n');
  const answers = {
    ...(mail.text === '' ? {} : { words: plain(mail.text) }),
    ...(assetIds.length === 0 ? {} : { files: assetIds }),
    ...(notTaken === '' ? {} : { not_taken: notTaken }),
  };
  const { request, number } = await insertRequest(tx, {
    clientId,
    way: 'mail',
    items: MAIL_ITEMS.filter(({ key }) => key in answers),
    answers,
    title: plain(titleOfMail(mail.subject, mail.text)) || 'A mail without a subject',
    wishOn: null,
    requesterName: name,
    requesterEmail: mail.fromEmail,
    contactId,
    ownerId: (await ownerOf(tx, clientId, undefined)) ?? null,
    readAt: null,
    receivedAt: now,
  });
  if (!(await claimFiles(tx, assetIds, request.id, clientId))) return fail({ code: 'file.unknown' });
  await tx.update(IncomingMail, mailId, { state: 'taken', reason: null, requestId: request.id });
  if (mail.messageId) await knowMail(tx, mail.messageId, request.id);
  await recordActivity(tx, {
    clientId,
    thing: 'request',
    thingId: request.id,
    verb: takenBy === undefined ? 'request.received' : 'request.taken_down',
    actor: takenBy ?? name,
    at: now,
  });
  await mailReceipt(
    app,
    tx,
    { ...request, requesterEmail: mail.fromEmail },
    {
      number,
      clientName,
      filesLost: stored.refused.length,
      ...(mail.messageId ? { inReplyTo: mail.messageId } : {}),
    },
    now,
  );
  if (takenBy === undefined)
    await tellManagers(app, tx, {
      clientId,
      heading: `New request: ${request.title}`,
      text: `${name} of ${clientName} asks by mail for “${request.title}”.`,
      path: `/requests/${request.id}`,
    });
  return ok(request.id);
}

/** Puts the idea that a mail is on the client's shelf, with what came along, and says so to a contact who sent it. */
async function putMailIdea(
  app: App,
  tx: Tx,
  coming: Mailbox & {
    readonly mailId: string;
    readonly mail: ReadMail;
    readonly by: Catcher;
    readonly title: string;
    readonly stored: Stored;
  },
  now: InstantText,
): Promise<void> {
  const { mailId, clientId, clientName, mail, by, stored } = coming;
  const title = plain(coming.title).slice(0, 200) || 'A mail without words';
  const refused = stored.refused.length > 0 ? `\n\nNot kept, by its kind: ${plain(stored.refused.join(', ')).slice(0, 500)}` : '';
  const idea = await keepIdea(tx, by, { clientId, title, note: `${plain(newWords(mail.text))}${refused}`.trim().slice(0, 4000) }, now);
  if (!idea.ok) throw new Error(`the idea was refused: ${idea.failure.code}`); // it names nothing that could be unknown
  const ideaId = idea.value;
  for (const { name, file } of stored.files) await addAsset(tx, file, { ideaId, name, now });
  await tx.update(IncomingMail, mailId, { ideaId });
  await tellManagers(app, tx, {
    clientId,
    heading: `New idea: ${title}`,
    text: `${by.name} caught “${title}” by mail, for ${clientName}.`,
    path: `/plan/ideas?idea=${ideaId}`,
  });
  if (by.contactId === null) return;
  await queueMail(tx, {
    to: mail.fromEmail,
    subject: `On our list of ideas: ${title}`,
    paragraphs: [
      hello(by.name),
      `Thank you. “${title}” is on our list of ideas for ${clientName}. It is not a request yet: where you want it made, ask for it.`,
    ],
    ...(mail.messageId ? { inReplyTo: mail.messageId } : {}),
    ...(await answersTo(app, tx, clientId)),
  });
}

/** Puts a mail to the request that it answers. */
async function putMailAnswer(
  app: App,
  tx: Tx,
  coming: {
    readonly clientId: string;
    readonly mail: ReadMail;
    readonly requestId: string;
    readonly name: string;
    readonly stored: Stored;
  },
  now: InstantText,
): Promise<Result<null, PutFailure>> {
  const { clientId, mail, requestId, name, stored } = coming;
  const assetIds = await addFiles(tx, clientId, stored, now);
  const words = plain(newWords(mail.text)) || (assetIds.length > 0 ? 'See what came with this mail.' : 'This mail says nothing.');
  const refused = stored.refused.length > 0 ? `\n\nNot kept, by its kind: ${plain(stored.refused.join(', ')).slice(0, 500)}` : '';
  if (mail.messageId) await knowMail(tx, mail.messageId, requestId);
  return putAnswer(app, tx, requestId, { text: `${words}${refused}`, assetIds, name }, now);
}

/** What a mail is to a client, by its heads and its sender. */
async function placeOf(reader: Reader, clientId: string, mail: ReadMail): Promise<Place> {
  if (mail.isAutomatic) return { as: 'automatic' };
  const [contact] = await rowsOf<{ id: string; name: string; can_ask: boolean }>(
    reader,
    'select id, name, can_ask from contacts where client_id = $1 and lower(email) = $2 and archived_at is null',
    [clientId, mail.fromEmail],
  );
  const [request] = await rowsOf<{ id: string; name: string; email: string | null }>(
    reader,
    `select r.id, r.requester_name as name, lower(r.requester_email) as email from request_mails m join requests r on r.id = m.request_id
     where m.message_id = any($1) and r.client_id = $2 order by array_position($1, m.message_id), r.received_at desc limit 1`,
    [mail.answers, clientId],
  );
  if (request?.email === mail.fromEmail) return { as: 'answer', requestId: request.id, name: request.name };
  if (request)
    return contact
      ? { as: 'answer', requestId: request.id, name: contact.name }
      : { as: 'waiting', reason: 'other_sender', requestId: request.id };
  const title = ideaOfMail(mail.subject, mail.text);
  if (title !== undefined) {
    const by = contact?.can_ask
      ? { name: contact.name, authorId: null, contactId: contact.id }
      : await colleagueOf(reader, clientId, mail.fromEmail);
    if (by) return { as: 'idea', by, title };
  }
  if (!contact) return { as: 'waiting', reason: 'unknown_sender', requestId: null };
  if (!contact.can_ask) return { as: 'waiting', reason: 'may_not_ask', requestId: null };
  return { as: 'request', contactId: contact.id, name: contact.name };
}

/** Who of the agency has the address and works for the client; leads work for all. */
async function colleagueOf(reader: Reader, clientId: string, email: string): Promise<Catcher | undefined> {
  const [person] = await rowsOf<{ id: string; name: string }>(
    reader,
    `select d.id, d.name from people d left join client_people o on o.person_id = d.id and o.client_id = $1
     where lower(d.email) = $2 and d.active and (d.role = 'lead' or o.relation = 'own')`,
    [clientId, email],
  );
  return person && { name: person.name, authorId: person.id, contactId: null };
}

/** Files of a mail as they were stored, and the names of those that are not taken. */
interface Stored {
  readonly files: readonly { readonly name: string; readonly file: Parameters<typeof addAsset>[1] }[];
  readonly refused: readonly string[];
}
const NO_FILES: Stored = { files: [], refused: [] };

async function storeFiles(app: App, given: readonly MailFile[]): Promise<Stored> {
  const files: Stored['files'][number][] = [];
  const refused: string[] = given.slice(FILES_MOST).map(({ name }) => name);
  for (const { name, bytes } of given.slice(0, FILES_MOST)) {
    const stored = await app.files.store(Buffer.from(bytes.buffer, bytes.byteOffset, bytes.byteLength));
    if (stored.ok) files.push({ name, file: stored.value });
    else refused.push(name);
  }
  return { files, refused };
}

async function addFiles(tx: Tx, clientId: string, { files }: Stored, now: InstantText): Promise<string[]> {
  const ids: string[] = [];
  for (const { name, file } of files) ids.push((await addAsset(tx, file, { clientId, pieceId: null, name, now })).assetId);
  return ids;
}

/** Text that the database takes and a screen shows: without signs that only steer, and whole characters alone. */
const plain = (text: string): string =>
  Buffer.from([...text.replace(/[^\P{Cc}\n\t]/gu, '')].slice(0, TEXT_MOST).join(''), 'utf8').toString('utf8');

type SortFailure = { code: 'mail.sorted_already' | 'mail.unreadable' } | PutFailure;

/**
 * Takes a mail that waits, was left or was taken for a machine's, as what it is: an answer where it answers a request, else a request.
 * @param asContact whether its sender is a contact of the client from now on, who may ask
 * @returns the request
 */
export async function takeWaiting(app: App, viewer: Viewer, mailId: string, asContact = false): Promise<Result<string, SortFailure>> {
  const found = await app.manager.findOneByOrFail(IncomingMail, { id: mailId });
  if (found.state === 'taken') return fail({ code: 'mail.sorted_already' });
  const raw = await readFile(app.files.pathOf(found.hash)).catch(() => undefined);
  const mail = raw && (await readBeside(app.work, raw, found.fromEmail).catch(() => null));
  if (!mail || mail.fromEmail === '') return fail({ code: 'mail.unreadable' });
  const stored = await storeFiles(app, mail.files);
  return app.write<string, SortFailure>(async (tx, now) => {
    const row = await tx.findOneOrFail(IncomingMail, { where: { id: mailId }, lock: { mode: 'pessimistic_write' } });
    if (row.state === 'taken') return fail({ code: 'mail.sorted_already' });
    const { clientId, requestId } = row;
    const [client] = await rowsOf<{ name: string; contactId: string | null }>(
      tx,
      `select c.name, (select x.id from contacts x where x.client_id = c.id and lower(x.email) = $2 and x.archived_at is null) as "contactId"
       from clients c where c.id = $1`,
      [clientId, mail.fromEmail],
    );
    if (!client) throw new Error('the client went away');
    const name = plain(mail.fromName).slice(0, 100) || mail.fromEmail.slice(0, 100);
    const known =
      client.contactId ?? (asContact ? await addContact(tx, clientId, { name, email: mail.fromEmail, actor: viewer.name }, now) : null);
    if (requestId !== null) {
      await tx.update(IncomingMail, mailId, { state: 'taken', reason: null });
      const put = await putMailAnswer(app, tx, { clientId, mail, requestId, name, stored }, now);
      return put.ok ? ok(requestId) : put;
    }
    const { name: clientName } = client;
    return putMailRequest(app, tx, { mailId, clientId, clientName, mail, contactId: known, name, stored, takenBy: viewer.name }, now);
  });
}

const recordMail = (tx: Tx, clientId: string, verb: string, actor: string, subject: string, at: InstantText): Promise<void> =>
  recordActivity(tx, { clientId, thing: 'client', thingId: clientId, verb, actor, detail: { subject: plain(subject) }, at });

/** Leaves a mail that is no request, or lets it wait again. */
export function leaveMail(
  app: App,
  viewer: Viewer,
  mailId: string,
  state: 'left' | 'waiting',
): Promise<Result<null, { code: 'mail.sorted_already' }>> {
  return app.write<null, { code: 'mail.sorted_already' }>(async (tx, now) => {
    const row = await tx.findOneOrFail(IncomingMail, { where: { id: mailId }, lock: { mode: 'pessimistic_write' } });
    if (row.state === 'taken') return fail({ code: 'mail.sorted_already' });
    await tx.update(IncomingMail, mailId, { state });
    await recordMail(tx, row.clientId, state === 'left' ? 'client.mail_left' : 'client.mail_waits_again', viewer.name, row.subject, now);
    return ok(null);
  });
}

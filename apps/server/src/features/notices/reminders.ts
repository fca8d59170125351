import {
  addDays,
  asksClient,
  awaited,
  dayIn,
  dayInWords,
  getDay,
  isQuiet,
  ok,
  reminderDue,
  timeIn,
  type Day,
  type DecisionFact,
  type InstantText,
  type PartDigests,
  type ReminderStage,
} from '@zesting/core';
import type { App } from '../../platform/app.js';
import { rowsOf, type Tx } from '../../platform/database/transaction.js';
import { queueMail, type MailItem } from '../../platform/mail/mail.js';
import {
  clientKey,
  decisionFacts,
  firstToday,
  getDoer,
  goneFrom,
  isFreeStep,
  loadCalendars,
  loadDuties,
  waitingDays,
  toAsked,
  isClientsStep,
  type AskedRow,
  type CalendarBook,
} from '../planning/index.js';
import { hello, quietHours, tell, tellManagers } from './tell.js';
import { Reminder } from './entities/reminder.entity.js';

interface Sent {
  readonly stages: ReminderStage[];
}

/**
 * Reminds contacts and doers by working-time rules: half-way, on the due day, and past it their manager instead. What was acted
 * upon is not open any more, and so is reminded of no longer. Each is sent once; a contact gets one mail for all that is due.
 */
export async function sendReminders(app: App): Promise<number> {
  const result = await app.write(async (tx, now) => {
    await tx.query('select pg_advisory_xact_lock(4311)'); // one server at a time: none is sent twice
    const [agency] = await rowsOf<{ quiet_from: string; quiet_to: string }>(tx, 'select quiet_from, quiet_to from agencies');
    if (!agency) return ok(0);
    const quiet = quietHours(agency);
    const isAwake = (zone: string): boolean => !isQuiet(quiet, timeIn(now, zone));
    const book = await loadCalendars(tx, now);
    return ok(
      (await remindContacts(app, tx, book, now, isAwake)) +
        (await remindOfQuestions(app, tx, book, now, isAwake)) +
        (await remindOfMaterial(app, tx, book, now, isAwake)) +
        (await remindDoers(app, tx, book, now, isAwake)) +
        (await remindOfDuties(app, tx, book, now, isAwake)),
    );
  });
  return result.ok ? result.value : 0;
}

/** Whether a party's clock stands outside the quiet hours: nobody is reminded within them. */
type IsAwake = (zone: string) => boolean;

async function sentStages(tx: Tx, thing: string, thingId: string, receiverId: string, dueOn: string): Promise<Sent> {
  const rows = await rowsOf<{ stage: ReminderStage }>(
    tx,
    'select stage from reminders where thing = $1 and thing_id = $2 and receiver_id = $3 and due_on = $4',
    [thing, thingId, receiverId, dueOn],
  );
  return { stages: rows.map((row) => row.stage) };
}

const noteSent = (tx: Tx, thing: string, thingId: string, receiverId: string, stage: ReminderStage, dueOn: string, now: InstantText) =>
  tx.insert(Reminder, { thing, thingId, receiverId, stage, dueOn, sentAt: now });

interface PacketRow extends AskedRow {
  id: string;
  client_id: string;
  title: string;
  due_on: string;
  sent_at: string;
}

interface ItemRow {
  packet_id: string;
  round: number;
  digests: PartDigests;
  decisions: DecisionFact[];
}

/** The contacts whose word each packet that is out still waits for. */
export async function awaitedOf(tx: Tx, packets: readonly (AskedRow & { readonly id: string })[]): Promise<Map<string, string[]>> {
  const items = await rowsOf<ItemRow>(
    tx,
    `select i.packet_id, i.round, v.digests, ${decisionFacts('i.piece_id')} as decisions
     from packet_items i join versions v on v.id = i.version_id where i.packet_id = any($1) and i.outcome is null`,
    [packets.map((packet) => packet.id)],
  );
  return new Map(
    packets.map((packet) => [
      packet.id,
      packet.approver_ids.filter((id) =>
        items.some(
          (item) =>
            item.packet_id === packet.id &&
            awaited(toAsked(packet, item.round), item.decisions, [item.digests.shared, ...Object.values(item.digests.channels)]).includes(
              id,
            ),
        ),
      ),
    ]),
  );
}

interface ContactRow {
  id: string;
  name: string;
  email: string;
  link_generation: number;
}

async function remindContacts(app: App, tx: Tx, book: CalendarBook, now: InstantText, isAwake: IsAwake): Promise<number> {
  const packets = (
    await rowsOf<PacketRow>(
      tx,
      `select k.id, k.client_id, k.title, k.due_on, k.sent_at, k.policy, k.approver_ids, ${goneFrom('k.approver_ids')} as gone_ids from packets k join clients c on c.id = k.client_id
       where k.closed_at is null and c.archived_at is null order by k.due_on, k.id`,
    )
  ).filter((packet) => asksClient(packet.policy));
  const waiting = await awaitedOf(tx, packets);
  const perContact = new Map<string, { clientId: string; items: MailItem[] }>();
  let count = 0;
  for (const packet of packets) {
    const client = getDoer(book, clientKey(packet.client_id));
    if (!isAwake(client.zone)) continue;
    for (const contactId of waiting.get(packet.id) ?? []) {
      const { stages } = await sentStages(tx, 'packet', packet.id, contactId, packet.due_on);
      const cameOn = dayIn(packet.sent_at, client.zone);
      const stage = reminderDue({ calendar: client.calendar, cameOn, dueOn: getDay(packet.due_on), todayOn: client.todayOn, sent: stages });
      if (stage === null) continue;
      await noteSent(tx, 'packet', packet.id, contactId, stage, packet.due_on, now);
      count += 1;
      if (stage === 'past_due') await tellPastDue(app, tx, packet, contactId);
      else {
        const entry = perContact.get(contactId) ?? { clientId: packet.client_id, items: [] };
        entry.items.push({
          text: `${packet.title}: an answer is due ${stage === 'due_day' ? 'today' : `by ${dayInWords(getDay(packet.due_on))}`}`,
          address: '',
        });
        perContact.set(contactId, entry);
      }
    }
  }
  for (const [contactId, { items }] of perContact) await mailContact(app, tx, contactId, items);
  return count;
}

async function tellPastDue(app: App, tx: Tx, packet: PacketRow, contactId: string): Promise<void> {
  const [contact] = await rowsOf<{ name: string }>(tx, 'select name from contacts where id = $1', [contactId]);
  await tellManagers(app, tx, {
    clientId: packet.client_id,
    heading: `No answer yet: ${packet.title}`,
    text: `${contact?.name ?? 'The contact'} has not answered “${packet.title}”, due ${dayInWords(getDay(packet.due_on))}.`,
    path: `/sign-off?packet=${packet.id}`,
    key: `past-due:${packet.id}`,
  });
}

const DECIDING = { title: 'These wait for your word', link: 'Look and decide', several: 'packets wait for your word' };

async function mailContact(app: App, tx: Tx, contactId: string, items: readonly MailItem[], words = DECIDING): Promise<void> {
  const [contact] = await rowsOf<ContactRow>(
    tx,
    'select id, name, email, link_generation from contacts where id = $1 and archived_at is null',
    [contactId],
  );
  if (!contact) return;
  const address = app.links.address('room', contact.id, contact.link_generation);
  await queueMail(tx, {
    to: contact.email,
    subject: items.length === 1 ? `A reminder: ${items[0]?.text ?? ''}` : `A reminder: ${items.length} ${words.several}`,
    paragraphs: [hello(contact.name)],
    lists: [{ title: words.title, ordered: false, items: items.map((item) => ({ ...item, address })) }],
    links: [{ text: words.link, address }],
  });
}

interface QuestionsRow {
  id: string;
  client_id: string;
  contact_id: string;
  contact_name: string;
  title: string;
  due_on: string;
  asked_at: string;
  open: number;
}

/** Reminds contacts of questions with a day by which they would help; once it has passed, their manager hears of it instead. */
async function remindOfQuestions(app: App, tx: Tx, book: CalendarBook, now: InstantText, isAwake: IsAwake): Promise<number> {
  const rows = await rowsOf<QuestionsRow>(
    tx,
    `select v.id, v.client_id, v.contact_id, x.name as contact_name, v.title, v.due_on, v.asked_at, count(*)::int as open
     from interviews v join interview_questions q on q.interview_id = v.id and q.answer = '' join contacts x on x.id = v.contact_id and x.archived_at is null
       join clients c on c.id = v.client_id and c.archived_at is null
     where v.closed_at is null and v.due_on is not null group by v.id, x.id order by v.due_on, v.id`,
  );
  let told = 0;
  for (const row of rows) {
    const client = getDoer(book, clientKey(row.client_id));
    if (!isAwake(client.zone)) continue;
    const { stages } = await sentStages(tx, 'interview', row.id, row.contact_id, row.due_on);
    const dueOn = getDay(row.due_on);
    const cameOn = dayIn(row.asked_at, client.zone);
    const stage = reminderDue({ calendar: client.calendar, cameOn, dueOn, todayOn: client.todayOn, sent: stages });
    if (stage === null) continue;
    await noteSent(tx, 'interview', row.id, row.contact_id, stage, row.due_on, now);
    told += 1;
    const left = row.open === 1 ? 'one question' : `${row.open} questions`;
    if (stage === 'past_due')
      await tellManagers(app, tx, {
        clientId: row.client_id,
        heading: `Not answered: ${row.title}`,
        text: `${row.contact_name} has ${left} left in “${row.title}”, which would have helped by ${dayInWords(dueOn)}.`,
        path: `/plan/questions?interview=${row.id}`,
        key: `past-due:${row.id}`,
      });
    else
      await mailContact(
        app,
        tx,
        row.contact_id,
        [{ text: `${row.title}: ${left} left, ${stage === 'due_day' ? 'today' : `by ${dayInWords(dueOn)}`}`, address: '' }],
        { title: 'We would like to know', link: 'Answer in your room', several: 'sets of questions wait for you' },
      );
  }
  return told;
}

interface AwaitedRow {
  step_id: string;
  client_id: string;
  contact_id: string;
  contact_name: string;
  step_title: string;
  piece_id: string;
  piece_title: string;
  due_on: string;
  asked_at: string;
}

/** Reminds contacts of what they were asked to bring, in one mail each; once its day has passed, whoever manages the client hears of it instead. */
async function remindOfMaterial(app: App, tx: Tx, book: CalendarBook, now: InstantText, isAwake: IsAwake): Promise<number> {
  const rows = await rowsOf<AwaitedRow>(
    tx,
    `select y.step_id, p.client_id, y.contact_id, x.name as contact_name, s.title as step_title, p.id as piece_id, p.title as piece_title, y.due_on, y.asked_at
     from deliveries y join steps s on s.id = y.step_id and s.finished_on is null join pieces p on p.id = y.piece_id and not p.shelved
       join contacts x on x.id = y.contact_id and x.archived_at is null join clients c on c.id = p.client_id and c.archived_at is null
     where y.brought_at is null order by y.due_on, y.step_id`,
  );
  const perContact = new Map<string, MailItem[]>();
  let told = 0;
  for (const row of rows) {
    const client = getDoer(book, clientKey(row.client_id));
    if (!isAwake(client.zone)) continue;
    const { stages } = await sentStages(tx, 'delivery', row.step_id, row.contact_id, row.due_on);
    const dueOn = getDay(row.due_on);
    const cameOn = dayIn(row.asked_at, client.zone);
    const stage = reminderDue({ calendar: client.calendar, cameOn, dueOn, todayOn: client.todayOn, sent: stages });
    if (stage === null) continue;
    await noteSent(tx, 'delivery', row.step_id, row.contact_id, stage, row.due_on, now);
    told += 1;
    const what = `${row.step_title}: ${row.piece_title}`;
    if (stage === 'past_due')
      await tellManagers(app, tx, {
        clientId: row.client_id,
        pieceId: row.piece_id,
        heading: `Has not come: ${row.step_title}, ${row.piece_title}`,
        text: `${row.contact_name} was to bring “${row.step_title}” of “${row.piece_title}” by ${dayInWords(dueOn)}.`,
        path: `/pieces/${row.piece_id}#material`,
        key: `past-due:${row.step_id}`,
      });
    else
      perContact.set(row.contact_id, [
        ...(perContact.get(row.contact_id) ?? []),
        { text: `${what}, ${stage === 'due_day' ? 'today' : `by ${dayInWords(dueOn)}`}`, address: '' },
      ]);
  }
  for (const [contactId, items] of perContact)
    await mailContact(app, tx, contactId, items, {
      title: 'We wait for this from you',
      link: 'Bring it to your room',
      several: 'things are awaited from you',
    });
  return told;
}

/** So long a missed duty is still told of: what lies further back has been seen. */
const TOLD_DAYS = 14;

/** Reminds of duties as of steps; of one that was missed hear those who manage its client, of the agency's own who should have done it. */
async function remindOfDuties(app: App, tx: Tx, book: CalendarBook, now: InstantText, isAwake: IsAwake): Promise<number> {
  const since = addDays(firstToday(book), -TOLD_DAYS);
  const duties = await loadDuties(tx, book, since);
  const sent = await rowsOf<{ key: string; stage: ReminderStage }>(
    tx,
    "select concat_ws(' ', thing_id, receiver_id, due_on) as key, stage from reminders where thing = 'duty' and due_on >= $1",
    [since],
  );
  let count = 0;
  for (const { duty, day } of duties.flatMap((duty) => waitingDays(duty, book, since).map((day) => ({ duty, day })))) {
    const doer = getDoer(book, day.personId);
    if (!isAwake(doer.zone) || day.dueOn < since) continue;
    const key = `${duty.id} ${day.personId} ${day.dueOn}`;
    const stages = sent.flatMap((row) => (row.key === key ? [row.stage] : []));
    const stage = reminderDue({ calendar: doer.calendar, cameOn: day.startOn, dueOn: day.dueOn, todayOn: doer.todayOn, sent: stages });
    if (stage === null) continue;
    await noteSent(tx, 'duty', duty.id, day.personId, stage, day.dueOn, now);
    count += 1;
    if (stage === 'past_due' && duty.clientId !== null)
      await tellManagers(app, tx, {
        clientId: duty.clientId,
        heading: `Missed: ${duty.title}`,
        text: `“${duty.title}” was due on ${dayInWords(day.dueOn)} and is not done.`,
        path: `/plan/duties?client=${await codeOf(tx, duty.clientId)}`,
        key: `past-due:${duty.id}`,
      });
    else
      await tell(app, tx, day.personId, {
        clientId: duty.clientId,
        heading: stage === 'past_due' ? `Missed: ${duty.title}` : `A reminder: ${duty.title}`,
        text: `“${duty.title}” ${stage === 'past_due' ? `was due on ${dayInWords(day.dueOn)}` : `is due ${stage === 'due_day' ? 'today' : `by ${dayInWords(day.dueOn)}`}`}.`,
        path: '/',
        key: `reminder:${duty.id}`,
      });
  }
  return count;
}

async function codeOf(tx: Tx, clientId: string): Promise<string> {
  const [client] = await rowsOf<{ code: string }>(tx, 'select code from clients where id = $1', [clientId]);
  return client?.code ?? '';
}

interface StepRow {
  id: string;
  doer_id: string;
  title: string;
  piece_id: string;
  piece_title: string;
  client_id: string;
  latest_finish_on: string;
  came_on: string;
}

async function remindDoers(app: App, tx: Tx, book: CalendarBook, now: InstantText, isAwake: IsAwake): Promise<number> {
  const steps = await rowsOf<StepRow>(
    tx,
    `select s.id, s.doer_id, s.title, p.id as piece_id, p.title as piece_title, p.client_id, s.latest_finish_on,
       greatest(s.assigned_on, (select max(b.finished_on) from steps b where b.id = any(s.predecessor_ids)),
         case when s.predecessor_ids = '{}' then (p.created_at at time zone d.zone)::date end) as came_on
     from steps s join pieces p on p.id = s.piece_id join people d on d.id = s.doer_id and d.active join clients c on c.id = p.client_id
     where s.finished_on is null and not ${isClientsStep('s')} and s.latest_finish_on is not null and not p.shelved and c.archived_at is null
       and ${isFreeStep('s')}
     order by s.latest_finish_on, p.number`,
  );
  let count = 0;
  for (const step of steps) {
    const doer = getDoer(book, step.doer_id);
    if (!isAwake(doer.zone)) continue;
    const { stages } = await sentStages(tx, 'step', step.id, step.doer_id, step.latest_finish_on);
    const dueOn: Day = getDay(step.latest_finish_on);
    const stage = reminderDue({ calendar: doer.calendar, cameOn: getDay(step.came_on), dueOn, todayOn: doer.todayOn, sent: stages });
    if (stage === null) continue;
    await noteSent(tx, 'step', step.id, step.doer_id, stage, step.latest_finish_on, now);
    count += 1;
    const path = `/pieces/${step.piece_id}`;
    const what = `“${step.title}” of “${step.piece_title}”`;
    if (stage === 'past_due')
      await tellManagers(app, tx, {
        clientId: step.client_id,
        pieceId: step.piece_id,
        heading: `Past due: ${step.title}, ${step.piece_title}`,
        text: `${what} was due on ${dayInWords(dueOn)} and is not done.`,
        path,
        key: `past-due:${step.id}`,
      });
    else
      await tell(app, tx, step.doer_id, {
        clientId: step.client_id,
        heading: `A reminder: ${step.title}, ${step.piece_title}`,
        text: `${what} is due ${stage === 'due_day' ? 'today' : `by ${dayInWords(dueOn)}`}.`,
        path,
        key: `reminder:${step.id}`,
      });
  }
  return count;
}

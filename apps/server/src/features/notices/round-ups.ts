import { addDays, dayInWords, getDay, ok, RECKONING_LISTS, type InstantText } from '@zesting/core';
import { managesToday } from '../../platform/access/viewers.js';
import type { App } from '../../platform/app.js';
import { rowsOf, type Tx } from '../../platform/database/transaction.js';
import { queueMail, type MailItem } from '../../platform/mail/mail.js';
import {
  dueDuties,
  firstToday,
  getDoer,
  isFreeStep,
  loadCalendars,
  loadDuties,
  MISSED_DAYS,
  openPlacementWork,
} from '../planning/index.js';
import { hello } from './tell.js';
import { In } from 'typeorm';
import { Notice } from './entities/notice.entity.js';

interface PersonRow {
  id: string;
  name: string;
  email: string;
  role: string;
  zone: string;
}

interface NoticeRow {
  id: number;
  code: string | null;
  heading: string;
  text: string;
  path: string;
}

/** The most lines of outstanding work in one mail; the rest is counted. */
const SHOWN = 15;

/** Sends every round-up that is due: one mail per person, with all that waits for them. Returns how many mails went out. */
export async function sendRoundUps(app: App): Promise<number> {
  const people = await app.read<{ person_id: string }>(
    'select distinct person_id from notices where sent_at is null and due_at <= $1 order by person_id',
    [app.clock.now()],
  );
  let sent = 0;
  for (const { person_id: personId } of people) {
    const result = await app.write(async (tx, now) => ok(await sendTo(app, tx, personId, now)));
    if (result.ok && result.value) sent += 1;
  }
  return sent;
}

async function sendTo(app: App, tx: Tx, personId: string, now: InstantText): Promise<boolean> {
  const [person] = await rowsOf<PersonRow>(tx, 'select id, name, email, role, zone from people where id = $1 and active for update', [
    personId,
  ]);
  // what is due takes along what would be due a moment later; the lock keeps two servers from sending twice
  const notices = await rowsOf<NoticeRow>(
    tx,
    `select n.id, c.code, n.heading, n.text, n.path from notices n left join clients c on c.id = n.client_id
     where n.person_id = $1 and n.sent_at is null order by n.id for update of n`,
    [personId],
  );
  if (notices.length === 0) return false;
  await tx.update(Notice, { id: In(notices.map((notice) => notice.id)) }, { sentAt: now });
  if (!person) return false;
  const [first] = notices;
  const work = await outstanding(app, tx, person, now);
  await queueMail(tx, {
    to: person.email,
    subject: notices.length === 1 ? (first?.heading ?? '') : `${first?.heading ?? ''}, and ${notices.length - 1} more`,
    paragraphs: [hello(person.name)],
    lists: [
      {
        title: notices.length === 1 ? 'What is new' : `What is new (${notices.length})`,
        ordered: false,
        items: notices.map((notice) => ({
          text: `${notice.code ? `${notice.code} ` : ''}${notice.text}`,
          address: app.address(notice.path),
        })),
      },
      ...(work.length > 0 ? [{ title: 'Yours to do, in this order', ordered: true, items: work }] : []),
    ],
    links: [{ text: 'Your desk', address: app.address('/') }],
  });
  return true;
}

/** What the person has to do, in the order to do it: own steps at hand for makers, what needs them on the desk for managers. */
async function outstanding(app: App, tx: Tx, person: PersonRow, now: InstantText): Promise<MailItem[]> {
  const steps = await rowsOf<{ piece_id: string; code: string; title: string; step: string; by: string | null }>(
    tx,
    `select p.id as piece_id, c.code, p.title, s.title as step, s.latest_finish_on as by from steps s
     join pieces p on p.id = s.piece_id join clients c on c.id = p.client_id
     where s.doer_id = $1 and s.finished_on is null and not p.shelved and c.archived_at is null
       and ${isFreeStep('s')}
     order by s.latest_finish_on nulls last, p.number limit 100`,
    [person.id],
  );
  const items = steps.map(({ piece_id: id, code, title, step, by }) => ({
    text: `${code} ${title}: ${step}${by ? `, by ${dayInWords(getDay(by))}` : ''}`,
    address: app.address(`/pieces/${id}`),
  }));
  const desk = person.role === 'manager' ? await deskItems(app, tx, person, now) : [];
  const all = [...(await dutyItems(app, tx, person, now)), ...(await aroundItems(app, tx, person, now)), ...items, ...desk];
  return all.length <= SHOWN ? all : [...all.slice(0, SHOWN), { text: `and ${all.length - SHOWN} more`, address: app.address('/') }];
}

/** The person's duties that can be done now, or were missed: they take little, and most are due today. */
async function dutyItems(app: App, tx: Tx, person: PersonRow, now: InstantText): Promise<MailItem[]> {
  const mine = await rowsOf<{ id: string; code: string | null }>(
    tx,
    'select d.id, c.code from duties d left join clients c on c.id = d.client_id where d.lead_id = $1 or d.second_id = $1',
    [person.id],
  );
  if (mine.length === 0) return [];
  const book = await loadCalendars(tx, now);
  const codes = new Map(mine.map(({ id, code }) => [id, code]));
  const duties = await loadDuties(tx, book, addDays(firstToday(book), -MISSED_DAYS), [...codes.keys()]);
  return dueDuties(duties, book).flatMap(({ duty, day }) => {
    if (day.personId !== person.id) return [];
    const by = day.state === 'missed' ? `missed on ${dayInWords(day.dueOn)}` : `by ${dayInWords(day.dueOn)}`;
    const code = codes.get(duty.id);
    return [{ text: `${code ? `${code} ` : ''}${duty.title}, ${by}`, address: app.address('/') }];
  });
}

/** What the person puts into channels, or does once it is out, by tomorrow: what is not signed yet is put nowhere. */
async function aroundItems(app: App, tx: Tx, person: PersonRow, now: InstantText): Promise<MailItem[]> {
  const named = await rowsOf<{ clientId: string; code: string }>(
    tx,
    `select c.id as "clientId", c.code from clients c where exists (select 1 from follow_up_lists l where l.client_id = c.id and l.items @> jsonb_build_array(jsonb_build_object('personId', $1::text)))
       or exists (select 1 from follow_ups f where f.client_id = c.id and f.person_id = $1::uuid and f.state = 'open')`,
    [person.id],
  );
  if (named.length === 0) return [];
  const book = await loadCalendars(tx, now);
  const until = addDays(getDoer(book, person.id).todayOn, 1);
  const codes = new Map(named.map(({ clientId, code }) => [clientId, code]));
  const work = (await openPlacementWork(tx, book, until, [...codes.keys()])).filter((one) => one.personId === person.id && one.isSigned);
  if (work.length === 0) return [];
  const titles = await rowsOf<{ id: string; title: string }>(tx, 'select id, title from pieces where id = any($1)', [
    work.map(({ pieceId }) => pieceId),
  ]);
  const titleOf = new Map(titles.map(({ id, title }) => [id, title]));
  return work.map(({ words, pieceId, clientId, dueOn }) => ({
    text: `${codes.get(clientId) ?? ''} ${words}: ${titleOf.get(pieceId) ?? ''}, by ${dayInWords(dueOn)}`,
    address: app.address('/calendar/going-out'),
  }));
}

const LIST_TEXT: Record<string, string> = {
  trouble: 'its time passed, and it is not marked as out',
  out_of_reach: 'its date cannot be met',
  overdue: 'overdue',
  changed_after_sign_off: 'changed after sign-off',
  returned: 'returned by the client',
  will_be_late: 'will be late',
  no_doer: 'nobody has the next step',
  to_be_asked: 'the client is to be asked for something',
  with_client_past_due: 'with the client, past due',
  to_be_sent: 'to be sent',
  signed_undated: 'signed, without a date',
};

async function deskItems(app: App, tx: Tx, person: PersonRow, now: InstantText): Promise<MailItem[]> {
  const rows = await rowsOf<{ id: string; code: string; title: string; list: string }>(
    tx,
    `select p.id, c.code, p.title, p.list from pieces p join clients c on c.id = p.client_id
     where c.archived_at is null and p.list = any($2) and ${managesToday('$1', 'c.id', '$3')}
     order by array_position($4::text[], p.list), p.late_from_on nulls last, p.slack_days nulls last, p.created_at limit 100`,
    [person.id, Object.keys(LIST_TEXT), now, [...RECKONING_LISTS]],
  );
  return rows.map(({ id, code, title, list }) => ({
    text: `${code} ${title}: ${LIST_TEXT[list] ?? ''}`,
    address: app.address(`/pieces/${id}`),
  }));
}

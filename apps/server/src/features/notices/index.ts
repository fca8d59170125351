import type { InstantText } from '@zesting/core';
import type { Tx } from '../../platform/database/transaction.js';
import { rowsOf } from '../../platform/database/transaction.js';
import type { App } from '../../platform/app.js';
import { queueMail } from '../../platform/mail/mail.js';

interface Addressee {
  email: string;
  name: string;
}

const hello = (name: string): string => `Hello ${name.split(' ')[0] ?? name},`;

/**
 * Those who manage a client: its managers, where one is covered for today whoever covers, else the leads.
 * @param now whose date the cover goes by is the absent manager's
 */
export const managersOf = (tx: Tx, clientId: string, now: InstantText): Promise<Addressee[]> =>
  rowsOf<Addressee>(
    tx,
    `with own as (
       select distinct coalesce(u.id, p.id) as id from people p join client_people c on c.person_id = p.id
       left join covers v on v.manager_id = p.id and ($2::timestamptz at time zone p.zone)::date between v.start_on and v.end_on
       left join people u on u.id = v.cover_id and u.active
       where c.client_id = $1 and c.relation = 'own' and p.role = 'manager' and p.active)
     select id, email, name from people where id in (select id from own) or (role = 'lead' and active and not exists (select 1 from own)) order by name`,
    [clientId, now],
  );

/** Tells the managers of a client something, with a link to the place. */
export async function tellManagers(app: App, tx: Tx, clientId: string, subject: string, text: string, path: string): Promise<void> {
  for (const manager of await managersOf(tx, clientId, app.clock.now()))
    await queueMail(tx, {
      to: manager.email,
      subject,
      paragraphs: [hello(manager.name), text],
      links: [{ text: 'Open it', address: app.address(path) }],
    });
}

interface OpenStep {
  step: string;
  title: string;
  code: string;
  latest_finish_on: string | null;
  at_hand: boolean;
}

/** Tells a person that a step is at hand, with everything that is theirs to do, in the order to do it. */
export async function tellDoer(app: App, tx: Tx, personId: string, subject: string, text: string, path: string): Promise<void> {
  const [person] = await rowsOf<Addressee>(tx, 'select email, name from people where id = $1 and active', [personId]);
  if (!person) return;
  const open = await rowsOf<OpenStep>(
    tx,
    `select s.title as step, p.title, c.code, s.latest_finish_on,
       not exists (select 1 from steps b where b.id = any(s.predecessor_ids) and b.finished_on is null) as at_hand
     from steps s join pieces p on p.id = s.piece_id join clients c on c.id = p.client_id
     where s.doer_id = $1 and s.finished_on is null and not p.shelved
     order by s.latest_finish_on nulls last, p.number limit 20`,
    [personId],
  );
  const lines = open
    .filter((step) => step.at_hand)
    .map(
      (step, index) =>
        `${index + 1}. ${step.code} ${step.title}: ${step.step}${step.latest_finish_on ? `, by ${step.latest_finish_on}` : ''}`,
    );
  await queueMail(tx, {
    to: person.email,
    subject,
    paragraphs: [hello(person.name), text, ...(lines.length > 0 ? [`Yours to do, in this order:\n${lines.join('\n')}`] : [])],
    links: [
      { text: 'Open it', address: app.address(path) },
      { text: 'All your steps', address: app.address('/') },
    ],
  });
}

/** Tells a contact or requester something, with their personal link. */
export async function tellOutside(
  tx: Tx,
  to: Addressee,
  subject: string,
  paragraphs: readonly string[],
  link: { text: string; address: string },
): Promise<void> {
  await queueMail(tx, { to: to.email, subject, paragraphs: [hello(to.name), ...paragraphs], links: [link] });
}

import type { InviteShape } from '@zesting/contract';
import { fail, ok, type InstantText, type Result } from '@zesting/core';
import type { App } from '../../../platform/app.js';
import { rowsOf, type Tx } from '../../../platform/database/transaction.js';
import { addJob } from '../../../platform/jobs/jobs.js';
import { forgiveAccount, hashPassword, isEasilyGuessed } from '../../identity/index.js';
import { tellOutside } from '../../notices/index.js';
import type { Person } from '../entities/person.entity.js';
import { lockPerson, recordPerson } from './edit-person.js';
import { IsNull } from 'typeorm';
import { PasswordReset } from '../entities/password-reset.entity.js';

/** The job that answers a forgotten password. */
export const ANSWER_FORGOTTEN = 'answer_forgotten';

/** How long a link for a new password opens, and how many of them a person is sent within that time. */
const OPEN_HOURS = 1;
const MOST_WITHIN = 3;

type Easy = { code: 'password.easily_guessed' };

/** Sets the password by an invitation's link, which closes with it; every session of the person ends. */
export async function answerInvite(app: App, personId: string, password: string): Promise<Result<null, Easy>> {
  if (await isEasy(app, personId, password)) return fail({ code: 'password.easily_guessed' });
  const passwordHash = await hashPassword(password);
  return app.write<null, Easy>(async (tx, now) => {
    const person = await lockPerson(tx, personId);
    const isFirst = person.passwordHash === null;
    await setPassword(tx, person, passwordHash, now);
    if (!isFirst) await tellChanged(app, tx, person);
    return ok(null);
  });
}

/** Puts off what follows a forgotten password, so that the answer is the same, and as quick, whoever was named. */
export async function forgotten(app: App, email: string): Promise<void> {
  await app.write(async (tx) => ok(await addJob(tx, ANSWER_FORGOTTEN, { email }, { tries: 5 })));
}

/** Sends a link for a new password to who works here under that address. Three within an hour are sent at most. */
export async function answerForgotten(app: App, email: string): Promise<void> {
  await app.write(async (tx, now) => {
    const [found] = await rowsOf<{ id: string }>(tx, 'select id from people where lower(email) = lower($1) and active', [email.trim()]);
    if (!found) return ok(null);
    const person = await lockPerson(tx, found.id);
    const [count] = await rowsOf<{ open: number }>(
      tx,
      'select count(*)::int as open from password_resets where person_id = $1 and ends_at > $2',
      [person.id, now],
    );
    if (!person.active || (count?.open ?? 0) >= MOST_WITHIN) return ok(null);
    const [made] = await rowsOf<{ id: string }>(
      tx,
      `insert into password_resets (person_id, asked_at, ends_at) values ($1, $2, $2::timestamptz + interval '${OPEN_HOURS} hour') returning id`,
      [person.id, now],
    );
    await tellOutside(
      tx,
      person,
      'A new password',
      [
        'Somebody asked for a new password for you. Open the link within an hour and choose one. If it was not you, do nothing: all stays as it is.',
      ],
      { text: 'Choose a new password', address: app.links.address('reset', made?.id ?? '', 1) },
    );
    return ok(null);
  });
}

/** Sets the password by a link that was sent; it and all other such links of the person close, every session ends. */
export async function answerReset(
  app: App,
  resetId: string,
  password: string,
): Promise<Result<null, Easy | { code: 'access.link_not_open' }>> {
  const [reset] = await app.read<{ person_id: string }>('select person_id from password_resets where id = $1', [resetId]);
  if (!reset) return fail({ code: 'access.link_not_open' });
  if (await isEasy(app, reset.person_id, password)) return fail({ code: 'password.easily_guessed' });
  const passwordHash = await hashPassword(password);
  return app.write<null, Easy | { code: 'access.link_not_open' }>(async (tx, now) => {
    const person = await lockPerson(tx, reset.person_id);
    const open = await rowsOf(tx, 'select 1 from password_resets where id = $1 and used_at is null and ends_at > $2', [resetId, now]);
    if (open.length === 0 || !person.active) return fail({ code: 'access.link_not_open' });
    await setPassword(tx, person, passwordHash, now);
    await tellChanged(app, tx, person);
    return ok(null);
  });
}

/** Links that were sent and have ended are of no use a day later. */
export const clearResets = (app: App): Promise<unknown> =>
  app.read("delete from password_resets where ends_at < $1::timestamptz - interval '1 day'", [app.clock.now()]);

/** Whose password is chosen. */
export async function whoseOf(app: App, personId: string): Promise<InviteShape> {
  const [row] = await app.read<InviteShape>(
    'select p.name, p.email, a.name as "agencyName" from people p cross join agencies a where p.id = $1',
    [personId],
  );
  if (!row) throw new Error('the person went away');
  return row;
}

const isEasy = async (app: App, personId: string, password: string): Promise<boolean> =>
  isEasilyGuessed(password, Object.values(await whoseOf(app, personId)) as string[]); // its members are texts

/** Whoever had the old password, or a link for a new one, has nothing any more. */
async function setPassword(tx: Tx, person: Person, passwordHash: string, now: InstantText): Promise<void> {
  person.passwordHash = passwordHash;
  person.linkGeneration += 1;
  await tx.save(person);
  await tx.update(PasswordReset, { personId: person.id, usedAt: IsNull() }, { usedAt: now });
  await endSessions(tx, person.id);
  await forgiveAccount(tx, person.email);
  await recordPerson(tx, person, person.id, 'person.password_set', {}, now);
}

export const endSessions = (tx: Tx, personId: string): Promise<unknown> =>
  tx.query("delete from sessions where sess ->> 'personId' = $1", [personId]);

const tellChanged = (app: App, tx: Tx, person: Person): Promise<string> =>
  tellOutside(
    tx,
    person,
    'Your password was changed',
    ['Your password was changed, and you were signed out everywhere. If it was not you, ask for a new one at once and tell a lead.'],
    { text: 'Ask for a new password', address: app.address('/forgotten') },
  );

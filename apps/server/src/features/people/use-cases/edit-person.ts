import { fail, ok, type InstantText, type Result } from '@zesting/core';
import type { EditPersonBody, NewPersonBody, PersonClientBody, RoundUpBody } from '@zesting/contract';
import type { Viewer } from '../../../platform/access/access.js';
import { changesBetween, recordActivity } from '../../../platform/activity.js';
import type { App } from '../../../platform/app.js';
import { rowsOf, type Tx } from '../../../platform/database/transaction.js';
import { dueAt, putOff, tellOutside } from '../../notices/index.js';
import { replanWhere } from '../../planning/index.js';
import { Person } from '../entities/person.entity.js';
import { In } from 'typeorm';
import { ClientPerson } from '../entities/client-person.entity.js';

/** Loads a person under lock; a missing one is a bug, since access was checked. */
export const lockPerson = (tx: Tx, personId: string): Promise<Person> =>
  tx.findOneOrFail(Person, { where: { id: personId }, lock: { mode: 'pessimistic_write' } });

/** Writes a line about a person. */
export const recordPerson = (
  tx: Tx,
  viewer: Pick<Viewer, 'name'>,
  personId: string,
  verb: string,
  detail: Readonly<Record<string, unknown>>,
  now: InstantText,
): Promise<void> => recordActivity(tx, { clientId: null, thing: 'person', thingId: personId, verb, actor: viewer.name, detail, at: now });

/** What is wrong with a person's skills: a level that there is not, or a skill that the agency's list has not. */
async function skillsRefused(tx: Tx, skills: Readonly<Record<string, unknown>>): Promise<SkillsRefused | null> {
  if (!Object.values(skills).every((level) => [1, 2, 3].includes(level as number))) return { code: 'person.skill_wrong' };
  const names = Object.keys(skills);
  const known = await rowsOf(tx, 'select 1 from skills where name = any($1)', [names]);
  return known.length < names.length ? { code: 'skill.unknown' } : null;
}
type SkillsRefused = { code: 'person.skill_wrong' | 'skill.unknown' };

const emailTaken = async (tx: Tx, email: string, exceptId: string | null): Promise<boolean> =>
  (await rowsOf(tx, 'select 1 from people where lower(email) = lower($1) and id is distinct from $2', [email, exceptId])).length > 0;

/** What everybody begins with. */
const FRESH = {
  active: true,
  mayEditForms: false,
  linkGeneration: 1,
  leftAt: null,
  roundUp: 'at_once',
  roundUpAt: '08:00',
  version: 1,
} as const;

/** The first lead of an agency that is set up, with the password they chose. */
export const addFirstLead = (
  tx: Tx,
  lead: Pick<Person, 'name' | 'email' | 'zone' | 'region' | 'weeklyMinutes'> & { readonly passwordHash: string },
): Promise<Person> => tx.save(tx.create(Person, { ...lead, ...FRESH, role: 'lead', skills: {} }));

/** Takes somebody on and sends the invitation: a link with which they choose a password. */
export function makePerson(
  app: App,
  viewer: Viewer,
  body: NewPersonBody,
): Promise<Result<string, { code: 'person.email_taken' } | SkillsRefused>> {
  return app.write<string, { code: 'person.email_taken' } | SkillsRefused>(async (tx, now) => {
    const refused = await skillsRefused(tx, body.skills);
    if (refused) return fail(refused);
    if (await emailTaken(tx, body.email, null)) return fail({ code: 'person.email_taken' });
    const person = await tx.save(
      tx.create(Person, {
        ...body,
        ...FRESH,
        passwordHash: null,
        ...(await roundUpOfNew(tx)),
      }),
    );
    await recordPerson(tx, viewer, person.id, 'person.made', { name: body.name, role: body.role }, now);
    await tellInvited(app, tx, viewer, person);
    return ok(person.id);
  });
}

/** The rhythm of messages that a new person begins with. */
async function roundUpOfNew(tx: Tx): Promise<Pick<Person, 'roundUp' | 'roundUpAt'>> {
  const [agency] = await rowsOf<Pick<Person, 'roundUp' | 'roundUpAt'>>(
    tx,
    'select round_up as "roundUp", round_up_at as "roundUpAt" from agencies',
  );
  return agency ?? { roundUp: 'at_once', roundUpAt: '08:00' };
}

/** Sends a new invitation, which also serves who forgot the password. Links sent before no longer open. */
export function invitePerson(app: App, viewer: Viewer, personId: string): Promise<Result<null, { code: 'person.has_left' }>> {
  return app.write<null, { code: 'person.has_left' }>(async (tx, now) => {
    const person = await lockPerson(tx, personId);
    if (!person.active) return fail({ code: 'person.has_left' });
    person.linkGeneration += 1;
    await tx.save(person);
    await recordPerson(tx, viewer, personId, 'person.invited', {}, now);
    await tellInvited(app, tx, viewer, person);
    return ok(null);
  });
}

/** Closes an invitation, or a link for a new password that a lead sent: it opens nothing any more. */
export function takeBackInvite(app: App, viewer: Viewer, personId: string): Promise<Result<null>> {
  return app.write(async (tx, now) => {
    const person = await lockPerson(tx, personId);
    person.linkGeneration += 1;
    await tx.save(person);
    await recordPerson(tx, viewer, personId, 'person.invitation_taken_back', {}, now);
    return ok(null);
  });
}

const tellInvited = (app: App, tx: Tx, viewer: Viewer, person: Person): Promise<string> =>
  tellOutside(
    tx,
    person,
    'Your place at the agency',
    [`${viewer.name} invites you to Zesting. Open the link and choose a password; it can be used once.`],
    { text: 'Choose a password', address: app.links.address('invite', person.id, person.linkGeneration) },
  );

type EditFailure = {
  code: 'http.changed_meanwhile' | 'person.email_taken' | SkillsRefused['code'] | 'person.last_lead' | 'access.not_found';
};
const EDITABLE = ['name', 'email', 'role', 'zone', 'region', 'weeklyMinutes', 'skills', 'mayEditForms'] as const;

/** Changes a person. What they have to do is planned anew in their changed hours. */
export function editPerson(
  app: App,
  viewer: Viewer,
  personId: string,
  body: EditPersonBody,
  version: number,
): Promise<Result<number, EditFailure>> {
  return app.write<number, EditFailure>(async (tx, now) => {
    const person = await lockPerson(tx, personId);
    if (person.version !== version) return fail({ code: 'http.changed_meanwhile' });
    const refused = body.skills && (await skillsRefused(tx, body.skills));
    if (refused) return fail(refused);
    if (body.email && (await emailTaken(tx, body.email, personId))) return fail({ code: 'person.email_taken' });
    if (body.role && body.role !== 'lead' && person.role === 'lead' && !(await hasOtherLead(tx, personId)))
      return fail({ code: 'person.last_lead' });
    const stateOf = async () => ({
      ...Object.fromEntries(EDITABLE.map((key) => [key, structuredClone(person[key])])),
      clients: await clientsOf(tx, personId),
    });
    const before = await stateOf();
    for (const key of EDITABLE) if (body[key] !== undefined) Object.assign(person, { [key]: body[key] });
    person.version += 1;
    await tx.save(person);
    if (body.clients) await putClients(tx, viewer, personId, body.clients);
    await recordPerson(tx, viewer, personId, 'person.edited', changesBetween(before, await stateOf()), now);
    await replanWhere(tx, { personId }, now);
    return ok(person.version);
  });
}

/** Whether anybody else is a lead; under lock, so that two last leads cannot both go. */
export const hasOtherLead = async (tx: Tx, personId: string): Promise<boolean> =>
  (await rowsOf(tx, "select id from people where role = 'lead' and active and id <> $1 order by id for update", [personId])).length > 0;

const clientsOf = (tx: Tx, personId: string) =>
  rowsOf<{ client: string; relation: string }>(
    tx,
    'select c.name as client, o.relation from client_people o join clients c on c.id = o.client_id where o.person_id = $1 order by c.name',
    [personId],
  );

/** Puts the relations to those clients that the viewer sees; others stay as they are. */
async function putClients(tx: Tx, viewer: Viewer, personId: string, clients: readonly PersonClientBody[]): Promise<void> {
  await tx.delete(ClientPerson, { personId, clientId: In([...viewer.clientIds]) });
  // of a client that is named twice the last word counts
  const relations = new Map(
    clients.filter((client) => viewer.clientIds.includes(client.clientId)).map((one) => [one.clientId, one.relation]),
  );
  const rows = [...relations].map(([clientId, relation]) => ({ clientId, personId, relation }));
  // the client's own page may be putting its managers at this moment
  if (rows.length > 0) await tx.upsert(ClientPerson, rows, ['clientId', 'personId']);
}

/** Sets how often a person's messages go out. What waits goes out by the new rhythm's next time. */
export function setRoundUp(app: App, personId: string, { rhythm, at }: RoundUpBody): Promise<Result<null>> {
  return app.write(async (tx, now) => {
    const person = await lockPerson(tx, personId);
    Object.assign(person, { roundUp: rhythm, roundUpAt: at });
    await tx.save(person);
    const due = await dueAt(app, tx, personId, now);
    if (due) await putOff(tx, personId, due);
    return ok(null);
  });
}

import { addDays, dayIn, getValue, ok } from '@zesting/core';
import { hashPassword, type App, type Viewer } from '@zesting/server';
import { AGENCY, CLIENTS, FORMATS, PASSWORD, PEOPLE, ROUTES, type ClientKey, type PersonKey, type RouteKey } from './story.js';

export interface SetupClient {
  readonly id: string;
  readonly formId: string;
  readonly channelIds: readonly string[];
  readonly pillarIds: readonly string[];
}

export interface Setup {
  readonly viewers: Record<PersonKey, Viewer>;
  readonly clients: Record<ClientKey, SetupClient>;
  readonly routes: Record<RouteKey, string>;
}

type Insert = (table: string, row: Record<string, unknown>) => Promise<string>;
const plain = (value: unknown): unknown =>
  typeof value === 'object' && value !== null && !Array.isArray(value) ? JSON.stringify(value) : value;

/** Writes what has no screens yet: the agency, its people, clients with channels, contacts and forms, routes. */
export async function insertSetup(app: App, now: string): Promise<Setup> {
  return getValue(
    await app.write(async (tx) => {
      const insert: Insert = async (table, row) => {
        const names = Object.keys(row);
        const [made] = (await tx.query(
          `insert into ${table} (${names.join(', ')}) values (${names.map((_, index) => `$${index + 1}`).join(', ')}) returning *`,
          Object.values(row).map(plain),
        )) as { id: string }[];
        return made?.id ?? '';
      };
      const today = dayIn(now, 'UTC');
      await insert('agencies', { name: AGENCY.name, zone: AGENCY.zone, region: AGENCY.region, weekly_minutes: AGENCY.weeklyMinutes });
      const people = await insertPeople(insert);
      await insert('time_off', { person_id: people.piet, start_on: addDays(today, 5), end_on: addDays(today, 6) });
      await insert('time_off', { person_id: people.noor, start_on: addDays(today, 9), end_on: addDays(today, 9), part: 0.5 });
      const routes = await insertRoutes(insert);
      const moss = await insertClient(insert, 'moss', routes, people);
      const kiln = await insertClient(insert, 'kiln', routes, people);
      await insert('client_closures', {
        client_id: moss.id,
        start_on: addDays(today, 13),
        end_on: addDays(today, 13),
        name: 'Stocktaking',
      });
      const viewer = (key: PersonKey): Viewer => {
        const { name, role, zone } = PEOPLE[key];
        return { personId: people[key], name, role, zone, clientIds: [moss.id, kiln.id] };
      };
      const viewers = { marta: viewer('marta'), dana: viewer('dana'), piet: viewer('piet'), noor: viewer('noor'), teo: viewer('teo') };
      return ok({ viewers, clients: { moss, kiln }, routes });
    }),
  );
}

async function insertPeople(insert: Insert): Promise<Record<PersonKey, string>> {
  const hash = await hashPassword(PASSWORD);
  const ids: Partial<Record<PersonKey, string>> = {};
  for (const [key, person] of Object.entries(PEOPLE))
    ids[key as PersonKey] = await insert('people', {
      name: person.name,
      email: person.email,
      password_hash: hash,
      role: person.role,
      zone: person.zone,
      region: person.region,
      weekly_minutes: person.week,
      skills: person.skills,
    });
  return ids as Record<PersonKey, string>; // filled above, one per key
}

async function insertRoutes(insert: Insert): Promise<Record<RouteKey, string>> {
  const formats = new Map<string, string>();
  for (const name of FORMATS) formats.set(name, await insert('formats', { name }));
  const ids: Partial<Record<RouteKey, string>> = {};
  for (const [key, route] of Object.entries(ROUTES))
    ids[key as RouteKey] = await insert('routes', {
      name: route.name,
      format_id: formats.get(route.format),
      steps: JSON.stringify(route.steps),
    });
  return ids as Record<RouteKey, string>; // filled above, one per key
}

async function insertClient(
  insert: Insert,
  key: ClientKey,
  routes: Record<RouteKey, string>,
  people: Record<PersonKey, string>,
): Promise<SetupClient> {
  const client = CLIENTS[key];
  const id = await insert('clients', {
    code: client.code,
    name: client.name,
    colour: client.colour,
    zone: client.zone,
    region: client.region,
    weekly_minutes: client.week,
    usual_time: client.usualTime,
    policy: client.policy,
  });
  for (const personId of [people.dana, people.piet]) await insert('client_people', { client_id: id, person_id: personId });
  const channelIds: string[] = [];
  for (const [position, channel] of client.channels.entries())
    channelIds.push(
      await insert('channels', {
        client_id: id,
        kind: channel.kind,
        name: channel.name,
        copy_limit: channel.copyLimit,
        ratio: channel.ratio,
        position,
      }),
    );
  const pillarIds: string[] = [];
  for (const [position, name] of client.pillars.entries()) pillarIds.push(await insert('pillars', { client_id: id, name, position }));
  for (const contact of client.contacts)
    await insert('contacts', { client_id: id, name: contact.name, email: contact.email, can_sign_off: contact.canSignOff });
  const { title, intro, fields, route } = client.form;
  const formId = await insert('intake_forms', { client_id: id, title, intro, fields: JSON.stringify(fields), route_id: routes[route] });
  return { id, formId, channelIds, pillarIds };
}

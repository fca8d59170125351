import { addDays, CHANNEL_STOCK, ok, type ChannelKind, type FormItem } from '@zesting/core';
import { addMarker, hashPassword, type App, type Viewer } from '@zesting/server';
import { CLIENTS, type ClientKey, type StoryClient } from './clients.js';
import { todayOf } from './plan-story.js';
import { AGENCY, FORMATS, ITEMS, PASSWORD, PEOPLE, ROUTES, SKILLS, type PersonKey, type RouteKey } from './story.js';
import { writingOf } from './writing.js';

export interface SetupClient {
  readonly id: string;
  readonly linkId: string;
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

/** Something per key of a record. */
async function perKey<Key extends string, Value, Made>(
  record: Readonly<Record<Key, Value>>,
  make: (value: Value, key: Key) => Promise<Made>,
): Promise<Record<Key, Made>> {
  const made: [string, Made][] = [];
  for (const [key, value] of Object.entries(record) as [Key, Value][]) made.push([key, await make(value, key)]);
  return Object.fromEntries(made) as Record<Key, Made>; // one per key of the record
}

/** Writes what the story begins with: the agency, its people, clients with all that their pages show, routes, days off, a cover. */
export async function insertSetup(app: App, now: string): Promise<Setup> {
  const made = await app.write(async (tx) => {
    const insert: Insert = async (table, row) => {
      const names = Object.keys(row);
      const [inserted] = (await tx.query(
        `insert into ${table} (${names.join(', ')}) values (${names.map((_, index) => `$${index + 1}`).join(', ')}) returning *`,
        Object.values(row).map(plain),
      )) as { id: string }[];
      return inserted?.id ?? '';
    };
    const inDays = (person: PersonKey, days: number) => addDays(todayOf(now, PEOPLE[person]), days);
    await insert('agencies', {
      name: AGENCY.name,
      zone: AGENCY.zone,
      region: AGENCY.region,
      weekly_minutes: AGENCY.weeklyMinutes,
      currency: 'GBP',
      is_demo: true,
      hides_beginning: true,
    });
    for (const [position, name] of SKILLS.entries()) await insert('skills', { name, position });
    const people = await insertPeople(insert);
    await insert('time_off', { person_id: people.piet, start_on: inDays('piet', 5), end_on: inDays('piet', 6) });
    await insert('time_off', { person_id: people.noor, start_on: inDays('noor', 9), end_on: inDays('noor', 9), part: 0.5 });
    await insert('time_off', { person_id: people.ivo, start_on: inDays('ivo', 16), end_on: inDays('ivo', 22) });
    await insert('covers', {
      manager_id: people.ivo,
      cover_id: people.dana,
      start_on: inDays('ivo', 16),
      end_on: inDays('ivo', 22),
    });
    const formats = new Map<string, string>();
    for (const [position, name] of FORMATS.entries()) {
      const { texts, outline, isLaidOut = false } = writingOf(name);
      const written = { texts: JSON.stringify(texts), outline: JSON.stringify(outline), is_laid_out: isLaidOut };
      formats.set(name, await insert('formats', { name, position, ...written }));
    }
    const routes = await perKey(ROUTES, (route) =>
      insert('routes', { name: route.name, format_id: formats.get(route.format), steps: JSON.stringify(route.steps) }),
    );
    const form = { title: 'Ask for content', intro: 'Tell us what you have in mind.', items: ITEMS, routeId: routes.still };
    await tx.query('update agencies set default_form_id = $1', [await insertForm(insert, form, null, now)]);
    const clients = await perKey(CLIENTS, (client) => insertClient(insert, client, routes, people, now));
    const all = Object.values(clients).map((client) => client.id);
    const viewers = await perKey(PEOPLE, ({ name, role, zone }, key) =>
      Promise.resolve<Viewer>({ personId: people[key], name, role, zone, clientIds: all, mayEditForms: role === 'lead' || key === 'dana' }),
    );
    return ok({ viewers, clients, routes });
  });
  if (!made.ok) throw new Error('the setup failed');
  await putMarkers(app, made.value, now);
  return made.value;
}

const insertPeople = async (insert: Insert): Promise<Record<PersonKey, string>> => {
  const hash = await hashPassword(PASSWORD);
  return perKey(PEOPLE, (person) =>
    insert('people', {
      name: person.name,
      email: person.email,
      password_hash: hash,
      role: person.role,
      zone: person.zone,
      region: person.region,
      weekly_minutes: person.week,
      skills: person.skills,
      round_up: 'roundUp' in person ? person.roundUp : 'at_once',
      may_edit_forms: person.name === PEOPLE.dana.name,
    }),
  );
};

/** A published form; for a client with a link to it. @returns the link's id, or the form's where it is for no client */
async function insertForm(
  insert: Insert,
  content: { readonly title: string; readonly intro: string; readonly items: readonly FormItem[]; readonly routeId: string },
  clientId: string | null,
  now: string,
): Promise<string> {
  const rest = { language: 'en', rules: [], thanks: '', opensOn: null, closesOn: null, noticeDays: 0, answerDays: 2 };
  const formId = await insert('intake_forms', { title: content.title, published_version: 1 });
  await insert('form_versions', {
    form_id: formId,
    number: 1,
    content: { ...rest, ...content },
    published_at: now,
    published_by: PEOPLE.marta.name,
  });
  if (clientId === null) return formId;
  await insert('form_clients', { form_id: formId, client_id: clientId });
  return insert('form_links', { form_id: formId, client_id: clientId, label: 'First hand-out', made_at: now });
}

async function insertClient(
  insert: Insert,
  client: StoryClient,
  routes: Record<RouteKey, string>,
  people: Record<PersonKey, string>,
  now: string,
): Promise<SetupClient> {
  const { code, name, colour, zone, region, week, usualTime, policy, brand, observances } = client;
  const id = await insert('clients', {
    code,
    name,
    colour,
    zone,
    region,
    weekly_minutes: week,
    usual_time: usualTime,
    policy: policy.kind === 'agency' ? { ...policy, personId: people[client.manager] } : policy,
    brand: { ...brand, logos: [] },
    observances,
  });
  for (const key of new Set([client.manager, 'piet', client.writer === 'sunniva' ? client.writer : client.manager] as const))
    await insert('client_people', { client_id: id, person_id: people[key] });
  // of one client it is said who usually does what; of the others, whoever is free first does it
  if (client.code === 'MOSS') {
    await insert('client_leads', { client_id: id, person_id: people[client.manager] });
    for (const [skill, key] of Object.entries({ write: client.writer, design: client.designer, check: client.manager }))
      await insert('client_team', { client_id: id, skill, person_id: people[key] });
  }
  const channelIds: string[] = [];
  for (const [position, { kind, name: channel, copyLimit, ratio, leadDays = 0 }] of client.channels.entries())
    channelIds.push(
      await insert('channels', {
        client_id: id,
        kind,
        name: channel,
        copy_limit: copyLimit,
        ratio,
        lead_days: leadDays,
        position,
        ...rulesOf(kind),
        posting_address: `https://post.${client.code.toLowerCase()}.test/${kind.replaceAll('_', '-')}`,
      }),
    );
  const pillarIds: string[] = [];
  for (const [position, [pillar, share]] of client.pillars.entries())
    pillarIds.push(await insert('pillars', { client_id: id, name: pillar, share, position }));
  for (const [position, contact] of client.contacts.entries())
    await insert('contacts', { client_id: id, name: contact.name, email: contact.email, can_sign_off: contact.canSignOff, position });
  const { title, intro, items, route } = client.form;
  const linkId = await insertForm(insert, { title, intro, items, routeId: routes[route] }, id, now);
  return { id, linkId, channelIds, pillarIds };
}

/** Launches, offers, events, closures: what stands on the calendars from the beginning. */
async function putMarkers(app: App, setup: Setup, now: string): Promise<void> {
  for (const [key, client] of Object.entries(CLIENTS) as [ClientKey, StoryClient][])
    for (const { kind, name, days } of client.markers) {
      const today = todayOf(now, client);
      const [startOn, endOn] = [addDays(today, days[0]), addDays(today, days[1])];
      const put = await addMarker(app, setup.viewers.marta, { clientId: setup.clients[key].id, kind, name, startOn, endOn });
      if (!put.ok) throw new Error(`no marker: ${put.failure.code}`);
    }
}

/** The rules of a channel that the starting stock has for its kind. */
function rulesOf(kind: ChannelKind): Readonly<Record<string, unknown>> {
  const { tagLimit, mediaLimit, countsTags, linksWork, needsMedia, hasAddress, ...seen } = CHANNEL_STOCK[kind];
  return {
    tag_limit: tagLimit,
    media_limit: mediaLimit,
    counts_tags: countsTags,
    links_work: linksWork,
    needs_media: needsMedia,
    has_address: hasAddress,
    other_shapes: seen.otherShapes,
    cuts_media: seen.cutsMedia,
    clip_min_seconds: seen.clipMinSeconds,
    clip_max_seconds: seen.clipMaxSeconds,
    file_limit_mb: seen.fileLimitMb,
    safe_top: seen.safeTop,
    safe_bottom: seen.safeBottom,
    safe_sides: seen.safeSides,
    folds_at: seen.foldsAt,
  };
}

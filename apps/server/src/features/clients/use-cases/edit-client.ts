import { fail, ok, policyProblem, type InstantText, type PolicyProblem, type Result, type SignOffPolicy } from '@zesting/core';
import type { BrandBody, ChannelBody, ContactBody, EditClientBody, PillarBody, PolicyBody } from '@zesting/contract';
import type { Viewer } from '../../../platform/access/access.js';
import { changesBetween, recordActivity } from '../../../platform/activity.js';
import type { App } from '../../../platform/app.js';
import { rowsOf, type Tx } from '../../../platform/database/transaction.js';
import { Event } from '../../../platform/events.js';
import { moveZone, putClosures } from '../../calendar/index.js';
import { putManagers } from '../../people/index.js';
import { replanWhere } from '../../planning/index.js';
import { reckonOpenPackets } from '../../sign-off/index.js';
import { Client } from '../entities/client.entity.js';
import { clientLists, possibleManagers } from '../queries/client-page.js';

export type EditClientFailure = {
  code:
    | 'http.changed_meanwhile'
    | 'client.closure_wrong'
    | 'client.contact_twice'
    | 'client.shares_over'
    | 'client.item_unknown'
    | 'format.unknown'
    | 'policy.incomplete'
    | 'policy.needs_consent'
    | 'file.unknown'
    | 'person.unknown'
    | PolicyProblem;
};

/** A client's copy is in another language from now on. */
export const languageChanged = new Event<{ readonly clientId: string }>();

const COLUMNS = [
  'name',
  'colour',
  'zone',
  'region',
  'weeklyMinutes',
  'usualTime',
  'language',
  'roundsAgreed',
  'feedPencilled',
  'observances',
] as const;

/** Changes a client. Lists that are given are whole: what is missing is archived. Every open piece of the client is planned anew. */
export function editClient(
  app: App,
  viewer: Viewer,
  clientId: string,
  body: EditClientBody,
  version: number,
): Promise<Result<number, EditClientFailure>> {
  return app.write<number, EditClientFailure>(async (tx, now) => {
    const client = await tx.findOneOrFail(Client, { where: { id: clientId }, lock: { mode: 'pessimistic_write' } });
    if (client.version !== version) return fail({ code: 'http.changed_meanwhile' });
    const before = await wholeOf(tx, client);
    const refused = (await editLists(tx, clientId, body, now)) ?? needsConsent(viewer, client, body) ?? (await editOwn(tx, client, body));
    if (refused) return fail(refused);
    client.version += 1;
    await tx.save(client);
    if (body.zone !== undefined && body.zone !== before.zone) await moveZone(tx, clientId, body.zone, now);
    const after = await wholeOf(tx, client);
    const unmet = await unmetPolicy(tx, client.policy, after.contacts);
    if (unmet) return fail({ code: unmet });
    await recordActivity(tx, {
      clientId,
      thing: 'client',
      thingId: clientId,
      verb: 'client.edited',
      actor: viewer.name,
      detail: { ...changesBetween(before, after), ...(body.policy?.consent ? { consent: { from: null, to: body.policy.consent } } : {}) },
      at: now,
    });
    if (body.contacts) await reckonOpenPackets(app, tx, clientId, now);
    if (client.language !== before.language) await languageChanged.tell(tx, { clientId }, now);
    await replanWhere(tx, { clientId }, now);
    return ok(client.version);
  });
}

/** That the agency decides in the client's place is for a lead to say, or for the client: then the record says how they agreed. */
function needsConsent(viewer: Viewer, client: Client, { policy }: EditClientBody): EditClientFailure | null {
  if (policy?.kind !== 'agency' || policy.personId === undefined || viewer.role === 'lead' || policy.consent) return null;
  return client.policy.kind === 'agency' && client.policy.personId === policy.personId ? null : { code: 'policy.needs_consent' };
}

/** Everything of a client that its page shows, for the record of what changed. */
async function wholeOf(tx: Tx, client: Client) {
  const {
    name,
    colour,
    zone,
    region,
    weeklyMinutes,
    usualTime,
    language,
    roundsAgreed,
    feedPencilled,
    observances,
    policy,
    brand,
    allowance,
  } = client;
  const lists = await clientLists(tx, client.id);
  const own = {
    name,
    colour,
    zone,
    region,
    weeklyMinutes,
    usualTime: usualTime.slice(0, 5),
    language,
    roundsAgreed,
    feedPencilled,
    observances,
    policy,
    brand,
    allowance,
  };
  return structuredClone({ ...own, ...lists, managers: lists.managers.map((manager) => manager.name) });
}

async function editOwn(tx: Tx, client: Client, body: EditClientBody): Promise<EditClientFailure | null> {
  for (const key of COLUMNS) if (body[key] !== undefined) Object.assign(client, { [key]: body[key] });
  if (body.brand) {
    const brand = await knownBrand(tx, client.id, body.brand);
    if (!brand) return { code: 'file.unknown' };
    client.brand = brand;
  }
  if (body.allowance) {
    const { hours, formats } = body.allowance;
    const known = await rowsOf(tx, 'select 1 from formats where id = any($1)', [formats.map(({ formatId }) => formatId)]);
    if (known.length < formats.length) return { code: 'format.unknown' };
    client.allowance = { hours, formats: formats.map(({ formatId, pieces }) => ({ formatId, pieces })) };
  }
  if (body.policy) {
    const policy = toPolicy(body.policy);
    if (!policy) return { code: 'policy.incomplete' };
    client.policy = policy;
  }
  return null;
}

async function knownBrand(tx: Tx, clientId: string, brand: BrandBody): Promise<BrandBody | undefined> {
  const known = await rowsOf(tx, "select 1 from assets where client_id = $1 and id = any($2) and mime like 'image/%'", [
    clientId,
    brand.logos,
  ]);
  const words = (list: string[]) => [...new Set(list.map((word) => word.trim()).filter(Boolean))];
  return known.length === brand.logos.length
    ? {
        ...brand,
        wordsToUse: words(brand.wordsToUse),
        wordsNever: words(brand.wordsNever),
        palette: brand.palette.map(({ name, hex }) => ({ name, hex })),
      }
    : undefined;
}

/** The policy with just what its kind needs; undefined when something of that is missing. */
export function toPolicy({ kind, contactIds, count, inTurn, silenceDays, personId }: PolicyBody): SignOffPolicy | undefined {
  const silence = silenceDays === undefined ? {} : { silenceDays };
  const turn = inTurn ? { inTurn } : {};
  switch (kind) {
    case 'any':
      return { kind, ...silence };
    case 'all':
      return { kind, ...turn, ...silence };
    case 'named':
      return contactIds ? { kind, contactIds, ...turn, ...silence } : undefined;
    case 'n_of':
      return count === undefined ? undefined : { kind, count, ...turn, ...silence };
    case 'agency':
      return personId === undefined ? undefined : { kind, personId };
  }
}

async function unmetPolicy(tx: Tx, policy: SignOffPolicy, contacts: readonly ContactBody[]): Promise<PolicyProblem | null> {
  const approvers = contacts.filter((contact) => contact.canSignOff).flatMap((contact) => contact.id ?? []);
  const managers = await possibleManagers(tx);
  // a client that has no approver yet may hold any policy but one that names them
  if (approvers.length === 0 && policy.kind !== 'named' && policy.kind !== 'agency') return null;
  return policyProblem(
    policy,
    approvers,
    managers.map((manager) => manager.personId),
  );
}

async function editLists(tx: Tx, clientId: string, body: EditClientBody, now: InstantText): Promise<EditClientFailure | null> {
  if (body.contacts && new Set(body.contacts.map((contact) => contact.email.toLowerCase())).size < body.contacts.length)
    return { code: 'client.contact_twice' };
  if (body.pillars && body.pillars.reduce((sum, pillar) => sum + pillar.share, 0) > 100) return { code: 'client.shares_over' };
  if (body.closures?.some((closure) => closure.endOn < closure.startOn)) return { code: 'client.closure_wrong' };
  const contacts = body.contacts && (await asPeople(tx, clientId, body.contacts));
  const lists: [table: string, rows: Listed[] | undefined][] = [
    ['contacts', contacts?.map(contactRow)],
    ['channels', body.channels?.map(channelRow)],
    ['pillars', body.pillars?.map(pillarRow)],
  ];
  for (const [table, rows] of lists) if (rows && !(await putList(tx, table, clientId, rows, now))) return { code: 'client.item_unknown' };
  if (body.closures) await putClosures(tx, clientId, body.closures);
  return body.managerIds && !(await putManagers(tx, clientId, body.managerIds)) ? { code: 'person.unknown' } : null;
}

/**
 * Contacts as the people they are: who is written over with another name and another address is another person, and a new contact. A link that
 * was given to an address that is no longer theirs dies.
 */
async function asPeople(tx: Tx, clientId: string, contacts: readonly ContactBody[]): Promise<ContactBody[]> {
  const before = new Map(
    (
      await rowsOf<{ id: string; name: string; email: string }>(tx, 'select id, name, email from contacts where client_id = $1', [clientId])
    ).map((row) => [row.id, row]),
  );
  const same = (a: string, b: string) => a.trim().toLowerCase() === b.trim().toLowerCase();
  const moved: string[] = [];
  const people = contacts.map((contact) => {
    const old = contact.id === undefined ? undefined : before.get(contact.id);
    if (!old || same(old.email, contact.email)) return contact;
    if (!same(old.name, contact.name)) return { ...contact, id: undefined } as unknown as ContactBody; // as one that was added
    moved.push(old.id);
    return contact;
  });
  await tx.query('update contacts set link_generation = link_generation + 1 where id = any($1)', [moved]);
  return people;
}

interface Listed {
  readonly id: string | undefined;
  readonly values: Readonly<Record<string, unknown>>;
}

const contactRow = ({ id, name, email, canAsk, canView, canSignOff, weight }: ContactBody): Listed => ({
  id,
  values: { name, email, can_ask: canAsk, can_view: canView, can_sign_off: canSignOff, weight },
});
/** What is not left away. */
const given = (values: Readonly<Record<string, unknown>>) =>
  Object.fromEntries(Object.entries(values).filter(([, value]) => value !== undefined));

const channelRow = ({ id, kind, name, ratio, copyLimit, tagLimit, mediaLimit, leadDays, usualTime, ...rules }: ChannelBody): Listed => ({
  id,
  values: {
    ...given({
      counts_tags: rules.countsTags,
      links_work: rules.linksWork,
      needs_media: rules.needsMedia,
      min_width: rules.minWidth,
      other_shapes: rules.otherShapes,
      cuts_media: rules.cutsMedia,
      clip_min_seconds: rules.clipMinSeconds,
      clip_max_seconds: rules.clipMaxSeconds,
      file_limit_mb: rules.fileLimitMb,
      safe_top: rules.safeTop,
      safe_bottom: rules.safeBottom,
      safe_sides: rules.safeSides,
      folds_at: rules.foldsAt,
      has_address: rules.hasAddress,
      posting_address: rules.postingAddress,
    }),
    kind,
    name,
    ratio,
    copy_limit: copyLimit,
    tag_limit: tagLimit,
    media_limit: mediaLimit,
    lead_days: leadDays,
    usual_time: usualTime,
  },
});
/** A pillar as it is kept; a new one without a colour takes the next around the circle that no other of the list has. */
function pillarRow({ id, name, share, colour }: PillarBody, index: number, all: readonly PillarBody[]): Listed {
  if (colour !== undefined || id !== undefined) return { id, values: { name, share, ...(colour === undefined ? {} : { colour }) } };
  const taken = new Set(all.flatMap((pillar) => pillar.colour ?? []));
  const free = COLOURS.filter((step) => !taken.has(step));
  const before = all.slice(0, index).filter((pillar) => pillar.colour === undefined && pillar.id === undefined).length;
  return { id, values: { name, share, colour: free[before % Math.max(1, free.length)] ?? 0 } };
}

/** The steps around the circle in an order in which neighbours lie apart. */
const COLOURS = Array.from({ length: 12 }, (_, step) => (step * 5) % 12);

/** Makes a client's list the one given, in its order. False when an id is not one of the client's; archived ones may come back by theirs. */
async function putList(tx: Tx, table: string, clientId: string, rows: readonly Listed[], now: InstantText): Promise<boolean> {
  const known = new Set(
    (await rowsOf<{ id: string }>(tx, `select id from ${table} where client_id = $1`, [clientId])).map((row) => row.id),
  );
  const kept = rows.flatMap((row) => row.id ?? []);
  if (kept.some((id) => !known.has(id)) || new Set(kept).size < kept.length) return false;
  await tx.query(`update ${table} set archived_at = $3 where client_id = $1 and id <> all($2) and archived_at is null`, [
    clientId,
    kept,
    now,
  ]);
  for (const [position, { id, values }] of rows.entries()) {
    const names = [...Object.keys(values), 'position'];
    const filled = [...Object.values(values), position];
    if (id === undefined)
      await tx.query(
        `insert into ${table} (client_id, ${names.join(', ')}) values ($1, ${names.map((_, index) => `$${index + 2}`).join(', ')})`,
        [clientId, ...filled],
      );
    else
      await tx.query(
        `update ${table} set archived_at = null, ${names.map((name, index) => `${name} = $${index + 2}`).join(', ')} where id = $1`,
        [id, ...filled],
      );
  }
  return true;
}

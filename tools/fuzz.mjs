// npm run fuzz: sends the API what nobody means, made from its own OpenAPI document, as every role. No answer may be a 5xx, none may hang,
// and what is refused may not have stored anything. `-- --count=1000000 --seed=7` sends more, or the same again.
import { parseArgs } from 'node:util';
import { build } from './build.mjs';
import { needModules, needPackages, tell } from './prepare.mjs';

const { values } = parseArgs({ options: { count: { type: 'string', default: '20000' }, seed: { type: 'string' } } });
const COUNT = Number(values.count);
const SEED = values.seed === undefined ? Math.floor(Math.random() * 2 ** 31) : Number(values.seed);
/** So many calls are under way at once. */
const TOGETHER = 8;

/** A small generator of numbers from a seed: mulberry32, from memory. */
function numbers(seed) {
  let state = seed >>> 0;
  return () => {
    state = (state + 0x6d2b79f5) >>> 0;
    let mixed = Math.imul(state ^ (state >>> 15), state | 1);
    mixed = (mixed + Math.imul(mixed ^ (mixed >>> 7), mixed | 61)) ^ mixed;
    return ((mixed ^ (mixed >>> 14)) >>> 0) / 4294967296;
  };
}
const random = numbers(SEED);
const pick = (list) => list[Math.floor(random() * list.length)];

/** Nobody means these: the first are refused wherever they stand in a body. */
const BROKEN = ['a\0b', '\ud800', [['x']], { constructor: 'x' }];
const ODD = [
  null,
  '',
  ' ',
  true,
  0,
  -1,
  0.5,
  1e308,
  2 ** 31,
  2 ** 53,
  [],
  {},
  [null],
  ['x'],
  { length: 3 },
  'x'.repeat(20_000),
  '２０２７',
  "'; drop table pieces; --",
  '2027-02-30',
  '0000-01-01',
  '0001-01-01',
  '9999-12-31',
  '99999-01-01',
  '2027-03-28',
  '24:00',
  '01:30',
  '👩‍🌾'.repeat(200),
  '../../etc/passwd',
  'https://a..b',
  'javascript:alert(1)',
  '00000000-0000-0000-0000-000000000000',
  '1e999',
  'NaN',
];

/** A value of a schema, mostly as it should be. */
function valueOf(schema, document, ids, name = '', depth = 0) {
  if (!schema || depth > 6) return 'x';
  if (schema.$ref) return valueOf(document.components.schemas[schema.$ref.split('/').at(-1)], document, ids, name, depth + 1);
  for (const key of ['allOf', 'oneOf', 'anyOf']) if (schema[key]) return valueOf(pick(schema[key]), document, ids, name, depth + 1);
  if (schema.enum) return pick(schema.enum);
  if (schema.type === 'object' || schema.properties) {
    const entries = Object.entries(schema.properties ?? {}).filter(([key]) => schema.required?.includes(key) || random() < 0.7);
    return Object.fromEntries(entries.map(([key, inner]) => [key, valueOf(inner, document, ids, key, depth + 1)]));
  }
  if (schema.type === 'array')
    return Array.from({ length: Math.floor(random() * 4) }, () => valueOf(schema.items, document, ids, name.replace(/s$/, ''), depth + 1));
  if (schema.type === 'number' || schema.type === 'integer') return Math.floor(random() * 10);
  if (schema.type === 'boolean') return random() < 0.5;
  return textOf(name, ids);
}

function textOf(name, ids) {
  if (/Id$|^id$/.test(name)) return pick(ids[name] ?? Object.values(ids).flat());
  if (/On$|^on$|From$|Until$/.test(name)) return pick(['2027-03-16', '2027-04-06', '2027-03-27', '2030-01-01', '2020-01-01']);
  if (/At$|^at$|Time$/.test(name)) return pick(['09:00', '17:30', '01:30']);
  if (/mail/i.test(name)) return pick(['someone@x.test', 'dana@quillhaven.test']);
  if (name === 'zone') return pick(['Europe/London', 'Pacific/Auckland']);
  if (name === 'region') return 'GB-ENG';
  return pick(['Some words', 'More of them', 'A title', '2027-03-16']);
}

/** Puts something else in the place of one or several parts of a value. Returns the paths that were changed. */
function spoil(value, with_) {
  const places = [];
  const walk = (at, key, holder) => {
    places.push([holder, key]);
    if (typeof at === 'object' && at !== null) for (const inner of Object.keys(at)) walk(at[inner], inner, at);
  };
  const root = { body: value };
  walk(value, 'body', root);
  const [holder, key] = pick(places.length > 1 ? places.slice(1) : places);
  holder[key] = structuredClone(with_);
  return root.body;
}

/** The ids of things in the demo by the name that paths and bodies give them, and some that are nobody's. */
async function idsOf(query) {
  const tables = {
    clientId: 'clients',
    pieceId: 'pieces',
    stepId: 'steps',
    packetId: 'packets',
    placementId: 'placements',
    requestId: 'requests',
    personId: 'people',
    routeId: 'routes',
    remarkId: 'remarks',
    markerId: 'markers',
    assetId: 'assets',
    channelId: 'channels',
    pillarId: 'pillars',
    versionId: 'versions',
    contactId: 'contacts',
    timeOffId: 'time_off',
    coverId: 'covers',
    formId: 'intake_forms',
    formatId: 'formats',
  };
  const ids = {};
  for (const [name, table] of Object.entries(tables))
    ids[name] = (await query(`select id from ${table} order by id limit 40`)).map((row) => row.id);
  ids.withId = ids.placementId;
  ids.tabId = ids.pieceId;
  return ids;
}

async function callersOf(zesting, ids) {
  const { Caller } = await import('./throwaway.mjs');
  const { Links } = await import('../apps/server/dist/platform/access/links.js');
  const { readConfig } = await import('../apps/server/dist/index.js');
  const links = new Links(readConfig(zesting.env), null);
  const make = (name) => new Caller(zesting.address, name);
  const [form] = await zesting.query('select id from form_links where link_open limit 1');
  const [contact] = await zesting.query('select unnest(approver_ids) as id from packets where closed_at is null limit 1');
  const callers = [
    await make('lead').signIn('marta@quillhaven.test'),
    await make('manager').signIn('dana@quillhaven.test'),
    await make('staff').signIn('piet@quillhaven.test'),
    await make('freelance').signIn('noor@pencraft.test'),
    await make('contact').open('/api/room/open', links.token('room', contact.id, 1)),
    await make('form').open('/api/ask/open', links.token('ask', form.id, 1)),
    await make('receipt').open('/api/receipts/open', links.token('receipt', ids.requestId[0], 1)),
    make('stranger'),
  ];
  return { callers, linkId: { room: contact.id, ask: form.id, receipts: ids.requestId[0], invites: ids.personId[0] } };
}

/** One call: a route, a caller, and what is wrong with it. `mustRefuse`: it carries something that nobody can mean. */
function nextCall({ operations, document, ids, callers, linkId }) {
  const { method, path, operation } = pick(operations);
  // those who may do most are asked most: what is refused at the door tests little behind it
  const caller = random() < 0.5 ? callers[0] : pick(callers);
  const isBroken = random() < 0.3;
  const kind = path.split('/')[2];
  const badPath = random() < 0.08;
  let target = path.replace(/\{(\w+)\}/g, (_, name) => {
    if (badPath) return encodeURIComponent(pick(['x', '..', 'null', '%', '1', '00000000-0000-4000-8000-000000000000', 'a'.repeat(300)]));
    return name === 'linkId' ? (linkId[kind] ?? pick(ids.contactId)) : pick(ids[name] ?? ids.pieceId);
  });
  const query = (operation.parameters ?? []).filter((parameter) => parameter.in === 'query' && random() < 0.6);
  const asText = (value) => (typeof value === 'string' ? value : JSON.stringify(value)) ?? '';
  if (query.length > 0)
    target += `?${query
      .map(({ name }) => {
        const value = random() < 0.5 ? textOf(name, ids) : asText(pick(ODD)).slice(0, 400);
        return `${name}=${encodeURIComponent(value.toWellFormed())}`;
      })
      .join('&')}`;
  const schema = operation.requestBody?.content?.['application/json']?.schema;
  let body;
  if (schema) {
    body = valueOf(schema, document, ids);
    if (isBroken) body = spoil(body, pick(BROKEN));
    else for (let times = Math.floor(random() * 3); times > 0; times--) body = spoil(body, pick(ODD));
  }
  const headers = {
    ...(random() < 0.8 ? { 'If-Match': pick(['"1"', '"2"', 'x', '"99999999999"', '*']) } : {}),
    ...(random() < 0.7 ? { 'Idempotency-Key': `fuzz-${Math.floor(random() * 1e6)}` } : {}),
  };
  // signed out, a caller would test nothing more; leaving and archiving would take the others away
  const mustRefuse = Boolean(schema) && isBroken && typeof body === 'object';
  return { method, path, target, caller, body, headers, mustRefuse };
}

/** What would end the run's own callers, or speaks another protocol than JSON. */
const LEFT_OUT =
  /^(DELETE \/api\/session|POST \/api\/session|PUT \/api\/clock|POST \/api\/people\/\{personId\}\/leave|GET \/api\/live|POST \/api\/clients\/\{clientId\}\/archive|(HEAD|PATCH|DELETE|POST) .*uploads.*)$/;

const COUNTED = [
  'activities',
  'pieces',
  'requests',
  'decisions',
  'placements',
  'people',
  'clients',
  'packets',
  'remarks',
  'markers',
  'materials',
  'time_off',
];
const countAll = async (query) =>
  (await query(`select ${COUNTED.map((table) => `(select count(*) from ${table})::int as ${table}`).join(', ')}`))[0];

await tell(async () => {
  needPackages();
  needModules();
  build();
  const { withZesting } = await import('./throwaway.mjs');
  const found = new Map();
  const statuses = new Map();
  const note = (what, call) => found.set(what, { times: (found.get(what)?.times ?? 0) + 1, call: found.get(what)?.call ?? call });
  console.log(`Fuzzing with seed ${SEED}: ${COUNT} calls.`);
  await withZesting(async (zesting) => {
    await zesting.start('apps/standins/dist/main.js');
    await zesting.start('apps/server/dist/main.js');
    const ids = await idsOf(zesting.query);
    const { callers, linkId } = await callersOf(zesting, ids);
    const document = (await callers[0].json('GET', '/api/openapi.json')).body;
    const operations = Object.entries(document.paths).flatMap(([path, methods]) =>
      Object.entries(methods)
        .map(([method, operation]) => ({ method: method.toUpperCase(), path, operation }))
        .filter(({ method }) => !LEFT_OUT.test(`${method} ${path}`)),
    );
    const began = performance.now();
    const send = async (call) => {
      const started = performance.now();
      try {
        const { status, text } = await call.caller.call(call.method, call.target, call.body, call.headers);
        statuses.set(status, (statuses.get(status) ?? 0) + 1);
        if (status >= 500) note(`${status} ${call.method} ${call.path}`, call);
        if (call.mustRefuse && status < 400) note(`taken though broken: ${call.method} ${call.path}`, call);
        if (/syntax error|QueryFailed|at \/|node_modules/.test(text)) note(`tells of its inside: ${call.method} ${call.path}`, call);
      } catch (error) {
        note(`no answer (${error.cause?.code ?? error.name}): ${call.method} ${call.path}`, call);
      }
      if (performance.now() - started > 10_000) note(`slow: ${call.method} ${call.path}`, call);
    };
    // first what nobody can mean: all of it is refused and nothing is stored
    const input = { operations, document, ids, callers, linkId };
    const all = Array.from({ length: COUNT }, () => nextCall(input));
    const run = async (calls) => {
      let next = 0;
      const lane = async () => {
        while (next < calls.length) await send(calls[next++]);
      };
      await Promise.all(Array.from({ length: TOGETHER }, lane));
    };
    const before = await countAll(zesting.query);
    await run(all.filter((call) => call.mustRefuse));
    const after = await countAll(zesting.query);
    for (const table of COUNTED) if (before[table] !== after[table]) note(`stored in ${table} by a refused call`, {});
    await run(all.filter((call) => !call.mustRefuse));
    const seconds = (performance.now() - began) / 1000;
    console.log(
      `${COUNT} calls of ${operations.length} routes as ${callers.length} roles in ${seconds.toFixed(0)} s (${(COUNT / seconds).toFixed(0)} a second)`,
    );
    console.log(
      [...statuses]
        .sort((a, b) => a[0] - b[0])
        .map(([status, times]) => `${status}: ${times}`)
        .join(', '),
    );
  });
  for (const [what, { times, call }] of found)
    console.log(
      `FAULT ${times} × ${what}\n  ${call.caller?.name ?? ''} ${call.target ?? ''} ${JSON.stringify(call.body ?? null).slice(0, 300)}`,
    );
  console.log(found.size === 0 ? 'No fault was found.' : `${found.size} kinds of fault; the same again with --seed=${SEED}`);
  process.exit(found.size === 0 ? 0 : 1);
});

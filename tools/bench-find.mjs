// Reads at size: finding among 100,000 pieces and requests, and the calendar beside them, on a throwaway cluster.
import { spawnSync } from 'node:child_process';
import { chmodSync, mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { clusterFolder, findPrograms, freePort, makeCluster, makeDatabase, startCluster, stopCluster } from './database.mjs';
import { root } from './prepare.mjs';

const WORDS = ['fern', 'loaf', 'harvest', 'window', 'season', 'oven', 'bench', 'market', 'winter', 'garden', 'copper', 'letter'];

/** Fills the tables: 90,000 pieces and 10,000 requests, titles of four words and a number. */
const FILL = `
  create temporary table w as select array['${WORDS.join("','")}'] as words;
  insert into pieces (client_id, route_id, format_id, title, content, digests, created_at, stage)
    select p.client_id, p.route_id, p.format_id,
      words[1 + n % 12] || ' ' || words[1 + (n / 12) % 12] || ' ' || words[1 + (n / 144) % 12] || ' ' || md5(n::text) || ' ' || n,
      p.content, p.digests, now() - make_interval(mins => n), 'published'
    from (select * from pieces order by number limit 1) p, w, generate_series(1, 90000) n;
  insert into requests (client_id, way, form_id, form_version, items, answers, title, requester_name, requester_email, state, received_at, decided_at)
    select r.client_id, r.way, r.form_id, r.form_version, r.items, r.answers, words[1 + n % 12] || ' ' || md5(n::text), r.requester_name, r.requester_email,
      'accepted', now() - make_interval(mins => n), now()
    from (select * from requests order by number limit 1) r, w, generate_series(1, 10000) n;
  analyze pieces; analyze requests;`;

const ASKED = [
  ['a word that eight in a hundred hold', 'fern'],
  ['two words', 'fern oven'],
  ['a client’s code and a word', 'MOSS season'],
  ['two letters', 'ov'],
  ['one hit', 'c4ca4238a0b923820dcc509a6f75849b'],
  ['no hit', 'nothingatall'],
  ['a number', '40000'],
];

/** Milliseconds of the middle and the slowest of some runs. */
async function times(work, runs = 15) {
  const all = [];
  for (let run = 0; run < runs; run++) {
    const start = performance.now();
    await work();
    all.push(performance.now() - start);
  }
  all.sort((a, b) => a - b);
  return { middle: all[Math.floor(runs / 2)] ?? 0, slowest: all.at(-1) ?? 0 };
}

/** Writes a line of the record as a use case does, and waits until a stream of the lead's is told. */
async function toldAfter(app, live, personId, clientId) {
  await app.read("insert into sessions (sid, sess, expire) values ('bench', '{}', now() + interval '1 day') on conflict do nothing");
  let hear = () => undefined;
  const heard = new Promise((resolve) => (hear = resolve));
  const close = live.open({ personId, sessionId: 'bench', send: hear, end: hear });
  await app.read(
    "with line as (insert into activities (client_id, thing, thing_id, verb, actor, at) values ($1, 'client', $1, 'client.edited', 'bench', now()) returning id) select pg_notify('zesting_changes', '') from line",
    [clientId],
  );
  await heard;
  close();
}

/** Prints how long finding takes over 100,000 rows, as ratios to the baseline and in milliseconds. */
export async function benchFind(base) {
  const bin = findPrograms();
  const work = mkdtempSync(join(tmpdir(), 'zesting-bench-'));
  chmodSync(work, 0o755); // the user that runs PostgreSQL must get in
  const cluster = clusterFolder(work, 'bench');
  const port = await freePort();
  makeCluster(bin, cluster);
  startCluster(bin, cluster, port, {});
  makeDatabase(bin, port, 'zesting'); // the demo takes its place whole
  try {
    const env = {
      ...process.env,
      ZESTING_DATABASE_URL: `postgres://postgres@127.0.0.1:${port}/zesting`,
      ZESTING_FILES: join(work, 'files'),
      ZESTING_KEY: 'bench',
      ZESTING_TESTING: '1',
      ZESTING_SMTP_PORT: '1',
      ZESTING_LOG: 'fatal',
    };
    const loaded = spawnSync(process.execPath, [join(root, 'demo/dist/main.js')], { env, stdio: ['ignore', 'ignore', 'inherit'] });
    if (loaded.status !== 0) throw new Error('the demo could not be loaded');
    const { App, createServer, Features, find, readConfig } = await import('../apps/server/dist/index.js');
    const server = await createServer({ ...readConfig(env), webFolder: null });
    await server.init();
    const app = server.get(App);
    await app.read(FILL);
    const [lead] = await app.read("select id, name, zone from people where role = 'lead'");
    const clients = await app.read('select id from clients');
    const viewer = { personId: lead.id, name: lead.name, role: 'lead', zone: lead.zone, clientIds: clients.map(({ id }) => id) };
    for (const [what, text] of ASKED) {
      const { middle, slowest } = await times(() => find(app, server.get(Features), viewer, text));
      console.log(
        `find over 100,000 rows, ${what}: ${(middle / base).toFixed(2)} × baseline (${middle.toFixed(1)} ms, slowest ${slowest.toFixed(1)} ms here)`,
      );
    }
    const { Live } = await import('../apps/server/dist/platform/live/live.js');
    const told = await times(() => toldAfter(app, server.get(Live), lead.id, clients[0].id));
    console.log(
      `a change until an open stream hears of it: ${(told.middle / base).toFixed(2)} × baseline (${told.middle.toFixed(0)} ms, slowest ${told.slowest.toFixed(0)} ms here; 40 of them are gathering)`,
    );
    await server.close();
  } finally {
    stopCluster(bin, cluster);
    rmSync(work, { recursive: true, force: true });
  }
}

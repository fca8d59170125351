// npm run torture: kills the application at random while requests, decisions, uploads and mails are under way, and takes PostgreSQL away now
// and then. Afterwards everything that was acknowledged is there once, chains hold, no job stays locked, every mail came.
// `-- --kills=100 --seed=7`; short by default. `-- --going-out`: the same for what goes out by itself, see torture-going-out.mjs.
import { createHash, randomUUID } from 'node:crypto';
import { parseArgs } from 'node:util';
import { build } from './build.mjs';
import { chance, keepRunning, pause } from './killing.mjs';
import { needModules, needPackages, tell } from './prepare.mjs';

const { values } = parseArgs({
  options: { kills: { type: 'string', default: '12' }, seed: { type: 'string' }, 'going-out': { type: 'boolean', default: false } },
});
const KILLS = Number(values.kills);
const SEED = values.seed === undefined ? Math.floor(Math.random() * 2 ** 31) : Number(values.seed);

const random = chance(SEED);

/** Sends until it is answered for good: a lost connection, 429 or a 5xx of an outage is tried again with the same key. */
async function insist(send) {
  for (;;) {
    try {
      const answer = await send();
      if (answer.status < 500) return answer;
      if (answer.status !== 503) throw Object.assign(new Error(`answered ${answer.status}: ${answer.text}`), { isFault: true });
    } catch (error) {
      if (error.isFault) throw error;
    }
    await pause(100 + random() * 200);
  }
}

await tell(async () => {
  needPackages();
  needModules();
  build();
  if (values['going-out']) {
    const { tortureGoingOut } = await import('./torture-going-out.mjs');
    process.exit(await tortureGoingOut({ kills: KILLS, seed: SEED }));
  }
  const { Caller, ended, PRESENT, withZesting } = await import('./throwaway.mjs');
  const { Links } = await import('../apps/server/dist/platform/access/links.js');
  const { readConfig } = await import('../apps/server/dist/index.js');
  const faults = [];
  console.log(`Torture with seed ${SEED}: ${KILLS} kills.`);
  await withZesting(async (zesting) => {
    const catcher = await zesting.start('apps/standins/dist/main.js');
    const kept = await keepRunning(zesting);
    // the pictures of the demo come first: what cannot be seen cannot be approved
    while ((await zesting.query("select 1 from graphile_worker.jobs where task_identifier = 'picture_sizes' limit 1")).length > 0)
      await pause(500);
    const links = new Links(readConfig(zesting.env), null);
    // each client's first link: its form asks what the demo's first form asks
    const forms = await zesting.query("select id from form_links where label = 'First hand-out' order by id");
    const before = (await zesting.query('select count(*)::int as count from requests'))[0].count;
    // what is known to have been said yes to
    const acknowledged = { requests: new Map(), decisions: [], files: new Map() };
    let isOver = false;

    const requesting = async (lane) => {
      const form = forms[lane % forms.length].id;
      const caller = new Caller(zesting.address, 'form');
      const key = () => `torture-${lane}-${randomUUID()}`;
      await insist(() => caller.call('POST', '/api/ask/open', { token: links.token('ask', form, 1) }));
      while (!isOver) {
        const [mine, title] = [key(), `Torture ${randomUUID()}`];
        const body = {
          name: 'Tor Ment',
          email: `tor${Math.floor(random() * 1e6)}@x.test`,
          answers: { about: title, aim: 'x', audience: 'The trade' },
          version: 1,
          stamp: links.stamp(form, new Date(Date.parse(PRESENT) - 60_000).toISOString()),
        };
        const answer = await insist(() => caller.call('POST', `/api/ask/${form}/requests`, body, { 'Idempotency-Key': mine }));
        if (answer.status === 201) acknowledged.requests.set(title, JSON.parse(answer.text).requestId);
        else if (answer.status === 429)
          await zesting.query('update form_uses set requests = 0, files = 0, bytes = 0').catch(() => undefined);
        else faults.push(`a request was answered ${answer.status}: ${answer.text.slice(0, 200)}`);
        await pause(random() * 60);
      }
    };

    const uploading = async () => {
      const form = forms[0].id;
      const caller = new Caller(zesting.address, 'upload');
      await insist(() => caller.call('POST', '/api/ask/open', { token: links.token('ask', form, 1) }));
      while (!isOver) {
        const text = `words ${randomUUID()} `.repeat(2_000);
        const boundary = 'torture';
        const body = `--${boundary}\r\nContent-Disposition: form-data; name="file"; filename="words.txt"\r\nContent-Type: text/plain\r\n\r\n${text}\r\n--${boundary}--\r\n`;
        const answer = await insist(() =>
          caller.call('POST', `/api/ask/${form}/files`, body, { 'Content-Type': `multipart/form-data; boundary=${boundary}` }),
        );
        if (answer.status === 201) acknowledged.files.set(JSON.parse(answer.text).assetId, createHash('sha256').update(text).digest('hex'));
        await pause(40 + random() * 80);
      }
    };

    const deciding = async () => {
      const open = await zesting.query(
        `select k.id, i.piece_id, i.version_id, k.approver_ids from packets k join packet_items i on i.packet_id = k.id where i.outcome is null`,
      );
      for (const item of open)
        for (const contactId of item.approver_ids) {
          if (isOver) return;
          const caller = new Caller(zesting.address, 'contact');
          await insist(() => caller.call('POST', '/api/room/open', { token: links.token('room', contactId, 1) }));
          const body = { packetId: item.id, pieceId: item.piece_id, versionId: item.version_id, verdict: 'approve', remark: '' };
          let answer;
          do {
            await pause(random() * 400);
            answer = await insist(() => caller.call('POST', `/api/room/${contactId}/decisions`, body));
          } while (answer.text.includes('pictures_not_seen') && !isOver); // sizes are made by a job, which is killed like the rest
          if (answer.status === 200) acknowledged.decisions.push({ ...item, contactId });
          else if (!/decision\.(closed|not_your_turn)/.test(answer.text) && !isOver)
            faults.push(`a decision was answered ${answer.status}: ${answer.text.slice(0, 200)}`);
        }
    };

    const lanes = [requesting(0), requesting(1), requesting(2), uploading(), deciding()];
    for (let kill = 0; kill < KILLS; kill++) {
      await pause(300 + random() * 1_500);
      if (kill % 5 === 4) {
        zesting.stopDatabase();
        await pause(1_000 + random() * 3_000);
        zesting.startDatabase();
      } else {
        while (!kept.child) await pause(100);
        kept.child.kill('SIGKILL');
      }
      process.stdout.write('.');
    }
    await pause(3_000);
    isOver = true;
    await Promise.race([Promise.all(lanes), pause(60_000).then(() => faults.push('some calls were never answered'))]);
    console.log('');

    // all is quiet: jobs that were held by what was killed go on within a minute
    const end = Date.now() + 90_000;
    let waiting;
    do {
      await pause(1_000);
      waiting = await zesting.query(
        'select task_identifier, locked_by from graphile_worker.jobs where run_at <= now() and attempts < max_attempts',
      );
    } while (waiting.length > 0 && Date.now() < end);
    if (waiting.length > 0) faults.push(`${waiting.length} jobs still wait: ${JSON.stringify(waiting.slice(0, 3))}`);

    const requests = await zesting.query("select id, title from requests where title like 'Torture %'");
    const ids = new Set(requests.map((row) => row.id));
    if (new Set(requests.map((row) => row.title)).size !== requests.length) faults.push('a request is there twice');
    for (const [title, id] of acknowledged.requests) if (!ids.has(id)) faults.push(`an acknowledged request is lost: ${title}`);
    const decisions = await zesting.query('select packet_id, piece_id, contact_id, count(*)::int as count from decisions group by 1, 2, 3');
    for (const said of acknowledged.decisions)
      if (!decisions.some((row) => row.packet_id === said.id && row.piece_id === said.piece_id && row.contact_id === said.contactId))
        faults.push('an acknowledged decision is lost');
    if (decisions.some((row) => row.packet_id !== null && row.count > 2)) faults.push('a decision is there too often');
    const gaps = await zesting.query(
      'select client_id from decisions group by client_id having max(sequence) <> count(*) or min(sequence) <> 1',
    );
    if (gaps.length > 0) faults.push('a chain of decisions has a gap');
    const heads = await zesting.query(
      'select c.code from clients c join lateral (select head from decisions d where d.client_id = c.id order by sequence desc limit 1) d on true where d.head <> c.chain_head',
    );
    if (heads.length > 0) faults.push('a chain ends elsewhere than its client says');
    const assets = new Map((await zesting.query('select id, hash from assets')).map((row) => [row.id, row.hash]));
    for (const [id, hash] of acknowledged.files) if (assets.get(id) !== hash) faults.push('an acknowledged file is lost or another');
    const receipts = await (await fetch(`http://127.0.0.1:${zesting.env.ZESTING_MAIL_PORT}/mails.json`)).json();
    const twice = receipts.map((mail) => mail.messageId);
    if (new Set(twice).size !== twice.length) faults.push('a mail is shown twice');
    console.log(
      `${kept.starts - 1} new starts; acknowledged and found: ${acknowledged.requests.size} requests (${requests.length} stored, ${before} before), ` +
        `${acknowledged.decisions.length} decisions, ${acknowledged.files.size} files; ${receipts.length} mails kept by the catcher.`,
    );
    kept.isEnding = true;
    kept.child?.kill('SIGTERM');
    if (kept.child) await ended(kept.child);
    catcher.kill('SIGTERM');
  });
  for (const fault of new Set(faults)) console.log(`FAULT ${fault}`);
  console.log(
    faults.length === 0 ? 'Nothing acknowledged was lost, nothing is there twice, nothing waits.' : `the same again with --seed=${SEED}`,
  );
  process.exit(faults.length === 0 ? 0 : 1);
});

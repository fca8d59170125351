// npm run bench -- --asking: 200 people send requests through forms for a minute, in the middle of which the application is killed and begun anew.
// Nothing that was acknowledged may be lost, nothing may be there twice; how long sending takes stands beside the barest insert of the same run.
// `--people=200 --seconds=60`.
import { randomUUID } from 'node:crypto';
import { readFileSync } from 'node:fs';
import { build } from './build.mjs';
import { needModules, needPackages } from './prepare.mjs';

const pause = (milliseconds) => new Promise((resolve) => setTimeout(resolve, milliseconds));
const option = (name, usual) => Number(process.argv.find((argument) => argument.startsWith(`--${name}=`))?.split('=')[1] ?? usual);
const quantile = (sorted, part) => sorted[Math.min(sorted.length - 1, Math.floor(sorted.length * part))] ?? NaN;

/** The most memory that a process has held, in MB. */
const mostMemory = (pid) => Number(/VmHWM:\s+(\d+)/.exec(readFileSync(`/proc/${pid}/status`, 'utf8'))?.[1] ?? 0) / 1024;

/** Prints what was found. Fails when something acknowledged is lost, or anything is there twice. */
export async function benchAsking() {
  needPackages();
  needModules();
  build();
  const people = option('people', 200);
  const seconds = option('seconds', 60);
  const { Caller, withZesting } = await import('./throwaway.mjs');
  const { Links } = await import('../apps/server/dist/platform/access/links.js');
  const { readConfig } = await import('../apps/server/dist/platform/config/config.js');
  const { default: pg } = await import('pg');
  await withZesting(async (zesting) => {
    await zesting.start('apps/standins/dist/main.js');
    let server = await zesting.start('apps/server/dist/main.js');
    const links = new Links(readConfig(zesting.env), null);
    // a link for each: so many requests an hour come through one, and no more
    const forms = await zesting.query(
      `with first as (select form_id, client_id from form_links order by made_at, id limit 1)
       insert into form_links (form_id, client_id, label, made_at) select form_id, client_id, 'Bench ' || n, now() from first, generate_series(1, $1::int) n returning id`,
      [people],
    );
    const present = Date.parse(zesting.env.ZESTING_NOW);
    const acknowledged = new Map();
    const faults = [];
    const times = [];
    let repeated = 0;
    let isDown = false;
    const end = performance.now() + seconds * 1000;
    /** Asks until there is an answer of the application, as the form's page does at a press of *Send*. */
    const insist = async (ask) => {
      for (;;) {
        const answer = await ask().catch(() => undefined);
        if (answer && answer.status < 500) return answer;
        repeated++;
        await pause(200);
      }
    };
    const person = async ({ id }, index) => {
      const caller = new Caller(zesting.address, 'form');
      await insist(() => caller.call('POST', '/api/ask/open', { token: links.token('ask', id, 1) }));
      for (let number = 0; number < 60 && performance.now() < end; number++) {
        const title = `Bench ${index} ${number}`;
        const body = {
          name: 'Bea Ench',
          email: `bench${index}@x.test`,
          answers: { about: title, aim: 'x', audience: 'The trade' },
          version: 1,
          stamp: links.stamp(id, new Date(present - 60_000).toISOString()),
        };
        const key = randomUUID();
        const send = () => caller.call('POST', `/api/ask/${id}/requests`, body, { 'Idempotency-Key': key });
        const start = performance.now();
        const wasDown = isDown;
        const answer = await insist(send);
        if (answer.status !== 201) faults.push(`${title} was answered ${answer.status}: ${answer.text.slice(0, 200)}`);
        else acknowledged.set(title, JSON.parse(answer.text).requestId);
        if (!wasDown && !isDown) times.push(performance.now() - start);
        // one in ten presses twice
        if (number % 10 === 9) {
          const again = await insist(send);
          if (JSON.parse(again.text).requestId !== acknowledged.get(title)) faults.push(`${title} was answered otherwise the second time`);
        }
        await pause(Math.max(0, 1_000 - (performance.now() - start)));
      }
    };
    const all = forms.map(person);
    await pause(seconds * 500);
    const memory = mostMemory(server.pid);
    isDown = true;
    server.kill('SIGKILL');
    await pause(500);
    server = await zesting.start('apps/server/dist/main.js');
    await pause(3_000);
    isDown = false;
    await Promise.all(all);
    const stored = await zesting.query("select id, title from requests where title ~ '^Bench [0-9]+ [0-9]+$'");
    const ids = new Set(stored.map((row) => row.id));
    for (const [title, id] of acknowledged) if (!ids.has(id)) faults.push(`lost: ${title}`);
    if (new Set(stored.map((row) => row.title)).size !== stored.length) faults.push('a request is there twice');
    if (stored.length !== acknowledged.size) faults.push(`${stored.length} are stored, ${acknowledged.size} were acknowledged`);

    const client = new pg.Client(zesting.env.ZESTING_DATABASE_URL);
    await client.connect();
    await client.query('create table bare (id uuid primary key, title text, answers jsonb)');
    const bare = [];
    for (let number = 0; number < 200; number++) {
      const start = performance.now();
      await client.query('insert into bare values ($1, $2, $3)', [randomUUID(), 'Bench', '{"about":"x"}']);
      bare.push(performance.now() - start);
    }
    await client.end();
    times.sort((a, b) => a - b);
    bare.sort((a, b) => a - b);
    const barely = quantile(bare, 0.5);
    const line = (name, time) =>
      `${name} ${time.toFixed(0)} ms (${(time / barely).toFixed(0)} × the barest insert, ${barely.toFixed(2)} ms here)`;
    console.log(
      `${people} people for ${seconds} s, the application killed once in the middle: ${acknowledged.size} requests acknowledged, ${stored.length} stored; ${repeated} tries were repeated`,
    );
    console.log(line('half of them within', quantile(times, 0.5)));
    console.log(line('99 of 100 within', quantile(times, 0.99)));
    console.log(
      `memory of the application at most ${memory.toFixed(0)} MB before it was killed, ${mostMemory(server.pid).toFixed(0)} MB after`,
    );
    if (faults.length > 0) {
      for (const fault of faults.slice(0, 20)) console.log(`FAULT ${fault}`);
      process.exitCode = 1;
    }
  });
}

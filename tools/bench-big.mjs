// npm run bench -- --big: every read through HTTP at growing sizes, beside the barest SQL that could answer it, in the same run.
// `--sizes=2500,25000,250000`; the short default leaves out the largest.
import { build } from './build.mjs';
import { needModules, needPackages } from './prepare.mjs';

const RUNS = 9;
const WARMING = 10;

async function median(work) {
  const times = [];
  let answer;
  for (let run = 0; run < RUNS; run++) {
    const start = performance.now();
    answer = await work();
    times.push(performance.now() - start);
  }
  times.sort((a, b) => a - b);
  return { milliseconds: times[Math.floor(RUNS / 2)], answer };
}

/** The barest statement for a read: what any design would at least have to ask. `$1`: the client ids of who asks. */
const BARE = {
  'pieces, first page': 'select id, title, stage from pieces where client_id = any($1) order by created_at desc, id desc limit 101',
  'requests, first page': `(select id, title from requests where client_id = any($1) and state = 'new' order by received_at desc limit 51)
    union all (select id, title from requests where client_id = any($1) and state <> 'new' order by received_at desc limit 51)`,
  'requests to decide':
    "select id, title from requests where client_id = any($1) and state in ('new', 'asked_back') order by received_at desc limit 51",
  'requests by a form':
    'select id, title from requests where client_id = any($1) and form_id is not null order by received_at desc limit 51',
  'verdict with look-alikes': `select id, title from pieces where client_id = (select client_id from requests where state = 'new' limit 1)
    and title_plain % (select title_plain from requests where state = 'new' limit 1) limit 40`,
  forms: 'select id, title, (select count(*) from form_links l where l.form_id = f.id) from intake_forms f order by title limit 51',
  'packets out': `select k.id, k.title, k.policy, k.sent_at,
      (select jsonb_agg(jsonb_build_array(p.number, p.title, i.round, v.digests,
          (select jsonb_agg(jsonb_build_array(d.contact_id, d.verdict, d.digests)) from decisions d where d.piece_id = p.id)))
        from packet_items i join pieces p on p.id = i.piece_id join versions v on v.id = i.version_id where i.packet_id = k.id) as items,
      (select jsonb_agg(to_jsonb(x)) from contacts x where x.id = any(k.approver_ids)) as approvers
    from packets k where client_id = any($1) and closed_at is null order by due_on limit 100`,
  desk: 'select list, count(*) from pieces where client_id = any($1) and list is not null group by list',
  stations: 'select stage, count(*) from pieces where client_id = any($1) and list is not null group by stage',
  'plan, a month': `select l.id, p.title from placements l join pieces p on p.id = l.piece_id
    where l.client_id = (select client_id from pieces where list is not null order by number desc limit 1) and l.on_day between '2027-04-01' and '2027-04-30'`,
  'runway of every client': "select id, state from placements where client_id = any($1) and on_day between '2027-03-09' and '2027-04-20'",
  'ideas, first page':
    "select id, title from ideas where client_id = any($1) and state = 'open' order by merit desc, created_at desc limit 51",
  'calendar, a month':
    "select id, on_day from placements where client_id = any($1) and on_day between '2027-03-01' and '2027-03-31' and not cancelled limit 2000",
};

async function measure(size, base) {
  const { Caller, withZesting } = await import('./throwaway.mjs');
  const { fill } = await import('./big-data.mjs');
  const { default: pg } = await import('pg');
  const rows = [];
  const settings = { shared_buffers: '512MB', fsync: 'off', synchronous_commit: 'off', shared_preload_libraries: 'pg_stat_statements' };
  await withZesting(
    async (zesting) => {
      await zesting.query('create extension if not exists pg_stat_statements');
      await fill(zesting.query, size);
      await zesting.start('apps/standins/dist/main.js');
      await zesting.start('apps/server/dist/main.js');
      // the first planning and prediction of everything are over before anything is measured
      for (let quiet = 0; quiet < 3;)
        quiet = (await zesting.query("select 1 from graphile_worker.jobs where task_identifier like 'planning%' and run_at <= now()"))
          .length
          ? 0
          : (await new Promise((resolve) => setTimeout(resolve, 700)), quiet + 1);
      await zesting.query('analyze');
      const lead = await new Caller(zesting.address, 'lead').signIn('marta@quillhaven.test');
      const manager = await new Caller(zesting.address, 'manager').signIn('person10@big.test');
      const staff = await new Caller(zesting.address, 'staff').signIn('person1@big.test');
      const one = async (sql) => (await zesting.query(sql))[0];
      const open = await one('select id, client_id from pieces where list is not null order by number desc limit 1');
      const late = await one(
        "select id from pieces where list is not null order by array_position(array['will_be_late', 'out_of_reach', 'overdue'], danger), number limit 1",
      );
      const out = await one('select id from pieces where list is null order by number desc limit 1');
      const step = await one('select step_id as id from worked limit 1');
      const idea = await one("select id from ideas where state = 'open' limit 1");
      const channel = await one('select channel_id as id, client_id from placements group by 1, 2 order by count(*) desc limit 1');
      const source = await one('select source_id as id from spin_offs group by 1 order by count(*) desc limit 1');
      const request = await one("select id, form_id from requests where state = 'new' limit 1");
      const reads = [
        ['who is signed in', lead, '/api/session'],
        ['piece, open', lead, `/api/pieces/${open.id}`],
        ['piece, published', lead, `/api/pieces/${out.id}`],
        ['pieces, first page', lead, '/api/pieces'],
        ['the table as it opens', lead, '/api/pieces?shown=open&order=aim'],
        ['the table, the newest first', lead, '/api/pieces?shown=open&order=newest'],
        ['the table of a manager', manager, '/api/pieces?shown=open&order=aim'],
        ['pieces, narrowed', lead, '/api/pieces?shown=open&order=aim&danger=fine&from=2027-03-01&to=2027-03-31'],
        ['the sheet, what is open', lead, '/api/pieces/sheet?shown=open'],
        ['the sheet, all there is', lead, '/api/pieces/sheet?shown=all'],
        ['the sheet as XLSX', lead, '/api/pieces/sheet/xlsx?shown=open'],
        ['the line, first page', lead, '/api/pieces/line?order=aim'],
        ['the line of a manager', manager, '/api/pieces/line?order=aim'],
        ['doers proposed for four weeks', lead, '/api/staffing/proposal?to=2027-04-04'],
        ['a month in money', lead, '/api/money?month=2027-03'],
        ['load of everybody', lead, '/api/load?from=2027-03-08&to=2027-03-21'],
        ['what helps a late piece', lead, `/api/pieces/${late.id}/path/helps`],
        ['what stands in the way', lead, '/api/obstacles'],
        ['what did, of one piece', lead, `/api/pieces/${out.id}/obstacles`],
        ['versions of a piece', lead, `/api/pieces/${out.id}/versions`],
        ['guidelines of a piece', lead, `/api/pieces/${open.id}/guidelines`],
        ['guidelines', lead, '/api/guidelines'],
        ['remarks on a piece', lead, `/api/pieces/${out.id}/remarks`],
        ['how likely it is in time', lead, `/api/pieces/${open.id}/path/forecast`],
        ['what there is to make', lead, '/api/to-make'],
        ['what a creator has to make', staff, '/api/to-make'],
        ['one after another', lead, '/api/to-make/steps?skill=write'],
        ['copy of five weeks', lead, `/api/clients/${channel.client_id}/copy?from=2027-03-01&to=2027-04-04`],
        ['hours of a step', lead, `/api/steps/${step.id}/hours`],
        ['own clock', staff, '/api/clock'],
        ['who usually does what', lead, `/api/clients/${open.client_id}/team`],
        ['requests, first page', lead, '/api/requests'],
        ['requests to decide', lead, '/api/requests?shown=open'],
        ['requests by a form', lead, `/api/requests?formId=${request.form_id}`],
        ['verdict with look-alikes', lead, `/api/requests/${request.id}/verdict`],
        ['forms', lead, '/api/forms'],
        ['one request', lead, `/api/requests/${request.id}`],
        ['packets out', lead, '/api/packets'],
        ['ready to be sent', lead, `/api/clients/${open.client_id}/ready`],
        ['desk', lead, '/api/desk'],
        ['desk of a manager', manager, '/api/desk'],
        ['stations', lead, '/api/stations'],
        ['people', lead, '/api/people'],
        ['clients of the band', lead, '/api/clients'],
        ['calendar, a month', lead, '/api/calendar?from=2027-03-01&to=2027-03-31'],
        ['calendar of a creator', staff, '/api/calendar?from=2027-03-01&to=2027-03-31'],
        ['own steps', staff, '/api/steps/mine'],
        ['pieces of a creator', staff, '/api/pieces'],
        ['find', lead, '/api/find?q=fern'],
        ['plan, a month', lead, `/api/clients/${open.client_id}/plan?month=2027-04`],
        ['plan, a year', lead, `/api/clients/${open.client_id}/year?month=2027-01`],
        ['what a month asks for', lead, `/api/clients/${open.client_id}/plan/cost?month=2027-04`],
        ['runway of every client', lead, '/api/runway'],
        ['runway of a manager', manager, '/api/runway'],
        ['open slots, six weeks', lead, '/api/slots?from=2027-03-08&to=2027-04-18'],
        ['ideas, first page', lead, '/api/ideas'],
        ['calendar, a stage alone', lead, '/api/calendar?from=2027-03-01&to=2027-03-31&stage=approved'],
        ['subjects of a client', lead, `/api/clients/${open.client_id}/topics`],
        ['campaigns of every client', lead, '/api/campaigns'],
        ['goals of a client', lead, `/api/clients/${open.client_id}/goals`],
        ['duties of every client', lead, '/api/duties'],
        ['own duties', staff, '/api/duties/mine'],
        ['ideas of a client', lead, `/api/ideas?clientId=${open.client_id}`],
        ['one idea', lead, `/api/ideas/${idea.id}`],
        ['questions of every client', lead, '/api/interviews'],
        ['questions about a piece', lead, `/api/pieces/${open.id}/interviews`],
        ['months to start', lead, '/api/months-to-start'],
        ['frame of a month', lead, `/api/clients/${open.client_id}/plan/frame?month=2027-04`],
        ['observances of a client', lead, `/api/clients/${open.client_id}/observances`],
        ['calendar, with due days', lead, '/api/calendar?from=2027-03-08&to=2027-04-18&dues=yes'],
        ['calendar, off the theme', lead, `/api/calendar?from=2027-03-08&to=2027-04-18&theme=off&clientId=${open.client_id}`],
        ['calendar, a year counted', lead, '/api/calendar/counts?from=2027-03-01&to=2028-02-29'],
        ['going out', lead, '/api/going-out'],
        ['going out of a manager', manager, '/api/going-out'],
        ['going out soon', lead, '/api/going-out/soon'],
        ['what is sent', lead, '/api/sending'],
        ['follow-ups', lead, '/api/follow-ups'],
        ['what a pack holds', lead, `/api/clients/${channel.client_id}/pack?from=2027-03-01&to=2027-04-30`],
        ['what fits of a piece', lead, `/api/pieces/${open.id}/fits`],
        ['library, one word', lead, '/api/library?words=fern'],
        ['library, of a client', lead, `/api/library?words=fern&clientId=${open.client_id}`],
        ['sources', lead, '/api/spin-offs'],
        ['sources that are ahead', lead, '/api/spin-offs?behind=yes'],
        ['stock of a client', lead, `/api/clients/${open.client_id}/evergreen`],
        ['kept files', lead, '/api/kept-files'],
        ['kept files by words', lead, '/api/kept-files?words=fern'],
        ['kept files for a piece', lead, `/api/pieces/${open.id}/kept-files`],
        ['phrases of a client', lead, `/api/clients/${open.client_id}/phrases`],
        ['what was made from one', lead, `/api/pieces/${source.id}/spin-offs`],
        ['spreads of a client', lead, `/api/clients/${open.client_id}/spreads`],
        ['a channel as seen', lead, `/api/clients/${channel.client_id}/channels/${channel.id}/look`],
      ];
      const all = (await zesting.query('select id from clients')).map((row) => row.id);
      const client = new pg.Client(zesting.env.ZESTING_DATABASE_URL);
      await client.connect();
      await client.query('set jit = off');
      const statements = async () =>
        (
          await client.query(
            "select coalesce(sum(calls), 0)::int as calls from pg_stat_statements where query not ilike '%pg_stat_statements%' and query not ilike '%graphile_worker%'",
          )
        ).rows[0].calls;
      for (const [name, caller, path] of reads) {
        const before = await statements();
        const first = await caller.call('GET', path);
        const calls = (await statements()) - before;
        if (first.status !== 200) throw new Error(`${path} answered ${first.status}`);
        // what the machine has to learn of a read is not counted
        for (let run = 0; run < WARMING; run++) await caller.call('GET', path);
        const { milliseconds } = await median(() => caller.call('GET', path));
        const bare = BARE[name]
          ? (await median(() => client.query(BARE[name], BARE[name].includes('$1') ? [all] : []))).milliseconds
          : null;
        rows.push({ name, milliseconds, bare, calls, kilobytes: first.text.length / 1024, ratio: milliseconds / base });
      }
      await client.end();
    },
    { settings },
  );
  return rows;
}

/** Prints a line per read: its time at each size, how much it grew, the bare statement at the largest, statements per request. */
export async function benchBig(sizes, base) {
  needPackages();
  needModules();
  build();
  const found = [];
  for (const size of sizes) {
    console.log(`Filling ${size.toLocaleString('en')} pieces …`);
    found.push(await measure(size, base));
  }
  const last = found.at(-1);
  console.log(
    `\nMedian ms here at ${sizes.join(' / ')} pieces · growth first to last · × baseline · bare SQL at the last · statements · kB`,
  );
  for (const [index, row] of last.entries()) {
    const times = found.map((rows) => rows[index].milliseconds);
    console.log(
      [
        row.name.padEnd(24),
        times.map((time) => time.toFixed(0).padStart(5)).join(' /'),
        `${(times.at(-1) / times[0]).toFixed(1)} ×`.padStart(8),
        `${row.ratio.toFixed(2)} ×`.padStart(8),
        (row.bare === null ? '–' : `${row.bare.toFixed(0)} ms`).padStart(8),
        String(row.calls).padStart(4),
        row.kilobytes.toFixed(0).padStart(6),
      ].join('  '),
    );
  }
}

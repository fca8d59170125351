// npm run torture -- --going-out: kills the application at random while placements are sent by themselves to simulated channels that lose what they
// answer. Afterwards none is out twice, none that is out counts as not out, none is forgotten, and whoever is unsure was told so by nobody.
import { chance, keepRunning, pause } from './killing.mjs';
import { Caller, ended, withZesting } from './throwaway.mjs';

/** How many placements are sent for each kill, and how often one signed placement is placed again. */
const FOR_EACH_KILL = 4;
const DAY_MINUTES = 1440;
/** They come due so far apart: about as many as there are kills to meet them. */
const SPACING_MS = 500;
/** How the channels behave, by turns: to such a share of the calls, to the rest they are fine. */
const BEHAVIOURS = [
  ['loses', 0.5],
  ['silent', 0.5],
  ['slow', 0.6],
  ['slow', 0.9],
  ['vague', 0.2],
  ['later', 0.6],
  ['away', 0.4],
  ['limits', 0.1],
];
const PATIENCE_MS = 300_000;

/** Says what of `placements` is not as it must be. `posts`: what the channels published. */
function faultsOf(placements, posts) {
  const published = new Map();
  for (const { channelId, meantFor } of posts) {
    const key = `${channelId} ${new Date(meantFor).toISOString()}`;
    published.set(key, (published.get(key) ?? 0) + 1);
  }
  return placements.flatMap(({ state, channel_id: channelId, publish_at: at }) => {
    const times = published.get(`${channelId} ${new Date(at).toISOString()}`) ?? 0;
    if (times > 1) return ['a placement is out twice'];
    if (state === 'out') return times === 1 ? [] : ['a placement counts as out that nobody published'];
    if (state === 'failed' || state === 'missed') return times === 0 ? [] : [`a placement counts as ${state} that is out`];
    // the channel broke down and cannot say: a person looks there. What it did publish, it says
    if (state === 'unsure') return times === 0 ? [] : ['a placement is unsure that the channel knows of'];
    return [`a placement is ${state} at the end`];
  });
}

/** @returns the exit code */
export async function tortureGoingOut({ kills, seed }) {
  const random = chance(seed);
  const faults = [];
  console.log(`Torture of what goes out, with seed ${seed}: ${kills} kills.`);
  await withZesting(
    async (zesting) => {
      const standIns = await zesting.start('apps/standins/dist/main.js');
      const channels = zesting.env.ZESTING_CHANNELS;
      const behave = async ([behaviour, share]) =>
        fetch(`${channels}/behaviour`, {
          method: 'POST',
          body: `behaviour=${behaviour}&share=${share}`,
          redirect: 'manual',
        });
      const kept = await keepRunning(zesting);
      const lead = await new Caller(zesting.address, 'lead').signIn('marta@quillhaven.test');
      const signed = await zesting.query(
        `select l.id, l.channel_id, h.kind from placements l join channels h on h.id = l.channel_id where l.state = 'scheduled' order by l.publish_at, l.id`,
      );
      for (const id of new Set(signed.map((row) => row.channel_id))) {
        const body = { address: null, accessEndsOn: null, audience: 'All', dailyLimit: null, lateMinutes: 1440 };
        const links = await zesting.query('select version from channel_links where channel_id = $1', [id]);
        const { status, text } = await lead.call('PUT', `/api/channels/${id}/link`, body, { 'If-Match': `"${links[0]?.version ?? 0}"` });
        if (status !== 204) throw new Error(`a channel cannot be linked: ${text}`);
      }
      const wanted = kills * FOR_EACH_KILL;
      const on = new Date(Date.now() + 3 * 86_400_000).toISOString().slice(0, 10);
      for (let made = 0; made < wanted && made < signed.length * DAY_MINUTES; made++) {
        const { id, channel_id: channelId } = signed[made % signed.length];
        const minute = Math.floor(made / signed.length) + 240; // after the hour in which clocks change
        const at = `${String(Math.floor(minute / 60) % 24).padStart(2, '0')}:${String(minute % 60).padStart(2, '0')}`;
        const { status, text } = await lead.call('POST', `/api/placements/${id}/duplicate`, { channelId, on, at });
        if (status >= 300) throw new Error(`a placement cannot be placed again: ${text}`);
      }
      // all of them come due one after the other from now on
      await zesting.query(
        `update placements l set publish_at = date_trunc('milliseconds', now()) + n.turn * interval '${SPACING_MS} milliseconds' from
           (select id, row_number() over (order by publish_at, id) as turn from placements where state = 'scheduled' and on_day = $1) n where n.id = l.id`,
        [on],
      );
      const placements = () =>
        zesting.query(
          `select state, channel_id, to_char(publish_at, 'YYYY-MM-DD"T"HH24:MI:SS.MS"Z"') as publish_at from placements where on_day = $1 and not cancelled`,
          [on],
        );
      const open = async () => (await placements()).filter(({ state }) => !['out', 'failed', 'missed', 'unsure'].includes(state)).length;
      // what a killed server held is let go at once, else it would be left alone for twenty seconds after each kill
      const letGo = () =>
        zesting.query(
          `select graphile_worker.force_unlock_workers(array(select distinct locked_by from graphile_worker._private_jobs where locked_by is not null))`,
        );
      const look = () => zesting.query(`select graphile_worker.add_job('sending_go', '{"look": true}', queue_name => 'sending_go')`);
      for (let kill = 0; kill < kills; kill++) {
        await behave(BEHAVIOURS[Math.floor(random() * BEHAVIOURS.length)]);
        while (!kept.child) await pause(50);
        await look();
        await pause(100 + random() * 1_200);
        kept.child?.kill('SIGKILL');
        await pause(50);
        await letGo();
        process.stdout.write('.');
      }
      await behave(['fine', 1]);
      console.log('');
      const end = Date.now() + PATIENCE_MS;
      while ((await open()) > 0 && Date.now() < end) {
        // nobody waits ten minutes for the next question
        await zesting.query(
          "update sendings set next_at = now() where state in ('posted', 'unsure') and next_at > now() + interval '10 seconds'",
        );
        await look();
        await pause(1_000);
      }
      const all = await placements();
      const posts = await (await fetch(`${channels}/posts.json`)).json();
      faults.push(...faultsOf(all, posts));
      const states = [...new Set(all.map(({ state }) => state))];
      const counts = states.map((state) => `${all.filter((one) => one.state === state).length} ${state}`);
      const [tries] = await zesting.query('select sum(tries)::int as tries, sum(asks)::int as asks, count(*)::int as count from sendings');
      console.log(
        `${kept.starts - 1} new starts; ${all.length} placements: ${counts.join(', ')}; ${posts.length} posts published; ${tries.count} sendings, put ${tries.tries} times, asked for ${tries.asks} times.`,
      );
      kept.isEnding = true;
      kept.child?.kill('SIGTERM');
      if (kept.child) await ended(kept.child);
      standIns.kill('SIGTERM');
    },
    { env: { ZESTING_NOW: '', ZESTING_CHANNEL_SECONDS: '1' } },
  );
  for (const fault of new Set(faults)) console.log(`FAULT ${fault} (${faults.filter((one) => one === fault).length} times)`);
  console.log(
    faults.length === 0 ? 'Nothing is out twice, nothing is lost, nothing is left unsaid.' : `the same again with --seed=${seed}`,
  );
  return faults.length === 0 ? 0 : 1;
}

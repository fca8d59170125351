// npm run bench: core figures as ratios against a baseline in the same run, so that they compare across machines.
import { benchAsking } from './bench-asking.mjs';
import { benchBig } from './bench-big.mjs';
import { benchFind } from './bench-find.mjs';
import { benchPages } from './bench-pages.mjs';
import { build } from './build.mjs';
import { tell } from './prepare.mjs';

/** Milliseconds of the quickest of several runs. */
function quickest(work, runs = 7) {
  let best = Infinity;
  for (let run = 0; run < runs; run++) {
    const start = performance.now();
    work();
    best = Math.min(best, performance.now() - start);
  }
  return best;
}

/** The baseline: parse and print 20,000 small JSON objects. */
function baseline() {
  let length = 0;
  for (let index = 0; index < 20_000; index++)
    length += JSON.stringify(JSON.parse(`{"id":${index},"on":"2027-03-16","tags":["a","b"]}`)).length;
  return length;
}

await tell(async () => {
  if (process.argv.includes('--pages')) return benchPages();
  if (process.argv.includes('--asking')) return benchAsking();
  build();
  const core = await import('../packages/core/dist/index.js');
  const day = core.getDay;
  const week = core.MONDAY_TO_FRIDAY;
  const doer = (zone, off) => ({
    calendar: core.toCalendar({ weeklyMinutes: week, holidays: off.map(day) }),
    zone,
    todayOn: day('2027-03-01'),
    todayCounts: true,
  });
  const doers = {
    maker: doer('Europe/London', ['2027-03-26', '2027-03-29']),
    writer: doer('America/Los_Angeles', []),
    client: doer('Pacific/Auckland', ['2027-03-12']),
  };
  const steps = [
    ['write', 'writer', 2],
    ['design', 'maker', 3],
    ['check', 'maker', 1],
    ['adapt', 'writer', 1],
    ['proof', 'maker', 1],
    ['sign-off', 'client', 2],
  ].map(([id, who, spanDays], index, all) => ({ id, doer: who, spanDays, predecessorIds: index ? [all[index - 1][0]] : [] }));
  const aims = Array.from({ length: 1000 }, (_, index) =>
    core.toInstantAfterGap(core.addDays(day('2027-03-20'), index % 200), core.getTimeOfDay('08:00'), 'Pacific/Auckland'),
  );
  const plan = (publishAt) =>
    core.planPiece({
      steps,
      doers,
      aims: [{ publishAt, leadDays: 0 }],
      publishZone: 'Pacific/Auckland',
      todayOn: day('2027-03-01'),
      slots: [{ at: core.getTimeOfDay('08:00'), leadDays: 0 }],
    });
  // twelve people who share the work of 1,000 pieces; the client's calendar is nobody's hours
  const people = Object.fromEntries(Array.from({ length: 12 }, (_, index) => [`person ${index}`, doer('Europe/London', [])]));
  const load = {
    doers: { ...people, client: { ...doers.client, unlimited: true } },
    steps: aims.flatMap((_, piece) =>
      steps.map((step, index) => ({
        ...step,
        id: `${piece} ${step.id}`,
        doer: step.doer === 'client' ? 'client' : `person ${(piece * 7 + index) % 12}`,
        effortMinutes: 60,
        latestFinishOn: core.addDays(day('2027-03-10'), (piece % 200) + index),
        predecessorIds: step.predecessorIds.map((id) => `${piece} ${id}`),
      })),
    ),
  };
  // an agency of 120 people with 40,000 steps, evenly spread; and the same on twelve of them, who are far beyond their hours
  const agency = (spread) => ({
    doers: {
      ...Object.fromEntries(Array.from({ length: 120 }, (_, index) => [`person ${index}`, doer('Europe/London', [])])),
      client: { ...doers.client, unlimited: true },
    },
    steps: Array.from({ length: 5_000 }, (_, piece) =>
      Array.from({ length: 8 }, (_, index) => ({
        id: `${piece} ${index}`,
        doer: index === 7 ? 'client' : `person ${(piece * 7 + index) % spread}`,
        spanDays: 1 + (index % 3),
        effortMinutes: 60 + (piece % 5) * 30,
        latestFinishOn: core.addDays(day('2027-03-10'), (piece % 200) + index),
        predecessorIds: index === 0 ? [] : [`${piece} ${index - 1}`],
      })),
    ).flat(),
  });
  const [even, crowded] = [agency(120), agency(12)];
  const content = {
    shared: { copy: 'Copy '.repeat(200), media: [], disclosure: '' },
    channels: { a: { copy: '', tags: ['x', 'y'], firstComment: '', link: '' } },
  };
  const rows = [
    ['backplan of one piece, 6 steps', () => plan(aims[0])],
    ['backplan of 1,000 pieces × 6 steps', () => aims.forEach(plan)],
    ['load of 1,000 pieces × 6 steps on 12 people', () => core.predictWorkload(load)],
    ['load of 40,000 steps on 120 people', () => core.predictWorkload(even)],
    ['load of 40,000 steps on 12 people, far beyond their hours', () => core.predictWorkload(crowded)],
    ['digests of 1,000 contents of 1,000 characters', () => aims.forEach((_, index) => core.digestParts('client', String(index), content))],
  ];
  const base = quickest(baseline);
  console.log(`baseline (parse and print 20,000 JSON objects): ${base.toFixed(1)} ms = 1.00`);
  for (const [name, work] of rows) {
    const time = quickest(work);
    console.log(`${name}: ${(time / base).toFixed(time / base < 0.1 ? 4 : 2)} × baseline (${time.toFixed(time < 1 ? 3 : 1)} ms here)`);
  }
  const big = process.argv.includes('--big');
  const sizes = process.argv.find((argument) => argument.startsWith('--sizes='))?.slice('--sizes='.length);
  if (big || sizes) await benchBig(sizes ? sizes.split(',').map(Number) : [2_500, 25_000], base);
  else await benchFind(base);
});

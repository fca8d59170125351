// npm run bench: core figures as ratios against a baseline in the same run, so that they compare across machines.
import { benchAsking } from './bench-asking.mjs';
import { benchBig } from './bench-big.mjs';
import { benchFind } from './bench-find.mjs';
import { benchPages } from './bench-pages.mjs';
import { rosterCase, tellRosterGap } from './bench-roster.mjs';
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

/** Sixty slots and two hundred ideas, drawn by a fixed seed: pillars, formats, channels, themes, days and worth of every kind. */
function monthToFill(core) {
  let seed = 7;
  const draw = (below) => (seed = (seed * 1_103_515_245 + 12_345) % 2_147_483_648) % below;
  const from = core.getDay('2027-03-01');
  const one = (share, name, of) => (draw(share) === 0 ? null : `${name} ${draw(of)}`);
  return {
    slots: Array.from({ length: 60 }, (_, index) => ({
      id: `slot ${index}`,
      on: core.addDays(from, index),
      channelId: `channel ${index % 3}`,
      pillarId: draw(3) === 0 ? `pillar ${draw(4)}` : null,
      formatId: one(2, 'format', 4),
      themeId: `theme ${index % 2}`,
      seasonIds: index % 3 === 0 ? ['season'] : [],
      taken: index % 9 === 4 ? { pillarId: `pillar ${draw(4)}`, subjectId: null } : null,
    })),
    candidates: Array.from({ length: 200 }, (_, index) => ({
      id: `idea ${index}`,
      pillarId: one(5, 'pillar', 4),
      formatId: one(3, 'format', 4),
      channelIds: draw(3) === 0 ? [`channel ${draw(3)}`] : null,
      themeIds: draw(2) === 0 ? [`theme ${draw(2)}`] : [],
      seasonIds: draw(4) === 0 ? ['season'] : [],
      subjectId: draw(2) === 0 ? `subject ${draw(20)}` : null,
      readyOn: draw(4) === 0 ? core.addDays(from, draw(60)) : null,
      notBeforeOn: null,
      expiresOn: draw(6) === 0 ? core.addDays(from, draw(60)) : null,
      worth: draw(100) / 100,
      hasTurn: draw(5) === 0,
      isPiece: draw(5) === 0,
      waitsDays: draw(200),
    })),
    owed: { 'pillar 0': 12, 'pillar 1': 10, 'pillar 2': 3, 'pillar 3': 5 },
    readyByFormat: {},
  };
}

/** How far the quick way of filling slots is from the best that HiGHS proves. */
async function tellGap(core, month) {
  const { default: loadHighs } = await import('highs');
  const highs = await loadHighs();
  const { lp, fixedValue } = core.modelOf(month);
  const start = performance.now();
  const solved = highs.solve(lp, { time_limit: 120 });
  const best = solved.ObjectiveValue + fixedValue;
  const quick = core.propose(month).value;
  console.log(
    `60 slots from 200 ideas: the quick way is worth ${quick}, the best ${Math.round(best)} (${solved.Status}, HiGHS, ${((performance.now() - start) / 1000).toFixed(1)} s here): a gap of ${((100 * (best - quick)) / best).toFixed(2)} %`,
  );
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
  // one of the 5,000 pieces, moved to a day that it cannot make, among the work of all others
  const [own, others] = [even.steps.slice(0, 8), even.steps.slice(8)];
  const among = {
    steps: own.map((step) => ({
      ...step,
      title: step.id,
      kind: 'make',
      skill: 'write',
      sameDay: false,
      optional: true,
      round: 1,
      remainingMinutes: null,
      startedOn: null,
      finishedOn: null,
      pinnedFinishOn: null,
    })),
    plan: {
      aims: [{ publishAt: core.toInstantAfterGap(day('2027-03-12'), core.getTimeOfDay('08:00'), 'Pacific/Auckland'), leadDays: 0 }],
      publishZone: 'Pacific/Auckland',
      todayOn: day('2027-03-01'),
      slots: [{ at: core.getTimeOfDay('08:00'), leadDays: 0 }],
    },
    doers: even.doers,
    others: others.map((step) => ({ ...step, pieceId: step.id.split(' ')[0] })),
    at: 0,
  };
  // forty steps of one person over two months
  const due = even.steps.slice(0, 40).map(({ id, effortMinutes }, index) => ({
    id,
    minutes: effortMinutes,
    releasedOn: core.addDays(day('2027-03-01'), index),
    dueOn: core.addDays(day('2027-03-03'), index + (index % 5)),
  }));
  const hours = { calendar: people['person 0'].calendar, taken: new Map(), todayOn: day('2027-03-01') };
  const content = {
    shared: { copy: 'Copy '.repeat(200), media: [], disclosure: '' },
    channels: { a: { copy: '', tags: ['x', 'y'], firstComment: '', link: '' } },
  };
  // fifty lines of a rhythm over a year, and a month of 60 slots before 200 ideas, by a fixed row of figures
  const rhythm = Array.from({ length: 50 }, (_, index) => ({
    id: `rule ${index}`,
    channelId: `channel ${index % 5}`,
    rule: index % 5 === 4 ? `FREQ=MONTHLY;BYDAY=${(index % 4) + 1}FR` : `FREQ=WEEKLY;INTERVAL=${1 + (index % 2)};BYDAY=MO,WE,FR`,
    at: core.getTimeOfDay(`${String(8 + (index % 10)).padStart(2, '0')}:00`),
    anchorOn: day('2026-01-05'),
    fromOn: day('2026-01-05'),
    untilOn: null,
    exceptOn: [],
    skipsHolidays: false,
  }));
  // another year each time, so that none was asked for before
  let years = 0;
  const yearOfSlots = () => {
    const from = core.addDays(day('2027-01-01'), years++);
    return core.slotsOf(rhythm, 'Europe/London', from, core.addDays(from, 364), new Set());
  };
  const month = monthToFill(core);
  const rosters = rosterCase(core);
  // two hundred duties, daily and weekly, over a year, each with somebody who stands in; and the load that they take
  const off = core.toCalendar({ weeklyMinutes: week, timeOff: [{ startOn: day('2027-07-05'), endOn: day('2027-07-23') }] });
  const on = core.toCalendar({ weeklyMinutes: week });
  const duty = (index) => ({
    rule: index % 2 === 0 ? 'FREQ=DAILY' : `FREQ=WEEKLY;BYDAY=${['MO', 'WE', 'FR'][index % 3]}`,
    fromOn: day('2027-01-01'),
    untilOn: null,
    leadDays: index % 4,
  });
  let starts = 0;
  const yearOfDuties = () => {
    const from = core.addDays(day('2027-01-04'), starts++);
    for (let index = 0; index < 200; index++)
      for (const time of core.dutyDays(duty(index), { lead: off, second: index % 3 ? on : null }, from, core.addDays(from, 365)))
        core.dutyLoad(time, 30, 'somebody', time.doer === 'lead' ? off : on, from);
  };
  const rows = [
    ['200 duties of a year, with the load they take', yearOfDuties],
    ['slots of a year from 50 rules', yearOfSlots],
    ['60 slots filled from 200 ideas, the quick way', () => core.propose(month)],
    ['120 steps given to 60 people, the quick way', () => core.quickRoster(rosters)],
    ['the programme for the same', () => core.rosterModel(rosters, core.valueOfRoster(rosters, core.quickRoster(rosters)).late)],
    ['backplan of one piece, 6 steps', () => plan(aims[0])],
    ['backplan of 1,000 pieces × 6 steps', () => aims.forEach(plan)],
    ['load of 1,000 pieces × 6 steps on 12 people', () => core.predictWorkload(load)],
    ['load of 40,000 steps on 120 people', () => core.predictWorkload(even)],
    ['load of 40,000 steps on 12 people, far beyond their hours', () => core.predictWorkload(crowded)],
    ['what becomes of one piece and 4,999 others', () => core.outcomeOf(among)],
    ['where one person has more than hours, 40 steps', () => core.overloads(due, hours)],
    ['digests of 1,000 contents of 1,000 characters', () => aims.forEach((_, index) => core.digestParts('client', String(index), content))],
  ];
  const base = quickest(baseline);
  console.log(`baseline (parse and print 20,000 JSON objects): ${base.toFixed(1)} ms = 1.00`);
  for (const [name, work] of rows) {
    const time = quickest(work);
    console.log(`${name}: ${(time / base).toFixed(time / base < 0.1 ? 4 : 2)} × baseline (${time.toFixed(time < 1 ? 3 : 1)} ms here)`);
  }
  await tellGap(core, month);
  await tellRosterGap(core, rosters);
  const big = process.argv.includes('--big');
  const sizes = process.argv.find((argument) => argument.startsWith('--sizes='))?.slice('--sizes='.length);
  if (big || sizes) await benchBig(sizes ? sizes.split(',').map(Number) : [2_500, 25_000], base);
  else await benchFind(base);
});

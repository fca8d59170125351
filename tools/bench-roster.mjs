/** Made up: steps of a period that nobody has, with eight people each who could take them among sixty, who have work already. Drawn from a fixed seed. */
export function rosterCase(core, count = 120, peopleCount = 60) {
  let seed = 11;
  const draw = (below) => (seed = (seed * 1_103_515_245 + 12_345) % 2_147_483_648) % below;
  const from = core.getDay('2027-03-01');
  const calendar = core.toCalendar({ weeklyMinutes: core.MONDAY_TO_FRIDAY });
  const lastOn = core.addDays(from, 84);
  const doers = Object.fromEntries(
    Array.from({ length: peopleCount }, (_, index) => {
      const has = Array.from({ length: 6 }, (_, own) => {
        const on = draw(30);
        return {
          id: `own ${index} ${own}`,
          minutes: 60 * (2 + draw(20)),
          releasedOn: core.addDays(from, on),
          dueOn: core.addDays(from, on + 2 + draw(10)),
        };
      });
      const by = { calendar, todayOn: from, taken: new Map(), has };
      return [`p${index}`, { ...by, has: core.standing(by, lastOn) }];
    }),
  );
  const tasks = Array.from({ length: count }, (_, index) => {
    const [begin, span] = [draw(25), 1 + draw(3)];
    const releasedOn = core.addDays(from, begin);
    const dueOn = core.addDays(from, begin + span + draw(6));
    const first = draw(peopleCount);
    return {
      id: `t${index}`,
      minutes: 60 * (1 + draw(14)),
      ways: Array.from({ length: 8 }, (_, at) => ({
        doer: `p${(first + at * 7) % peopleCount}`,
        releasedOn,
        ends: core.endsOf(calendar, { releasedOn, spanDays: span, dueOn, lastOn }),
        cost: draw(7) < 2 ? 100 * (1 + draw(90)) : 0,
        fit: at === 0 ? 0 : 1 + draw(5),
      })),
    };
  });
  return { tasks, doers };
}

/** How far the quick roster is from the best that HiGHS proves, and what that takes. */
export async function tellRosterGap(core, whole) {
  const { default: loadHighs } = await import('highs');
  const highs = await loadHighs();
  const begun = performance.now();
  const quick = core.valueOfRoster(whole, core.quickRoster(whole));
  const model = core.rosterModel(whole, quick.late);
  const built = performance.now() - begun;
  let [found, kept, statuses] = [new Map(), { late: quick.late }, []];
  for (const stage of core.ROSTER_STAGES) {
    const solved = highs.solve(core.rosterLp(model, stage, kept), { time_limit: 15, mip_rel_gap: 0 });
    found = core.rosterIn(model, Object.fromEntries(Object.entries(solved.Columns).map(([name, column]) => [name, column.Primal])));
    kept = { ...kept, [stage]: core.valueOfRoster(whole, found)[stage] };
    statuses.push(solved.Status);
  }
  const best = core.valueOfRoster(whole, found);
  const isFound = found.size === whole.tasks.length;
  console.log(
    `${whole.tasks.length} steps for ${Object.keys(whole.doers).length} people: the quick roster is ${quick.late} days late, costs ${quick.cost}, is ${quick.fit} from the first choices; ${isFound ? `the best ${best.late}, ${best.cost}, ${best.fit}` : 'HiGHS has found none when its time is up'} ` +
      `(${statuses.join(', ')}, ${model.columns.length} columns, ${model.rows.length} rows built in ${Math.round(built)} ms, HiGHS ${((performance.now() - begun - built) / 1000).toFixed(1)} s here)`,
  );
}

import fc from 'fast-check';
import { planPiece } from '../backplan/index.js';
import { getValue } from '../result/index.js';
import { getDay, getTimeOfDay, toInstantAfterGap, type Day } from '../time/index.js';
import { MONDAY_TO_FRIDAY, toCalendar } from '../workdays/index.js';
import { changePath, routeProblems, type AddedStep, type ChangeableStep, type PathChange, type RouteStep } from './index.js';

const d = getDay;
const step = (id: string, predecessorIds: string[], more: Partial<ChangeableStep> = {}): ChangeableStep => ({
  id,
  key: id,
  title: `Step ${id}`,
  kind: 'make',
  skill: 'write',
  spanDays: 1,
  effortMinutes: 60,
  remainingMinutes: null,
  sameDay: false,
  optional: false,
  round: 1,
  startedOn: null,
  finishedOn: null,
  pinnedFinishOn: null,
  predecessorIds,
  ...more,
});
/** Text and picture side by side, joined by a check, then the client. */
const letter = [
  step('write', [], { spanDays: 3, effortMinutes: 240 }),
  step('draw', [], { optional: true }),
  step('check', ['write', 'draw'], { kind: 'check' }),
  step('sign', ['check'], { kind: 'sign_off', effortMinutes: 0, spanDays: 2 }),
];
const proof: AddedStep = { id: 'proof', title: 'Proof', kind: 'check', skill: 'check', spanDays: 1, effortMinutes: 30, sameDay: false };
const change = (steps: readonly ChangeableStep[], ...changes: PathChange[]) => changePath(steps, changes, (made) => made);
const links = (steps: readonly ChangeableStep[]) =>
  steps.map(({ id, predecessorIds }) => `${id} < ${[...predecessorIds].sort().join(' ')}`.trim());
const done = (steps: readonly ChangeableStep[], ...ids: string[]) =>
  steps.map((one) => (ids.includes(one.id) ? { ...one, startedOn: d('2027-03-01'), finishedOn: d('2027-03-01') } : one));
const code = (result: ReturnType<typeof change>) => (result.ok ? 'ok' : result.failure.code);

describe('a path is changed', () => {
  it.each<[string, PathChange, string[]]>([
    ['a step is left out, its links joined', { kind: 'leave_out', stepId: 'draw' }, ['write <', 'check < write', 'sign < check']],
    [
      'one is added after another, and all that followed waits for it',
      { kind: 'add', step: proof, place: 'after', stepId: 'write' },
      ['write <', 'proof < write', 'draw <', 'check < draw proof', 'sign < check'],
    ],
    [
      'one is added side by side',
      { kind: 'add', step: proof, place: 'beside', stepId: 'check' },
      ['write <', 'draw <', 'check < draw write', 'proof < draw write', 'sign < check proof'],
    ],
    [
      'one is added before the client’s',
      { kind: 'add', step: proof, place: 'before', stepId: 'sign' },
      ['write <', 'draw <', 'check < draw write', 'proof < check', 'sign < proof'],
    ],
  ])('%s', (_name, what, expected) => {
    expect(links(getValue(change(letter, what)))).toEqual(expected);
  });

  it('splits work in two that follow each other, or that two people do beside each other', () => {
    const half: AddedStep = { ...proof, id: 'half', title: 'Second half', spanDays: 1, effortMinutes: 90 };
    const parts = (place: 'after' | 'beside') =>
      getValue(change(letter, { kind: 'split', step: half, place, stepId: 'write' }))
        .slice(0, 2)
        .map(({ kind, skill, spanDays, effortMinutes, predecessorIds }) => [kind, skill, spanDays, effortMinutes, predecessorIds]);
    expect(parts('after')).toEqual([
      ['make', 'write', 2, 150, []],
      ['make', 'write', 1, 90, ['write']],
    ]);
    expect(parts('beside')).toEqual([
      ['make', 'write', 3, 150, []],
      ['make', 'write', 1, 90, []],
    ]);
    const said = letter.map((one) => (one.id === 'write' ? { ...one, remainingMinutes: 100 } : one));
    expect(getValue(change(said, { kind: 'split', step: half, place: 'after', stepId: 'write' }))[0]?.remainingMinutes).toBe(10);
    expect(code(change(said, { kind: 'split', step: { ...half, effortMinutes: 120 }, place: 'after', stepId: 'write' }))).toBe(
      'path.split_too_much',
    );
  });

  it('takes other days and hours, and a finish that is pinned or let go', () => {
    const retimed = getValue(change(letter, { kind: 'retime', stepId: 'sign', spanDays: 4, effortMinutes: 0 }));
    expect(retimed[3]?.spanDays).toBe(4);
    const pinned = getValue(change(letter, { kind: 'pin', stepId: 'write', finishOn: d('2027-03-05') }));
    expect(pinned[0]?.pinnedFinishOn).toBe('2027-03-05');
    expect(getValue(change(pinned, { kind: 'pin', stepId: 'write', finishOn: null }))).toEqual(letter);
  });

  it('takes in what the client brings, which can be left out again, but is no work to split', () => {
    const bring: AddedStep = { ...proof, id: 'bring', title: 'Pictures', kind: 'deliver', skill: 'deliver', effortMinutes: 0 };
    const with_ = getValue(change(letter, { kind: 'add', step: bring, place: 'before', stepId: 'write' }));
    expect(links(with_)).toEqual(['bring <', 'write < bring', 'draw <', 'check < draw write', 'sign < check']);
    expect(links(getValue(change(with_, { kind: 'leave_out', stepId: 'bring' })))).toEqual(links(letter));
    expect(code(change(with_, { kind: 'split', step: proof, place: 'after', stepId: 'bring' }))).toBe('step.client_decides');
    expect(code(change(letter, { kind: 'add', step: bring, place: 'after', stepId: 'sign' }))).toBe('step.client_decides');
  });

  const left = { kind: 'leave_out', stepId: 'draw' } as const;
  it.each<[string, ChangeableStep[], PathChange, string]>([
    ['a step that is not there', letter, { kind: 'leave_out', stepId: 'x' }, 'step.not_on_path'],
    ['what must not be left out', letter, { kind: 'leave_out', stepId: 'write' }, 'step.not_optional'],
    ['leaving out the client', letter, { kind: 'leave_out', stepId: 'sign' }, 'step.client_decides'],
    ['what is finished', done(letter, 'draw'), left, 'step.already_finished'],
    ['what is begun', letter.map((one) => ({ ...one, startedOn: d('2027-03-01') })), left, 'step.already_begun'],
    ['leaving out all that is made', [step('draw', [], { optional: true })], left, 'path.nothing_made'],
    ['work after the client has signed', letter, { kind: 'add', step: proof, place: 'after', stepId: 'sign' }, 'step.client_decides'],
    [
      'what would make begun work wait',
      done(letter, 'write', 'draw', 'check'),
      { kind: 'add', step: proof, place: 'after', stepId: 'draw' },
      'path.follower_begun',
    ],
    [
      'a second step of one name',
      letter,
      { kind: 'add', step: { ...proof, title: ' step WRITE ' }, place: 'after', stepId: 'draw' },
      'path.title_twice',
    ],
    ['half a day', letter, { kind: 'retime', stepId: 'draw', spanDays: 0.5, effortMinutes: 0 }, 'step.time_wrong'],
    ['more than anybody has', letter, { kind: 'retime', stepId: 'draw', spanDays: 1, effortMinutes: 12_001 }, 'step.time_wrong'],
  ])('refuses %s', (_name, steps, what, expected) => {
    expect(code(change(steps, what))).toBe(expected);
  });

  it('makes none of several changes where one cannot be made', () => {
    expect(code(change(letter, left, left))).toBe('step.not_on_path');
  });
});

/** Any route of up to eight steps, all of which may be left out, the client last. */
const anyRoute = fc
  .array(fc.record({ links: fc.array(fc.nat(20), { maxLength: 3 }), spanDays: fc.integer({ min: 1, max: 4 }) }), {
    minLength: 2,
    maxLength: 7,
  })
  .map((drafts): RouteStep[] => {
    const steps = drafts.map(({ links, spanDays }, index): RouteStep => ({
      key: `s${index}`,
      title: `S ${index}`,
      kind: 'make',
      skill: 'write',
      spanDays,
      effortMinutes: 60,
      optional: true,
      after: [...new Set(links.filter((other) => other < index).map((other) => `s${other}`))],
    }));
    return [
      ...steps,
      {
        key: 'sign',
        title: 'Sign',
        kind: 'sign_off',
        skill: 'sign_off',
        spanDays: 1,
        effortMinutes: 0,
        after: steps.map(({ key }) => key),
      },
    ];
  });
const asPath = (route: readonly RouteStep[]): ChangeableStep[] =>
  route.map((one) =>
    step(one.key, [...one.after], {
      title: one.title,
      kind: one.kind,
      skill: one.skill,
      spanDays: one.spanDays,
      effortMinutes: one.effortMinutes,
      optional: one.optional ?? false,
    }),
  );
const lead: { todayOn: Day } = { todayOn: d('2027-03-01') };
const planOf = (steps: readonly ChangeableStep[]) =>
  getValue(
    planPiece({
      steps: steps.map((one) => ({ ...one, doer: 'all' })),
      doers: { all: { calendar: toCalendar({ weeklyMinutes: MONDAY_TO_FRIDAY }), zone: 'Europe/London', todayCounts: true, ...lead } },
      publishZone: 'Europe/London',
      todayOn: lead.todayOn,
      slots: [{ at: getTimeOfDay('09:00'), leadDays: 0 }],
      aims: [{ publishAt: toInstantAfterGap(d('2027-04-06'), getTimeOfDay('09:00'), 'Europe/London'), leadDays: 0 }],
    }),
  );
const asRoute = (steps: readonly ChangeableStep[]) =>
  steps.map((one) => ({
    key: one.id,
    title: one.title,
    kind: one.kind,
    skill: one.skill,
    spanDays: one.spanDays,
    effortMinutes: one.effortMinutes,
    after: one.predecessorIds,
  }));

describe('laws of a changed path', () => {
  it('leaving out a step never makes a piece later, and what is brought back stands as it stood', () => {
    fc.assert(
      fc.property(anyRoute, fc.array(fc.nat(6), { minLength: 1, maxLength: 3 }), (route, which) => {
        let path = asPath(route);
        const gone: string[] = [];
        for (const index of which) {
          const key = `s${index % (route.length - 1)}`;
          const next = change(path, { kind: 'leave_out', stepId: key });
          if (!next.ok) continue; // already gone, or the last that is made
          expect(planOf(next.value).earliestPublishOn <= planOf(path).earliestPublishOn).toBe(true);
          expect(planOf(next.value).slackDays ?? 0).toBeGreaterThanOrEqual(planOf(path).slackDays ?? 0);
          path = next.value;
          gone.push(key);
        }
        for (const key of gone.reverse()) path = getValue(change(path, { kind: 'bring_back', id: key, key, route }));
        const order = (steps: readonly ChangeableStep[]) => [...links(steps)].sort();
        // what waits through another step need not wait for it by name: the whole order is what stands as it stood
        expect(planOf(path).earliestPublishOn).toBe(planOf(asPath(route)).earliestPublishOn);
        expect(order(path).map((line) => line.split(' ')[0])).toEqual(order(asPath(route)).map((line) => line.split(' ')[0]));
      }),
    );
  });

  it('stays a path that work can take, whatever is changed', () => {
    const anyChange = fc.record({
      kind: fc.constantFrom('leave_out' as const, 'add' as const, 'split' as const, 'pin' as const, 'retime' as const),
      at: fc.nat(9),
      place: fc.constantFrom('before' as const, 'after' as const, 'beside' as const),
    });
    fc.assert(
      fc.property(anyRoute, fc.array(anyChange, { maxLength: 8 }), fc.nat(3), (route, drafts, finished) => {
        let path: readonly ChangeableStep[] = done(asPath(route), ...route.slice(0, finished).map(({ key }) => key));
        for (const [index, { kind, at, place }] of drafts.entries()) {
          const stepId = path[at % path.length]?.id ?? '';
          const added = { ...proof, id: `n${index}`, title: `N ${index}` };
          const what: PathChange =
            kind === 'leave_out'
              ? { kind, stepId }
              : kind === 'pin'
                ? { kind, stepId, finishOn: d('2027-03-09') }
                : kind === 'retime'
                  ? { kind, stepId, spanDays: 2, effortMinutes: 45 }
                  : kind === 'add'
                    ? { kind, stepId, step: added, place }
                    : { kind, stepId, step: added, place: place === 'before' ? 'after' : place };
          const next = change(path, what);
          if (!next.ok) continue;
          const minutes = (steps: readonly ChangeableStep[]) => steps.reduce((sum, one) => sum + one.effortMinutes, 0);
          if (kind === 'split') expect(minutes(next.value)).toBe(minutes(path)); // work is divided, not made
          path = next.value;
          expect(routeProblems(asRoute(path)).filter(({ code: problem }) => problem !== 'route.nothing_made')).toEqual([]);
          for (const one of path.filter(({ startedOn }) => startedOn !== null))
            for (const id of one.predecessorIds)
              expect(asPath(route).find(({ id: known }) => known === one.id)?.predecessorIds).toContain(id);
        }
      }),
    );
  });
});

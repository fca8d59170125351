import fc from 'fast-check';
import { getDay } from '../time/index.js';
import { getValue } from '../result/index.js';
import { takeAlong, type AlongStep, type RouteStep } from './index.js';

const step = (key: string, after: readonly string[], more: Partial<RouteStep> = {}): RouteStep => ({
  key,
  title: `Title ${key}`,
  kind: 'make',
  skill: 'write',
  spanDays: 2,
  effortMinutes: 120,
  after,
  ...more,
});
const sign = (after: readonly string[]): RouteStep => step('sign', after, { kind: 'sign_off', skill: 'sign_off', effortMinutes: 0 });

/** A path that a piece begins with. Ids are keys, so that it can be read. */
const fresh = (route: readonly RouteStep[]): AlongStep[] =>
  route.map((one) => ({
    id: one.key,
    key: one.key,
    title: one.title,
    kind: one.kind,
    skill: one.skill,
    round: 1,
    spanDays: one.spanDays,
    effortMinutes: one.effortMinutes,
    remainingMinutes: null,
    sameDay: one.sameDay ?? false,
    optional: one.optional ?? false,
    checklist: [...(one.checklist ?? [])],
    predecessorIds: [...one.after],
    startedOn: null,
    finishedOn: null,
    pinnedFinishOn: null,
  }));
const MONDAY = getDay('2027-03-01');
const begun = (path: readonly AlongStep[], ...ids: string[]): AlongStep[] =>
  path.map((one) => (ids.includes(one.id) ? { ...one, startedOn: MONDAY } : one));
const along = (path: readonly AlongStep[], from: readonly RouteStep[], to: readonly RouteStep[], isSkipped = (_: RouteStep) => false) =>
  getValue(takeAlong({ path, from, to, idOf: (key) => key, isSkipped }));
const links = (steps: readonly AlongStep[]) => steps.map(({ id, predecessorIds }) => `${id} < ${[...predecessorIds].sort().join(' ')}`);

const FROM = [step('a', []), step('b', ['a']), step('c', ['b'], { kind: 'check' }), sign(['c'])];

describe('a piece is taken along with its route', () => {
  it('what the route changed follows where the piece has it as it was; what was changed by hand stays', () => {
    const to = [
      step('a', [], { spanDays: 4, checklist: ['Read it aloud'] }),
      step('b', ['a'], { effortMinutes: 60, title: 'B' }),
      ...FROM.slice(2),
    ];
    const byHand = fresh(FROM).map((one) => (one.id === 'b' ? { ...one, effortMinutes: 600 } : one));
    const taken = along(byHand, FROM, to);
    expect(taken.changes).toEqual([
      { kind: 'changed', stepId: 'a', title: 'Title a', fields: ['days', 'checklist'] },
      { kind: 'changed', stepId: 'b', title: 'B', fields: ['title'] },
    ]);
    expect(taken.kept).toEqual([{ title: 'B', why: 'by_hand' }]);
    expect(taken.steps.slice(0, 2)).toMatchObject([
      { spanDays: 4, checklist: ['Read it aloud'] },
      { title: 'B', effortMinutes: 600 },
    ]);
  });

  it('a new step comes in at its place, unless what waits for it is begun', () => {
    const to = [...FROM.slice(0, 2), step('new', ['b']), step('c', ['new'], { kind: 'check' }), sign(['c'])];
    const taken = along(begun(fresh(FROM), 'a'), FROM, to);
    expect(links(taken.steps)).toEqual(['a < ', 'b < a', 'new < b', 'c < new', 'sign < c']);
    const late = along(begun(fresh(FROM), 'a', 'b', 'c'), FROM, to);
    expect([late.changes, late.kept]).toEqual([[], [{ title: 'Title new', why: 'follower_begun' }]]);
    expect(late.steps).toEqual(begun(fresh(FROM), 'a', 'b', 'c'));
  });

  it('a step that the route no longer has goes, unless it was begun; links are joined', () => {
    const to = [step('a', []), step('c', ['a'], { kind: 'check' }), sign(['c'])];
    expect(links(along(fresh(FROM), FROM, to).steps)).toEqual(['a < ', 'c < a', 'sign < c']);
    const kept = along(begun(fresh(FROM), 'b'), FROM, to);
    expect(kept.kept).toEqual([{ title: 'Title b', why: 'begun' }]);
    // by the route c waits for a alone now; what was begun stays where it is
    expect(kept.steps.map(({ id }) => id)).toEqual(['a', 'b', 'c', 'sign']);
  });

  it('what was left out by hand stays out, what was added by hand stays between', () => {
    const without = fresh(FROM)
      .filter(({ id }) => id !== 'b')
      .map((one) => (one.id === 'c' ? { ...one, predecessorIds: ['a'] } : one));
    const to = [step('a', []), step('b', ['a'], { spanDays: 9 }), step('c', ['b'], { kind: 'check', spanDays: 3 }), sign(['c'])];
    expect(links(along(without, FROM, to).steps)).toEqual(['a < ', 'c < a', 'sign < c']);
    const by = { ...fresh(FROM)[1], id: 'by', key: 'by_hand', title: 'By hand', predecessorIds: ['b'] } as AlongStep;
    const more = [...fresh(FROM).slice(0, 2), by, ...fresh(FROM).slice(2)].map((one) =>
      one.id === 'c' ? { ...one, predecessorIds: ['by'] } : one,
    );
    const next = [step('a', []), step('new', ['a']), step('c', ['new'], { kind: 'check' }), sign(['c'])];
    const taken = along(more, FROM, next);
    expect(links(taken.steps)).toEqual(['a < ', 'new < a', 'by < a', 'c < by new', 'sign < c']);
  });

  it('a step of another kind is another step; the client’s word does not come in where the agency decides', () => {
    const to = [step('a', []), step('b', ['a'], { kind: 'check' }), step('c', ['b'], { kind: 'check' }), sign(['c'])];
    const taken = getValue(takeAlong({ path: fresh(FROM), from: FROM, to, idOf: (key) => `${key}2`, isSkipped: () => false }));
    expect(links(taken.steps)).toEqual(['a < ', 'b2 < a', 'c < b2', 'sign < c']);
    const agency = [step('a', []), step('b', ['a'])];
    expect(links(along(fresh(agency), agency, [...agency, sign(['b'])], ({ kind }) => kind === 'sign_off').steps)).toEqual([
      'a < ',
      'b < a',
    ]);
  });

  it('steps of a later round take days and hours of rework, and keep their place', () => {
    const rework = { ...fresh(FROM)[0], id: 'a2', round: 2, spanDays: 1, effortMinutes: 30, predecessorIds: ['sign'] } as AlongStep;
    const base = [step('a', [], { reworkSpanDays: 1, reworkEffortMinutes: 30 }), ...FROM.slice(1)];
    const to = [step('a', [], { reworkSpanDays: 2, reworkEffortMinutes: 30, spanDays: 7 }), ...FROM.slice(1)];
    const done = begun(fresh(base), 'a', 'b', 'c', 'sign');
    const taken = along([...done, rework], base, to);
    expect(taken.steps.at(-1)).toMatchObject({ id: 'a2', spanDays: 2, effortMinutes: 30, predecessorIds: ['sign'] });
    expect(taken.changes).toEqual([{ kind: 'changed', stepId: 'a2', title: 'Title a', fields: ['days'] }]);
  });

  it('says so where changes by hand and the route’s stand against each other', () => {
    const from = [step('a', []), step('b', [])];
    const turned = fresh(from).map((one) => (one.id === 'a' ? { ...one, predecessorIds: ['b'] } : one));
    const found = takeAlong({ path: turned, from, to: [step('a', []), step('b', ['a'])], idOf: (key) => key, isSkipped: () => false });
    expect(found).toEqual({ ok: false, failure: { code: 'path.circular' } });
  });

  /** Any route over a few keys: what a step waits for stands before it. */
  const anyRoute = fc
    .uniqueArray(fc.constantFrom('a', 'b', 'c', 'd', 'e', 'f'), { minLength: 1, maxLength: 6 })
    .chain((keys) =>
      fc.tuple(
        ...keys.map((key, index) =>
          fc
            .record({ after: fc.subarray(keys.slice(0, index)), spanDays: fc.integer({ min: 1, max: 3 }), isCheck: fc.boolean() })
            .map(({ after, spanDays, isCheck }) => step(key, after, { spanDays, kind: isCheck && key > 'c' ? 'check' : 'make' })),
        ),
      ),
    );

  it('nothing begun and nothing changed by hand: it becomes what a piece that begins now has', () => {
    fc.assert(
      fc.property(anyRoute, anyRoute, (from, to) => {
        const taken = getValue(takeAlong({ path: fresh(from), from, to, idOf: (key) => `new ${key}`, isSkipped: () => false }));
        const keyOf = new Map(taken.steps.map(({ id, key }) => [id, key]));
        const read = (steps: readonly AlongStep[], name: (id: string) => string | undefined) =>
          steps
            .map(({ key, kind, spanDays, predecessorIds }) => `${key} ${kind} ${spanDays} < ${predecessorIds.map(name).sort().join(' ')}`)
            .sort();
        expect(read(taken.steps, (id) => keyOf.get(id))).toEqual(read(fresh(to), (id) => id));
      }),
      { numRuns: 500 },
    );
  });

  it('whatever is begun stays as it is; nothing moves where the route is the same; once more changes nothing', () => {
    const any = fc.tuple(anyRoute, anyRoute, fc.subarray(['a', 'b', 'c', 'd', 'e', 'f']), fc.subarray(['a', 'b', 'c']));
    fc.assert(
      fc.property(any, ([from, to, started, edited]) => {
        const path = begun(fresh(from), ...started).map((one) => (edited.includes(one.id) ? { ...one, spanDays: 9 } : one));
        const input = { path, from, idOf: (key: string) => `new ${key}`, isSkipped: () => false };
        expect(along(path, from, from)).toMatchObject({ steps: path, changes: [], kept: [] });
        const found = takeAlong({ ...input, to });
        // what was begun waits for what the route now has after it
        if (!found.ok) return expect(started.length).toBeGreaterThan(0);
        const taken = found.value;
        for (const one of path.filter(({ startedOn }) => startedOn)) expect(taken.steps).toContainEqual(one);
        for (const one of path.filter(({ spanDays }) => spanDays === 9))
          expect(taken.steps.filter(({ id }) => id === one.id).every(({ spanDays }) => spanDays === 9)).toBe(true);
        const again = getValue(takeAlong({ ...input, path: taken.steps, from: to, to }));
        expect(again).toMatchObject({ steps: taken.steps, changes: [], kept: [] });
      }),
      { numRuns: 500 },
    );
  });
});

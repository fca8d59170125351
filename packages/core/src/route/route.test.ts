import fc from 'fast-check';
import { isByClient, leastDays, routeProblems, skillOf, stepsInOrder, withoutSteps, type RouteStep } from './index.js';

const step = (key: string, after: string[], more: Partial<RouteStep> = {}): RouteStep => ({
  key,
  title: `Step ${key}`,
  kind: 'make',
  skill: 'write',
  spanDays: 1,
  effortMinutes: 60,
  after,
  ...more,
});
const signOff = (after: string[]) => step('s', after, { kind: 'sign_off' });
const codes = (steps: RouteStep[]) => routeProblems(steps).map((problem) => `${problem.key ?? 'route'}: ${problem.code}`);

describe('a route', () => {
  it('is right when steps follow each other, in turn or side by side', () => {
    expect(routeProblems([step('a', []), step('b', []), step('c', ['a', 'b'], { kind: 'check' }), signOff(['c'])])).toEqual([]);
  });

  it.each<[string, RouteStep[], string[]]>([
    ['no step', [], ['route: route.empty']],
    ['no title', [step('a', [], { title: ' ' })], ['a: route.title_missing']],
    [
      'one title twice',
      [step('a', [], { title: 'Film' }), step('b', [], { title: 'film ' })],
      ['a: route.title_twice', 'b: route.title_twice'],
    ],
    ['half a day', [step('a', [], { spanDays: 0.5 })], ['a: route.span_wrong']],
    ['no day when done again', [step('a', [], { reworkSpanDays: 0 })], ['a: route.span_wrong']],
    ['less than no effort', [step('a', [], { effortMinutes: -1 })], ['a: route.effort_wrong']],
    ['an unknown predecessor', [step('a', ['x'])], ['a: route.predecessor_unknown']],
    ['steps in a ring', [step('a', []), step('b', ['c', 'a']), step('c', ['b'])], ['b: route.circular']],
    ['a step that waits for itself', [step('a', ['a'])], ['a: route.circular']],
    ['nothing made', [step('a', [], { kind: 'check' })], ['route: route.nothing_made']],
    ['work after sign-off', [step('a', []), signOff(['a']), step('b', ['s'])], ['s: route.sign_off_not_last']],
  ])('is refused with %s', (_name, steps, problems) => {
    expect(codes(steps)).toEqual(problems);
  });

  it('may begin with what the client brings, which comes in before its word, never after it', () => {
    const bring = (after: string[]) => step('b', after, { kind: 'deliver', skill: 'deliver', effortMinutes: 0 });
    expect(codes([bring([]), step('a', ['b']), signOff(['a'])])).toEqual([]);
    expect(codes([step('a', []), signOff(['a']), bring(['s'])])).toEqual(['s: route.sign_off_not_last']);
    expect(codes([bring([]), signOff(['b'])])).toEqual(['route: route.nothing_made']);
    expect((['make', 'check', 'deliver', 'sign_off'] as const).filter(isByClient)).toEqual(['deliver', 'sign_off']);
    expect([skillOf({ kind: 'deliver', skill: 'write' }), skillOf({ kind: 'make', skill: ' write ' })]).toEqual(['deliver', 'write']);
  });

  it('joins the links of steps left out', () => {
    const left = withoutSteps([step('a', []), step('b', ['a']), step('c', ['b']), step('d', ['b', 'c'])], ['b', 'c']);
    expect(left.map((other) => [other.key, other.after])).toEqual([
      ['a', []],
      ['d', ['a']],
    ]);
  });

  const anyRoute = fc
    .array(fc.array(fc.nat(20), { maxLength: 3 }), { minLength: 1, maxLength: 9 })
    .map((links) => links.map((before, index) => step(String(index), [...new Set(before.filter((other) => other < index).map(String))])));

  it('stand in the order of the work, whatever order they were written in', () => {
    const order = (steps: RouteStep[]) => stepsInOrder(steps).map((other) => other.key);
    expect(order([step('c', ['b']), step('b', ['a']), step('a', [])])).toEqual(['a', 'b', 'c']);
    expect(order([step('b', ['c']), step('c', ['b'])])).toEqual(['b', 'c']); // a ring stays as it was written
  });

  it('keeps who waits for whom when any step is left out', () => {
    fc.assert(
      fc.property(anyRoute, fc.nat(8), (steps, at) => {
        const key = String(at % steps.length);
        const left = withoutSteps(steps, [key]);
        expect(routeProblems(left).filter((problem) => problem.code !== 'route.empty')).toEqual([]);
        const order = stepsInOrder(left).map((other) => other.key);
        expect(order).toHaveLength(steps.length - 1);
        for (const other of left) for (const before of other.after) expect(order.indexOf(before)).toBeLessThan(order.indexOf(other.key));
      }),
    );
  });
});

describe('the fewest days of a route', () => {
  const one = (key: string, spanDays: number, after: readonly string[], sameDay = false): RouteStep => ({
    ...{ key, title: key, kind: 'make', skill: 's', effortMinutes: 0 },
    ...{ spanDays, after, sameDay },
  });
  it('is the longest way through it', () => {
    expect(leastDays([])).toBe(0);
    // write 2, then draw 3 beside film 5, both before check 1 of the same day, then the client's 2
    const steps = [
      one('check', 1, ['draw', 'film'], true),
      one('write', 2, []),
      one('draw', 3, ['write']),
      one('film', 5, ['write']),
      one('sign', 2, ['check']),
    ];
    expect(leastDays(steps)).toBe(2 + 5 + 0 + 2);
    expect(leastDays([one('a', 1, [], true)])).toBe(1); // there is nothing to share a day with
  });
});

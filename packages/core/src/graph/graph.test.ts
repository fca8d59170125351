import fc from 'fast-check';
import { ancestorsOf, followersOf, inOrder, isFree, without, type Graph } from './index.js';

interface Thing {
  readonly id: string;
  readonly before: readonly string[];
}
const GRAPH: Graph<Thing> = { idOf: ({ id }) => id, beforeOf: ({ before }) => before };
const thing = (id: string, ...before: string[]): Thing => ({ id, before });
const ids = (things: readonly Thing[]): string => things.map(({ id }) => id).join(' ');

/** Things of which each stands after some of those made before it, in an order by chance. */
const anyGraph = fc
  .array(fc.array(fc.nat(12), { maxLength: 3 }), { minLength: 1, maxLength: 10 })
  .map((links) => links.map((before, at) => thing(String(at), ...new Set(before.filter((other) => other < at).map(String)))))
  .chain((things) => fc.shuffledSubarray(things, { minLength: things.length }));

describe('an order', () => {
  it('puts each after what stands before it, as given where either may be first', () => {
    const sorted = inOrder(GRAPH, [thing('d', 'b', 'c'), thing('b', 'a'), thing('a'), thing('c', 'a'), thing('e')]);
    expect('order' in sorted && ids(sorted.order)).toBe('a e b c d');
  });

  it('does not wait for what is not there', () => {
    const sorted = inOrder(GRAPH, [thing('a', 'gone'), thing('b', 'a')]);
    expect('order' in sorted && ids(sorted.order)).toBe('a b');
  });

  it('names one of a ring, not one that only waits for it', () => {
    const ring = (things: Thing[]) => {
      const sorted = inOrder(GRAPH, things);
      return 'ring' in sorted ? sorted.ring.id : undefined;
    };
    expect(ring([thing('a', 'a')])).toBe('a');
    expect(['b', 'c']).toContain(ring([thing('waits', 'b'), thing('b', 'c'), thing('c', 'b'), thing('free')]));
    expect(ring([])).toBeUndefined();
  });

  it('holds for any graph, and loses nothing', () => {
    fc.assert(
      fc.property(anyGraph, (things) => {
        const sorted = inOrder(GRAPH, things);
        if (!('order' in sorted)) throw new Error('there is no ring');
        const place = new Map(sorted.order.map(({ id }, at) => [id, at]));
        expect(place.size).toBe(things.length);
        for (const { id, before } of things) for (const other of before) expect(place.get(other)).toBeLessThan(place.get(id) ?? -1);
      }),
    );
  });
});

describe('what stands before', () => {
  const things = [thing('a'), thing('b', 'a'), thing('c', 'b'), thing('d', 'a', 'c'), thing('x')];

  it('is all of it, however far, and comes to an end in a ring', () => {
    expect([...ancestorsOf(GRAPH, ['c'], things)].sort()).toEqual(['a', 'b', 'c']);
    expect([...ancestorsOf(GRAPH, [], things)]).toEqual([]);
    expect([...ancestorsOf(GRAPH, ['p'], [thing('p', 'q'), thing('q', 'p')])].sort()).toEqual(['p', 'q']);
  });

  it('is finished whole or not at all', () => {
    expect([isFree([], new Set()), isFree(['a'], new Set(['a'])), isFree(['a', 'b'], new Set(['a']))]).toEqual([true, true, false]);
  });

  it('is known the other way round', () => {
    expect([...followersOf(GRAPH, things)].map(([id, followers]) => `${id}: ${ids(followers)}`)).toEqual(['a: b d', 'b: c', 'c: d']);
  });
});

describe('what is left out', () => {
  const link = (one: Thing, before: string[]): Thing => ({ ...one, before });

  it('joins its links: what waited for it waits for what it waited for, once', () => {
    const left = without(GRAPH, [thing('a'), thing('b', 'a'), thing('c', 'a', 'b'), thing('d', 'b')], ['b', 'unknown'], link);
    expect(left).toEqual([thing('a'), thing('c', 'a'), thing('d', 'a')]);
  });

  it('changes for no others who waits for whom', () => {
    fc.assert(
      fc.property(anyGraph, fc.nat(9), (things, at) => {
        const gone = things[at % things.length]?.id ?? '';
        const left = without(GRAPH, things, [gone], link);
        expect(ids(left)).toBe(ids(things.filter(({ id }) => id !== gone)));
        for (const one of left) {
          const [then, now] = [
            ancestorsOf(GRAPH, things.find(({ id }) => id === one.id)?.before ?? [], things),
            ancestorsOf(GRAPH, one.before, left),
          ];
          then.delete(gone);
          expect([...now].sort()).toEqual([...then].sort());
        }
      }),
    );
  });
});

import fc from 'fast-check';
import { inTreeOrder, leavesOf, matrixSize, monthsLasting, unusedBranches, type Topic } from './index.js';

/** A tree of pillars with so many topics of so many subtopics each. */
const tree = (pillars: number, topics: number, subtopics: number): Topic[] =>
  Array.from({ length: pillars }, (_, p) => `p${p}`).flatMap((pillarId) =>
    Array.from({ length: topics }, (_, t) => `${pillarId}t${t}`).flatMap((id) => [
      { id, pillarId, parentId: null },
      ...Array.from({ length: subtopics }, (_, s) => ({ id: `${id}s${s}`, pillarId, parentId: id })),
    ]),
  );

describe('the size of a matrix', () => {
  // common practice: 3 pillars × 4 topics × 6 subtopics; 6 subtopics × 3 treatments are the scripts of one recording day
  it('of 3 pillars, 4 topics and 6 subtopics is 72, at 3 treatments 216, and lasts 12 months at 18 a month', () => {
    expect(matrixSize(3, tree(3, 4, 6), 3)).toEqual({ pillars: 3, topics: 12, subtopics: 72, leaves: 72, treatments: 3, cells: 216 });
    expect(monthsLasting(216, 18)).toBe(12);
    expect(matrixSize(1, tree(1, 1, 6), 3).cells).toBe(18);
  });

  it('counts a topic without subtopics as a subject of its own, and one way where none is named', () => {
    expect(matrixSize(2, tree(2, 3, 0), 0)).toMatchObject({ topics: 6, subtopics: 0, leaves: 6, treatments: 1, cells: 6 });
    expect(matrixSize(1, [], 3)).toMatchObject({ leaves: 0, cells: 0 });
    expect(monthsLasting(6, 0)).toBeNull();
  });
});

describe('what was not used', () => {
  it('is told by its topmost branch', () => {
    const topics = tree(1, 2, 2);
    expect(unusedBranches(topics, new Set())).toEqual(['p0t0', 'p0t1']);
    expect(unusedBranches(topics, new Set(['p0t0s1']))).toEqual(['p0t0s0', 'p0t1']);
    // what was used as a whole leaves its subtopics to be used
    expect(unusedBranches(topics, new Set(['p0t0']))).toEqual(['p0t0s0', 'p0t0s1', 'p0t1']);
  });

  const shapes = fc.tuple(fc.integer({ min: 1, max: 4 }), fc.integer({ min: 0, max: 5 }), fc.integer({ min: 0, max: 5 }));
  it('and what was used make up the tree: using one more never makes more unused leaves', () => {
    fc.assert(
      fc.property(shapes, fc.array(fc.nat(), { maxLength: 20 }), ([pillars, topics, subtopics], picks) => {
        const all = tree(pillars, topics, subtopics);
        const used = new Set(picks.flatMap((pick) => all[pick % Math.max(1, all.length)]?.id ?? []));
        const unused = new Set(unusedBranches(all, used));
        const isBelowUnused = ({ id, parentId }: Topic) => unused.has(id) || (parentId !== null && unused.has(parentId));
        for (const topic of all) {
          if (used.has(topic.id)) expect(isBelowUnused(topic)).toBe(false);
          else if (topic.parentId !== null) expect(isBelowUnused(topic)).toBe(true);
        }
      }),
    );
  });

  it('stands in the order of the tree, nothing lost and nothing twice', () => {
    fc.assert(
      fc.property(shapes, fc.integer(), ([pillars, topics, subtopics], seed) => {
        const all = tree(pillars, topics, subtopics);
        const mixed = [...all].sort((a, b) => ((a.id.length * 31 + seed) % 7) - ((b.id.length * 31 + seed) % 7));
        const order = inTreeOrder(
          Array.from({ length: pillars }, (_, p) => `p${p}`),
          mixed,
        );
        expect([...order].map(({ id }) => id).sort()).toEqual(all.map(({ id }) => id).sort());
        for (const [index, { parentId }] of order.entries())
          if (parentId !== null) {
            const before = order[index - 1];
            expect(before?.id === parentId || before?.parentId === parentId).toBe(true);
          }
        expect(leavesOf(order)).toHaveLength(matrixSize(pillars, all, 1).leaves);
      }),
    );
  });
});

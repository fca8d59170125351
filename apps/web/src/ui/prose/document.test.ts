import fc from 'fast-check';
import { readProse, writeProse, type ProseBlock, type ProseItem } from '@zesting/core';
import { fromDocument, toDocument } from './document';
import { placesOf } from './own-words';

const runs = fc.array(
  fc.record({
    text: fc.string({ unit: fc.constantFrom('a', 'b', ' ', '*', '\n'), minLength: 1, maxLength: 6 }),
    isStrong: fc.boolean(),
    isEmphasis: fc.boolean(),
    link: fc.constantFrom(null, 'https://a.test'),
  }),
  { minLength: 1, maxLength: 3 },
);
const paragraph = runs.map((all): ProseBlock & { kind: 'paragraph' } => ({ kind: 'paragraph', runs: all }));
const list: fc.Arbitrary<ProseBlock> = fc.record({
  kind: fc.constant('list' as const),
  isOrdered: fc.boolean(),
  items: fc.array(
    fc
      .tuple(paragraph, fc.boolean())
      .map(([words, isDeep]): ProseItem => (isDeep ? [words, { kind: 'list', isOrdered: false, items: [[words]] }] : [words])),
    { minLength: 1, maxLength: 2 },
  ),
});
const heading: fc.Arbitrary<ProseBlock> = fc.record({
  kind: fc.constant('heading' as const),
  level: fc.constantFrom(1 as const, 2 as const, 3 as const),
  runs,
});

describe('what an editor has', () => {
  it('is our own content model there and back', () => {
    fc.assert(
      fc.property(fc.array(fc.oneof(paragraph, list, heading), { maxLength: 3 }), (blocks) => {
        const source = writeProse(blocks);
        expect(writeProse(fromDocument(toDocument(readProse(source))))).toBe(source);
        expect(writeProse(fromDocument(toDocument(blocks)))).toBe(source);
      }),
      { numRuns: 300 },
    );
  });

  it('is a paragraph where there is nothing, and what it alone knows is its words', () => {
    expect(toDocument([])).toEqual({ type: 'doc', content: [{ type: 'paragraph' }] });
    expect(writeProse(fromDocument(toDocument([])))).toBe('');
    const strange = { type: 'doc', content: [{ type: 'strange', content: [{ type: 'text', text: 'Words', marks: [{ type: 'other' }] }] }] };
    expect(writeProse(fromDocument(strange))).toBe('Words');
  });

  it('marks the client’s own words wherever they stand whole', () => {
    const at = (words: string[], text: string) => placesOf(words, text).map(([from, to]) => text.slice(from, to));
    expect(at(['Kiln Lane', 'rye+'], 'At kiln lane, Kiln Lanes and rye+. RYE+!')).toEqual(['kiln lane', 'rye+', 'RYE+']);
    expect(at([' ', ''], 'Anything')).toEqual([]);
  });
});

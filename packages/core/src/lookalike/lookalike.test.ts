import fc from 'fast-check';
import { sharedWords, similarity, trigramsOf, wordSimilarity } from './index.js';

describe('look-alikes', () => {
  // PostgreSQL 17 documentation, F.35.1 Trigram (or Trigraph) Concepts and table F.26
  it('has the trigrams of the documentation’s examples', () => {
    expect([...trigramsOf('cat')].sort()).toEqual(['  c', ' ca', 'at ', 'cat']);
    expect([...trigramsOf('foo|bar')].sort()).toEqual(['  b', '  f', ' ba', ' fo', 'ar ', 'bar', 'foo', 'oo ']);
  });

  it('has the values of the documentation’s examples', () => {
    expect([...trigramsOf('word')].sort()).toEqual(['  w', ' wo', 'ord', 'rd ', 'wor']);
    expect(wordSimilarity('word', 'two words')).toBeCloseTo(0.8, 6);
    expect(similarity('word', 'words')).toBeCloseTo(0.571429, 6); // strict_word_similarity('word', 'two words') names this extent
    expect(similarity('word', 'two words')).toBeCloseTo(4 / 11, 6);
  });

  it('is the same both ways, one for the same, none for nothing', () => {
    fc.assert(
      fc.property(fc.string(), fc.string(), (a, b) => {
        expect(similarity(a, b)).toBe(similarity(b, a));
        expect(similarity(a, a)).toBe(trigramsOf(a).size === 0 ? 0 : 1);
        expect(wordSimilarity(a, b)).toBeGreaterThanOrEqual(similarity(a, b) - 1e-12);
        expect(wordSimilarity(a, b)).toBeLessThanOrEqual(1);
      }),
    );
    expect([similarity('', 'x'), wordSimilarity('x', ''), similarity('!', '?')]).toEqual([0, 0, 0]);
  });

  it('says by which words', () => {
    expect(sharedWords('The spring sale of the nursery', 'Nursery: SPRING begins')).toEqual(['spring', 'nursery']);
    expect(sharedWords('It is on', 'It is off')).toEqual([]);
  });
});

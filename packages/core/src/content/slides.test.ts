import fc from 'fast-check';
import { slidesText, slideWords } from './index';

const told = (text: string) => slideWords(text).map(({ number, words }) => [number, words]);

describe('the words of slides', () => {
  it('are the paragraphs of a text, in their order', () => {
    expect(told('First words\nin two lines\n\nSecond\n \n\n\nThird\n')).toEqual([
      [1, 'First words\nin two lines'],
      [2, 'Second'],
      [3, 'Third'],
    ]);
    expect([told(''), told(' \n\n ')]).toEqual([[], []]);
  });

  it('keep their numbers: a slide between may have no words', () => {
    expect(told('1. Flour, water\n\n3. Smells wrong\n\nDoes not\n\n2. is what a slide says')).toEqual([
      [1, 'Flour, water'],
      [3, 'Smells wrong'],
      [4, 'Does not'],
      [5, '2. is what a slide says'],
    ]);
  });

  it('are no more for a high number that they begin with', () => {
    expect(told('First\n\n900. visitor')).toEqual([
      [1, 'First'],
      [2, '900. visitor'],
    ]);
    expect(told('50. is the last that leaves out')).toEqual([[50, 'is the last that leaves out']]);
    expect(told(slidesText(Array.from({ length: 60 }, (_, index) => `w${index}`))).at(-1)).toEqual([60, 'w59']);
  });

  it('say where they stand, without their number', () => {
    const text = '1. Flour\n\n2. Water\nand salt';
    expect(slideWords(text).map(({ from, to }) => text.slice(from, to))).toEqual(['Flour', 'Water\nand salt']);
  });

  it('are written with their numbers, each as one paragraph', () => {
    expect(slidesText(['Flour ', '', '3. Water\n\n\nand salt'])).toBe('1. Flour\n\n3. 3. Water\nand salt');
    expect(slidesText(['', ' '])).toBe('');
  });

  it('read as they were written, whatever they are', () => {
    const words = fc.array(fc.oneof(fc.constantFrom('', '1. one', '7) x', 'a\nb', ' c '), fc.string()), { maxLength: 8 });
    fc.assert(
      fc.property(words, (all) => {
        const read = slideWords(slidesText(all));
        const meant = all.map((each) => each.trim().replace(/\n(?:[^\S\n]*\n)+/g, '\n'));
        expect(read.map(({ number, words: each }) => [number, each])).toEqual(
          meant.flatMap((each, index) => (each === '' ? [] : [[index + 1, each]])),
        );
      }),
    );
  });
});

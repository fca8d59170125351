import fc from 'fast-check';
import type { Mark } from './mark';
import { linesIn, readProse } from '@zesting/core';
import { cutByRuns, segmentsOf } from './segments';

const mark = (id: string, from: number, to: number, onText: string): Mark => ({
  id,
  number: 1,
  place: { kind: 'stretch', channelId: null, from, to, onText },
  isDone: false,
  isChosen: false,
});

describe('a text with marks', () => {
  it('is cut where marks and sentences begin and end', () => {
    const text = 'We bake. Come in.';
    const segments = segmentsOf(text, [mark('a', 3, 7, text), mark('b', 5, 13, text)]);
    expect(segments.map(({ from, to, markIds, ends }) => [text.slice(from, to), markIds, ends.map(({ id }) => id)])).toEqual([
      ['We ', [], []],
      ['ba', ['a'], []],
      ['ke', ['a', 'b'], ['a']],
      ['.', ['b'], []],
      [' ', ['b'], []],
      ['Come', ['b'], ['b']],
      [' in.', [], []],
    ]);
    expect(segments.map(({ sentence }) => sentence && text.slice(sentence.from, sentence.to))).toEqual([
      ...['We bake.', 'We bake.', 'We bake.', 'We bake.', null],
      ...['Come in.', 'Come in.'],
    ]);
    expect(segmentsOf('', [])).toEqual([]);
  });

  it('is whole again, character for character, and each mark lies on just its stretch', () => {
    const stretch = fc.tuple(fc.nat(40), fc.nat(40));
    fc.assert(
      fc.property(
        fc.string({ minLength: 1, maxLength: 40, unit: fc.constantFrom('a', 'b', '. ', ' ', '\n') }),
        fc.array(stretch, { maxLength: 4 }),
        (text, ends) => {
          const marks = ends
            .map(([a, b], index) => mark(String(index), Math.min(a, b) % text.length, (Math.max(a, b) % text.length) + 1, text))
            .filter(({ place }) => place.kind === 'stretch' && place.from < place.to);
          const segments = segmentsOf(text, marks);
          expect(segments.map(({ from, to }) => text.slice(from, to)).join('')).toBe(text);
          for (const { id, place } of marks) {
            const on = segments.filter(({ markIds }) => markIds.includes(id));
            expect(on.map(({ from, to }) => text.slice(from, to)).join('')).toBe(
              place.kind === 'stretch' && text.slice(place.from, place.to),
            );
            expect(segments.filter((segment) => segment.ends.some((other) => other.id === id))).toHaveLength(1);
          }
        },
      ),
    );
  });

  it('that is laid out is cut by its runs too, and has the number of each mark once, behind the last that is seen of it', () => {
    const text = 'We **ba\\*ke** it.\n\n- Come';
    const from = (words: string) => text.indexOf(words);
    const marks = [mark('a', from('We'), from('** it'), text), mark('b', from('** it'), from('.'), text)];
    const cut = cutByRuns(
      text,
      segmentsOf(text, marks),
      readProse(text).flatMap((block) => linesIn(block).flat()),
    );
    expect(cut.map(({ from: at, to, markIds, ends }) => [text.slice(at, to), markIds, ends.map(({ id }) => id)])).toEqual([
      ['We ', ['a'], []],
      ['ba', ['a'], []],
      ['*ke', ['a'], ['a']],
      [' it', ['b'], ['b']],
      ['.', [], []],
      ['Come', [], []],
    ]);
    expect(cut.map(({ sentence }) => sentence && [text.slice(sentence.from, sentence.to), sentence.words])).toEqual([
      ...Array.from({ length: 5 }, () => ['We **ba\\*ke** it.', 'We ba*ke it.']),
      ['Come', 'Come'],
    ]);
  });
});

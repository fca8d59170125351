import fc from 'fast-check';
import { sameTag } from '../copycheck/index.js';
import { getDay } from '../time/index.js';
import { fitOfTagSet, inOrderOfFit, withTagSet } from './index.js';

const set = (name: string, pillarId: string | null, weekday: number | null) => ({ name, tags: ['a'], pillarId, weekday });
const piece = { pillarId: 'craft', on: getDay('2027-03-02') }; // a Tuesday

describe('tag sets', () => {
  it('are offered by what they are meant for: pillar and weekday, one of them, any, then those for others', () => {
    const sets = [
      set('Monday', null, 1),
      set('any', null, null),
      set('people', 'people', null),
      set('Tuesday', null, 2),
      set('craft', 'craft', null),
      set('craft on Tuesday', 'craft', 2),
      set('craft on Monday', 'craft', 1),
    ];
    expect(inOrderOfFit(sets, piece).map(({ name }) => name)).toEqual([
      'craft on Tuesday',
      'Tuesday',
      'craft',
      'any',
      'Monday',
      'people',
      'craft on Monday',
    ]);
    expect(sets.map((one) => fitOfTagSet(one, piece))).toEqual([null, 0, null, 1, 1, 2, null]);
    expect(fitOfTagSet(set('Tuesday', null, 2), { ...piece, on: null })).toBeNull(); // no day yet
  });

  it('are put behind the tags that are there, each tag once', () => {
    expect(withTagSet(['Rye'], { tags: ['bread', 'rye', 'Bread'] })).toEqual(['Rye', 'bread']);
    const tags = fc.array(fc.string({ minLength: 1, maxLength: 4 }));
    fc.assert(
      fc.property(tags, tags, (before, kept) => {
        const after = withTagSet(before, { tags: kept });
        expect(after.slice(0, before.length)).toEqual(before);
        expect(kept.every((tag) => after.some((other) => sameTag(other) === sameTag(tag)))).toBe(true);
        expect(withTagSet(after, { tags: kept })).toEqual(after); // once more is no change
      }),
    );
  });
});

import { tagWords, toTags } from './tags';

describe('tags as they are typed', () => {
  it('may be apart by anything, with number signs or without; their order stays', () => {
    expect(toTags('#rye, bread  ##slow\nearly,')).toEqual(['rye', 'bread', 'slow', 'early']);
    expect(toTags(' # ')).toEqual([]);
    expect(toTags(tagWords(['rye', 'bread']))).toEqual(['rye', 'bread']);
  });
});

import { copycheck, FINDING_CODES, type Content } from '@zesting/core';
import { findingWords, notesAt } from './finding-words';

describe('words of what was found', () => {
  it('are those of what core finds', () => {
    const content: Content = {
      shared: { copy: 'A cheap offer', media: [], disclosure: '' },
      channels: { feed: { copy: '', tags: ['a', 'A', 'b c'], firstComment: '', link: 'menu' } },
    };
    const rules = { copyLimit: 10, countsTags: false, tagLimit: 0, linksWork: true };
    expect(copycheck(content, 'feed', rules, { wordsNever: ['cheap'], wordsToUse: [], needsDisclosure: true }).map(findingWords)).toEqual([
      '13 of 10 characters: 3 too many',
      '“cheap” is never to be used, and is in the copy',
      'This channel takes no tags',
      'The tag “A” is there twice',
      '“b c” is no whole tag',
      '“menu” is no whole address',
      'The disclosure that the client asks for is missing',
    ]);
  });

  it('are told at the place that they are about', () => {
    const findings = [
      { code: 'tags_many', severity: 'must', place: 'tags', count: 3, limit: 2 },
      { code: 'tag_broken', severity: 'must', place: 'tags', what: 'b c' },
      { code: 'tag_twice', severity: 'should', place: 'tags', what: 'A' },
    ] as const;
    expect(notesAt(findings, 'tags')).toEqual({
      error: '3 of 2 tags: 1 too many. “b c” is no whole tag',
      warning: 'The tag “A” is there twice',
    });
    expect(notesAt(findings, 'copy')).toEqual({ error: undefined, warning: undefined });
  });

  it('are there for every code', () => {
    for (const code of FINDING_CODES)
      expect(findingWords({ code, place: 'copy', what: '2027-03-09', count: 3, limit: 2 })).toMatch(/^[A-Z“\d]/);
  });

  it('tell seconds and weights with their limits', () => {
    const said = (code: 'clip_short' | 'clip_long' | 'file_large', count: number, limit: number) =>
      findingWords({ code, place: 'media', what: 'a.mp4', count, limit });
    expect(said('clip_short', 1, 3)).toBe('“a.mp4” runs 1 second, at least 3 are needed');
    expect(said('clip_long', 91, 90)).toBe('“a.mp4” runs 91 seconds, at most 90 fit');
    expect(said('file_large', 5, 4)).toBe('“a.mp4” weighs 5 MB, at most 4 fit');
  });

  it('know one from many', () => {
    expect(findingWords({ code: 'media_many', place: 'media', count: 3, limit: 1 })).toBe('Of 3 pictures and clips the first goes out');
    expect(findingWords({ code: 'media_many', place: 'media', count: 3, limit: 2 })).toBe('Of 3 pictures and clips the first 2 go out');
    expect(findingWords({ code: 'tags_many', place: 'tags', count: 3, limit: 1 })).toBe('3 of 1 tag: 2 too many');
  });
});

import fc from 'fast-check';
import { changedOn, copyOnChannel, EMPTY_SHARED_PART, wordsStanding, type ChannelPart, type Content } from './index.js';

describe('words that stand in a text', () => {
  const never = ['artisan', 'must-have', 'guilt-free', 'nautical  themed', 'élan', ''];
  it.each([
    ['Our Artisan bread', ['artisan']],
    ['artisanal', []], // a longer word is another one
    ['(ARTISAN)', ['artisan']],
    ['the must-have of the season, guilt-free', ['must-have', 'guilt-free']],
    ['nautical\nthemed', ['nautical  themed']],
    ['e\u0301lan', ['élan']], // composed or not
    ['partisan; artisan', ['artisan']],
    ['', []],
  ])('%j', (text, words) => expect(wordsStanding(text, never)).toEqual(words));
});

describe('a change of what one channel shows', () => {
  const part = (copy = ''): ChannelPart => ({ copy, tags: [], firstComment: '', link: '' });
  const of = (shared: string, channels: Record<string, ChannelPart>): Content => ({
    shared: { ...EMPTY_SHARED_PART, copy: shared },
    channels,
  });

  it('is made in the shared copy where that goes out nowhere else', () => {
    expect(changedOn(of('Old', { a: part() }), 'a', { copy: 'New' })).toEqual(of('New', { a: part() }));
    expect(changedOn(of('Old', { a: part(), b: part('Own') }), 'a', { copy: 'New' })).toEqual(of('New', { a: part(), b: part('Own') }));
  });

  it('is made in a copy of its own where others share', () => {
    expect(changedOn(of('Old', { a: part(), b: part() }), 'a', { copy: 'New' })).toEqual(of('Old', { a: part('New'), b: part() }));
  });

  it('takes an own copy away', () => {
    expect(changedOn(of('Old', { a: part('Own') }), 'a', { copy: '' })).toEqual(of('Old', { a: part() }));
  });

  it('changes nothing on a channel that is not there', () => {
    const content = of('Old', { a: part() });
    expect(changedOn(content, 'b', { copy: 'New', tags: ['x'] })).toBe(content);
  });

  it('shows there what was typed, and elsewhere what it was', () => {
    const copies = fc.constantFrom('', ' ', 'One', 'Two');
    const content = fc.record({ shared: copies, channels: fc.dictionary(fc.constantFrom('a', 'b', 'c'), copies, { minKeys: 1 }) });
    const change = fc.record(
      { copy: fc.constantFrom('One', 'Three'), tags: fc.constantFrom([], ['x']), link: fc.constant('https://x.test') },
      { requiredKeys: [] },
    );
    fc.assert(
      fc.property(content, fc.nat(2), change, ({ shared, channels }, which, changed) => {
        const before = of(shared, Object.fromEntries(Object.entries(channels).map(([id, copy]) => [id, part(copy)])));
        const ids = Object.keys(channels);
        const id = ids[which % ids.length] ?? '';
        const after = changedOn(before, id, changed);
        expect(copyOnChannel(after, id)).toBe(changed.copy ?? copyOnChannel(before, id));
        expect(after.channels[id]).toMatchObject({ tags: changed.tags ?? [], link: changed.link ?? '', firstComment: '' });
        for (const other of ids.filter((each) => each !== id)) {
          expect(copyOnChannel(after, other)).toBe(copyOnChannel(before, other));
          expect(after.channels[other]).toEqual(before.channels[other]);
        }
      }),
    );
  });
});

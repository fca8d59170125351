import fc from 'fast-check';
import {
  changedOn,
  copyOnChannel,
  EMPTY_SHARED_PART,
  laidOutOn,
  mediaShown,
  tidied,
  withCovers,
  wordsOtherwise,
  wordsStanding,
  type ChannelPart,
  type Content,
} from './index.js';

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

describe('words that are written otherwise', () => {
  const own = ['by hand', 'Kiln Lane', 'sour-dough', 'C++', 'Élan', ''];
  it.each([
    ['Made by hand at Kiln Lane', []],
    ['By hand', []], // it may begin a sentence
    ['byhand, by-hand', ['by hand']],
    ['kiln lane; KILN LANE', ['Kiln Lane']],
    ['KilnLane', ['Kiln Lane']],
    ['Kiln\nLane', []], // a line may end between
    ['sourdough', ['sour-dough']],
    ['sour-dough', []],
    ['standbyhands', []], // within a longer word is another word
    ['c++', ['C++']],
    ['E\u0301lan', []], // composed or not
    ['élan', ['Élan']],
    ['Kiln Lane and kiln-lane', ['Kiln Lane']], // one of them is enough
    ['', []],
  ])('%j', (text, words) => expect(wordsOtherwise(text, own)).toEqual(words));
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

  it('is made in a copy of its own where the shared one is laid out: what is typed there is words alone', () => {
    const before: Content = { shared: { ...EMPTY_SHARED_PART, copy: '# Old', isLaidOut: true }, channels: { a: part(), b: part('Own') } };
    expect(changedOn(before, 'a', { copy: 'New' })).toEqual({ ...before, channels: { ...before.channels, a: part('New') } });
    expect([copyOnChannel(before, 'a'), laidOutOn(before, 'a')]).toEqual(['Old', '# Old']);
    expect([copyOnChannel(before, 'b'), laidOutOn(before, 'b')]).toEqual(['Own', null]);
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

describe('what a channel shows of the shared media', () => {
  const media = ['a', 'b', 'c'].map((hash) => ({ assetId: `id-${hash}`, hash, name: `${hash}.png`, alt: '' }));
  const crop = { ratio: '4:5', x: 5000, y: 5000, size: 1000 };
  const of = (part: Partial<ChannelPart>): Content => ({
    shared: { ...EMPTY_SHARED_PART, media },
    channels: { c: { copy: '', tags: [], firstComment: '', link: '', ...part } },
  });
  const shown = (part: Partial<ChannelPart>) => mediaShown(media, of(part).channels['c']).map(({ hash, crop: cut }) => [hash, cut]);

  it('is all of them as they stand, or those that it names in its own order, each as it is cut there', () => {
    expect(shown({})).toEqual([['a', null], ['b', null], ['c', null]]); // prettier-ignore
    expect(shown({ media: ['c', 'a'], crops: { a: crop } })).toEqual([['c', null], ['a', crop]]); // prettier-ignore
    expect(shown({ media: [] })).toEqual([]);
    expect(mediaShown(media, undefined)).toHaveLength(3);
  });

  it('names nothing that is not there, and nothing where all are shown as they stand', () => {
    const part = (more: Partial<ChannelPart>) => tidied(of(more)).channels['c'];
    const plain = of({}).channels['c'];
    expect(part({ media: ['a', 'b', 'c'], crops: {} })).toEqual(plain);
    expect(part({ media: ['b', 'a', 'c'] })).toEqual({ ...plain, media: ['b', 'a', 'c'] });
    expect(part({ media: ['b', 'gone', 'b'], crops: { gone: crop, b: crop } })).toEqual({ ...plain, media: ['b'], crops: { b: crop } });
    expect(part({ media: ['gone'] })).toEqual(plain); // nothing is left of the choice
    expect(part({ media: [] })).toEqual({ ...plain, media: [] }); // nothing was chosen
  });

  it('is tidied once for good, and shows the same', () => {
    const hashes = fc.array(fc.constantFrom('a', 'b', 'c', 'gone'), { maxLength: 5 });
    const parts = fc.record({ media: hashes, crops: fc.dictionary(fc.constantFrom('a', 'gone'), fc.constant(crop)) }, { requiredKeys: [] });
    fc.assert(
      fc.property(parts, (part) => {
        const once = tidied(of(part));
        expect(tidied(once)).toEqual(once);
        const isTidy = !part.media || (new Set(part.media).size === part.media.length && !part.media.includes('gone'));
        if (isTidy) expect(mediaShown(media, once.channels['c'])).toEqual(mediaShown(media, of(part).channels['c']));
      }),
    );
  });
});

describe('the cover of a clip', () => {
  const medium = (hash: string, cover?: string) => ({
    assetId: hash,
    hash,
    name: hash,
    alt: '',
    ...(cover === undefined ? {} : { cover }),
  });
  const media = [medium('clip', 'still'), medium('still'), medium('other')];

  it('is no picture of its own where nobody chose, and goes out behind its clip, cut as the channel cuts it', () => {
    expect(mediaShown(media, undefined).map(({ hash }) => hash)).toEqual(['clip', 'other']);
    expect(mediaShown(media, { media: ['still', 'clip'] }).map(({ hash }) => hash)).toEqual(['still', 'clip']);
    const crop = { ratio: '1:1', x: 1, y: 2, size: 900 };
    const out = withCovers(mediaShown(media, undefined), media, { crops: { still: crop } });
    expect(out.map(({ hash, coverOf, crop: cut }) => [hash, coverOf, cut])).toEqual([
      ['clip', null, null],
      ['still', 'clip', crop],
      ['other', null, null],
    ]);
  });

  it('is none where it is not there, or the clip itself; what goes out without a choice needs none', () => {
    const of = (all: Content['shared']['media'], chosen?: string[]): Content => ({
      shared: { ...EMPTY_SHARED_PART, media: all },
      channels: { a: { copy: '', tags: [], firstComment: '', link: '', ...(chosen ? { media: chosen } : {}) } },
    });
    expect(tidied(of([medium('clip', 'gone'), medium('two', 'two')])).shared.media).toEqual([medium('clip'), medium('two')]);
    expect(tidied(of(media, ['clip', 'other']))).toEqual(of(media));
    expect(tidied(of(media, ['clip', 'still', 'other']))).toEqual(of(media, ['clip', 'still', 'other']));
  });
});

import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import fc from 'fast-check';
import type { Content } from '../content/index.js';
import { cropAround } from '../crop/index.js';
import {
  answerState,
  charactersOf,
  copycheck,
  countCharacters,
  fillShape,
  foldText,
  frameOn,
  isTag,
  isWebAddress,
  lengthOn,
  linkcheck,
  linksIn,
  linksOn,
  mediacheck,
  mediaOn,
} from './index.js';
import type { ChannelRules, CheckedMedium, ClientRules } from './index.js';

const ANY: ChannelRules = {
  copyLimit: null,
  countsTags: false,
  tagLimit: null,
  mediaLimit: null,
  minWidth: null,
  needsMedia: false,
  linksWork: true,
  ratio: '1:1',
  otherShapes: [],
  cutsMedia: false,
  clipMinSeconds: null,
  clipMaxSeconds: null,
  fileLimitMb: null,
};
const NOTHING_ASKED: ClientRules = { wordsNever: [], wordsToUse: [], needsDisclosure: false };
const content = (copy: string, part: Partial<Content['channels'][string]> = {}, disclosure = ''): Content => ({
  shared: { copy, media: [], disclosure },
  channels: { feed: { copy: '', tags: [], firstComment: '', link: '', ...part } },
});
const check = (of: Content, rules: Partial<ChannelRules> = {}, client: Partial<ClientRules> = {}) =>
  copycheck(of, 'feed', { ...ANY, ...rules }, { ...NOTHING_ASKED, ...client });

describe('characters as people perceive them', () => {
  // Unicode's GraphemeBreakTest-15.0.0.txt, as Debian's package unicode-data ships it
  const lines = readFileSync(join(__dirname, 'test-data/GraphemeBreakTest.txt'), 'utf8').split('\n');
  const cases = lines.flatMap((line) => {
    const marked = (line.split('#')[0] ?? '').trim();
    if (marked === '') return [];
    const clusters = marked.split('÷').flatMap((cluster) => {
      const points = cluster.split('×').flatMap((point) => point.trim() || []);
      return points.length === 0 ? [] : [points.map((point) => String.fromCodePoint(parseInt(point, 16))).join('')];
    });
    return [{ marked, clusters }];
  });
  // Unicode 16 took the property Extended_Pictographic from U+2701 (upper blade scissors), so that this joins no more
  const OUTDATED = '÷ 2701 × 200D × 2701 ÷';

  it('are those of UAX #29: all 602 lines of its test file but one, whose character later lost its property', () => {
    expect(cases).toHaveLength(602);
    const wrong = cases.filter(
      ({ clusters }) =>
        JSON.stringify(charactersOf(clusters.join(''))) !== JSON.stringify(clusters) ||
        countCharacters(clusters.join('')) !== clusters.length,
    );
    expect(wrong.map(({ marked }) => marked).filter((marked) => marked !== OUTDATED)).toEqual([]);
  });

  it('are counted alike with and without segmenting', () => {
    fc.assert(fc.property(fc.string({ unit: 'grapheme' }), (text) => countCharacters(text) === charactersOf(text).length));
    fc.assert(fc.property(fc.string({ unit: 'grapheme-ascii' }), (text) => countCharacters(text) === charactersOf(text).length));
    expect(countCharacters('a\r\nb')).toBe(3); // a line end of two code units is one
  });
});

describe('addresses of pages', () => {
  it.each([
    // RFC 3986, 1.1.2: of its examples only the second is a page
    ['ftp://ftp.is.co.za/rfc/rfc1808.txt', false],
    ['http://www.ietf.org/rfc/rfc2396.txt', true],
    ['ldap://[2001:db8::7]/c=GB?objectClass?one', false],
    ['mailto:John.Doe@example.com', false],
    ['news:comp.infosystems.www.servers.unix', false],
    ['tel:+1-816-555-1212', false],
    ['urn:oasis:names:specification:docbook:dtd:xml:4.1.2', false],
    // 3: the parts; 3.2.2: hosts
    ['https://example.com:8042/over/there?name=ferret#nose', true],
    ['http://[2001:db8::7]/a', true],
    ['http://192.0.2.16:80/', true],
    // 2: what no address holds
    ['https://example.com/two words', false],
    ['https://example.com/%zz', false],
    ['https://example.com/a|b', false],
    ['https://example.com/<a>', false],
    // 5.4: a relative reference is none
    ['//g', false],
    ['g;x=1/y', false],
    ['example.com', false],
    // no host
    ['https:///path', false],
    ['https://', false],
    ['https://.example.com', false],
    ['https://a..b', false],
    // RFC 3987: letters beyond ASCII
    ['https://bücher.example/straße', true],
    ['HTTPS://EXAMPLE.COM', true],
  ])('%s: %s', (address, isOne) => {
    expect(isWebAddress(address)).toBe(isOne);
  });

  it('are found in a text with their ends', () => {
    const text = 'Read it (https://example.test/a_(b)). Or http://example.test/x?y=1, then ask@example.test or example.test.';
    expect(linksIn(text).map(({ start, end }) => text.slice(start, end))).toEqual([
      'https://example.test/a_(b)',
      'http://example.test/x?y=1',
    ]);
    expect(linksIn('no address here')).toEqual([]);
  });
});

describe('tags', () => {
  it.each([
    ['bakery', true],
    ['spring2027', true],
    ['früh_stück', true],
    ['東京', true],
    ['नमस्ते', true],
    ['🍞', true],
    ['2027', true],
    ['', false],
    ['two words', false],
    ['don’t', false],
    ['a.b', false],
    ['#bakery', false],
    ['a#b', false],
    ['tag,', false],
  ])('“%s” is whole: %s', (word, isOne) => {
    expect(isTag(word)).toBe(isOne);
  });

  it('are counted, and told where broken or twice', () => {
    expect(check(content('x', { tags: ['bread', 'Bread', 'sour dough', 'BREAD'] }), { tagLimit: 3 })).toEqual([
      { code: 'tags_many', severity: 'must', place: 'tags', count: 4, limit: 3 },
      { code: 'tag_twice', severity: 'should', place: 'tags', what: 'Bread' },
      { code: 'tag_broken', severity: 'must', place: 'tags', what: 'sour dough' },
    ]);
    expect(check(content('x', { tags: ['bread'] }), { tagLimit: 1 })).toEqual([]);
    expect(check(content('x', { tags: ['bread'] }), { tagLimit: 0 })).toMatchObject([{ code: 'tags_many' }]);
  });
});

describe('the words of a channel', () => {
  it('are as long as people see them, with the disclosure, and with the tags where they stand in the text', () => {
    const family = '👩‍👩‍👧‍👦'; // eleven code units, one character
    expect(check(content(family.repeat(5)), { copyLimit: 5 })).toEqual([]);
    expect(check(content(family.repeat(6)), { copyLimit: 5 })).toEqual([
      { code: 'copy_long', severity: 'must', place: 'copy', count: 6, limit: 5 },
    ]);
    const tagged = content('Fresh', { tags: ['bread', 'rye'] });
    expect(lengthOn(tagged, 'feed', { countsTags: false })).toBe(5);
    expect(lengthOn(tagged, 'feed', { countsTags: true })).toBe('Fresh #bread #rye'.length);
    expect(lengthOn(content('', { tags: ['rye'] }), 'feed', { countsTags: true })).toBe(4);
    expect(lengthOn(content('Fresh', {}, 'Paid'), 'feed', { countsTags: false })).toBe('Fresh\n\nPaid'.length);
  });

  it('are the channel’s own where it has some', () => {
    expect(check(content('A long shared text', { copy: 'Short' }), { copyLimit: 5 })).toEqual([]);
    expect(check(content('A cheap offer', { copy: 'Short' }), {}, { wordsNever: ['cheap'] })).toEqual([]);
  });

  it('hold no word that the client never says, in the first comment either', () => {
    expect(check(content('So cheap', { firstComment: 'Cheap!' }), {}, { wordsNever: ['cheap', 'deal'] })).toEqual([
      { code: 'word_never', severity: 'must', place: 'copy', what: 'cheap' },
      { code: 'word_never', severity: 'must', place: 'first_comment', what: 'cheap' },
    ]);
  });

  it('are written as the client writes its own', () => {
    const wordsToUse = ['Kiln Lane', 'by hand'];
    expect(check(content('By hand at Kiln Lane'), {}, { wordsToUse })).toEqual([]);
    expect(check(content('Kiln lane', { firstComment: 'Made by-hand' }), {}, { wordsToUse })).toEqual([
      { code: 'word_otherwise', severity: 'should', place: 'copy', what: 'Kiln Lane' },
      { code: 'word_otherwise', severity: 'should', place: 'first_comment', what: 'by hand' },
    ]);
  });

  it('name the pages that are asked for, each once, and say which of them are not there', () => {
    const linked = content('See https://a.test/x, https://a.test/x and http://b.test.', {
      firstComment: 'https://c.test/1',
      link: ' https://a.test/x ',
    });
    expect(linksOn(linked, 'feed')).toEqual(['https://a.test/x', 'http://b.test', 'https://c.test/1']);
    expect(linksOn(content('https:/broken', { link: 'b.test' }), 'feed')).toEqual([]);
    const answers = new Map([
      ['https://a.test/x', 404],
      ['http://b.test', 200],
      ['https://c.test/1', null],
    ]);
    expect(linkcheck(linked, 'feed', answers)).toEqual([
      { code: 'link_gone', severity: 'should', place: 'copy', what: 'https://a.test/x' },
      { code: 'link_silent', severity: 'should', place: 'first_comment', what: 'https://c.test/1' },
      { code: 'link_gone', severity: 'should', place: 'link', what: 'https://a.test/x' },
    ]);
    expect(linkcheck(linked, 'feed', new Map())).toEqual([]);
  });

  // RFC 9110, section 15: 404 says that nothing was found, 410 that it is gone for good; 5xx are failures of the server
  it.each([
    [200, 'there'],
    [204, 'there'],
    [301, 'there'],
    [401, 'there'],
    [403, 'there'],
    [429, 'there'],
    [404, 'gone'],
    [410, 'gone'],
    [500, 'silent'],
    [503, 'silent'],
    [null, 'silent'],
  ])('an answer of %p is a page that is %s', (status, state) => expect(answerState(status)).toBe(state));

  it('say where a link does not work, or is none', () => {
    expect(check(content('See https://example.test/a'), { linksWork: false })).toEqual([
      { code: 'link_dead', severity: 'should', place: 'copy', what: 'https://example.test/a' },
    ]);
    expect(check(content('See https://example.test/a'))).toEqual([]);
    expect(check(content('x', { link: 'example.test/menu' }))).toEqual([
      { code: 'link_broken', severity: 'must', place: 'link', what: 'example.test/menu' },
    ]);
    expect(check(content('See https:/c.test and (https://d.test)(e), not Xhttps:'))).toMatchObject([
      { code: 'link_broken', place: 'copy', what: 'https:/c.test' },
    ]);
  });

  it('say what they are where the client asks for it', () => {
    expect(check(content('x'), {}, { needsDisclosure: true })).toEqual([
      { code: 'disclosure_missing', severity: 'must', place: 'disclosure' },
    ]);
    expect(check(content('x', {}, 'Advertisement'), {}, { needsDisclosure: true })).toEqual([]);
  });
});

describe('pictures and clips of a channel', () => {
  const picture: CheckedMedium = {
    name: 'a.jpg',
    alt: 'Bread',
    mime: 'image/jpeg',
    width: 1080,
    height: 1080,
    durationMs: null,
    bytes: 900_000,
    crop: null,
  };
  const clip: CheckedMedium = { ...picture, name: 'b.mp4', alt: '', mime: 'video/mp4', width: null, height: null };
  const found = (media: CheckedMedium[], rules: Partial<ChannelRules>) => mediacheck(media, { ...ANY, ...rules });

  it('are needed where text alone is not enough', () => {
    expect(found([], { needsMedia: true })).toEqual([{ code: 'media_missing', severity: 'must', place: 'media' }]);
    expect(found([clip], { needsMedia: true })).toEqual([]);
    expect(found([], {})).toEqual([]);
  });

  it('are the first that fit: what does not go out is not looked at', () => {
    const small = { ...picture, name: 'small.jpg', alt: '', width: 300 };
    expect(found([picture, small], { mediaLimit: 1, minWidth: 600 })).toEqual([
      { code: 'media_many', severity: 'should', place: 'media', count: 2, limit: 1 },
    ]);
    const all = ['a', 'b', 'c'].map((hash) => ({ hash }));
    expect(mediaOn(all, undefined, { mediaLimit: 2 }).map(({ hash }) => hash)).toEqual(['a', 'b']);
    expect(mediaOn(all, { media: ['c', 'a', 'b'] }, { mediaLimit: 2 }).map(({ hash }) => hash)).toEqual(['c', 'a']);
    expect(found([small], { minWidth: 600 })).toEqual([
      { code: 'picture_small', severity: 'must', place: 'media', what: 'small.jpg', count: 300, limit: 600 },
      { code: 'alt_missing', severity: 'should', place: 'media', what: 'small.jpg' },
    ]);
    expect(found([picture], { minWidth: 1080 })).toEqual([]);
  });

  it('are as large as what is cut out of them', () => {
    // 1080 × 1080 at 4:5 leaves 864 across
    const cut = { ...picture, crop: cropAround('4:5') };
    expect(found([cut], { minWidth: 864 })).toEqual([]);
    expect(found([cut], { minWidth: 865 })).toEqual([
      { code: 'picture_small', severity: 'must', place: 'media', what: 'a.jpg', count: 864, limit: 865 },
    ]);
  });

  it('are cut where the channel cuts, unless they have one of its shapes by then', () => {
    const cuts = { ratio: '4:5', cutsMedia: true };
    const other = [{ code: 'shape_other', severity: 'should', place: 'media', what: 'a.jpg' }];
    expect(found([picture], cuts)).toEqual(other);
    expect(found([picture], { ...cuts, cutsMedia: false })).toEqual([]);
    expect(found([picture], { ...cuts, otherShapes: ['16:9', '1:1'] })).toEqual([]);
    expect(found([{ ...picture, crop: cropAround('4:5') }], cuts)).toEqual([]);
    expect(found([{ ...picture, crop: cropAround('16:9') }], cuts)).toEqual(other);
    expect(found([{ ...picture, height: null }], cuts)).toEqual([]);
    expect(found([{ ...clip, width: 1080, height: 1920 }], cuts)).toEqual([{ ...other[0], what: 'b.mp4' }]);
  });

  it('run as long and weigh as much as fits', () => {
    const limits = { clipMinSeconds: 3, clipMaxSeconds: 90, fileLimitMb: 4 };
    const codes = (medium: Partial<CheckedMedium>) =>
      found([{ ...clip, ...medium }], limits).map(({ code, count, limit }) => [code, count, limit]);
    expect(codes({ durationMs: 3_000 })).toEqual([]);
    expect(codes({ durationMs: 2_999 })).toEqual([['clip_short', 2, 3]]);
    expect(codes({ durationMs: 90_000 })).toEqual([]);
    expect(codes({ durationMs: 90_040 })).toEqual([['clip_long', 91, 90]]);
    expect(codes({ bytes: 4_000_000 })).toEqual([]);
    expect(codes({ bytes: 4_000_001 })).toEqual([['file_large', 5, 4]]);
    expect(codes({ durationMs: null, bytes: null })).toEqual([]);
    expect(found([{ ...picture, bytes: 9_000_000, crop: cropAround('4:5') }], limits)).toEqual([]);
  });
});

describe('how pictures and text are seen', () => {
  const whole = { x: 0, y: 0, width: 10_000, height: 10_000 };
  const feed = { ratio: '4:5', otherShapes: ['1:1'], cutsMedia: true };

  it('as cut on the way; else at the middle where the channel cuts; else whole', () => {
    const wide = { width: 3000, height: 2000, crop: null };
    // 1600 of 3000 across, 700 from the left
    const cut = {
      shape: { left: 700, top: 0, width: 1600, height: 2000 },
      kept: { ...whole, x: 7_000_000 / 3000, width: 16_000_000 / 3000 },
    };
    expect(frameOn(wide, feed)).toEqual(cut);
    expect(frameOn({ ...wide, crop: { ratio: '1:1', x: 0, y: 0, size: 500 } }, feed)).toEqual({
      shape: { left: 0, top: 0, width: 1000, height: 1000 },
      kept: { x: 0, y: 0, width: 10_000_000 / 3000, height: 5000 },
    });
    expect(frameOn(wide, { ...feed, cutsMedia: false })).toEqual({ shape: { width: 3000, height: 2000 }, kept: whole });
    expect(frameOn({ ...wide, width: 2000 }, feed)).toEqual({ shape: { width: 2000, height: 2000 }, kept: whole });
    expect(frameOn({ ...wide, width: null }, feed)).toEqual({ shape: { width: 4, height: 5 }, kept: whole });
  });

  it('a frame fills another shape, cut at its middle', () => {
    // the left half of a picture of 2000 × 1000 is a square; at 1:2 its middle half is seen, a quarter from its left
    const half = { shape: { width: 1000, height: 1000 }, kept: { x: 0, y: 0, width: 5000, height: 10_000 } };
    expect(fillShape(half, '1:2')).toEqual({ shape: { width: 1, height: 2 }, kept: { x: 1250, y: 0, width: 2500, height: 10_000 } });
    expect(fillShape(half, '1:1').kept).toEqual(half.kept);
  });

  it('text folds between characters, and nothing of it is lost', () => {
    expect(foldText('Fresh 👩‍👩‍👧 bread', 7)).toEqual({ seen: 'Fresh 👩‍👩‍👧', rest: ' bread' });
    expect(foldText('Short', null)).toEqual({ seen: 'Short', rest: '' });
    fc.assert(
      fc.property(fc.string({ unit: 'grapheme' }), fc.integer({ min: 1, max: 30 }), (text, at) => {
        const { seen, rest } = foldText(text, at);
        expect(seen + rest).toBe(text);
        expect(countCharacters(seen)).toBe(Math.min(at, countCharacters(text)));
      }),
    );
  });
});

import { diffWordsWithSpace } from 'diff';
import fc from 'fast-check';
import type { Content, ContentText } from '../content/index.js';
import { digestParts } from '../digest/index.js';
import { compareContent, compareText, type TextPiece } from './index.js';

const before = (pieces: readonly TextPiece[]) => pieces.flatMap(({ kind, text }) => (kind === 'new' ? [] : [text])).join('');
const after = (pieces: readonly TextPiece[]) => pieces.flatMap(({ kind, text }) => (kind === 'gone' ? [] : [text])).join('');
const said = (pieces: readonly TextPiece[]) => pieces.map(({ kind, text }) => `${{ same: ' ', gone: '-', new: '+' }[kind]}${text}`);

describe('how a text became another', () => {
  it('is told by whole words', () => {
    expect(said(compareText('Dark, dense, and back on the shelf.', 'Dark, light, and back on shelves.'))).toEqual([
      ' Dark, ',
      '-dense',
      '+light',
      ' , and back on ',
      '-the shelf',
      '+shelves',
      ' .',
    ]);
    expect(said(compareText('same', 'same'))).toEqual([' same']);
    expect(compareText('', '')).toEqual([]);
    expect(said(compareText('', 'All new'))).toEqual(['+All new']);
    expect(said(compareText('All gone', ''))).toEqual(['-All gone']);
  });

  it('keeps together what changed together: a blank between two changed words is not the same', () => {
    expect(said(compareText('Cold butter here', 'Warm milk here'))).toEqual(['-Cold butter', '+Warm milk', '  here']);
  });

  it('knows words where none stand between blanks, and what people see as one sign', () => {
    expect(said(compareText('私は東京に行く', '私は大阪に行く', 'ja'))).toEqual([' 私は', '-東京', '+大阪', ' に行く']);
    expect(said(compareText('so 👩‍👩‍👧 nice', 'so 👩‍👩‍👦 nice'))).toEqual([' so ', '-👩‍👩‍👧', '+👩‍👩‍👦', '  nice']);
  });

  it('takes long texts, and is soon done', () => {
    const lines = Array.from({ length: 3000 }, (_, index) => `Line ${index} of a long text\n`);
    const changed = lines.map((line, index) => (index % 100 === 7 ? `Other ${line}` : line));
    const pieces = compareText(lines.join(''), changed.join(''));
    expect([before(pieces), after(pieces)]).toEqual([lines.join(''), changed.join('')]);
    expect(pieces.filter(({ kind }) => kind === 'new')).toHaveLength(30);
  });

  it('takes by lines, too, what has hardly a word in common', () => {
    const of = (word: string) => Array.from({ length: 2000 }, (_, index) => `${word}${index}`).join(' ');
    expect(compareText(of('a'), of('b')).map(({ kind }) => kind)).toEqual(['gone', 'new']);
  });

  const anyText = fc
    .array(fc.constantFrom('bread', 'Bread', 'is', 'back', ' ', '  ', '\n', ', ', '.', 'é', 'e\u0301', '👩‍👧', '東京', '#tag', ''), {
      maxLength: 30,
    })
    .map((parts) => parts.join(''));

  it('gives both texts back, to the character, and says nothing twice', () => {
    fc.assert(
      fc.property(anyText, anyText, (one, other) => {
        const pieces = compareText(one, other);
        expect([before(pieces), after(pieces)]).toEqual([one, other]);
        expect(pieces.every(({ text }) => text !== '')).toBe(true);
        for (const [index, { kind }] of pieces.entries()) expect(kind === pieces[index - 1]?.kind).toBe(false);
        expect(pieces.some(({ kind }) => kind !== 'same')).toBe(one !== other);
      }),
      { numRuns: 1000 },
    );
  });

  // the reference: the words of the package `diff` itself. Ours keeps as much, but for blanks that changed with the words beside them
  it('keeps no less of letters and digits than the reference library does, on random texts of words', () => {
    const kept = (pieces: readonly { text: string; isSame: boolean }[]) =>
      pieces.reduce((sum, { text, isSame }) => sum + (isSame ? text.replace(/\s/g, '').length : 0), 0);
    const words = fc.array(fc.constantFrom('ax', 'bo', 'cu', 'di', 'ek', 'fa'), { maxLength: 25 }).map((list) => list.join(' '));
    fc.assert(
      fc.property(words, words, (one, other) => {
        const ours = compareText(one, other).map(({ kind, text }) => ({ text, isSame: kind === 'same' }));
        const theirs = diffWordsWithSpace(one, other).map(({ added, removed, value }) => ({ text: value, isSame: !added && !removed }));
        expect(kept(ours)).toBe(kept(theirs));
      }),
      { numRuns: 500 },
    );
  });
});

describe('what differs between two contents', () => {
  const medium = (hash: string, alt = '') => ({ assetId: `id-${hash}`, hash, name: `${hash}.png`, alt });
  const content = (more: Partial<Content['shared']> = {}, channels: Content['channels'] = {}): Content => ({
    shared: { copy: 'Copy', disclosure: '', media: [], ...more },
    channels,
  });
  const part = (more = {}) => ({ copy: '', tags: [], firstComment: '', link: '', ...more });

  it('is nothing between a content and itself, under whatever name its files stand', () => {
    const one = content({ media: [medium('a')] }, { c: part({ tags: ['x'] }) });
    expect(compareContent(one, one)).toEqual([]);
    const renamed = { ...medium('a'), assetId: 'other', name: 'again.png' };
    expect(compareContent(one, { ...one, shared: { ...one.shared, media: [renamed] } })).toEqual([]);
    expect(compareContent(content({ copy: 'a\r\nb' }), content({ copy: 'a\nb' }))).toEqual([]);
  });

  it('tells files that went, came or changed places, and their words', () => {
    const one = content({ media: [medium('a', 'A cat'), medium('b'), medium('b')] });
    const other = content({ media: [medium('b'), medium('a', 'A dog'), medium('c')] });
    expect(compareContent(one, other)).toEqual([
      { field: 'media', channelId: null, gone: [medium('b')], come: [medium('c')], isReordered: true },
      {
        field: 'alt',
        channelId: null,
        medium: medium('a', 'A dog'),
        pieces: [
          { kind: 'same', text: 'A ' },
          { kind: 'gone', text: 'cat' },
          { kind: 'new', text: 'dog' },
        ],
      },
    ]);
  });

  it('tells of each channel what it has of its own, and channels that went or came', () => {
    const one = content({}, { c: part({ tags: ['x', 'y', 'z'], link: 'https://x.test/1' }), d: part() });
    const other = content({}, { c: part({ tags: ['z', 'x', 'w'], link: 'https://x.test/1' }), e: part({ firstComment: 'First' }) });
    expect(compareContent(one, other)).toEqual([
      {
        field: 'tags',
        channelId: 'c',
        tags: [
          { kind: 'same', tag: 'z' },
          { kind: 'same', tag: 'x' },
          { kind: 'new', tag: 'w' },
          { kind: 'gone', tag: 'y' },
        ],
        isReordered: true,
      },
      { field: 'channel', channelId: 'd', kind: 'gone' },
      { field: 'channel', channelId: 'e', kind: 'new' },
      { field: 'firstComment', channelId: 'e', pieces: [{ kind: 'new', text: 'First' }] },
    ]);
  });

  it('tells what a channel shows besides the others, and how it cuts it', () => {
    const crop = { ratio: '4:5', x: 5000, y: 5000, size: 1000 };
    const [a, b] = [medium('a'), medium('b')];
    const one = content({ media: [a, b] }, { c: part({ crops: { a: crop, b: crop } }) });
    const other = content({ media: [a, b] }, { c: part({ media: ['b'], crops: { a: crop, b: { ...crop, y: 0 } } }) });
    expect(compareContent(one, other)).toEqual([
      { field: 'shown', channelId: 'c', before: null, after: [b] },
      { field: 'crop', channelId: 'c', medium: b, before: crop, after: { ...crop, y: 0 } },
    ]);
    expect(compareContent(one, content({ media: [a, b] }, { c: part({ crops: { b: crop } }) }))).toEqual([
      { field: 'crop', channelId: 'c', medium: a, before: crop, after: null },
    ]);
  });

  const anyCrop = fc.record({
    ratio: fc.constantFrom('1:1', '4:5'),
    x: fc.constant(5000),
    y: fc.constantFrom(0, 5000),
    size: fc.constant(1000),
  });
  const anyContent = fc.record({
    shared: fc.record({
      copy: fc.constantFrom('', 'One two', 'One  two', 'One\r\ntwo', 'One\ntwo'),
      disclosure: fc.constantFrom('', 'Paid'),
      isLaidOut: fc.boolean(),
      texts: fc.uniqueArray(
        fc.record({ key: fc.constantFrom('s', 't'), name: fc.constantFrom('S', 'T'), text: fc.constantFrom('x', 'x\r\ny', 'x\ny') }),
        {
          selector: ({ key }) => key,
        },
      ),
      media: fc.array(
        fc.record(
          { hash: fc.constantFrom('a', 'b'), alt: fc.constantFrom('', 'é', 'e\u0301'), cover: fc.constantFrom('a', 'c') },
          { requiredKeys: ['hash', 'alt'] },
        ),
        { maxLength: 3 },
      ),
    }),
    channels: fc.dictionary(
      fc.constantFrom('c', 'd'),
      fc.record(
        {
          copy: fc.constantFrom('', 'Own'),
          tags: fc.uniqueArray(fc.constantFrom('x', 'y', 'é'), { maxLength: 3 }),
          firstComment: fc.constantFrom('', 'First'),
          link: fc.constantFrom('', 'https://x.test/1'),
          media: fc.uniqueArray(fc.constantFrom('a', 'b'), { maxLength: 2 }),
          crops: fc.dictionary(fc.constantFrom('a', 'b'), anyCrop, { maxKeys: 2 }),
        },
        { requiredKeys: ['copy', 'tags', 'firstComment', 'link'] },
      ),
    ),
  });

  it('is something exactly where the digests differ', () => {
    const whole = (made: {
      shared: {
        media: { hash: string; alt: string; cover?: string }[];
        copy: string;
        disclosure: string;
        isLaidOut: boolean;
        texts: ContentText[];
      };
      channels: Content['channels'];
    }) => ({
      shared: {
        ...made.shared,
        media: made.shared.media.map(({ hash, alt, cover }) => ({ ...medium(hash, alt), ...(cover === undefined ? {} : { cover }) })),
      },
      channels: made.channels,
    });
    let same = 0;
    fc.assert(
      fc.property(anyContent, anyContent, fc.boolean(), (made, madeOther, isSame) => {
        const [one, other] = [whole(made), whole(isSame ? made : madeOther)];
        const digests = [one, other].map((each) => digestParts('client', 'piece', each));
        const isEqual =
          digests[0]?.shared === digests[1]?.shared &&
          JSON.stringify(Object.entries(digests[0]?.channels ?? {}).sort()) ===
            JSON.stringify(Object.entries(digests[1]?.channels ?? {}).sort());
        if (isEqual) same++;
        expect(compareContent(one, other).length === 0).toBe(isEqual);
      }),
      { numRuns: 1000 },
    );
    expect(same).toBeGreaterThan(100);
  });
});

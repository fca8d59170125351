import fc from 'fast-check';
import type { Content } from '../content/index.js';
import {
  areaWords,
  followPlace,
  followStretch,
  momentWords,
  PICTURE_SIDE,
  placeIn,
  placeWords,
  seenOf,
  sentencesIn,
  toSeen,
  toWhole,
  wordsOfStretch,
  type Stretch,
} from './index.js';

const stretch = (onText: string, words: string, nth = 0): Stretch => {
  let from = onText.indexOf(words);
  for (let count = 0; count < nth; count++) from = onText.indexOf(words, from + 1);
  return { kind: 'stretch', channelId: null, from, to: from + words.length, onText };
};

/** What a stretch became, as words. */
const became = (place: Stretch, text: string) => {
  const { state, from, to } = followStretch(place, text);
  return [state, text.slice(from, to), from];
};

describe('a stretch of text is found again', () => {
  const copy = 'The oven is hot. We bake at five. Come and see.';
  it.each([
    ['as it was', copy, 'We bake at five.', copy, ['stands', 'We bake at five.', 17]],
    ['when text before it came', copy, 'We bake at five.', `Good morning. ${copy}`, ['stands', 'We bake at five.', 31]],
    ['when text behind it went', copy, 'We bake at five.', 'The oven is hot. We bake at five.', ['stands', 'We bake at five.', 17]],
    ['when both sides changed', copy, 'We bake at five.', 'It is warm. We bake at five. Do come.', ['stands', 'We bake at five.', 12]],
    ['when it was moved', copy, 'We bake at five.', 'We bake at five. Come and see. The oven is hot.', ['stands', 'We bake at five.', 0]],
    ['as the same of several', 'a b a b a', 'a', 'a b c a b a', ['stands', 'a', 0]],
  ])('%s', (_, onText, words, text, expected) => expect(became(stretch(onText, words), text)).toEqual(expected));

  it('as changed, where words of it went or came', () => {
    expect(became(stretch(copy, 'We bake at five.'), 'The oven is hot. We bake at six. Come and see.')).toEqual([
      'changed',
      'We bake at six.',
      17,
    ]);
    expect(became(stretch(copy, 'bake'), copy.replace('bake', 'cook'))).toEqual(['changed', 'cook', 20]);
    expect(became(stretch(copy, 'hot. We'), copy.replace('hot. We', 'warm. They'))).toEqual(['changed', 'warm. They', 12]);
    expect(became(stretch(copy, 'We bake'), copy.replace('We bake', 'We always bake'))).toEqual(['changed', 'We always bake', 17]);
  });

  it('as gone, at the spot where it stood', () => {
    expect(became(stretch(copy, 'We bake at five. '), 'The oven is hot. Come and see.')).toEqual(['gone', '', 17]);
    expect(became(stretch(copy, 'bake'), '')).toEqual(['gone', '', 0]);
  });

  it('not in another place where the same word stands', () => {
    expect(became(stretch('bread is good. I love bread', 'bread'), 'cake is good. I love bread')).toEqual(['changed', 'cake', 0]);
  });

  const anyText = fc
    .array(fc.constantFrom('bread', 'oven', ' ', '\n', '. ', 'é', '👩‍👧', '東京', 'a'), { maxLength: 14 })
    .map((parts) => parts.join(''));
  const someWords = anyText.filter((text) => text !== '');

  it('always after an edit of one side alone, whatever stands there', () => {
    fc.assert(
      fc.property(anyText, someWords, anyText, anyText, fc.boolean(), (before, words, after, edited, isBefore) => {
        const place = { ...stretch('', ''), onText: before + words + after, from: before.length, to: before.length + words.length };
        const text = isBefore ? edited + words + after : before + words + edited;
        const found = followStretch(place, text);
        expect(found.state).toBe('stands');
        expect(text.slice(found.from, found.to)).toBe(words);
        // either is what was done, where the text says the same on both sides
        const at = isBefore ? edited.length : before.length;
        if (text.indexOf(words) === text.lastIndexOf(words)) expect(found.from).toBe(at);
      }),
      { numRuns: 2000 },
    );
  });

  it('after any edits of both sides, where its words stand once', () => {
    let tried = 0;
    fc.assert(
      fc.property(anyText, anyText, anyText, anyText, (before, after, newBefore, newAfter) => {
        const words = 'We bake.';
        const place = { ...stretch('', ''), onText: before + words + after, from: before.length, to: before.length + words.length };
        const text = newBefore + words + newAfter;
        if (before !== newBefore && after !== newAfter) tried++;
        expect(followStretch(place, text)).toEqual({ state: 'stands', from: newBefore.length, to: newBefore.length + words.length });
      }),
      { numRuns: 1000 },
    );
    expect(tried).toBeGreaterThan(500);
  });

  it('within the text, and where it is said to stand its words do', () => {
    const states = new Set<string>();
    fc.assert(
      fc.property(
        anyText.filter((text) => text.length > 2),
        anyText,
        fc.nat(),
        fc.nat(),
        (onText, text, a, b) => {
          const from = a % (onText.length - 1);
          const place: Stretch = { kind: 'stretch', channelId: null, onText, from, to: from + 1 + (b % (onText.length - from)) };
          const found = followStretch(place, text);
          states.add(found.state);
          expect(found.from >= 0 && found.to <= text.length && found.from <= found.to).toBe(true);
          expect(found.from === found.to).toBe(found.state === 'gone');
          if (found.state === 'stands') expect(text.slice(found.from, found.to)).toBe(wordsOfStretch(place));
        },
      ),
      { numRuns: 2000 },
    );
    expect([...states].sort()).toEqual(['changed', 'gone', 'stands']);
  });
});

describe('sentences', () => {
  it('are told apart by the rules of Unicode, and end with their line', () => {
    const text = 'Fresh at 5 a.m. today!  Is it?\n\nA list\nwithout ends 東京。大阪。';
    expect(sentencesIn(text).map(({ from, to }) => text.slice(from, to))).toEqual([
      'Fresh at 5 a.m. today!',
      'Is it?',
      'A list',
      'without ends 東京。',
      '大阪。',
    ]);
    expect(sentencesIn(' \n ')).toEqual([]);
  });
});

describe('a place in words', () => {
  it.each([
    [0, '0:00'],
    [7_900, '0:07'],
    [754_000, '12:34'],
    [3_723_000, '1:02:03'],
  ])('%d ms', (atMs, words) => expect(momentWords(atMs)).toBe(words));

  it.each([
    [{ x: 0, y: 0, width: 100, height: 100 }, 'upper left'],
    [{ x: 4500, y: 100, width: 1000, height: 1000 }, 'top'],
    [{ x: 9000, y: 4800, width: 1000, height: 400 }, 'right'],
    [{ x: 4000, y: 4000, width: 2000, height: 2000 }, 'middle'],
    [{ x: 3500, y: 9000, width: 2000, height: 1000 }, 'bottom'],
    [{ x: 0, y: 9000, width: 2000, height: 1000 }, 'lower left'],
    [{ x: 0, y: 500, width: 10_000, height: 9500 }, ''],
  ])('%j', (area, words) => expect(areaWords(area)).toBe(words));

  it('quotes a stretch, and no more of it than can be read at once', () => {
    expect(placeWords(stretch('We\n bake.', 'We\n bake.'))).toBe('“We bake.”');
    expect(placeWords(stretch('a'.repeat(80), 'a'.repeat(80)))).toBe(`“${'a'.repeat(60)}…”`);
    expect(placeWords({ ...stretch('two **trays**', 'two **trays'), isLaidOut: true })).toBe('“two trays”');
    expect(placeWords({ kind: 'region', assetId: 'p', number: 2, x: 0, y: 0, width: 10, height: 10 })).toBe('picture 2, upper left');
    expect(placeWords({ kind: 'region', assetId: 'p', number: 2, x: 0, y: 0, width: 9000, height: 9000 })).toBe('picture 2');
    expect(placeWords({ kind: 'moment', assetId: 'c', number: 1, atMs: 12_300 })).toBe('clip 1 at 0:12');
  });
});

describe('an area of a picture', () => {
  it('is seen cut at the middle: worked by hand', () => {
    // 4:3 in a square: the middle 3 of 4 parts; 3:4 upright in 16:9: 3 / (16/9) = 1.6875 of 4
    expect(seenOf({ width: 400, height: 300 }, { width: 1, height: 1 })).toEqual({ x: 1250, y: 0, width: 7500, height: 10_000 });
    const upright = seenOf({ width: 300, height: 400 }, { width: 16, height: 9 });
    expect([upright.width, upright.height]).toEqual([10_000, 4218.75]);
    // the left half of what is seen of the first, as an area of the whole
    expect(toWhole({ x: 0, y: 0, width: 5000, height: 10_000 }, seenOf({ width: 400, height: 300 }, { width: 1, height: 1 }))).toEqual({
      x: 1250,
      y: 0,
      width: 3750,
      height: 10_000,
    });
  });

  it('comes back from the whole to what is seen, and never lies beyond the edge', () => {
    const side = fc.integer({ min: 1, max: 4000 });
    const size = fc.record({ width: side, height: side });
    const start = fc.integer({ min: 0, max: 9000 });
    const length = fc.integer({ min: 200, max: 10_000 });
    fc.assert(
      fc.property(size, size, fc.record({ x: start, y: start, width: length, height: length }), (picture, shape, raw) => {
        const area = { ...raw, width: Math.min(raw.width, PICTURE_SIDE - raw.x), height: Math.min(raw.height, PICTURE_SIDE - raw.y) };
        const seen = seenOf(picture, shape);
        const whole = toWhole(area, seen);
        expect(whole.x >= 0 && whole.y >= 0 && whole.x + whole.width <= PICTURE_SIDE && whole.y + whole.height <= PICTURE_SIDE).toBe(true);
        // to a ten-thousandth of the whole, where it is not smaller than the least
        const back = toSeen(whole, seen);
        const grain = (part: number) => (1.01 * PICTURE_SIDE) / part;
        if ((area.width * seen.width) / PICTURE_SIDE > 101) expect(Math.abs(back.x - area.x)).toBeLessThan(grain(seen.width));
        if ((area.height * seen.height) / PICTURE_SIDE > 101) expect(Math.abs(back.height - area.height)).toBeLessThan(grain(seen.height));
      }),
    );
  });
});

describe('a place that is pointed at', () => {
  const medium = (assetId: string) => ({ assetId, hash: assetId, name: `${assetId}.png`, alt: '' });
  const content: Content = {
    shared: {
      copy: 'We bake.',
      media: [medium('clip'), medium('picture')],
      disclosure: '',
      texts: [{ key: 'subject', name: 'Subject', text: 'Bread at five' }],
    },
    channels: { feed: { copy: 'On the feed', tags: [], firstComment: '', link: '' } },
  };
  const kindOf = (assetId: string) => (assetId === 'clip' ? 'clip' : 'picture');
  const area = { x: 0, y: 0, width: 500, height: 500 };

  it('is kept with what it stood on', () => {
    expect(placeIn(content, { kind: 'stretch', channelId: null, from: 3, to: 7, words: 'bake' }, kindOf)).toEqual(
      stretch('We bake.', 'bake'),
    );
    expect(placeIn(content, { kind: 'stretch', channelId: 'feed', from: 0, to: 2, words: 'On' }, kindOf)).toMatchObject({
      channelId: 'feed',
      onText: 'On the feed',
    });
    const subject = { kind: 'stretch', channelId: null, textKey: 'subject', from: 0, to: 5, words: 'Bread' } as const;
    const laidOut = { ...content, shared: { ...content.shared, isLaidOut: true } };
    for (const each of [content, laidOut])
      expect(placeIn(each, subject, kindOf)).toEqual({
        kind: 'stretch',
        channelId: null,
        textKey: 'subject',
        textName: 'Subject',
        from: 0,
        to: 5,
        onText: 'Bread at five',
      });
    expect(placeIn(content, { kind: 'region', assetId: 'picture', ...area }, kindOf)).toMatchObject({ number: 2, ...area });
    expect(placeIn(content, { kind: 'moment', assetId: 'clip', atMs: 1200 }, kindOf)).toMatchObject({ number: 1, atMs: 1200 });
  });

  it.each([
    ['other words', { kind: 'stretch', channelId: null, from: 3, to: 7, words: 'cook' }],
    ['no words', { kind: 'stretch', channelId: null, from: 2, to: 3, words: ' ' }],
    ['an empty stretch', { kind: 'stretch', channelId: null, from: 3, to: 3, words: '' }],
    ['an unknown channel', { kind: 'stretch', channelId: 'other', from: 0, to: 2, words: 'On' }],
    ['a text that is not written', { kind: 'stretch', channelId: null, textKey: 'script', from: 0, to: 2, words: 'We' }],
    ['the copy’s words in another text', { kind: 'stretch', channelId: null, textKey: 'subject', from: 0, to: 2, words: 'We' }],
    ['an unknown picture', { kind: 'region', assetId: 'other', ...area }],
    ['beyond the edge', { kind: 'region', assetId: 'picture', ...area, x: 9501 }],
    ['an area of a clip', { kind: 'region', assetId: 'clip', ...area }],
    ['a moment of a picture', { kind: 'moment', assetId: 'picture', atMs: 0 }],
  ] as const)('is none: %s', (_, pointed) => expect(placeIn(content, pointed, kindOf)).toBeNull());
});

describe('a place in what the content became', () => {
  const medium = (assetId: string) => ({ assetId, hash: assetId, name: `${assetId}.png`, alt: '' });
  const content = (copy: string, own: string, ...media: string[]): Content => ({
    shared: { copy, media: media.map(medium), disclosure: '' },
    channels: { feed: { copy: own, tags: [], firstComment: '', link: '' } },
  });
  const region = { kind: 'region', assetId: 'b', number: 1, x: 0, y: 0, width: 10, height: 10 } as const;

  it('is followed in the text that it stood in: the shared copy, or a channel’s own', () => {
    const place = stretch('We bake.', 'bake');
    expect(followPlace(place, content('Now we bake.', ''))).toEqual({
      state: 'stands',
      place: { ...place, from: 7, to: 11, onText: 'Now we bake.' },
    });
    expect(followPlace({ ...place, channelId: 'feed' }, content('', 'We cook.'))).toMatchObject({
      state: 'changed',
      place: { channelId: 'feed', onText: 'We cook.' },
    });
    expect(followPlace({ ...place, channelId: 'other' }, content('We bake.', 'We bake.'))).toEqual({ state: 'gone', place: null });
  });

  it('is followed in the text besides the copy that it stood in, and is gone with it', () => {
    const place = { ...stretch('Bread at five', 'five'), textKey: 'subject', textName: 'Subject' };
    const written = (text: string): Content => {
      const { shared, channels } = content('Bread at five', '');
      return { shared: { ...shared, isLaidOut: true, texts: [{ key: 'subject', name: 'Subject line', text }] }, channels };
    };
    expect(placeWords(place)).toBe('Subject: “five”');
    expect(followPlace(place, written('Fresh bread at five'))).toEqual({
      state: 'stands',
      place: { ...place, from: 15, to: 19, onText: 'Fresh bread at five' },
    });
    expect(followPlace(place, content('Bread at five', ''))).toEqual({ state: 'gone', place: null });
  });

  it('moves with its picture, and is gone with it', () => {
    expect(followPlace(region, content('', '', 'a', 'b'))).toEqual({ state: 'stands', place: { ...region, number: 2 } });
    expect(followPlace(region, content('', '', 'a'))).toEqual({ state: 'gone', place: null });
  });

  it('is never too small to be seen', () => {
    expect(toWhole({ x: 9990, y: 9990, width: 1, height: 1 }, seenOf({ width: 1, height: 1 }, { width: 1, height: 1 }))).toEqual({
      x: 9900,
      y: 9900,
      width: 100,
      height: 100,
    });
  });
});

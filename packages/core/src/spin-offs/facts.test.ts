import fc from 'fast-check';
import { EMPTY_CHANNEL_PART, type Content } from '../content/index.js';
import {
  factsOf,
  factState,
  FACTS,
  follow,
  handedOn,
  madeAnew,
  seenNow,
  withFacts,
  type Adapting,
  type Fact,
  type FactPiece,
} from './facts.js';

const adapting = (given: Partial<Adapting> = {}): Adapting => ({ name: '', shape: 'as_it_is', callToAction: '', anew: [], ...given });
const piece = (given: Partial<Content['shared']> = {}, channels: Content['channels'] = {}, title = 'Undyed is a colour'): FactPiece => ({
  title,
  purpose: 'know',
  content: { shared: { copy: '', media: [], disclosure: '', ...given }, channels },
});
const picture = (hash: string, alt = '') => ({ assetId: hash, hash, alt, name: `${hash}.jpg` });

describe('what a source hands on', () => {
  const source = piece(
    { copy: 'The whole of it.', disclosure: 'Advert', media: [picture('a')] },
    {
      two: { copy: 'Short.', tags: ['#wool'], firstComment: 'First', link: '' },
      one: { ...EMPTY_CHANNEL_PART, link: 'https://loom.test/undyed' },
    },
  );

  it('is its own on a channel that both have, else what the first of its channels has', () => {
    const onTwo = handedOn(source, ['two'], adapting());
    expect([onTwo.copy, onTwo.tags, onTwo.link]).toEqual(['Short.', { two: ['#wool'] }, { two: 'https://loom.test/undyed' }]);
    const elsewhere = handedOn(source, ['six', 'seven'], adapting());
    expect([elsewhere.copy, elsewhere.tags]).toEqual(['The whole of it.', { six: ['#wool'], seven: ['#wool'] }]);
    expect(elsewhere).toMatchObject({ disclosure: 'Advert', purpose: 'know', media: [{ hash: 'a' }] });
  });

  it('is called after it, and ends with what it asks people to do', () => {
    const facts = handedOn(source, ['six'], adapting({ name: ' Clip 2 ', callToAction: 'Come and see it.' }));
    expect([facts.title, facts.copy]).toEqual(['Undyed is a colour · Clip 2', 'The whole of it.\n\nCome and see it.']);
    expect(handedOn(piece(), ['six'], adapting({ callToAction: 'Come.' })).copy).toBe('Come.');
  });

  it('is laid out where both are, and words where one is: its headings make slides', () => {
    const laidOut = piece({ copy: '# Grey\n\nShe *was*.\n\n# White', isLaidOut: true }, { one: EMPTY_CHANNEL_PART });
    const facts = handedOn(laidOut, ['one'], adapting());
    expect(facts).toMatchObject({ copy: 'Grey\n\nShe was.\n\nWhite', laidOut: laidOut.content.shared.copy });
    expect(handedOn(laidOut, ['one'], adapting({ callToAction: '# 1 in *wool*' })).laidOut).toBe(
      `${laidOut.content.shared.copy}\n\n\\# 1 in \\*wool\\*`,
    );
    expect(handedOn(laidOut, ['six', 'seven'], adapting({ shape: 'slides' })).copy).toBe('1. Grey\nShe was.\n\n2. White');
    expect(handedOn(laidOut, ['one'], adapting({ shape: 'slides' })).copy).toBe('1. Grey\nShe was.\n\n2. White');
    const [wordsAlone, anew] = [piece({ copy: 'Old' }), piece({ copy: '', isLaidOut: true })];
    expect(withFacts(anew, facts, ['copy']).content.shared).toEqual(laidOut.content.shared);
    expect(withFacts(wordsAlone, facts, ['copy']).content.shared.copy).toBe(facts.copy);
    // words among paragraphs stay words, whatever they look like
    const marks = handedOn(piece({ copy: '# A\n\n\n\n*b*\nc' }), ['one'], adapting());
    const put = withFacts(anew, marks, ['copy']);
    expect(factsOf(put, ['one']).copy).toBe('# A\n\n*b*\nc');
    expect(factState('copy', { output: factsOf(put, ['one']), seen: marks, source: marks, anew: [] })).toBe('same');
    expect(withFacts(laidOut, facts, ['title']).content.shared).toEqual(laidOut.content.shared);
    expect(factsOf(laidOut, ['one']).copy).toBe(facts.copy);
  });

  it('is called by no longer title than there can be, cut between characters', () => {
    const long = handedOn(piece({}, {}, `${'x'.repeat(196)}`), [], adapting({ name: '\u{1F9F6}\u{1F9F6}' }));
    expect(long.title).toBe(`${'x'.repeat(196)} · `);
    expect(handedOn(piece({}, {}, 'y'.repeat(200)), [], adapting({ name: 'Clip' })).title).toBe('y'.repeat(200));
  });

  it('is put into a piece on the channels that it is on, and no other', () => {
    const facts = handedOn(source, ['six', 'seven'], adapting());
    const put = withFacts(piece({}, { six: EMPTY_CHANNEL_PART }), facts, ['tags', 'copy']);
    expect(put.content).toEqual({
      shared: { copy: 'The whole of it.', media: [], disclosure: '' },
      channels: { six: { ...EMPTY_CHANNEL_PART, tags: ['#wool'] } },
    });
  });
});

describe('an output beside its source', () => {
  const [before, after] = [piece({ copy: 'Eleven days.' }), piece({ copy: 'Twelve days.' })];
  const seen = handedOn(before, ['six'], adapting());
  const made = withFacts(piece({}, { six: EMPTY_CHANNEL_PART }), seen, FACTS);

  it('follows in what it did not change, as long as nobody was shown it', () => {
    const followed = follow(made, seen, after, adapting(), true);
    expect(followed).toMatchObject({ followed: ['copy'], stale: [], output: { content: { shared: { copy: 'Twelve days.' } } } });
    expect(follow(followed.output, followed.seen, after, adapting(), true)).toMatchObject({ followed: [], stale: [] });
  });

  it('stays as it was shown, and is said to be behind', () => {
    expect(follow(made, seen, after, adapting(), false)).toMatchObject({ output: made, followed: [], stale: ['copy'], seen });
  });

  it('keeps what was changed on it, and is behind once the source changes', () => {
    const own = { ...made, content: { ...made.content, shared: { ...made.content.shared, copy: 'Nearly two weeks.' } } };
    expect(follow(own, seen, before, adapting(), true)).toMatchObject({ output: own, stale: [] });
    expect(follow(own, seen, after, adapting(), true)).toMatchObject({ output: own, stale: ['copy'] });
    // looked at and kept: it is its own
    const kept = seenNow(seen, handedOn(after, ['six'], adapting()), ['copy']);
    expect(follow(own, kept, after, adapting(), true)).toMatchObject({ output: own, stale: [] });
  });

  it('is not behind where somebody wrote the same by hand, and follows from then on', () => {
    const same = { ...made, content: after.content };
    const known = follow(same, seen, after, adapting(), false);
    expect(known.stale).toEqual([]);
    expect(follow(same, known.seen, piece({ copy: 'Nine.' }), adapting(), true).followed).toEqual(['copy']);
  });

  it('never follows in what is made anew, also while both are empty', () => {
    const line = adapting({ anew: madeAnew({ needsCopy: true, needsPicture: false }) });
    const empty = handedOn(piece(), ['six'], line);
    const fresh = withFacts(piece({}, { six: EMPTY_CHANNEL_PART }), empty, ['title', 'purpose', 'media', 'disclosure', 'link', 'tags']);
    const waiting = follow(fresh, empty, after, line, true);
    expect(waiting).toMatchObject({ output: { content: { shared: { copy: '' } } }, followed: [], stale: [] });
    // once it is begun, it was made from what the source said then
    const begun = { ...fresh, content: { ...fresh.content, shared: { ...fresh.content.shared, copy: 'A dozen!' } } };
    expect(follow(begun, waiting.seen, after, line, true)).toMatchObject({ output: begun, stale: [] });
    expect(follow(begun, waiting.seen, before, line, true)).toMatchObject({ output: begun, stale: ['copy'] });
    expect(madeAnew({ needsCopy: false, needsPicture: true })).toEqual(['media']);
  });

  it('is behind where the source is only laid out otherwise, if it is laid out itself', () => {
    const [words, heading] = [piece({ copy: 'Grey', isLaidOut: true }), piece({ copy: '# Grey', isLaidOut: true })];
    const from = handedOn(words, ['six'], adapting());
    const to = handedOn(heading, ['six'], adapting());
    const state = (output: FactPiece, was = from) =>
      factState('copy', { output: factsOf(output, ['six']), seen: was, source: to, anew: [] });
    expect([state(words), state(piece({ copy: 'Grey' })), state(words, seenNow(from, to, ['copy']))]).toEqual(['stale', 'same', 'own']);
    expect(seenNow(to, handedOn(piece({ copy: 'Grey' }), ['six'], adapting()), ['copy'])).not.toHaveProperty('laidOut');
    expect(seenNow(from, to, ['title']).laidOut).toBe('Grey');
    const followed = follow(words, from, heading, adapting(), true);
    expect([followed.output.content.shared, followed.followed, followed.stale]).toEqual([heading.content.shared, ['copy'], []]);
  });

  it('compares as digests do: by NFC, line ends and the bytes of files', () => {
    const composed = factsOf(piece({ copy: 'caf\u00e9\r\n', media: [picture('a')] }), []);
    const apart = factsOf(piece({ copy: 'cafe\u0301\n', media: [{ ...picture('a'), assetId: 'again', name: 'other.jpg' }] }), []);
    const beside = { output: composed, seen: composed, source: apart, anew: [] };
    expect(FACTS.map((fact) => factState(fact, beside))).toEqual(FACTS.map(() => 'same'));
    expect(factState('media', { ...beside, source: factsOf(piece({ media: [picture('a', 'A loom')] }), []) })).toBe('stale');
  });
});

/** The law: the source is only what was written at it; what was not changed on an output is the source's; what was changed stays. */
it('in any order of edits, what is inherited follows and what was changed stays', () => {
  const lines: Adapting[] = [
    adapting(),
    adapting({ name: 'Clip', callToAction: 'Come.' }),
    adapting({ anew: ['copy', 'media'] }),
    adapting({ shape: 'slides' }),
    adapting({ callToAction: 'Come.' }), // its copy is laid out
  ];
  const laidOutFrom = 4;
  const fact = fc.constantFrom<Fact>(...FACTS);
  const words = fc.constantFrom('', 'one', 'two', '# A\n\nb', 'three');
  const edit = fc.oneof(
    { weight: 4, arbitrary: fc.record({ kind: fc.constant('source' as const), fact, words }) },
    { weight: 4, arbitrary: fc.record({ kind: fc.constant('output' as const), of: fc.nat({ max: 4 }), fact, words }) },
    { weight: 2, arbitrary: fc.record({ kind: fc.constantFrom('take' as const, 'keep' as const), of: fc.nat({ max: 4 }), fact }) },
    { weight: 1, arbitrary: fc.record({ kind: fc.constant('show' as const), of: fc.nat({ max: 4 }) }) },
    { weight: 2, arbitrary: fc.record({ kind: fc.constant('layout' as const), isLaidOut: fc.boolean() }) },
  );
  const put = (at: FactPiece, which: Fact, text: string): FactPiece => {
    const value = { title: text, purpose: text === 'one' ? ('buy' as const) : null, copy: text, disclosure: text };
    return withFacts(
      at,
      { ...value, media: text === '' ? [] : [picture(text)], link: { six: text }, tags: { six: text === '' ? [] : [text] } },
      [which],
    );
  };
  fc.assert(
    fc.property(fc.array(edit, { minLength: 100, maxLength: 100 }), (edits) => {
      let source = piece({}, { six: EMPTY_CHANNEL_PART });
      const wrong: unknown[] = [];
      const start = { ...source };
      const outputs = lines.map((line, index) => {
        const blank = index < laidOutFrom ? {} : { isLaidOut: true };
        const seen = handedOn(start, ['six'], line);
        const inherited = FACTS.filter((one) => !line.anew.includes(one));
        return {
          line,
          seen,
          isShown: false,
          own: new Map<Fact, string>(),
          piece: withFacts(piece(blank, { six: EMPTY_CHANNEL_PART }), seen, inherited),
        };
      });
      const say = (at: FactPiece, which: Fact) => JSON.stringify(factsOf(at, ['six'])[which]);
      for (const one of edits) {
        if (one.kind === 'source') {
          const wanted = put(source, one.fact, one.words);
          source = wanted;
        } else if (one.kind === 'layout') {
          const shared = { ...source.content.shared, copy: one.isLaidOut ? '# Wool\n\n- *grey*' : '# Wool', isLaidOut: one.isLaidOut };
          source = { ...source, content: { ...source.content, shared } };
        } else {
          const output = outputs[one.of];
          if (!output) throw new Error('no output');
          const now = handedOn(source, ['six'], output.line);
          if (one.kind === 'show') output.isShown = true;
          else if (one.kind === 'output') output.piece = put(output.piece, one.fact, one.words);
          else {
            if (one.kind === 'take') output.piece = withFacts(output.piece, now, [one.fact]);
            output.seen = seenNow(output.seen, now, [one.fact]);
          }
          if (one.kind === 'output' || one.kind === 'keep') {
            if (say(output.piece, one.fact) === JSON.stringify(now[one.fact])) output.own.delete(one.fact);
            else output.own.set(one.fact, say(output.piece, one.fact));
          } else if (one.kind === 'take') output.own.delete(one.fact);
        }
        const asWritten = JSON.stringify(source);
        for (const output of outputs) {
          const followed = follow(output.piece, output.seen, source, output.line, !output.isShown);
          Object.assign(output, { piece: followed.output, seen: followed.seen });
          const now = handedOn(source, ['six'], output.line);
          for (const which of FACTS) {
            const [said, handed, own] = [say(output.piece, which), JSON.stringify(now[which]), output.own.get(which)];
            // the source's still: the same, but where somebody was shown it, or it is made anew and begun, and then it is said to be behind
            const isAnew = output.line.anew.includes(which);
            const isWaiting = isAnew && ['""', '[]'].includes(said);
            const isRight = isWaiting || ((output.isShown || isAnew) && followed.stale.includes(which));
            if (said === handed) output.own.delete(which);
            // changed by hand: exactly as it was written
            else if (own === undefined ? !isRight : said !== own) wrong.push([which, said, handed, own]);
          }
        }
        if (JSON.stringify(source) !== asWritten) wrong.push(['source']);
      }
      expect(wrong).toEqual([]);
    }),
    { numRuns: 50 },
  );
});

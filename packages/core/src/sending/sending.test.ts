import fc from 'fast-check';
import { afterAsk, afterPost, commentAgainIn, sendingOfPlacement, type AskAnswer, type PostAnswer, type SendingFacts } from './index.js';

const facts = (more: Partial<SendingFacts> = {}): SendingFacts => ({ tries: 1, asks: 0, secondsLeft: 1800, sincePosted: 0, ...more });
const published = { kind: 'published', address: 'https://x.test/1', at: null } as const;

describe('what follows from putting a post', () => {
  it('ends with what the channel says for good', () => {
    expect(afterPost(published, facts())).toMatchObject({ state: 'out', inSeconds: null });
    expect(afterPost({ kind: 'refused', reason: 'Too long' }, facts())).toMatchObject({
      state: 'failed',
      code: 'refused',
      reason: 'Too long',
    });
  });

  it('is put again only where nothing can have gone out, and only in time', () => {
    const unreachable: PostAnswer = { kind: 'unreachable', reason: 'refused the connection' };
    expect([1, 2, 3, 4, 5, 6, 7].map((tries) => afterPost(unreachable, facts({ tries })).inSeconds)).toEqual([
      5, 15, 30, 60, 120, 300, 300,
    ]);
    expect(afterPost(unreachable, facts({ secondsLeft: 4 }))).toMatchObject({ state: 'failed', code: 'too_late', inSeconds: null });
    expect(afterPost({ kind: 'limited', afterSeconds: 700 }, facts())).toMatchObject({ state: 'claimed', code: 'limited', inSeconds: 700 });
    expect(afterPost({ kind: 'limited', afterSeconds: null }, facts({ tries: 2 })).inSeconds).toBe(15);
    expect(afterPost({ kind: 'limited', afterSeconds: 1801 }, facts()).code).toBe('too_late');
    for (const answer of [{ kind: 'unknown', reason: 'no answer' }, { kind: 'accepted' }] as const)
      expect(afterPost(answer, facts({ secondsLeft: -1 }))).toMatchObject({ state: 'posted', inSeconds: 2 }); // asked, however late
  });
});

describe('what follows from asking', () => {
  it('is unsure without a clear word, and asks on for a day', () => {
    const silent: AskAnswer = { kind: 'silent', reason: 'no answer' };
    expect([1, 2, 3, 4, 5, 6, 7].map((asks) => afterAsk(silent, facts({ asks })).inSeconds)).toEqual([10, 30, 60, 120, 300, 600, 600]);
    expect(afterAsk(silent, facts({ asks: 1 })).state).toBe('unsure');
    expect(afterAsk(silent, facts({ asks: 99, sincePosted: 86_000 }))).toMatchObject({ state: 'unsure', inSeconds: null });
    expect(afterAsk({ kind: 'none', isFinal: false }, facts({ asks: 1 }))).toMatchObject({ state: 'unsure', code: 'not_known' });
    expect(afterAsk({ kind: 'pending' }, facts({ asks: 1 })).state).toBe('posted');
    expect(afterAsk({ kind: 'pending' }, facts({ asks: 9, sincePosted: 3601 })).state).toBe('unsure');
  });

  it('is put again under another reference once the channel takes the old one no more', () => {
    expect(afterAsk({ kind: 'none', isFinal: true }, facts({ asks: 1 }))).toMatchObject({ state: 'claimed', isAnew: true, inSeconds: 5 });
    expect(afterAsk({ kind: 'none', isFinal: true }, facts({ asks: 1, secondsLeft: 0 }))).toMatchObject({
      state: 'failed',
      code: 'too_late',
    });
    expect(afterAsk(published, facts({ asks: 4 })).state).toBe('out');
    expect(afterAsk({ kind: 'refused', reason: 'No' }, facts({ asks: 4 }))).toMatchObject({ state: 'failed', reason: 'No' });
  });
});

/**
 * A channel that takes what is put or not, loses its answers, and is silent when asked, all by chance. It makes a post of whatever it takes, also
 * of the same twice: only we keep it from being doubled.
 */
function channel(chance: () => number, isFinal: boolean) {
  const posts: string[] = [];
  const closed = new Set<string>();
  return {
    posts,
    put(reference: string): PostAnswer {
      const roll = chance();
      if (roll < 0.2) return { kind: 'unreachable', reason: '' };
      if (roll < 0.3) return { kind: 'limited', afterSeconds: null };
      if (closed.has(reference)) return { kind: 'refused', reason: 'closed' };
      if (roll < 0.5) return { kind: 'unknown', reason: '' }; // never came there
      posts.push(reference);
      return roll < 0.8 ? { kind: 'unknown', reason: '' } : published;
    },
    ask(reference: string): AskAnswer {
      if (chance() < 0.3) return { kind: 'silent', reason: '' };
      if (posts.includes(reference)) return published;
      if (isFinal) closed.add(reference);
      return { kind: 'none', isFinal };
    },
  };
}

it('never puts twice what is out, and says what is out wherever that can be known', () => {
  fc.assert(
    fc.property(fc.infiniteStream(fc.double({ min: 0, max: 1, noNaN: true })), fc.boolean(), (rolls, isFinal) => {
      const there = channel(() => rolls.next().value ?? 0, isFinal);
      let [state, reference, seconds, posted, tries, asks]: [string, number, number, number, number, number] = ['claimed', 1, 0, 0, 0, 0];
      for (let turn = 0; turn < 400; turn++) {
        if (state === 'claimed') [tries, posted, asks] = [tries + 1, seconds, 0];
        else asks++;
        const now = { tries, asks, secondsLeft: 1800 - seconds, sincePosted: seconds - posted };
        const next = state === 'claimed' ? afterPost(there.put(String(reference)), now) : afterAsk(there.ask(String(reference)), now);
        if (next.isAnew) reference++;
        [state, seconds] = [next.state, seconds + (next.inSeconds ?? 0)];
        if (next.inSeconds === null) break;
      }
      expect(there.posts.length).toBeLessThanOrEqual(1);
      if (state !== 'unsure') expect(there.posts).toHaveLength(state === 'out' ? 1 : 0);
      if (isFinal && state === 'unsure') expect(seconds).toBeGreaterThan(80_000); // a day of silence alone
    }),
    { numRuns: 400 },
  );
});

it('makes a placement sending, unsure or failed', () => {
  expect(['claimed', 'posted', 'unsure', 'out', 'failed', 'not_out'].map((state) => sendingOfPlacement(state as 'claimed'))).toEqual([
    'sending',
    'sending',
    'unsure',
    null,
    'failed',
    'failed',
  ]);
  expect(sendingOfPlacement(null)).toBeNull();
});

it('gives a first comment up after a while', () => {
  expect([1, 6, 12, 13].map(commentAgainIn)).toEqual([5, 300, 300, null]);
});

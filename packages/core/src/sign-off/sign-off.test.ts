import fc from 'fast-check';
import {
  asksClient,
  awaited,
  contentSignOff,
  digestState,
  isAllSigned,
  isSigned,
  isVoided,
  policyProblem,
  type Asked,
  type DecisionFact,
  type SignOffPolicy,
} from './index.js';

const approvers = ['ana', 'ben', 'cho'];
const inRound =
  (round: number) =>
  (contactId: string | null, verdict: 'approve' | 'changes', ...digests: string[]): DecisionFact => ({
    contactId,
    verdict,
    digests,
    round,
  });
const said = inRound(1);
const asked = (policy: SignOffPolicy, round = 1, approverIds: readonly string[] = approvers, goneIds: readonly string[] = []): Asked => ({
  policy,
  approverIds,
  goneIds,
  round,
});

describe('a digest under a policy', () => {
  const cases: [string, SignOffPolicy, DecisionFact[], string][] = [
    ['any: one approval does', { kind: 'any' }, [said('ben', 'approve', 'd')], 'approved'],
    ['all: two of three do not', { kind: 'all' }, [said('ana', 'approve', 'd'), said('ben', 'approve', 'd')], 'open'],
    ['all: three do', { kind: 'all' }, approvers.map((id) => said(id, 'approve', 'd')), 'approved'],
    ['named: another one does not count', { kind: 'named', contactIds: ['cho'] }, [said('ana', 'approve', 'd')], 'open'],
    ['named: the named one does', { kind: 'named', contactIds: ['cho'] }, [said('cho', 'approve', 'd')], 'approved'],
    ['two of three: two do', { kind: 'n_of', count: 2 }, [said('ana', 'approve', 'd'), said('cho', 'approve', 'd')], 'approved'],
    ['changes asked stand against one approval', { kind: 'any' }, [said('ana', 'approve', 'd'), said('ben', 'changes', 'd')], 'changes'],
    ['the latest word of a contact counts', { kind: 'any' }, [said('ana', 'changes', 'd'), said('ana', 'approve', 'd')], 'approved'],
    ['an approval of another digest says nothing', { kind: 'any' }, [said('ana', 'approve', 'other')], 'open'],
    ['no answer in the agreed time stands for approval', { kind: 'all', silenceDays: 5 }, [said(null, 'approve', 'd')], 'approved'],
    [
      'a contact’s changes stand against the agency’s word',
      { kind: 'any' },
      [said(null, 'approve', 'd'), said('ana', 'changes', 'd')],
      'changes',
    ],
    ['agency: the named person’s word is enough', { kind: 'agency', personId: 'p' }, [said(null, 'approve', 'd')], 'approved'],
    ['agency: without it nothing is approved', { kind: 'agency', personId: 'p' }, [], 'open'],
    ['nobody to approve is never approved', { kind: 'named', contactIds: [] }, [said('ana', 'approve', 'd')], 'open'],
  ];
  it.each(cases)('%s', (_title, policy, decisions, expected) => {
    expect(digestState(asked(policy), decisions, 'd')).toBe(expected);
  });
});

describe('whose word is awaited', () => {
  const waits = (policy: SignOffPolicy, ...decisions: DecisionFact[]) => awaited(asked(policy), decisions, ['d', 'e']);

  it('is everybody’s at once, until enough have approved', () => {
    expect(waits({ kind: 'all' })).toEqual(['ana', 'ben', 'cho']);
    expect(waits({ kind: 'all' }, said('ana', 'approve', 'd', 'e'))).toEqual(['ben', 'cho']);
    expect(waits({ kind: 'n_of', count: 2 }, said('ana', 'approve', 'd', 'e'), said('cho', 'approve', 'd', 'e'))).toEqual([]);
  });

  it('is one after the other where they are asked in turn, in the order of the list', () => {
    const inTurn: SignOffPolicy = { kind: 'named', contactIds: ['cho', 'ana'], inTurn: true };
    expect(waits(inTurn)).toEqual(['cho']);
    expect(waits(inTurn, said('cho', 'approve', 'd', 'e'))).toEqual(['ana']);
    expect(waits(inTurn, said('cho', 'approve', 'd'))).toEqual(['cho']);
    expect(waits(inTurn, said('cho', 'approve', 'd', 'e'), said('ana', 'approve', 'd', 'e'))).toEqual([]);
  });

  it('is again that of whoever asked for changes, of a part that stayed the same in the next round', () => {
    expect(waits({ kind: 'all' }, said('ben', 'changes', 'e'))).toEqual(['ana', 'ben', 'cho']);
    expect(waits({ kind: 'any' }, said('ben', 'changes', 'e'), said('ana', 'approve', 'd', 'e'))).toEqual(['ben']);
    expect(waits({ kind: 'all', inTurn: true }, said('ana', 'changes', 'd', 'e'))).toEqual(['ana']);
  });

  it('is nobody’s where the agency decides', () => {
    expect(waits({ kind: 'agency', personId: 'p' })).toEqual([]);
    expect([asksClient({ kind: 'agency', personId: 'p' }), asksClient({ kind: 'any' })]).toEqual([false, true]);
  });

  it('is somebody’s exactly as long as the content is open and somebody could still answer', () => {
    const events = [...approvers, null].flatMap((id) => (['approve', 'changes'] as const).map((verdict) => said(id, verdict, 'd', 'e')));
    const policies: SignOffPolicy[] = [{ kind: 'any' }, { kind: 'all', inTurn: true }, { kind: 'n_of', count: 2 }];
    fc.assert(
      fc.property(fc.constantFrom(...policies), fc.array(fc.constantFrom(...events), { maxLength: 6 }), (policy, order) => {
        fc.pre(order.filter((event) => event.contactId === null).at(-1)?.verdict !== 'changes'); // the agency asks nobody for changes
        const isOpen = digestState(asked(policy), order, 'd') !== 'approved';
        expect(waits(policy, ...order).length > 0).toBe(isOpen);
      }),
    );
  });
});

describe('a policy', () => {
  it('is refused when it can never be met', () => {
    expect(policyProblem({ kind: 'n_of', count: 4 }, approvers, [])).toBe('policy.count_too_high');
    expect(policyProblem({ kind: 'named', contactIds: [] }, approvers, [])).toBe('policy.nobody_signs_off');
    expect(policyProblem({ kind: 'named', contactIds: ['dan'] }, approvers, [])).toBe('policy.contact_cannot_sign_off');
    expect(policyProblem({ kind: 'agency', personId: 'p' }, approvers, ['q'])).toBe('policy.person_unknown');
    expect(policyProblem({ kind: 'agency', personId: 'q' }, [], ['q'])).toBeNull();
    expect(policyProblem({ kind: 'all' }, [], [])).toBeNull();
  });
});

describe('the content as it stands', () => {
  const sent = [{ shared: 's1', channels: { feed: 'f1', blog: 'b1' } }];
  const facts = { ...asked({ kind: 'any' }, 1, ['ana']), decisions: [said('ana', 'approve', 's1', 'f1', 'b1')], sent };

  it('is signed, edited in one channel that channel alone is voided, edited back it is signed again', () => {
    const edited = contentSignOff(facts, { shared: 's1', channels: { feed: 'f2', blog: 'b1' } });
    expect(edited).toEqual({ shared: 'signed', channels: { feed: 'voided', blog: 'signed' } });
    expect([isSigned(edited, 'feed'), isSigned(edited, 'blog'), isAllSigned(edited), isVoided(edited)]).toEqual([false, true, false, true]);
    expect(isAllSigned(contentSignOff(facts, { shared: 's1', channels: { feed: 'f1', blog: 'b1' } }))).toBe(true);
  });

  it('is not signed again when a later decision on that digest asked for changes', () => {
    const later = { ...facts, decisions: [...facts.decisions, said('ana', 'changes', 'f1')] };
    expect(contentSignOff(later, { shared: 's1', channels: { feed: 'f1', blog: 'b1' } }).channels).toEqual({
      feed: 'returned',
      blog: 'signed',
    });
  });

  it('does not sign a channel that was added after sign-off', () => {
    expect(contentSignOff(facts, { shared: 's1', channels: { feed: 'f1', video: 'v1' } }).channels).toEqual({
      feed: 'signed',
      video: 'open',
    });
  });
});

/** State space: every order of up to five events by two contacts over two digests, checked against a model told in another way. */
describe('every order of events', () => {
  const events = ['ana', 'ben'].flatMap((id) =>
    (['approve', 'changes'] as const).flatMap((verdict) => ['d1', 'd2'].map((digest) => said(id, verdict, digest))),
  );
  const orders = (length: number): DecisionFact[][] =>
    length === 0 ? [[]] : orders(length - 1).flatMap((order) => events.map((event) => [...order, event]));

  it('agrees with the model for any and all', () => {
    let seen = 0;
    for (const order of [0, 1, 2, 3, 4].flatMap(orders)) {
      for (const digest of ['d1', 'd2']) {
        const last = (id: string) => order.filter((event) => event.contactId === id && event.digests[0] === digest).at(-1)?.verdict;
        const words = [last('ana'), last('ben')];
        const model = (enough: boolean) => (words.includes('changes') ? 'changes' : enough ? 'approved' : 'open');
        expect(digestState(asked({ kind: 'any' }, 1, ['ana', 'ben']), order, digest)).toBe(model(words.includes('approve')));
        expect(digestState(asked({ kind: 'all' }, 1, ['ana', 'ben']), order, digest)).toBe(
          model(words.every((word) => word === 'approve')),
        );
        seen++;
      }
    }
    expect(seen).toBe(2 * (1 + 8 + 64 + 512 + 4096));
  });

  it('never approves a digest that nobody approved', () => {
    fc.assert(
      fc.property(fc.array(fc.constantFrom(...events), { maxLength: 12 }), (order) => {
        const approved = digestState(asked({ kind: 'any' }, 1, ['ana', 'ben']), order, 'd1') === 'approved';
        if (approved) expect(order.some((event) => event.verdict === 'approve' && event.digests.includes('d1'))).toBe(true);
      }),
    );
  });
});

describe('a part that comes back unchanged in a later round', () => {
  const second = inRound(2);
  const states = (asking: Asked, ...decisions: DecisionFact[]) => [
    digestState(asking, decisions, 'd'),
    awaited(asking, decisions, ['d']).join(' '),
  ];

  it('is open, not returned, until whoever asked for changes has answered', () => {
    const all = asked({ kind: 'all' }, 2, ['ana', 'ben']);
    expect(states(all, said('ana', 'changes', 'd'), second('ben', 'approve', 'd'))).toEqual(['open', 'ana']);
    expect(states(all, said('ana', 'changes', 'd'), second('ben', 'approve', 'd'), second('ana', 'approve', 'd'))).toEqual([
      'approved',
      '',
    ]);
    expect(states(all, said('ana', 'changes', 'd'), second('ana', 'changes', 'd'))).toEqual(['changes', 'ana ben']);
  });

  it('keeps the approvals that it had', () => {
    expect(states(asked({ kind: 'any' }, 2), said('ben', 'approve', 'd'))).toEqual(['approved', '']);
    expect(states(asked({ kind: 'all' }, 2, ['ana', 'ben']), said('ben', 'approve', 'd'))).toEqual(['open', 'ana']);
  });

  it('does not wait for somebody who no longer signs off, and takes no word of theirs against it', () => {
    const left = (policy: SignOffPolicy) => asked(policy, 2, ['ana', 'ben'], ['ana']);
    for (const policy of [{ kind: 'any' }, { kind: 'all' }, { kind: 'n_of', count: 2 }] as SignOffPolicy[])
      expect(states(left(policy), said('ana', 'changes', 'd'), second('ben', 'approve', 'd'))).toEqual(['approved', '']);
    expect(states(left({ kind: 'all' }), said('ana', 'approve', 'd'))).toEqual(['open', 'ben']); // what they gave stays
    expect(states(asked({ kind: 'all' }, 2, ['ana'], ['ana']))).toEqual(['open', '']); // nobody is left who could approve
  });

  it('takes no word of somebody who is no approver of the packet', () => {
    expect(states(asked({ kind: 'any' }, 1, ['ana']), said('left', 'changes', 'd'), said('ana', 'approve', 'd'))).toEqual(['approved', '']);
    expect(states(asked({ kind: 'any' }, 1, ['ana']), said('left', 'approve', 'd'))).toEqual(['open', 'ana']);
  });

  it('is approved where no answer came in the agreed time, whatever was asked for in earlier rounds', () => {
    expect(states(asked({ kind: 'all' }, 2), said('ana', 'changes', 'd'), second(null, 'approve', 'd'))).toEqual(['approved', '']);
    expect(states(asked({ kind: 'all' }, 2), said(null, 'approve', 'd'), second('ana', 'changes', 'd'))[0]).toBe('changes');
  });
});

/**
 * State space over rounds: up to three rounds of one part that never changes, two approvers who each say yes, changes or nothing, one of whom
 * may leave after any round; against a model that is told as the sentence of the rule.
 */
describe('every way through three rounds', () => {
  const words = [null, 'approve', 'changes'] as const;
  type Word = (typeof words)[number];
  const round = words.flatMap((a) => words.map((b) => [a, b] as const));
  const policies: [SignOffPolicy, number][] = [
    [{ kind: 'any' }, 1],
    [{ kind: 'all' }, 2],
    [{ kind: 'n_of', count: 2 }, 2],
  ];

  /** The rule, said once more: the latest word of each counts; changes of this round return it, those of an earlier one leave it open. */
  function model(rounds: readonly (readonly [Word, Word])[], anaLeft: boolean, needed: number): string {
    const latest = [0, 1].map((who) => {
      const at = rounds.findLastIndex((both) => both[who] !== null);
      return { word: at < 0 ? null : (rounds[at]?.[who] ?? null), isNow: at === rounds.length - 1 };
    });
    const [ana, ben] = latest as [(typeof latest)[0], (typeof latest)[0]];
    const voices = anaLeft && ana.word !== 'approve' ? [ben] : [ana, ben];
    if (voices.some(({ word, isNow }) => word === 'changes' && isNow)) return 'changes';
    if (voices.some(({ word }) => word === 'changes')) return 'open';
    return voices.filter(({ word }) => word === 'approve').length >= Math.min(needed, voices.length) ? 'approved' : 'open';
  }

  it.each(policies)('agrees with the rule for %j', (policy, needed) => {
    const ways = [...round.map((one) => [one]), ...round.flatMap((one) => round.map((two) => [one, two]))];
    const all = [...ways, ...round.flatMap((one) => round.flatMap((two) => round.map((three) => [one, two, three])))];
    for (const way of all)
      for (const anaLeft of [false, true]) {
        const decisions = way.flatMap((both, index) =>
          (['ana', 'ben'] as const).flatMap((id, who) => (both[who] ? [inRound(index + 1)(id, both[who], 'd')] : [])),
        );
        const asking = asked(policy, way.length, ['ana', 'ben'], anaLeft ? ['ana'] : []);
        expect([way, anaLeft, digestState(asking, decisions, 'd')]).toEqual([way, anaLeft, model(way, anaLeft, needed)]);
        const waits = awaited(asking, decisions, ['d']);
        expect(waits.length > 0).toBe(digestState(asking, decisions, 'd') !== 'approved');
        if (anaLeft) expect(waits).not.toContain('ana');
      }
  });
});

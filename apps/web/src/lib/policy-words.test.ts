import type { SignOffPolicy } from '@zesting/core';
import { policyWords } from './policy-words';

const approvers = ['Ana', 'Ben', 'Cho'].map((name) => ({ id: name.toLowerCase(), name }));
const words = (policy: SignOffPolicy, of = approvers) => policyWords(policy, { approvers: of, personName: () => 'Dana' });
const END = ' Changes asked by any of them stand against every approval. Without an answer nothing is signed.';

describe('a policy in words', () => {
  it.each<[SignOffPolicy, string]>([
    [{ kind: 'any' }, `A piece is signed as soon as Ana, Ben or Cho approves it. All are asked at once.${END}`],
    [{ kind: 'all' }, `A piece is signed when Ana, Ben and Cho approve it. All are asked at once.${END}`],
    [
      { kind: 'all', inTurn: true },
      `A piece is signed when Ana, Ben and Cho approve it. They are asked one after the other: Ana, then Ben, then Cho.${END}`,
    ],
    [{ kind: 'n_of', count: 2 }, `A piece is signed as soon as 2 of Ana, Ben and Cho approve it. All are asked at once.${END}`],
    [{ kind: 'named', contactIds: ['cho'] }, `A piece is signed when Cho approves it, whatever others say.${END}`],
    [
      { kind: 'agency', personId: 'd' },
      'Nothing goes to the client: Dana decides on the client’s standing authority, once the check is passed.',
    ],
  ])('%j', (policy, expected) => {
    expect(words(policy)).toBe(expected);
  });

  it('says what silence means where it is agreed', () => {
    expect(words({ kind: 'any', silenceDays: 5 }, approvers.slice(0, 1))).toBe(
      'A piece is signed when Ana approves it. Changes asked by any of them stand against every approval. When no answer has come after 5 working days of theirs, a person may record that, and it counts as approval.',
    );
  });

  it('says when nobody can sign', () => {
    expect(words({ kind: 'all' }, [])).toContain('Nobody signs off yet');
  });
});

import type { LeftStepShape, ProposedGiveShape } from '@zesting/contract';
import { AS_PROPOSED, givesOf, isAsProposed, linesOf, putDoer, putTaken } from './chosen-gives';

const fay = { personId: 'fay', name: 'Fay', why: 'skill', cost: 4000 } as const;
const write: ProposedGiveShape = {
  stepId: 's1',
  version: 3,
  stepTitle: 'Write',
  pieceId: 'p1',
  pieceTitle: 'Pancakes',
  clientId: 'c1',
  minutes: 90,
  fromName: null,
  personId: 'sia',
  personName: 'Sia',
  why: 'usual',
  cost: null,
  others: [fay],
  predictedFinishOn: '2027-03-10',
  latestFinishOn: '2027-03-11',
};
const shoot: LeftStepShape = {
  stepId: 'l1',
  version: 5,
  minutes: 30,
  stepTitle: 'Shoot',
  pieceId: 'p2',
  pieceTitle: 'Bread',
  clientId: 'c1',
  skill: 'film',
  why: 'no_hours',
  others: [fay],
};
const proposal = { gives: [write, { ...write, stepId: 's2', others: [] }], left: [shoot] };
const told = (choosing: typeof AS_PROPOSED) =>
  givesOf(proposal, choosing).map(({ stepId, personName, cost }) => [stepId, personName, cost]);

describe('a proposal that somebody makes their own', () => {
  it('is given as it is proposed, and what nobody is proposed for is not', () => {
    expect(told(AS_PROPOSED)).toEqual([
      ['s1', 'Sia', null],
      ['s2', 'Sia', null],
    ]);
    expect(isAsProposed(proposal, AS_PROPOSED)).toBe(true);
  });

  it('leaves out, and takes in again', () => {
    const less = putTaken(AS_PROPOSED, ['s1'], false);
    expect([told(less), isAsProposed(proposal, less)]).toEqual([[['s2', 'Sia', null]], false]);
    expect(isAsProposed(proposal, putTaken(less, ['s1'], true))).toBe(true);
  });

  it('gives to another, with why and for how much; who cannot take it is not taken', () => {
    const other = putDoer(AS_PROPOSED, 's1', 'fay');
    expect(givesOf(proposal, other)[0]).toMatchObject({ personId: 'fay', personName: 'Fay', why: 'skill', cost: 4000, version: 3 });
    expect(isAsProposed(proposal, other)).toBe(false);
    expect(isAsProposed(proposal, putDoer(other, 's1', 'sia'))).toBe(true);
    expect(told(putDoer(AS_PROPOSED, 's2', 'fay'))[1]).toEqual(['s2', 'Sia', null]);
  });

  it('gives what nobody is proposed for to somebody all the same, and to nobody again', () => {
    const all = putDoer(AS_PROPOSED, 'l1', 'fay');
    expect(told(all)[2]).toEqual(['l1', 'Fay', 4000]);
    expect(isAsProposed(proposal, all)).toBe(false);
    expect(told(putDoer(all, 'l1', ''))).toEqual(told(AS_PROPOSED));
  });

  it('shows who takes each and when it ends, as it was reckoned last', () => {
    const ends = [{ stepId: 's1', predictedFinishOn: '2027-03-12', latestFinishOn: null }];
    const lines = linesOf(proposal.gives, putTaken(putDoer(AS_PROPOSED, 's1', 'fay'), ['s2'], false), ends);
    expect(
      lines.map(({ stepId, personName, predictedFinishOn, latestFinishOn }) => [stepId, personName, predictedFinishOn, latestFinishOn]),
    ).toEqual([
      ['s1', 'Fay', '2027-03-12', null],
      ['s2', 'Sia', '2027-03-10', '2027-03-11'],
    ]);
  });
});

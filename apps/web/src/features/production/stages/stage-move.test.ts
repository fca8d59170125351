import type { LineRowShape, LineStepShape } from '@zesting/contract';
import { atHand, movesOf, STAGE_COLUMNS, stageMove } from './stage-move';

const step = (id: string, kind: LineStepShape['kind'], after: string[], more: Partial<LineStepShape> = {}): LineStepShape => ({
  id,
  title: id,
  kind,
  doer: 'd',
  doerId: null,
  doerName: null,
  spanDays: 1,
  effortMinutes: 60,
  sameDay: false,
  round: 1,
  predecessorIds: after,
  startedOn: null,
  finishedOn: null,
  pinnedFinishOn: null,
  latestStartOn: null,
  latestFinishOn: null,
  earliestStartOn: '2027-03-09',
  earliestFinishOn: '2027-03-09',
  predictedStartOn: null,
  predictedFinishOn: null,
  danger: null,
  version: 1,
  ...more,
});
const DONE = { startedOn: '2027-03-01', finishedOn: '2027-03-02' };
/** Write, then design, then check, then sign-off; so many of them done. */
const row = (stage: LineRowShape['stage'], done: number, more: Partial<LineStepShape> = {}) => ({
  id: 'p',
  stage,
  steps: [
    step('write', 'make', []),
    step('design', 'make', ['write']),
    step('check', 'check', ['design']),
    step('sign', 'sign_off', ['check']),
  ].map((each, index) => (index < done ? { ...each, ...DONE } : index === done ? { ...each, ...more } : each)),
});

describe('moving a piece to another stage', () => {
  it('does what that means', () => {
    expect(stageMove(row('planned', 0), 'in_production')).toEqual({ kind: 'do', path: '/steps/write/begin', words: 'Begin “write”' });
    expect(stageMove(row('in_production', 1), 'in_review')).toEqual({
      kind: 'do',
      path: '/steps/design/hand-in',
      words: 'Hand in “design”',
    });
    expect(stageMove(row('in_review', 2), 'in_production')).toEqual({
      kind: 'go',
      address: '/pieces/p?open=back-check',
      words: 'Hand back from “check”',
    });
    expect(stageMove(row('in_production', 3), 'with_client')).toEqual({ kind: 'go', address: '/sign-off', words: 'Send it to the client' });
    expect(stageMove(row('approved', 4), 'scheduled')).toEqual({ kind: 'go', address: '/calendar', words: 'Give it its days' });
  });

  it.each([
    ['planned', 0, 'in_review', '“write”, “design” come before it is checked.'],
    ['in_production', 1, 'planned', 'What was begun stays begun.'],
    ['in_production', 1, 'with_client', '“design”, “check” come first.'],
    ['in_review', 2, 'with_client', '“check” is not passed yet: pass it, then it can be sent.'],
    ['in_review', 2, 'approved', 'The client’s word makes it so.'],
    ['in_review', 2, 'scheduled', 'What is not signed off is pencilled at most.'],
    ['approved', 4, 'with_client', 'It is signed off.'],
    ['approved', 4, 'in_production', 'All of its steps are done.'],
    ['in_production', 1, 'in_production', 'It is there already.'],
  ] as const)('from %s with %d steps done to %s says why not', (stage, done, to, why) =>
    expect(stageMove(row(stage, done), to)).toEqual({ kind: 'no', why }),
  );

  it('is never one while the client has it', () => {
    for (const to of STAGE_COLUMNS.filter((stage) => stage !== 'with_client')) expect(stageMove(row('with_client', 3), to).kind).toBe('no');
  });

  it('begins nothing twice', () => {
    expect(stageMove(row('planned', 0, { startedOn: '2027-03-08' }), 'in_production')).toEqual({
      kind: 'no',
      why: '“write” is begun already.',
    });
  });

  it('is offered where it means something, and nowhere else', () => {
    expect(movesOf(row('planned', 0)).map(({ to }) => to)).toEqual(['in_production']);
    expect(movesOf(row('in_production', 1, { startedOn: '2027-03-08' })).map(({ to }) => to)).toEqual(['in_review']);
    expect(movesOf(row('approved', 4)).map(({ to }) => to)).toEqual(['scheduled']);
    expect(movesOf(row('with_client', 3))).toEqual([]);
  });

  it('goes by what can be done now, steps side by side too', () => {
    const side = { steps: [step('a', 'make', []), step('b', 'make', []), step('c', 'check', ['a', 'b'])] };
    expect(atHand(side).map(({ id }) => id)).toEqual(['a', 'b']);
    expect(atHand({ steps: [step('a', 'make', [], DONE), step('b', 'make', ['gone'])] }).map(({ id }) => id)).toEqual(['b']);
  });
});

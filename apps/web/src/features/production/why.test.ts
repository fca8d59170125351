import type { StepShape } from '@zesting/contract';
import { predictedWords, whyWords } from './why';

const step = (overrides: Partial<StepShape>): StepShape => ({
  checklist: [],
  predecessorIds: [],
  version: 1,
  pinnedFinishOn: null,
  conflict: null,
  optional: false,
  isOffered: false,
  id: 's1',
  title: 'Make',
  kind: 'make',
  skill: 'design',
  doerId: null,
  withId: null,
  withName: null,
  doerName: null,
  spanDays: 3,
  effortMinutes: 60,
  leftMinutes: 60,
  sameDay: false,
  round: 1,
  startedOn: null,
  finishedOn: null,
  latestStartOn: '2027-03-03',
  latestFinishOn: '2027-03-08',
  latestHeldBy: { by: 'step', stepId: 's2' },
  earliestStartOn: '2027-03-01',
  earliestFinishOn: '2027-03-03',
  earliestHeldBy: { by: 'today' },
  slackDays: 2,
  predictedStartOn: null,
  predictedFinishOn: null,
  behindSteps: 0,
  danger: 'fine',
  critical: true,
  atHand: true,
  daysOff: ['2027-03-04'],
  remark: null,
  mine: false,
  ...overrides,
});
const check = step({ id: 's2', title: 'Check', latestStartOn: '2027-03-09' });

describe('why a step lies where it lies', () => {
  it('names its span, what it must be ready for, and the days off', () => {
    expect(whyWords(step({}), [check])).toMatch(/^3 working days, done before Check must start on Tue 9 Mar.*; off Thu 4 Mar/);
  });

  it('names publication for a last step, a pin for a pinned one, and nothing without an aim', () => {
    expect(whyWords(step({ latestHeldBy: { by: 'aim' }, spanDays: 1, daysOff: [] }), [])).toBe(
      '1 working day, done before it is published',
    );
    expect(whyWords(step({ latestHeldBy: { by: 'pin' }, daysOff: [] }), [])).toBe('3 working days, pinned by hand');
    expect(whyWords(step({ latestHeldBy: null }), [])).toMatch(/no aim date yet$|no aim date yet/);
  });

  it('says when it could end where it is short, and that it may share a day', () => {
    expect(whyWords(step({ slackDays: -1, daysOff: [], sameDay: true }), [check])).toMatch(
      /; could end Wed 3 Mar.*; may share a day with the step before$/,
    );
  });
});

describe('what the prediction adds', () => {
  const predicted = (overrides: Partial<StepShape>) => predictedWords(step(overrides));

  it('says when load lets a step end, and how many steps go first', () => {
    expect(predicted({ predictedFinishOn: '2027-03-05', behindSteps: 1 })).toMatch(
      /^Predicted to end Fri 5 Mar.*: 1 step due earlier goes first$/,
    );
    expect(predicted({ predictedFinishOn: '2027-03-09', behindSteps: 3 })).toMatch(
      /^Predicted to end Tue 9 Mar.*: 3 steps due earlier go first$/,
    );
    expect(predicted({ predictedFinishOn: '2027-03-09' })).toMatch(/^Predicted to end Tue 9 Mar\D*( 2027)?$/);
  });

  it('says nothing where it is not known, or the step is done', () => {
    expect(predicted({})).toBeNull();
    expect(predicted({ predictedFinishOn: '2027-03-09', finishedOn: '2027-03-09' })).toBeNull();
  });
});

import type { ReadyPieceShape } from '@zesting/contract';
import { dayWords } from '../../lib/format';
import { slipWords } from './slips';

const piece = (part: Partial<ReadyPieceShape>) =>
  ({
    title: 'Figs',
    latestFinishOn: '2027-03-15',
    answerOn: '2027-03-11',
    slips: false,
    earliestPublishOn: null,
    ...part,
  }) as ReadyPieceShape;

describe('what a packet makes slip', () => {
  it('is nothing while the answer comes in time, nor where a piece has no date', () => {
    expect(slipWords([piece({}), piece({ latestFinishOn: null })], '2027-03-15')).toEqual([]);
  });

  it('names each piece that needs its answer before the packet’s due date', () => {
    expect(slipWords([piece({}), piece({ title: 'Plums', latestFinishOn: '2027-03-17' })], '2027-03-16')).toEqual([
      `Figs needs its answer by ${dayWords('2027-03-15')}: ${dayWords('2027-03-16')} is too late for it.`,
    ]);
  });

  it('names a piece that slips whatever is chosen, since the client’s own time is too short, and the date that can be met', () => {
    const late = piece({ slips: true, answerOn: '2027-03-17', earliestPublishOn: '2027-03-18' });
    expect(slipWords([late], '2027-03-15')).toEqual([
      `Figs slips: the client’s time ends ${dayWords('2027-03-17')}, its answer was needed by ${dayWords('2027-03-15')}. It can be out on ${dayWords('2027-03-18')}.`,
    ]);
  });
});

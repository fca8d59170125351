import type { MovedShape } from '@zesting/contract';
import { dayWords } from './format';
import { moveWords } from './placements';

const moved = (part: Partial<MovedShape>, placement: Partial<MovedShape['placement']> = {}): MovedShape =>
  ({
    placement: { channelName: 'Blog', on: '2027-03-16', at: '08:00', state: 'scheduled', ...placement },
    lateSteps: [],
    earliestPublishOn: null,
    others: 0,
    markers: [],
    ...part,
  }) as MovedShape; // the parts that are read

describe('what a move did, in words', () => {
  it('is where it stands now', () => {
    expect(moveWords(moved({})).trim()).toBe(`Blog: ${dayWords('2027-03-16')}, 08:00.`);
    expect(moveWords(moved({}, { on: null, at: null, state: 'undated' })).trim()).toBe('Blog: no date.');
  });

  it('says that an unsigned one is only pencilled', () => {
    expect(moveWords(moved({}, { state: 'pencilled' }))).toContain('Pencilled until it is signed.');
  });

  it('counts the siblings that moved with it, and says nothing of those that stayed', () => {
    expect(moveWords(moved({ others: 2 }))).toContain('2 other placements of the piece moved as many days.');
    expect(moveWords(moved({}))).not.toContain('other');
  });

  it('says what stands on the day there', () => {
    expect(moveWords(moved({ markers: [{ kind: 'blackout', name: 'Memorial' }] }))).toContain('Blackout, Memorial: nothing should go out.');
  });

  it('names what is late now, and the date that can be met', () => {
    expect(moveWords(moved({ lateSteps: ['Write', 'Check'], earliestPublishOn: '2027-03-22' }))).toContain(
      `Late now: Write, Check. ${dayWords('2027-03-22')} can be met.`,
    );
    expect(moveWords(moved({ lateSteps: ['Write'] }))).toContain('Late now: Write.');
  });
});

import { makersBefore, stepsBetween, type PathStep } from './index.js';

const step = (id: string, kind: PathStep['kind'], after: string[], round = 1): PathStep => ({ id, kind, round, predecessorIds: after });
const names = (steps: readonly PathStep[]) => steps.map(({ id }) => id).join(' ');

/** Text and picture side by side, joined by a check; then a second round of the text alone. */
const letter = [
  step('write', 'make', []),
  step('design', 'make', []),
  step('check', 'check', ['write', 'design']),
  step('sign-off', 'sign_off', ['check']),
];
const again = [...letter, step('write-2', 'make', ['sign-off'], 2), step('check-2', 'check', ['write-2'], 2)];
/** One after the other. */
const still = [step('write', 'make', []), step('design', 'make', ['write']), step('check', 'check', ['design'])];

describe('who made what a check looks at', () => {
  const of = (steps: readonly PathStep[], id: string) => {
    const { nearest, all } = makersBefore(steps.find((one) => one.id === id) as PathStep, steps);
    return [names(nearest), names(all)];
  };

  it('is everybody side by side before it, wherever they stand in the list', () => {
    expect(of(letter, 'check')).toEqual(['write design', 'write design']);
    expect(of([...letter].reverse(), 'check')).toEqual(['design write', 'design write']);
  });

  it('is the last of those in a row, and may be one further back', () => {
    expect(of(still, 'check')).toEqual(['design', 'write design']);
  });

  it('is whoever made it in the latest round', () => {
    expect(of(again, 'check-2')).toEqual(['write-2', 'write-2']);
  });

  it('is nobody who only checked before, nor who makes something beside', () => {
    const twice = [...still, step('second', 'check', ['check']), step('beside', 'make', [])];
    expect(of(twice, 'second')).toEqual(['design', 'write design']);
  });

  it('is nobody where nothing was made', () => {
    expect(of([step('check', 'check', [])], 'check')).toEqual(['', '']);
  });
});

describe('what lies between', () => {
  it('is what follows from the one and leads to the other', () => {
    const [write, design, check] = still as [PathStep, PathStep, PathStep];
    expect(names(stepsBetween([write], check, still))).toBe('design');
    expect(names(stepsBetween([design], check, still))).toBe('');
    expect(names(stepsBetween([letter[0] as PathStep], letter[2] as PathStep, letter))).toBe(''); // the picture stays as it is
  });
});

import { afterGone } from './after-gone';

const steps = (ids: string) => [...ids].map((stepId) => ({ stepId }));

describe('the step that comes after one that is done', () => {
  it.each([
    ['the one behind it', 'abc', 'ac', 'b', 'c'],
    ['the next that is left', 'abcd', 'ad', 'b', 'd'],
    ['the one before, of the last', 'abc', 'ab', 'c', 'b'],
    ['none, where nothing is left', 'a', '', 'a', undefined],
    ['none, of one that never stood there', 'abc', 'abc', 'x', undefined],
    ['none, of none', 'abc', 'abc', null, undefined],
    ['the one behind it, though others came', 'ab', 'xb', 'a', 'b'],
  ])('is %s', (_, before, now, gone, next) => expect(afterGone(steps(before), steps(now), gone)?.stepId).toBe(next));
});

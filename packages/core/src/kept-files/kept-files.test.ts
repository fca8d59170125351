import { getDay } from '../time/index.js';
import { renewalOf } from './index.js';

describe('a file that is to be renewed', () => {
  it.each([
    [null, 'fresh'],
    ['2027-04-01', 'fresh'], // thirty-one days ahead
    ['2027-03-31', 'soon'],
    ['2027-03-01', 'soon'], // it is good on its day
    ['2027-02-28', 'old'],
  ])('by %p is %s on 1 March', (renewBy, renewal) =>
    expect(renewalOf(renewBy === null ? null : getDay(renewBy), getDay('2027-03-01'))).toBe(renewal),
  );
});

import { offReason } from './off-days';

describe('why a day is off', () => {
  const reason = offReason([
    { whose: 'Mossgrove', weekdaysOff: [6, 7], days: new Map([['2027-03-26', 'Good Friday']]) },
    { whose: 'the doer', weekdaysOff: [5], days: new Map() },
  ]);
  it.each([
    ['2027-03-26', 'Good Friday: Mossgrove off. Not a working day of the doer'], // a Friday
    ['2027-03-27', 'Not a working day of Mossgrove'],
    ['2027-03-24', undefined],
    ['', undefined],
    ['2027-02-31', undefined],
  ])('%s', (on, words) => expect(reason(on)).toBe(words));
});

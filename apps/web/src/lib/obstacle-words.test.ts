import { ageWords, whoseWords } from './obstacle-words';

describe('words for what stands in the way', () => {
  // the year is left out in that year alone
  beforeAll(() => void jest.useFakeTimers({ now: new Date('2027-03-08T12:00:00Z') }));
  afterAll(() => void jest.useRealTimers());

  it('say whose it is', () => {
    expect(whoseWords({ whose: 'client', personName: null })).toBe('the client');
    expect(whoseWords({ whose: 'outside', personName: null })).toBe('somebody outside');
    expect(whoseWords({ whose: 'person', personName: 'Mara' })).toBe('Mara');
    expect(whoseWords({ whose: 'person', personName: 'Mara' }, true)).toBe('you');
  });

  it('say since when, until when, and that a day went by', () => {
    const words = (days: number, untilOn: string | null) => ageWords({ days, sinceOn: '2027-03-01', untilOn }, '2027-03-08');
    expect(words(0, null)).toBe('since today');
    expect(words(1, null)).toBe('since yesterday');
    expect(words(7, null)).toBe('for 7 days, since Mon 1 Mar');
    expect(words(7, '2027-03-10')).toBe('for 7 days, since Mon 1 Mar; expected until Wed 10 Mar');
    expect(words(7, '2027-03-05')).toBe('for 7 days, since Mon 1 Mar; was to be gone Fri 5 Mar');
  });
});

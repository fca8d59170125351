import { chanceWords, daysWords } from './forecast-words';

describe('a forecast in words', () => {
  it.each([
    [0, 'hardly any chance'],
    [0.05, 'a chance of about 1 in 10'],
    [0.68, 'a chance of about 7 in 10'],
    [0.95, 'a chance of about 9 in 10'],
    [0.96, 'almost certain'],
  ])('of %d', (chance, words) => expect(chanceWords(chance)).toBe(words));

  it.each([
    [1, 1, '1 working day mostly'],
    [2, 4, '2 working days in half of the cases, up to 4 in four of five'],
    [3, null, '3 working days in half of the cases, in others longer than was seen to end'],
    [null, null, 'longer than was seen to end'],
  ])('of days %p and %p', (usual, most, words) => expect(daysWords(usual, most)).toBe(words));
});

import { answerWords, chanceWords, daysWords } from './forecast-words';

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

  const days = [
    { on: '2027-03-05', chance: 0.32 },
    { on: '2027-03-08', chance: 0.97 },
  ];
  it.each([
    ['2027-03-04', 6, 'Hardly any chance that the answer is there by then, going by 14 earlier rounds, 6 of this client.'],
    ['2027-03-05', 0, 'A chance of about 3 in 10 that the answer is there by then, going by 14 earlier rounds.'],
    ['2027-03-07', 0, 'A chance of about 3 in 10 that the answer is there by then, going by 14 earlier rounds.'],
    ['2027-04-01', 1, 'Almost certain that the answer is there by then, going by 14 earlier rounds, 1 of this client.'],
  ])('of an answer by %s', (dueOn, own, words) => expect(answerWords({ days, own, all: 14 }, dueOn)).toBe(words));
});

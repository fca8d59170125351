import { aroundWhen } from './around-words';

it.each([
  [{ kind: 'enter', days: 0, forDays: 1 }, 'by the day itself'],
  [{ kind: 'enter', days: 1, forDays: 1 }, 'by the day before'],
  [{ kind: 'enter', days: 3, forDays: 1 }, 'by 3 days before'],
  [{ kind: 'follow_up', days: 0, forDays: 1 }, 'the same day'],
  [{ kind: 'follow_up', days: 2, forDays: 5 }, '2 days later, for 5 days'],
] as const)('%j', (rule, words) => expect(aroundWhen(rule)).toBe(words));

import { mentionedIn } from './mentions';

const team = [
  { personId: '1', name: 'Dana Okafor' },
  { personId: '2', name: 'Noor Castellane' },
  { personId: '3', name: 'Dana Reed' },
];

describe('whom a text mentions', () => {
  it.each([
    ['@Noor can you look', ['2']],
    ['ask @noor castellane, please', ['2']],
    ['(@NOOR)', ['2']],
    ['@Dana', []], // there are two
    ['@dana reed and @noor', ['2', '3']],
    ['@Noorish', []],
    ['mail noor@noor', []],
    ['Noor', []],
    ['', []],
  ])('%s', (text, ids) => expect(mentionedIn(text, team)).toEqual(ids));
});

import { shortPhrase } from './phrase-words';

describe('a phrase in one line', () => {
  it('is whole where it fits, on one line, and cut between characters where not', () => {
    expect(shortPhrase(' What:\n\nWhen: ')).toBe('What: When:');
    expect(shortPhrase('x'.repeat(80))).toBe('x'.repeat(80));
    expect(shortPhrase('👩‍👩‍👧'.repeat(81))).toBe(`${'👩‍👩‍👧'.repeat(80)}…`);
  });
});

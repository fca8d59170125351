import { PROBLEMS } from '@zesting/contract/problems';
import { problemWords } from './words';

describe('the words of problems', () => {
  it('exist for every code, end as sentences, and show no code', () => {
    for (const code of Object.keys(PROBLEMS)) {
      const words = problemWords(code);
      expect(words).toMatch(/^[A-Z].*\.$/);
      expect(words).not.toMatch(/_|!/);
    }
  });

  it('fall back to saying that what was typed is still there', () => {
    expect(problemWords('something.unheard_of')).toContain('What you typed is still here');
  });
});

import { wordsStanding } from './index.js';

describe('words that stand in a text', () => {
  const never = ['artisan', 'must-have', 'guilt-free', 'nautical  themed', 'élan', ''];
  it.each([
    ['Our Artisan bread', ['artisan']],
    ['artisanal', []], // a longer word is another one
    ['(ARTISAN)', ['artisan']],
    ['the must-have of the season, guilt-free', ['must-have', 'guilt-free']],
    ['nautical\nthemed', ['nautical  themed']],
    ['e\u0301lan', ['élan']], // composed or not
    ['partisan; artisan', ['artisan']],
    ['', []],
  ])('%j', (text, words) => expect(wordsStanding(text, never)).toEqual(words));
});

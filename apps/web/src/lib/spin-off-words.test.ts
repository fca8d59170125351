import { clipWords, factsInWords, factText, offsetWords } from './spin-off-words';

describe('words about spin-offs', () => {
  it('say how far from its source an output lies', () => {
    const words = [
      [0, 'days'],
      [1, 'days'],
      [-3, 'days'],
      [2, 'working_days'],
      [-1, 'working_days'],
    ] as const;
    expect(words.map(([count, unit]) => offsetWords({ count, unit }))).toEqual([
      'on the same day',
      '1 day after',
      '3 days before',
      '2 working days after',
      '1 working day before',
    ]);
  });

  it('say from when to when a clip is cut, and nothing where it is none', () => {
    expect([clipWords(10, 80), clipWords(null, null)]).toEqual(['from 0:10 to 1:20', '']);
  });

  it('name fields, and what stands in them', () => {
    expect(factsInWords(['title', 'media'])).toBe('title, pictures and files');
    expect([factText('purpose', 'come'), factText('purpose', ''), factText('copy', 'come')]).toEqual(['to come', '', 'come']);
  });
});

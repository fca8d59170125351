import { wheelWords } from './wheel';

describe('the words of a wheel', () => {
  it('count what is done and name what is late, at hand, and with nobody', () => {
    const done = { title: 'Write', state: 'done', lateDays: 0 } as const;
    expect(wheelWords([done, { title: 'Design', state: 'late', lateDays: 2 }, { title: 'Check', state: 'waiting', lateDays: 0 }])).toBe(
      '1 of 3 steps done, Design is 2 days late',
    );
    expect(wheelWords([done, { title: 'Design', state: 'current', lateDays: 0 }])).toBe('1 of 2 steps done, Design is at hand');
    expect(wheelWords([{ title: 'Script', state: 'blocked', lateDays: 0 }])).toBe('0 of 1 steps done, nobody has Script');
  });
});

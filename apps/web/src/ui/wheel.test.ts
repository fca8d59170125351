import { wheelWords } from './wheel';

describe('the words of a wheel', () => {
  it('count what is done and name what is late, at hand, and with nobody', () => {
    const done = { title: 'Write', state: 'done', lateDays: 0 } as const;
    expect(wheelWords([done, { title: 'Design', state: 'late', lateDays: 2 }, { title: 'Check', state: 'waiting', lateDays: 0 }])).toBe(
      '1 of 3 steps done, Design is 2 days late',
    );
    expect(wheelWords([done, { title: 'Design', state: 'current', lateDays: 0 }])).toBe('1 of 2 steps done, Design is at hand');
    const stopped = { title: 'Film', state: 'blocked', lateDays: 0, obstacle: true } as const;
    expect(wheelWords([done, stopped])).toBe('1 of 2 steps done, something is in the way of Film');
    expect(wheelWords([{ ...stopped, state: 'late', lateDays: 1 }])).toBe(
      '0 of 1 steps done, Film is 1 day late, something is in the way of Film',
    );
    expect(wheelWords([{ title: 'Script', state: 'blocked', lateDays: 0 }])).toBe('0 of 1 steps done, nobody has Script');
  });
});

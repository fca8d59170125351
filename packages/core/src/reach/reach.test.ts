import fc from 'fast-check';
import { reachOf } from './index.js';

const channel = (id: string, audience: number, seen: number, posts: number) => ({ id, audience, seen, posts });

describe('what a rhythm reaches, worked by hand', () => {
  it('of one channel is its posts, contacts, and those who see at least one', () => {
    // two posts that half of 1,000 see: 1,000 contacts, and a quarter sees neither
    expect(reachOf([channel('feed', 1000, 0.5, 2)], 0.3)).toEqual({
      channels: [{ id: 'feed', posts: 2, contacts: 1000, people: 750 }],
      posts: 2,
      contacts: 1000,
      people: 750,
    });
  });

  it('of two counts the larger whole, and of the smaller who is not reached already', () => {
    const both = [channel('letter', 200, 0.5, 1), channel('feed', 1000, 0.5, 2)];
    expect(reachOf(both, 0.3)).toMatchObject({ posts: 3, contacts: 1100, people: 750 + 0.7 * 100 });
    expect(reachOf(both, 1).people).toBe(750);
    expect(reachOf(both, 0).people).toBe(850);
  });

  it('is nothing where nothing goes out', () => {
    expect(reachOf([], 0.5)).toEqual({ channels: [], posts: 0, contacts: 0, people: 0 });
    expect(reachOf([channel('feed', 1000, 0.5, 0)], 0.5)).toMatchObject({ contacts: 0, people: 0 });
  });

  const channels = fc.array(
    fc.record({
      id: fc.uuid(),
      audience: fc.integer({ min: 0, max: 1_000_000 }),
      seen: fc.double({ min: 0, max: 1, noNaN: true }),
      posts: fc.integer({ min: 0, max: 60 }),
    }),
    { maxLength: 6 },
  );
  it('never reaches more people than there are, nor fewer than the largest channel alone; another post never reaches fewer', () => {
    fc.assert(
      fc.property(channels, fc.double({ min: 0, max: 1, noNaN: true }), (all, overlap) => {
        const { people, contacts, channels: rows } = reachOf(all, overlap);
        expect(people).toBeLessThanOrEqual(all.reduce((sum, { audience }) => sum + audience, 0) + 1e-6);
        expect(people).toBeGreaterThanOrEqual(Math.max(0, ...rows.map((row) => row.people)) - 1e-6);
        expect(people).toBeLessThanOrEqual(contacts + 1e-6);
        const more = reachOf(
          all.map((one) => ({ ...one, posts: one.posts + 1 })),
          overlap,
        );
        expect(more.people).toBeGreaterThanOrEqual(people - 1e-6);
      }),
    );
  });
});

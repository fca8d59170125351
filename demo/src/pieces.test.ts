import { CLIENTS } from './clients';
import { ASKED, STORY } from './pieces';
import { PEOPLE, ROUTES } from './story';

describe('the story of the demo', () => {
  it('has four clients in three zones, seven people, and some sixty pieces', () => {
    expect(Object.keys(CLIENTS)).toHaveLength(4);
    expect(new Set(Object.values(CLIENTS).map((client) => client.zone)).size).toBe(3);
    expect(Object.keys(PEOPLE)).toHaveLength(7);
    expect(STORY.length).toBeGreaterThanOrEqual(60);
  });

  it('reaches over the past month and the next two', () => {
    const days = STORY.flatMap((piece) => piece.inDays ?? []);
    expect(Math.min(...days)).toBeLessThanOrEqual(-25);
    expect(Math.max(...days)).toBeGreaterThanOrEqual(45);
  });

  it.each([...STORY, ...ASKED].map((piece) => [piece.title, piece] as const))('tells “%s” with what its client has', (_, piece) => {
    const client = CLIENTS[piece.client];
    expect(ROUTES[piece.route]).toBeDefined();
    expect(client.pillars[piece.pillar]).toBeDefined();
    for (const channel of piece.channels) expect(client.channels[channel]).toBeDefined();
    if (piece.ending === 'out') expect(piece.inDays).toBeLessThan(0);
    if (['scheduled', 'pencilled', 'out', 'missed'].includes(piece.ending)) expect(piece.inDays).not.toBeNull();
    expect(piece.askedDaysAgo).toBeGreaterThan(-(piece.inDays ?? 0));
  });

  it('has shares of pillars that make a whole, and codes and titles that are not used twice', () => {
    for (const client of Object.values(CLIENTS)) expect(client.pillars.reduce((sum, [, share]) => sum + share, 0)).toBe(100);
    const titles = [...STORY, ...ASKED].map((piece) => piece.title);
    expect(new Set(titles).size).toBe(titles.length);
  });
});

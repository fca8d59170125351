import { listPlace } from './list-place.js';

describe('the place in a list', () => {
  it('is the beginning where the address names none', () => {
    expect(listPlace(undefined)).toBe(0);
    expect(listPlace('60')).toBe(60);
  });

  it.each(['', 'x', '-1', '1.5', '1e3', '9'.repeat(10), '30; drop table ideas'])('refuses “%s”', (after) => {
    expect(() => listPlace(after)).toThrow(expect.objectContaining({ code: 'http.invalid' }));
  });
});

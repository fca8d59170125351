import { randomBytes } from 'node:crypto';
import { seal, unseal } from './sealing.js';

describe('sealed text', () => {
  const key = randomBytes(32);

  it('is read again with the same key, and differs each time', () => {
    const sealed = seal(key, 'a token, with ümlaut');
    expect(unseal(key, sealed)).toBe('a token, with ümlaut');
    expect(sealed).not.toContain('token');
    expect(seal(key, 'a token, with ümlaut')).not.toBe(sealed);
    expect(unseal(key, seal(key, ''))).toBe('');
  });

  it('is nothing with another key, or once a sign of it was changed', () => {
    const sealed = seal(key, 'token');
    expect(unseal(randomBytes(32), sealed)).toBeUndefined();
    for (const at of [0, 20, 40]) {
      const bytes = Buffer.from(sealed, 'base64');
      const index = Math.min(at, bytes.length - 1);
      bytes[index] = (bytes[index] ?? 0) ^ 1;
      expect(unseal(key, bytes.toString('base64'))).toBeUndefined();
    }
    expect(unseal(key, 'x')).toBeUndefined();
  });
});

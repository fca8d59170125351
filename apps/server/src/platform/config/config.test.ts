import { mkdtempSync, readFileSync, statSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { isAbsolute, join } from 'node:path';
import { readConfig } from './config.js';

describe('what the server takes from its surroundings', () => {
  const files = mkdtempSync(join(tmpdir(), 'zesting-config-'));
  const read = (env: Record<string, string> = {}) => readConfig({ ZESTING_FILES: files, ...env });

  it('takes folders as they are named from where it is started', () => {
    const { webFolder } = read({ ZESTING_WEB: 'apps/web/dist' });
    expect(webFolder && isAbsolute(webFolder)).toBe(true);
    expect(webFolder).toBe(join(process.cwd(), 'apps/web/dist'));
    expect(read().webFolder).toBeNull();
    expect(read({ ZESTING_WEB: '' }).webFolder).toBeNull();
  });

  it('makes its key once, for nobody else to read, and takes a given secret in its place', () => {
    const [first, second] = [read().serverKey, read().serverKey];
    expect(first).toHaveLength(32);
    expect(second).toEqual(first);
    const path = join(files, 'server.key');
    expect([readFileSync(path, 'utf8').trim(), statSync(path).mode & 0o077]).toEqual([first.toString('hex'), 0]);
    expect(read({ ZESTING_KEY: 'secret' }).serverKey).not.toEqual(first);
  });

  it('says in a line what cannot be taken', () => {
    for (const [name, value, words] of [
      ['ZESTING_ADDRESS', 'zesting.example', 'ZESTING_ADDRESS is no address'],
      ['ZESTING_ADDRESS', 'https://zesting.example/app', 'ZESTING_ADDRESS is no address'],
      ['ZESTING_NOW', 'tomorrow', 'ZESTING_NOW is no instant'],
      ['ZESTING_SMTP_TLS', 'yes', 'ZESTING_SMTP_TLS is none, starttls or tls'],
    ] as const)
      expect(() => read({ [name]: value })).toThrow(words);
    expect(read({ ZESTING_ADDRESS: 'https://zesting.example/' }).publicAddress).toBe('https://zesting.example');
  });
});

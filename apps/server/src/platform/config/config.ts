import { createHash, randomBytes } from 'node:crypto';
import { existsSync, mkdirSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { Temporal } from 'temporal-polyfill';
import type { InstantText } from '@zesting/core';

/** Everything the server takes from its surroundings, read once at start. */
export interface Config {
  readonly databaseUrl: string;
  readonly port: number;
  /** where uploaded files and the server key lie */
  readonly dataFolder: string;
  readonly publicAddress: string;
  readonly smtpPort: number;
  readonly webFolder: string | null;
  readonly serverKey: Buffer;
  /** the clock may be set over HTTP, sign-in is not throttled: tests only */
  readonly testing: boolean;
  readonly logLevel: string;
  /** the instant that counts as the present at start; null: the machine's */
  readonly now: InstantText | null;
}

/** Reads the configuration from environment variables; makes the server key on first use. */
export function readConfig(env: NodeJS.ProcessEnv): Config {
  const dataFolder = env['ZESTING_FILES'] ?? '.data/files';
  mkdirSync(dataFolder, { recursive: true });
  const port = Number(env['ZESTING_PORT'] ?? 4310);
  return {
    databaseUrl: env['ZESTING_DATABASE_URL'] ?? 'postgres://postgres@127.0.0.1:4312/zesting',
    port,
    dataFolder,
    publicAddress: env['ZESTING_ADDRESS'] ?? `http://127.0.0.1:${port}`,
    smtpPort: Number(env['ZESTING_SMTP_PORT'] ?? 4313),
    webFolder: env['ZESTING_WEB'] ?? null,
    serverKey: serverKey(dataFolder, env['ZESTING_KEY']),
    testing: env['ZESTING_TESTING'] === '1',
    logLevel: env['ZESTING_LOG'] ?? 'warn',
    now: presentOf(env['ZESTING_NOW']),
  };
}

function presentOf(text: string | undefined): InstantText | null {
  if (!text) return null;
  try {
    return Temporal.Instant.from(text).toString();
  } catch {
    throw new Error(`ZESTING_NOW is no instant such as 2027-03-16T09:00:00Z: ${text}`);
  }
}

function serverKey(folder: string, given: string | undefined): Buffer {
  if (given) return createHash('sha256').update(given).digest();
  const path = join(folder, 'server.key');
  if (!existsSync(path)) {
    try {
      writeFileSync(path, randomBytes(32).toString('hex'), { mode: 0o600, flag: 'wx' });
    } catch (error) {
      if ((error as NodeJS.ErrnoException).code !== 'EEXIST') throw error; // another start was quicker: its key holds
    }
  }
  return Buffer.from(readFileSync(path, 'utf8').trim(), 'hex');
}

/** Injection token of the configuration. */
export const CONFIG = Symbol('config');

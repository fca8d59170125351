import { createHash, randomBytes } from 'node:crypto';
import { existsSync, mkdirSync, readFileSync, writeFileSync } from 'node:fs';
import { join, resolve } from 'node:path';
import { Temporal } from 'temporal-polyfill';
import type { InstantText } from '@zesting/core';

/** Everything the server takes from its surroundings, read once at start. */
export interface Config {
  readonly databaseUrl: string;
  readonly port: number;
  /** where uploaded files and the server key lie */
  readonly dataFolder: string;
  /** where people reach Zesting: links begin with it, and writes from pages of any other origin are refused */
  readonly publicAddress: string;
  /** the address that is listened on */
  readonly bindAddress: string;
  /** proxies whose word about the caller's address and protocol counts: as `trust proxy` of Express; empty: none */
  readonly trustedProxies: string;
  readonly smtp: SmtpConfig;
  /** where mail comes in; null: none does */
  readonly inbox: InboxConfig | null;
  /** where the simulated channels are that ship with Zesting; null: there are none */
  readonly simulatedChannels: string | null;
  /** the service that asks for pages on the web, to see whether they are there; null: nobody asks */
  readonly pageAsker: string | null;
  /** a writing aid outside of Zesting that may be asked for drafts (docs/writing-aid.md); null: none is */
  readonly writingAid: string | null;
  /** how long a channel has for an answer */
  readonly channelSeconds: number;
  readonly webFolder: string | null;
  readonly serverKey: Buffer;
  /** the clock may be set over HTTP, sign-in is not throttled: tests only */
  readonly testing: boolean;
  /** the passing of time starts jobs; false only where a test starts them itself and nothing may come in between */
  readonly hasClockJobs: boolean;
  readonly logLevel: string;
  /** the instant that counts as the present at start; null: the machine's */
  readonly now: InstantText | null;
}

/** The mail server that takes our mail. */
export interface SmtpConfig {
  readonly host: string;
  readonly port: number;
  /** `none`: in the clear, for loopback; `starttls`: must be upgraded; `tls`: from the first byte */
  readonly tls: 'none' | 'starttls' | 'tls';
  readonly user: string | null;
  readonly password: string | null;
  /** as mails say it: `Name <address>` */
  readonly from: string;
}

/** Where a mail server hands over mail to us, by SMTP in the clear. */
export interface InboxConfig {
  readonly port: number;
  readonly bindAddress: string;
  /** what stands behind the @ of our addresses */
  readonly domain: string;
}

function inboxOf(env: NodeJS.ProcessEnv): InboxConfig | null {
  const { ZESTING_INBOX_PORT: port, ZESTING_INBOX_DOMAIN: domain = 'ask.zesting.test' } = env;
  if (!port) return null;
  if (!/^\d{1,5}$/.test(port) || Number(port) > 65_535) throw new Error(`ZESTING_INBOX_PORT is no port: ${port}`);
  if (!/^[a-z0-9-]+(\.[a-z0-9-]+)+$/.test(domain))
    throw new Error(`ZESTING_INBOX_DOMAIN is no domain such as ask.agency.example: ${domain}`);
  return { port: Number(port), bindAddress: env['ZESTING_INBOX_BIND'] ?? '127.0.0.1', domain };
}

function smtpOf(env: NodeJS.ProcessEnv): SmtpConfig {
  const tls = env['ZESTING_SMTP_TLS'] ?? 'none';
  if (tls !== 'none' && tls !== 'starttls' && tls !== 'tls') throw new Error(`ZESTING_SMTP_TLS is none, starttls or tls, not ${tls}`);
  return {
    host: env['ZESTING_SMTP_HOST'] ?? '127.0.0.1',
    port: Number(env['ZESTING_SMTP_PORT'] ?? 4313),
    tls,
    user: env['ZESTING_SMTP_USER'] ?? null,
    password: env['ZESTING_SMTP_PASSWORD'] ?? null,
    from: env['ZESTING_MAIL_FROM'] ?? 'Zesting <desk@zesting.test>',
  };
}

/** Where channels are simulated, pages are too, at the same place. */
function pageAskerOf(env: NodeJS.ProcessEnv): string | null {
  const { ZESTING_PAGE_ASKER: said, ZESTING_CHANNELS: simulated } = env;
  return said ? addressOf('ZESTING_PAGE_ASKER', said) : simulated ? addressOf('ZESTING_CHANNELS', simulated) : null;
}

/** An address without a slash at its end. */
function addressOf(name: string, text: string): string {
  const address = URL.canParse(text) ? new URL(text) : undefined;
  if (!address || !['http:', 'https:'].includes(address.protocol) || address.pathname !== '/')
    throw new Error(`${name} is no address such as https://zesting.example: ${text}`);
  return address.origin;
}

function secondsOf(text: string): number {
  if (!/^[1-9]\d{0,2}$/.test(text)) throw new Error(`ZESTING_CHANNEL_SECONDS is no number of seconds from 1 to 999: ${text}`);
  return Number(text);
}

/** Reads the configuration from environment variables; makes the server key on first use. */
export function readConfig(env: NodeJS.ProcessEnv): Config {
  const dataFolder = resolve(env['ZESTING_FILES'] ?? '.data/files');
  mkdirSync(dataFolder, { recursive: true });
  const port = Number(env['ZESTING_PORT'] ?? 4310);
  return {
    databaseUrl: env['ZESTING_DATABASE_URL'] ?? 'postgres://postgres@127.0.0.1:4312/zesting',
    port,
    dataFolder,
    publicAddress: addressOf('ZESTING_ADDRESS', env['ZESTING_ADDRESS'] ?? `http://127.0.0.1:${port}`),
    bindAddress: env['ZESTING_BIND'] ?? '127.0.0.1',
    trustedProxies: env['ZESTING_TRUSTED_PROXIES'] ?? '',
    smtp: smtpOf(env),
    inbox: inboxOf(env),
    pageAsker: pageAskerOf(env),
    writingAid: env['ZESTING_WRITING_AID'] ? addressOf('ZESTING_WRITING_AID', env['ZESTING_WRITING_AID']) : null,
    simulatedChannels: env['ZESTING_CHANNELS'] ? addressOf('ZESTING_CHANNELS', env['ZESTING_CHANNELS']) : null,
    channelSeconds: secondsOf(env['ZESTING_CHANNEL_SECONDS'] ?? '20'),
    webFolder: env['ZESTING_WEB'] ? resolve(env['ZESTING_WEB']) : null,
    serverKey: serverKey(dataFolder, env['ZESTING_KEY']),
    testing: env['ZESTING_TESTING'] === '1',
    hasClockJobs: true,
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

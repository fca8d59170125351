import { spawn, type ChildProcess } from 'node:child_process';
import { mkdtempSync } from 'node:fs';
import { createServer } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { test as base, expect, type Browser, type BrowserContext, type Page } from '@playwright/test';
import axe from 'axe-core';
import pg from 'pg';

const root = join(__dirname, '..');
export const PASSWORD = 'zest-and-pith';

const freePort = (): Promise<number> =>
  new Promise((resolve) => {
    const probe = createServer();
    probe.listen(0, '127.0.0.1', () => {
      const address = probe.address();
      probe.close(() => resolve(typeof address === 'object' && address ? address.port : 0));
    });
  });

/** Runs a compiled program until it says that it is ready (or, for the demo loader, done). */
function run(script: string, env: Record<string, string>): Promise<ChildProcess> {
  return new Promise((resolve, reject) => {
    const child = spawn(process.execPath, [join(root, script)], {
      cwd: root,
      env: { ...process.env, ...env },
      stdio: ['ignore', 'inherit', 'inherit', 'ipc'],
    });
    child.once('message', () => resolve(child));
    child.once('exit', (code) => reject(new Error(`${script} ended with ${code}`)));
  });
}

const ended = (child: ChildProcess): Promise<void> =>
  new Promise((resolve) => {
    if (child.exitCode !== null || child.signalCode !== null) resolve();
    else child.once('exit', () => resolve());
  });

export interface Zesting {
  readonly address: string;
  readonly mails: (to: string) => Promise<{ subject: string; text: string }[]>;
  /** sets the server's clock, and starts what the clock starts; empty: the machine's time */
  readonly setClock: (now: string) => Promise<void>;
  readonly query: <Row>(sql: string, values?: unknown[]) => Promise<Row[]>;
}

/** One Zesting with its demo per worker, on a database of its own. */
export const test = base.extend<object, { zesting: Zesting; story: string }>({
  /** another word begins the story anew, for tests that need what others have decided already */
  story: ['shared', { option: true, scope: 'worker' }],
  zesting: [
    // eslint-disable-next-line no-empty-pattern -- Playwright reads the pattern to know what the fixture needs
    async ({}, use) => {
      const clusterPort = process.env['ZESTING_TEST_PG'];
      const name = `browser_${process.pid}`;
      const admin = new pg.Client(`postgres://postgres@127.0.0.1:${clusterPort}/postgres`);
      await admin.connect();
      await admin.query(`create database ${name}`);
      const [port, smtpPort, mailPort] = [await freePort(), await freePort(), await freePort()];
      const address = `http://127.0.0.1:${port}`;
      const env = {
        ZESTING_DATABASE_URL: `postgres://postgres@127.0.0.1:${clusterPort}/${name}`,
        ZESTING_PORT: String(port),
        ZESTING_ADDRESS: address,
        ZESTING_FILES: mkdtempSync(join(tmpdir(), 'zesting-browser-')),
        ZESTING_WEB: join(root, 'apps/web/dist'),
        ZESTING_SMTP_PORT: String(smtpPort),
        ZESTING_MAIL_PORT: String(mailPort),
        ZESTING_TESTING: '1',
      };
      const catcher = await run('apps/standins/dist/main.js', env);
      await ended(await run('demo/dist/main.js', env));
      const server = await run('apps/server/dist/main.js', env);
      const mails = async (to: string) =>
        (await (await fetch(`http://127.0.0.1:${mailPort}/mails.json?to=${encodeURIComponent(to)}`)).json()) as {
          subject: string;
          text: string;
        }[]; // what the catcher serves
      const data = new pg.Client(env.ZESTING_DATABASE_URL);
      await data.connect();
      const query = async <Row>(sql: string, values: unknown[] = []) => (await data.query(sql, values)).rows as Row[]; // as asked
      // the mails of the story go out first
      await expect
        .poll(
          async () =>
            (
              await query<{ left: number }>(
                "select count(*)::int as left from graphile_worker.jobs where task_identifier = 'mail_send' and attempts < 3",
              )
            )[0]?.left,
          {
            timeout: 100_000,
            intervals: [500],
          },
        )
        .toBe(0);
      const setClock = async (now: string) => {
        const answer = await fetch(`${address}/api/clock`, {
          method: 'PUT',
          headers: { 'Content-Type': 'application/json' },
          body: JSON.stringify({ now }),
        });
        expect(answer.status).toBe(204);
      };
      await use({ address, mails, setClock, query });
      await data.end();
      for (const child of [server, catcher]) child.kill('SIGTERM');
      await Promise.all([ended(server), ended(catcher)]);
      await admin.query(`drop database ${name} with (force)`);
      await admin.end();
    },
    { scope: 'worker', timeout: 180_000 },
  ],
});

export { expect };

/** A window of one person of the demo, signed in. */
export async function signIn(
  browser: Browser,
  zesting: Zesting,
  email: string,
  options: Parameters<Browser['newContext']>[0] = {},
): Promise<Page> {
  const page = await visitor(browser, zesting, '/', options);
  await page.getByLabel('E-mail').fill(email);
  await page.getByLabel('Password').fill(PASSWORD);
  await page.getByRole('button', { name: 'Sign in' }).click();
  await expect(page.getByRole('link', { name: 'Desk' })).toBeVisible();
  return page;
}

/** A window of somebody without an account. Anything on the console that is an error fails the test. */
export async function visitor(
  browser: Browser,
  zesting: Zesting,
  address: string,
  options: Parameters<Browser['newContext']>[0] = {},
): Promise<Page> {
  const context: BrowserContext = await browser.newContext({
    baseURL: zesting.address,
    viewport: { width: 1280, height: 800 },
    locale: 'en-GB',
    ...options,
  });
  const page = await context.newPage();
  page.on('pageerror', (error) => {
    throw error;
  });
  await page.goto(address);
  return page;
}

/** The newest mail to an address whose subject holds the words; waits for it, since mail goes out after the commit. */
export async function mailTo(zesting: Zesting, to: string, words: string): Promise<{ subject: string; text: string }> {
  let found: { subject: string; text: string } | undefined;
  await expect
    .poll(async () => {
      found = (await zesting.mails(to)).find((mail) => mail.subject.includes(words));
      return found?.subject;
    })
    .toContain(words);
  if (!found) throw new Error('no mail');
  return found;
}

/** The path of the first link in a mail that begins so. */
export function linkIn(text: string, start: string): string {
  const path = text
    .split(/\s+/)
    .map((word) => (word.startsWith('http') ? new URL(word).pathname : ''))
    .find((candidate) => candidate.startsWith(start));
  if (!path) throw new Error(`no link to ${start} in: ${text}`);
  return path;
}

/** axe finds nothing on the page as it stands. */
export async function expectAccessible(page: Page): Promise<void> {
  await page.evaluate(axe.source);
  const found = await page.evaluate(async () => {
    const results = await (window as unknown as { axe: typeof axe }).axe.run(document, {
      runOnly: ['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa', 'best-practice'],
    });
    return results.violations.map((violation) => `${violation.id}: ${violation.nodes.map((node) => node.target.join(' ')).join(' | ')}`);
  });
  expect(found).toEqual([]);
}

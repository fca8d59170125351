import { chmodSync, cpSync, mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { test as base, expect, type Browser, type BrowserContext, type Page, type Request } from '@playwright/test';
import axe from 'axe-core';
import pg from 'pg';
import { addDays, getDay, type Day } from '@zesting/core';
import { admin, connect, environment, freePort, PRESENT, run, runProxy, startCommand, stop } from './processes';

export const PASSWORD = 'zest-and-pith';

/** The day so many days from the tests' present, by UTC: their people are in London. */
export const dayAhead = (days: number): Day => addDays(getDay(PRESENT.slice(0, 10)), days);

export interface Zesting {
  readonly address: string;
  /** of the page that shows the mail that goes out, and writes what comes in */
  readonly mailAddress: string;
  /** of the page that shows what went out by itself, and says how the simulated channels behave */
  readonly channelsAddress: string;
  readonly mails: (to: string) => Promise<{ subject: string; text: string }[]>;
  /** sets the server's clock, and starts what the clock starts; empty: back to the tests' present */
  readonly setClock: (now: string) => Promise<void>;
  readonly query: <Row>(sql: string, values?: unknown[]) => Promise<Row[]>;
}

/** What the catcher at an address has for somebody. */
const mailsAt =
  (catcher: string): Zesting['mails'] =>
  async (to) =>
    (await (await fetch(`${catcher}/mails.json?to=${encodeURIComponent(to)}`)).json()) as { subject: string; text: string }[]; // what it serves

/** One Zesting per worker, with a copy of the demo of its own. */
export const test = base.extend<object, { zesting: Zesting; story: string; behindProxy: boolean }>({
  /** each word begins the story anew: a file of tests names its own, so that none needs or disturbs what another does */
  story: ['', { option: true, scope: 'worker' }],
  /** TLS ends at a proxy in front, as on the internet */
  behindProxy: [false, { option: true, scope: 'worker' }],
  zesting: [
    async ({ behindProxy }, use) => {
      const name = `browser_${process.pid}`;
      const folder = mkdtempSync(join(tmpdir(), 'zesting-browser-'));
      cpSync(process.env['ZESTING_STORY_FOLDER'] ?? '', folder, { recursive: true });
      await admin(`create database ${name} template ${process.env['ZESTING_STORY_DATABASE']}`);
      const env = await environment(name, folder);
      const proxyPort = String(await freePort());
      if (behindProxy) Object.assign(env, { ZESTING_ADDRESS: `https://localhost:${proxyPort}`, ZESTING_TRUSTED_PROXIES: 'loopback' });
      const address = env['ZESTING_ADDRESS'] ?? '';
      const proxy = behindProxy ? [await runProxy(folder, proxyPort, env['ZESTING_PORT'] ?? '')] : [];
      const [catcher, server] = [await run('apps/standins/dist/main.js', env), await run('apps/server/dist/main.js', env)];
      const mailAddress = `http://127.0.0.1:${env['ZESTING_MAIL_PORT']}`;
      const mails = mailsAt(mailAddress);
      const data = await connect(name);
      const query = async <Row>(sql: string, values: unknown[] = []) => (await data.query(sql, values)).rows as Row[]; // as asked
      const setClock = async (now: string) => {
        const answer = await fetch(`${address}/api/clock`, {
          method: 'PUT',
          headers: { 'Content-Type': 'application/json' },
          body: JSON.stringify({ now }),
        });
        expect(answer.status).toBe(204);
      };
      await use({ address, mailAddress, channelsAddress: env['ZESTING_CHANNELS'] ?? '', mails, setClock, query });
      await data.end();
      await stop(server, catcher, ...proxy);
      await admin(`drop database ${name} with (force)`);
      rmSync(folder, { recursive: true, force: true });
    },
    { scope: 'worker', timeout: 600_000 },
  ],
});

export { expect };

/**
 * Begins the demo's story anew for a file of tests, which is told in order: where one of them fails, the rest is left and the file is told
 * once more from the beginning (`retries`).
 */
export function tellStory(name: string, { behindProxy = false } = {}): void {
  test.describe.configure({ mode: 'serial' });
  test.use({ story: name, behindProxy });
}

/** Zesting as `npm start -- --own` leaves it: empty, with everything of its own. */
export async function startOwn(): Promise<{ zesting: Zesting; end: () => Promise<void> }> {
  const folder = mkdtempSync(join(tmpdir(), 'zesting-own-'));
  chmodSync(folder, 0o755); // the user that runs PostgreSQL must get in
  const { address, mailAddress, channelsAddress, databaseUrl, end } = await startCommand(folder, ['--own']);
  const data = new pg.Client(databaseUrl);
  await data.connect().catch(async (error: unknown) => {
    await end();
    throw error;
  });
  return {
    zesting: {
      address,
      mailAddress,
      channelsAddress,
      mails: mailsAt(mailAddress),
      setClock: () => Promise.reject(new Error('its clock is the machine’s')),
      query: async <Row>(sql: string, values: unknown[] = []) => (await data.query(sql, values)).rows as Row[], // as asked
    },
    end: async () => {
      await data.end();
      await end();
      rmSync(folder, { recursive: true, force: true });
    },
  };
}

/** A window of one person of the demo, signed in over the API: `signInByHand` goes through the page. */
export async function signIn(
  browser: Browser,
  zesting: Zesting,
  email: string,
  options: Parameters<Browser['newContext']>[0] = {},
): Promise<Page> {
  const page = await emptyWindow(browser, zesting, options);
  const answer = await page.request.post('/api/session', { data: { email, password: PASSWORD } });
  expect(answer.status()).toBe(200);
  await page.goto('/');
  await expect(page.getByRole('link', { name: 'Desk' })).toBeVisible();
  return page;
}

/** A window of one person who signed in as people do. */
export async function signInByHand(browser: Browser, zesting: Zesting, email: string): Promise<Page> {
  const page = await visitor(browser, zesting, '/');
  await page.getByLabel('E-mail').fill(email);
  await page.getByLabel('Password').fill(PASSWORD);
  await page.getByRole('button', { name: 'Sign in' }).click();
  await expect(page.getByRole('link', { name: 'Desk' })).toBeVisible();
  return page;
}

/** A window of somebody without an account. */
export async function visitor(
  browser: Browser,
  zesting: Zesting,
  address: string,
  options: Parameters<Browser['newContext']>[0] = {},
): Promise<Page> {
  const page = await emptyWindow(browser, zesting, options);
  await page.goto(address);
  return page;
}

/** A window with nothing in it yet. What goes wrong in its pages fails the test. */
async function emptyWindow(browser: Browser, zesting: Zesting, options: Parameters<Browser['newContext']>[0]): Promise<Page> {
  const context: BrowserContext = await browser.newContext({
    baseURL: zesting.address,
    viewport: { width: 1280, height: 800 },
    locale: 'en-GB',
    reducedMotion: 'reduce', // nothing is waited for that only moves
    ignoreHTTPSErrors: true, // the proxy's certificate is its own
    ...options,
  });
  const page = await context.newPage();
  // ZESTING_SLOW=6: pages at a sixth of the speed, to find what only a quick machine forgives
  const slow = Number(process.env['ZESTING_SLOW'] ?? 1);
  if (slow > 1) await (await context.newCDPSession(page)).send('Emulation.setCPUThrottlingRate', { rate: slow });
  page.on('pageerror', (error) => {
    throw error;
  });
  waitBeforeLeaving(page);
  return page;
}

/** The longest that a window is waited for before it is sent elsewhere, in milliseconds. */
const LEAVE_MS = 5000;

/**
 * A window is sent elsewhere, or loaded anew, only once what it asked to be written is written, and what follows from that is shown: a person
 * takes longer than that to do so, and a dialog that closes by a step back would take the window along.
 */
function waitBeforeLeaving(page: Page): void {
  const writing = new Set<Request>();
  page.on('request', (request) => request.method() !== 'GET' && writing.add(request));
  page.on('requestfinished', (request) => writing.delete(request));
  page.on('requestfailed', (request) => writing.delete(request));
  const settle = async () => {
    const until = performance.now() + LEAVE_MS;
    while (writing.size > 0 && performance.now() < until) await page.waitForTimeout(20);
    await page.waitForTimeout(60);
    await page.evaluate(() => undefined).catch(() => undefined); // its turn comes once it has done what it was at
  };
  const { goto, reload } = { goto: page.goto.bind(page), reload: page.reload.bind(page) };
  page.goto = async (...args) => {
    if (page.url() !== 'about:blank') await settle();
    return goto(...args);
  };
  page.reload = async (...args) => {
    await settle();
    return reload(...args);
  };
}

/** Mail goes by a job and by SMTP: on a machine that has much to do it takes its time. */
const MAIL = { timeout: 180_000 };

/** The newest mail to an address whose subject holds the words; waits for it, since mail goes out after the commit. */
export async function mailTo(zesting: Zesting, to: string, words: string): Promise<{ subject: string; text: string }> {
  let found: { subject: string; text: string } | undefined;
  await expect
    .poll(async () => {
      found = (await zesting.mails(to)).find((mail) => mail.subject.includes(words));
      return found?.subject;
    }, MAIL)
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

/** A piece's newest packet has the client's word on it, and it is kept. */
export async function expectDecided(zesting: Zesting, title: string): Promise<void> {
  const newest = `select i.outcome from packet_items i join packets k on k.id = i.packet_id join pieces p on p.id = i.piece_id
     where p.title = $1 order by k.sent_at desc limit 1`;
  await expect.poll(async () => (await zesting.query<{ outcome: string | null }>(newest, [title]))[0]?.outcome).toBe('approved');
}

const ALL_RULES = ['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa', 'best-practice'];
/** The rules that go by colours: what is left to look at when only light turned to dark. */
export const COLOUR_RULES = ['color-contrast', 'link-in-text-block'];

/** axe finds nothing on the page as it stands; where a dialog is open, in the dialog: what lies behind it is looked at without it. */
export async function expectAccessible(page: Page, rules: string[] = ALL_RULES): Promise<void> {
  if (!(await page.evaluate(() => 'axe' in window))) await page.evaluate(axe.source);
  // what is on its way in or out is half transparent: looked at when it has come
  await page.waitForFunction(() =>
    document.getAnimations().every(({ playState, effect }) => playState !== 'running' || effect?.getComputedTiming().endTime === Infinity),
  );
  const found = await page.evaluate(async (runOnly) => {
    const shown = document.querySelector<HTMLElement>('[role="dialog"]') ?? document;
    // what passes is not gathered, and no style sheet is fetched anew: neither tells anything of what is wrong
    const how = { runOnly, resultTypes: ['violations'], preload: { assets: ['media'] } } satisfies axe.RunOptions;
    const results = await (window as unknown as { axe: typeof axe }).axe.run(shown, how);
    return results.violations.map((violation) => `${violation.id}: ${violation.nodes.map((node) => node.target.join(' ')).join(' | ')}`);
  }, rules);
  expect(found).toEqual([]);
}

/** Nothing reaches beyond the screen's edge. */
export async function expectNoSidewaysScroll(page: Page): Promise<void> {
  const [scroll, width] = await page.evaluate(() => [document.documentElement.scrollWidth, document.documentElement.clientWidth]);
  expect(scroll, page.url()).toBeLessThanOrEqual(width ?? 0);
}

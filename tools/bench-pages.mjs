// npm run bench -- --pages: what a browser makes of the pages: bytes and time until the desk can be used on a slow processor, frames while a
// thousand rows scroll. Frames are told beside those of an empty page in the same browser.
/* global document, window, requestAnimationFrame -- in the browser */
import { join } from 'node:path';
import { build } from './build.mjs';
import { findBrowser, needModules, needPackages, root } from './prepare.mjs';

const PIECES = 2_500;
const ROWS = 1_000;
const SLOWER = 4;
const RUNS = 5;

const middle = (values) => [...values].sort((a, b) => a - b)[Math.floor(values.length / 2)];

/** Opens the desk in a browser that has nothing kept, on a processor slowed four times. */
async function firstLoad(browser, address, state) {
  const context = await browser.newContext({ baseURL: address, storageState: state, viewport: { width: 1280, height: 800 } });
  const page = await context.newPage();
  const session = await context.newCDPSession(page);
  await session.send('Network.enable');
  await session.send('Emulation.setCPUThrottlingRate', { rate: SLOWER });
  let [bytes, requests] = [0, 0];
  session.on('Network.loadingFinished', ({ encodedDataLength }) => {
    bytes += encodedDataLength;
    requests += 1;
  });
  const start = performance.now();
  await page.goto('/', { waitUntil: 'commit' });
  await page.getByRole('heading', { name: 'What needs you' }).waitFor();
  await page.locator('main a[href^="/pieces/"]').first().waitFor();
  // usable: it answers the keyboard
  await page.keyboard.press('Tab');
  await page.evaluate(() => document.activeElement !== document.body);
  const milliseconds = performance.now() - start;
  const needed = { bytes, requests };
  await page.waitForLoadState('networkidle').catch(() => undefined);
  await context.close();
  return { milliseconds, needed, bytes };
}

/** Scrolls for two seconds, a little with each frame. @returns frames a second and the longest between two, in milliseconds */
const scroll = (page) =>
  page.evaluate(
    () =>
      new Promise((resolve) => {
        const times = [];
        const begin = performance.now();
        const step = (now) => {
          times.push(now);
          window.scrollBy(0, 60);
          if (now - begin < 2000) requestAnimationFrame(step);
          else {
            const gaps = times.slice(1).map((time, index) => time - times[index]);
            resolve({ perSecond: (gaps.length / (times.at(-1) - times[0])) * 1000, longest: Math.max(...gaps) });
          }
        };
        requestAnimationFrame(step);
      }),
  );

export async function benchPages() {
  needPackages({ browser: true });
  needModules();
  build();
  const [{ chromium }, { withZesting, PASSWORD }, { fill }] = await Promise.all([
    import('@playwright/test'),
    import('./throwaway.mjs'),
    import('./big-data.mjs'),
  ]);
  await withZesting(
    async (zesting) => {
      await zesting.start('apps/standins/dist/main.js');
      await zesting.start('apps/server/dist/main.js');
      const browser = await chromium.launch({ executablePath: findBrowser(), args: ['--no-sandbox', '--disable-gpu'] });
      try {
        const context = await browser.newContext({ baseURL: zesting.address, viewport: { width: 1280, height: 800 } });
        const page = await context.newPage();
        await page.request.post('/api/session', { data: { email: 'dana@quillhaven.test', password: PASSWORD } });
        const state = await context.storageState();
        const loads = [];
        for (let run = 0; run < RUNS; run++) loads.push(await firstLoad(browser, zesting.address, state));
        console.log(
          `Desk on a processor ${SLOWER} times slower: usable after ${Math.round(middle(loads.map(({ milliseconds }) => milliseconds)))} ms (median of ${RUNS}), ` +
            `with ${Math.round(loads[0].needed.bytes / 1000)} kB in ${loads[0].needed.requests} requests; ${Math.round(loads[0].bytes / 1000)} kB with what is got ready for the other pages`,
        );
        await fill(zesting.query, PIECES);
        await page.request.post('/api/session', { data: { email: 'marta@quillhaven.test', password: PASSWORD } });
        await page.setContent(`<div style="height:40000px">${'line<br>'.repeat(500)}</div>`);
        const empty = await scroll(page);
        await page.goto('/production?shown=all');
        await page.getByRole('heading', { name: 'Production' }).waitFor();
        const shown = async () => Number(/(\d+) so far/.exec(await page.locator('main').innerText())?.[1] ?? 0);
        for (let tries = 0; tries < 100 && (await shown()) < ROWS; tries++) {
          const more = page.getByRole('button', { name: 'Show more' });
          if (await more.isVisible()) await more.click();
          await page.waitForTimeout(150);
        }
        await page.evaluate(() => window.scrollTo(0, 3000));
        await page.waitForTimeout(500);
        const rows = await scroll(page);
        const drawn = await page.getByRole('row').count();
        console.log(
          `Production with ${await shown()} rows (${drawn} of them drawn): ${Math.round(rows.perSecond)} frames a second while it scrolls, longest ${Math.round(rows.longest)} ms; ` +
            `an empty page: ${Math.round(empty.perSecond)}, longest ${Math.round(empty.longest)} ms`,
        );
      } finally {
        await browser.close();
      }
    },
    { env: { ZESTING_WEB: join(root, 'apps/web/dist') }, settings: { fsync: 'off', synchronous_commit: 'off' } },
  );
}

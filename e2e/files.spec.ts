import { spawnSync } from 'node:child_process';
import { readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { clip } from './clip';
import { expect, expectAccessible, signIn, tellStory, test } from './zesting';

tellStory('files');

const root = join(__dirname, '..');

test('an upload of 40 MB is cut, goes on from where it was, is paused and gone on with, and arrives whole', async ({
  browser,
  zesting,
}, info) => {
  const teo = await signIn(browser, zesting, 'dana@quillhaven.test');
  await teo.goto('/production?client=KILN');
  await teo.getByRole('link', { name: 'Inside the deck oven' }).click();
  await expect(teo.getByRole('heading', { name: 'Content' })).toBeVisible();
  const file = info.outputPath('oven.mp4');
  writeFileSync(file, clip(40 * 1024 * 1024));

  // the connection is cut in the middle: parts fail until it is back
  let [parts, isCut] = [0, false];
  const offsets: number[] = [];
  await teo.route('**/uploads/*', async (route) => {
    if (route.request().method() !== 'PATCH') return route.continue();
    parts += 1;
    if (parts === 4) isCut = true;
    if (isCut) return route.abort('connectionfailed');
    offsets.push(Number(route.request().headers()['upload-offset']));
    return route.continue();
  });
  await teo.getByLabel('Add pictures or clips').setInputFiles(file);
  const list = teo.getByRole('list', { name: 'Files on their way' });
  await expect(list.getByText('oven.mp4')).toBeVisible();
  await expect(list.getByText('The connection was cut. What was sent is kept.')).toBeVisible();
  await expectAccessible(teo);
  await teo.getByLabel('Copy', { exact: true }).fill('Typed while it is on its way.');
  isCut = false;
  await list.getByRole('button', { name: 'Go on with oven.mp4' }).click();
  await expect.poll(() => offsets.length).toBeGreaterThan(4);
  await list.getByRole('button', { name: 'Pause oven.mp4' }).click();
  await expect(list.getByText('Paused')).toBeVisible();
  await list.getByRole('button', { name: 'Go on with oven.mp4' }).click();
  await expect(teo.getByLabel('Alternative text of oven.mp4')).toBeVisible();
  await expect(list).toBeHidden();
  await expect(teo.getByLabel('Copy', { exact: true })).toHaveValue('Typed while it is on its way.');
  // it went on: no part that had arrived was sent again from the beginning
  expect(offsets.filter((offset) => offset === 0)).toHaveLength(1);
  await teo.getByRole('button', { name: 'Save' }).click();
  await expect(teo.getByText('Not saved yet')).toBeHidden();
  const [stored] = await zesting.query<{ bytes: string; mime: string }>("select bytes, mime from assets where name = 'oven.mp4'");
  expect([Number(stored?.bytes), stored?.mime]).toEqual([40 * 1024 * 1024, 'video/mp4']);
});

test('the sign-off record holds for the shipped command, and is refused after one byte is changed', async ({ browser, zesting }, info) => {
  const dana = await signIn(browser, zesting, 'dana@quillhaven.test');
  await dana.goto('/production?client=KILN');
  await dana.getByRole('link', { name: 'Saturday buns, counted' }).click();
  const [download] = await Promise.all([dana.waitForEvent('download'), dana.getByRole('link', { name: 'Sign-off record (PDF)' }).click()]);
  const path = info.outputPath('record.pdf');
  await download.saveAs(path);
  const verify = () => spawnSync(process.execPath, [join(root, 'tools/verify-record.mjs'), path], { encoding: 'utf8' });
  const held = verify();
  expect([held.status, held.stdout]).toEqual([0, expect.stringContaining('It holds: Saturday buns, counted, Kiln Lane Bakehouse')]);
  const bytes = readFileSync(path);
  const at = Math.floor(bytes.length / 3);
  bytes[at] = (bytes[at] ?? 0) ^ 4;
  writeFileSync(path, bytes);
  const refused = verify();
  expect([refused.status, refused.stderr]).toEqual([1, expect.stringContaining('REFUSED')]);

  const [zip] = await Promise.all([dana.waitForEvent('download'), dana.getByRole('link', { name: 'Finals (ZIP)' }).click()]);
  expect(zip.suggestedFilename()).toMatch(/^\d{4}-\d\d-\d\d_KILN_saturday-buns-counted-finals\.zip$/);
});

test('a picture that is not approved carries the mark for the manager, and none for its maker', async ({ browser, zesting }) => {
  const [dana, piet] = [await signIn(browser, zesting, 'marta@quillhaven.test'), await signIn(browser, zesting, 'piet@quillhaven.test')];
  const [asset] = await zesting.query<{ id: string; piece_id: string }>(
    "select a.id, a.piece_id from assets a join pieces p on p.id = a.piece_id where p.title = 'Staff pick: the plait'",
  );
  const bytes = async (page: typeof dana) => {
    const answer = await page.request.get(`/api/files/${asset?.id}?width=480`);
    expect(answer.status()).toBe(200);
    return answer.body();
  };
  expect((await bytes(dana)).equals(await bytes(piet))).toBe(false);
  // within a page it is shown clean: nobody judges what is written across
  const shown = await dana.request.get(`/api/files/${asset?.id}?width=480`, { headers: { 'Sec-Fetch-Dest': 'image' } });
  expect((await shown.body()).equals(await bytes(piet))).toBe(true);
  await dana.goto(`/pieces/${asset?.piece_id}`);
  await expect(dana.getByRole('img', { name: 'Loaves cooling side by side' }).first()).toBeVisible();
});

test('a picture that does not come at once is asked for again by itself', async ({ browser, zesting }) => {
  const dana = await signIn(browser, zesting, 'dana@quillhaven.test');
  await dana.goto('/production?client=MOSS');
  const refused = new Set<string>();
  await dana.route('**/api/files/*?width=*', (route) => {
    const address = route.request().url();
    if (refused.has(address)) return route.continue();
    refused.add(address);
    return route.fulfill({ status: 503, body: '' });
  });
  await dana.getByRole('link', { name: 'Moss lawns, honestly' }).click();
  const picture = dana.getByRole('figure').getByRole('img').first();
  await expect.poll(() => picture.evaluate((img: HTMLImageElement) => img.naturalWidth)).toBeGreaterThan(0);
  expect(refused.size).toBeGreaterThan(0);
});

import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import sharp from 'sharp';
import { expect, expectAccessible, expectNoSidewaysScroll, linkIn, mailTo, signIn, tellStory, test, visitor } from './zesting';

tellStory('crops');

const PHONE = { viewport: { width: 390, height: 844 }, hasTouch: true };

test('what a channel does with pictures is told, checked, and kept', async ({ browser, zesting }) => {
  const marta = await signIn(browser, zesting, 'marta@quillhaven.test');
  const [kiln] = await zesting.query<{ id: string }>("select id from clients where code = 'KILN'");
  await marta.goto(`/clients/${kiln?.id}?part=channels`);
  await marta.getByRole('tab', { name: 'Channels' }).click();
  const feed = marta.getByRole('listitem').filter({ has: marta.locator('input[value="Microblog"]') });
  await feed.getByText('How it is seen there').click();
  await feed.getByLabel('Clips run at least, seconds').fill('30');
  await feed.getByLabel('Clips run at most, seconds').fill('10');
  await feed.getByRole('checkbox', { name: 'What has another shape is cut' }).check();
  await feed.getByRole('checkbox', { name: '1:1' }).check();
  await feed.getByLabel('top').fill('15');
  await feed.getByLabel('Text is folded after, characters').fill('20');
  await marta.getByRole('button', { name: 'Save', exact: true }).click();
  await expect(marta.getByRole('alert').first()).toBeVisible();
  await feed.getByLabel('Clips run at most, seconds').fill('60');
  await expectAccessible(marta);
  await marta.getByRole('button', { name: 'Save', exact: true }).click();
  await expect(marta.getByRole('button', { name: 'Save', exact: true })).toBeDisabled();
  await marta.reload();
  await marta.getByRole('tab', { name: 'Channels' }).click();
  await feed.getByText('How it is seen there').click();
  await expect(feed.getByLabel('Clips run at most, seconds')).toHaveValue('60');
  await expect(feed.getByRole('checkbox', { name: '1:1' })).toBeChecked();
});

test('a picture is cut for one channel, by keys and by hand, left out on another, and goes out like that', async ({ browser, zesting }) => {
  const dana = await signIn(browser, zesting, 'dana@quillhaven.test');
  const dialog = dana.getByRole('dialog');
  const [piece] = await zesting.query<{ id: string }>("select id from pieces where title = 'A day with the night baker'");
  const bytes = await sharp({ create: { width: 1600, height: 900, channels: 3, background: '#8a5a2b' } })
    .composite([{ input: { create: { width: 200, height: 900, channels: 3, background: '#f3e9d2' } }, left: 1400, top: 0 }])
    .png()
    .toBuffer();
  await dana.goto(`/pieces/${piece?.id}`);
  await dana.getByLabel('Add pictures or clips').setInputFiles({ name: 'street.png', mimeType: 'image/png', buffer: bytes });
  const here = dana.getByRole('list', { name: 'Pictures and clips here' });
  const street = here.getByRole('listitem').filter({ hasText: 'street.png' });
  await expect(street.getByText('The channel will cut it to 9:16')).toBeVisible();

  await test.step('one press cuts what has another shape; a look shows it', async () => {
    await dana.getByRole('button', { name: 'Cut 1 picture to 9:16' }).click();
    await expect(street.getByText('Cut to 9:16')).toBeVisible();
    await expect(dana.getByRole('button', { name: /^Cut \d+ pictures? to/ })).toHaveCount(0);
    await dana.getByRole('button', { name: 'Larger' }).click();
    await expect(dialog.getByRole('img', { name: 'What the channel’s own signs cover' }).first()).toBeVisible();
    await dialog.getByRole('button', { name: 'Wide' }).click();
    await expectAccessible(dana);
    await dana.keyboard.press('Escape');
    await expect(dialog).toHaveCount(0);
  });

  await test.step('the frame is moved by keys to the edge, and the same point serves the other channel', async () => {
    await street.getByRole('button', { name: 'Cut street.png' }).click();
    const frame = dialog.getByRole('group', { name: /^What is kept/ });
    // keys do nothing until the picture’s sides are known
    await expect.poll(() => dialog.locator('.cropper img').first().evaluate((image) => (image as HTMLImageElement).naturalWidth)).toBeGreaterThan(0); // prettier-ignore
    await frame.focus();
    for (let presses = 0; presses < 12; presses++) await dana.keyboard.press('Control+ArrowRight');
    await dialog.getByRole('checkbox', { name: 'Around the same point on Microblog (16:9)' }).check();
    await expectAccessible(dana);
    await dialog.getByRole('button', { name: 'Cut it like this' }).click();
    await expect(dialog).toHaveCount(0);
    await dana.getByRole('tab', { name: /^Microblog/ }).click();
    await expect(street.getByText('Cut to 16:9')).toBeVisible();
    await here.getByRole('checkbox', { name: /^a-day-with-the-night-baker/ }).uncheck();
    await expect(here.getByText('Does not go out here')).toBeVisible();
    await expect(dana.getByRole('button', { name: 'folded here' })).toBeVisible();
    await dana.getByRole('button', { name: 'Save', exact: true }).click();
    await expect(dana.getByRole('button', { name: 'Save', exact: true })).toBeDisabled();
    await dana.reload();
    await dana.getByRole('tab', { name: /^Microblog/ }).click();
    await expect(here.getByText('Does not go out here')).toBeVisible();
  });

  await test.step('what was saved keeps the right edge of the picture', async () => {
    const [kept] = await zesting.query<{ crop: { x: number; ratio: string } }>(
      `select c.value as crop from pieces p, jsonb_each(p.content -> 'channels') h, jsonb_each(h.value -> 'crops') c
       where p.id = '${piece?.id}' and (c.value ->> 'ratio') = '9:16' and (c.value ->> 'x')::int > 7000`,
    );
    expect(kept?.crop.x).toBeGreaterThan(8000); // half of 506 pixels from the right edge of 1600
  });

  await test.step('two windows: the other’s cut is not overwritten unseen', async () => {
    const other = await signIn(browser, zesting, 'dana@quillhaven.test');
    await other.route('**/api/live*', () => undefined);
    await other.goto(`/pieces/${piece?.id}`);
    await other.getByLabel('Copy', { exact: true }).fill('At two in the morning the street is ours, and the light.');
    await dana.getByRole('tab', { name: /^Short-clip feed/ }).click();
    await street.getByRole('button', { name: 'Cut street.png' }).click();
    await dialog.getByRole('button', { name: 'Let it go out whole' }).click();
    await dana.getByRole('button', { name: 'Save', exact: true }).click();
    await expect(dana.getByRole('button', { name: 'Save', exact: true })).toBeDisabled();
    await other.getByRole('button', { name: 'Save', exact: true }).click();
    const conflict = other.getByRole('dialog', { name: 'Somebody else saved this meanwhile' });
    await expect(conflict.getByText('street.png: 9:16 around', { exact: false })).toBeVisible();
    await conflict.getByRole('button', { name: 'Take theirs' }).click();
  });

  await test.step('versions tell the cut', async () => {
    await dana.getByRole('link', { name: 'Versions' }).click();
    await expect(dana.getByText('Short-clip feed: pictures shown').or(dana.getByText('Microblog: pictures shown')).first()).toBeVisible();
    await expectAccessible(dana);
  });
});

test('the client sees it as it is cut; by hand it is downloaded so', async ({ browser, zesting }) => {
  const dana = await signIn(browser, zesting, 'dana@quillhaven.test');
  const room = linkIn((await mailTo(zesting, 'greta@kilnlane.test', 'For your sign-off: Why our butter is cold')).text, '/room/');
  const greta = await visitor(browser, zesting, room, PHONE);
  const article = greta.getByRole('article', { name: 'Why our butter is cold' });
  await expect(article).toBeVisible();
  const box = await article.getByRole('img').first().locator('..').boundingBox();
  expect(Math.round(((box?.width ?? 0) / (box?.height ?? 1)) * 100)).toBe(100); // 1:1, out of a picture of 4:5
  await expectAccessible(greta);
  await expectNoSidewaysScroll(greta);

  const [placed] = await zesting.query<{ id: string }>(
    "select l.id from placements l join pieces p on p.id = l.piece_id where p.title = 'Saturday buns, counted' and not l.cancelled limit 1",
  );
  const file = await dana.request.get(`/api/placements/${placed?.id}/files/1`);
  expect(file.status()).toBe(200);
  expect(await sharp(await file.body()).metadata()).toMatchObject({ format: 'png', width: 720, height: 720 });
});

test('a picture is taken out of a clip, and stands for it', async ({ browser, zesting }) => {
  const dana = await signIn(browser, zesting, 'dana@quillhaven.test');
  const dialog = dana.getByRole('dialog');
  const [piece] = await zesting.query<{ id: string }>("select id from pieces where title = 'A day with the night baker'");
  const clip = readFileSync(join(__dirname, '../apps/server/src/platform/files/test-data/clip.webm'));
  await dana.goto(`/pieces/${piece?.id}`);
  await dana.getByLabel('Add pictures or clips').setInputFiles({ name: 'oven door.webm', mimeType: 'video/webm', buffer: clip });
  await dana.getByRole('button', { name: 'Take one out of the clip oven door.webm' }).click();
  await expect(dialog.getByText('0:00.00 of 0:02.00')).toBeVisible();
  await dialog.getByRole('slider', { name: 'Moment' }).fill('1');
  await expect(dialog.getByText('0:01.00 of 0:02.00')).toBeVisible();
  await dialog.getByRole('button', { name: 'One on' }).click();
  await expect(dialog.getByText('0:01.04 of 0:02.00')).toBeVisible();
  await expectAccessible(dana);
  await dialog.getByRole('button', { name: 'Take this picture' }).click();
  await expect(dialog).toHaveCount(0);
  const cover = dana.getByLabel('Cover of oven door.webm');
  await expect(cover.locator('option:checked')).toHaveText('oven door at 0.01.04.jpg');
  await dana.getByRole('button', { name: 'Save', exact: true }).click();
  await expect(dana.getByRole('button', { name: 'Save', exact: true })).toBeDisabled();
  await expect
    .poll(async () => {
      const [row] = await zesting.query<{ mime: string; width: number }>(
        `select a.mime, a.width from pieces p, jsonb_array_elements(p.content -> 'shared' -> 'media') m join assets a on a.hash = m ->> 'cover'
         where p.id = $1`,
        [piece?.id],
      );
      return row;
    })
    .toEqual({ mime: 'image/jpeg', width: 320 });
  // the same moment once more is the same picture
  await dana.getByRole('button', { name: 'Take one out of the clip oven door.webm' }).click();
  await dialog.getByRole('slider', { name: 'Moment' }).fill('1.04');
  await expect(dialog.getByText('0:01.04 of 0:02.00')).toBeVisible();
  await dialog.getByRole('button', { name: 'Take this picture' }).click();
  await expect(dialog).toHaveCount(0);
  await expect(cover.locator('option', { hasText: 'oven door at 0.01.04.jpg' })).toHaveCount(1);
});

import { readFileSync } from 'node:fs';
import { strFromU8, unzipSync } from 'fflate';
import sharp from 'sharp';
import { clip } from './clip';
import { dayAhead, expect, expectAccessible, expectNoSidewaysScroll, linkIn, mailTo, signIn, tellStory, test, visitor } from './zesting';

tellStory('one-source');

const PHONE = { viewport: { width: 390, height: 844 }, hasTouch: true } as const;
const SOURCE = 'Inside the deck oven';
const OUTPUTS = ['Teaser', 'First cut', 'Thread', 'Still of the day', 'Second cut', 'A question', 'Behind the door', 'Third cut'];

const typed = (day: string): string => day.split('-').reverse().join('/');

test('one long clip becomes eight, follows what is corrected, is signed off as it is cut, and goes out by itself, by hand and in a pack', async ({
  browser,
  zesting,
}) => {
  const dana = await signIn(browser, zesting, 'dana@quillhaven.test');
  const dialog = dana.getByRole('dialog');
  const save = dana.getByRole('button', { name: 'Save', exact: true });
  const saved = async () => {
    await save.click();
    await expect(save).toBeDisabled();
  };
  const [source] = await zesting.query<{ id: string; client_id: string; format_id: string }>(
    'select id, client_id, format_id from pieces where title = $1',
    [SOURCE],
  );
  const [route] = await zesting.query<{ id: string }>("select id from routes where name = 'Still with copy' and archived_at is null");
  const channels = await zesting.query<{ id: string }>('select id from channels where client_id = $1 order by position', [
    source?.client_id,
  ]);

  await test.step('a spread of eight is in use for clips', async () => {
    const lines = OUTPUTS.map((name, index) => ({
      key: `output-${index}`,
      name,
      channelId: channels[index % 3]?.id,
      routeId: route?.id,
      offset: { count: index - 2, unit: 'working_days' },
      change: `What ${name.toLowerCase()} needs.`,
      needsCopy: false,
      needsPicture: index === 0,
      shape: 'as_it_is',
      callToAction: '',
      guidelineId: null,
      doers: [],
      obstacle: '',
    }));
    const made = await dana.request.post(`/api/clients/${source?.client_id}/spreads`, {
      data: { name: 'From a long clip', formatId: source?.format_id, lines },
    });
    expect(made.status(), await made.text()).toBe(201);
    const { spreadId } = (await made.json()) as { spreadId: string };
    expect((await dana.request.post(`/api/spreads/${spreadId}/use`, { data: { isUsed: true } })).status()).toBe(204);
  });

  await test.step('the clip is brought, and eight are made of it after a look', async () => {
    await dana.goto(`/pieces/${source?.id}`);
    await dana.getByLabel('Add pictures or clips').setInputFiles({ name: 'oven.mp4', mimeType: 'video/mp4', buffer: clip(1_000_000) });
    await dana.getByLabel('Alternative text of oven.mp4').fill('Loaves rise behind the glass of the oven');
    await dana.getByLabel('Copy', { exact: true }).fill('Forty loaves rise at once, at 250 degrees.');
    await saved();
    // what is predicted anew moves the button while it is pressed
    await expect(async () => {
      await dana.getByRole('button', { name: 'Make spin-offs…' }).click({ timeout: 5_000 });
      await expect(dialog).toBeVisible({ timeout: 3_000 });
    }).toPass();
    for (const name of OUTPUTS) await expect(dialog.getByRole('group', { name: `${SOURCE} · ${name}` })).toBeVisible();
    for (const [name, days] of [
      ['Teaser', 2],
      ['First cut', 3],
    ] as const) {
      const output = dialog.getByRole('group', { name: `${SOURCE} · ${name}` });
      await output.getByLabel('Day').fill(typed(dayAhead(days)));
      await output.getByLabel('Day').press('Tab');
    }
    await expectAccessible(dana);
    await dialog.getByRole('button', { name: 'Make 8 pieces' }).click();
    await expect(dialog).toHaveCount(0);
    await expect(dana.getByRole('region', { name: 'Spin-offs' }).getByText('On 3 of 3 channels.')).toBeVisible();
  });

  const idOf = async (name: string) =>
    (await zesting.query<{ id: string }>('select id from pieces where title = $1', [`${SOURCE} · ${name}`]))[0]?.id ?? '';
  /** Hands in the next steps of an output that the team makes. */
  const make = async (pieceId: string, most = 99) => {
    const steps = await zesting.query<{ id: string }>(
      "select id from steps where piece_id = $1 and finished_on is null and kind in ('make', 'check') order by position limit $2",
      [pieceId, most],
    );
    for (const { id } of steps) {
      const answer = await dana.request.post(`/api/steps/${id}/hand-in`, { data: {} });
      expect(answer.ok(), await answer.text()).toBe(true);
    }
  };
  const [teaser, firstCut] = [await idOf('Teaser'), await idOf('First cut')];

  await test.step('the source is corrected: what nobody was shown follows, what was handed in says in what it is behind, and takes it over', async () => {
    await make(firstCut, 1);
    await dana.goto(`/pieces/${source?.id}`);
    await dana.getByLabel('Copy', { exact: true }).fill('Forty loaves rise at once, at 240 degrees.');
    await saved();
    await dana.goto(`/pieces/${await idOf('Still of the day')}`);
    await expect(dana.getByLabel('Copy', { exact: true })).toHaveValue(/240 degrees/);
    await dana.goto(`/pieces/${firstCut}`);
    const made = dana.getByRole('region', { name: 'Made from' });
    await expect(made.getByText('Its source was changed since.')).toBeVisible();
    await expect(dana.getByLabel('Copy', { exact: true })).toHaveValue(/250 degrees/);
    await made.getByRole('button', { name: 'Take over: Text' }).click();
    await expect(dana.getByLabel('Copy', { exact: true })).toHaveValue(/240 degrees/);
    await expect(made.getByText('Its source was changed since.')).toHaveCount(0);
  });

  await test.step('the teaser has a picture of its own, cut for its channel', async () => {
    const bytes = await sharp({ create: { width: 1600, height: 900, channels: 3, background: '#8a5a2b' } })
      .png()
      .toBuffer();
    await dana.goto(`/pieces/${teaser}`);
    await dana.getByLabel('Add pictures or clips').setInputFiles({ name: 'glass.png', mimeType: 'image/png', buffer: bytes });
    await dana.getByLabel('Alternative text of glass.png').fill('The glass of the oven');
    await dana.getByRole('button', { name: 'Cut 1 picture to 1:1' }).click();
    await dana.getByLabel('Tags', { exact: true }).fill('#kilnlane #oven');
    await saved();
    await expect(dana.getByText('Cut to 1:1')).toBeVisible();
  });

  const row = (name: string) => dana.getByRole('listitem').filter({ hasText: `${SOURCE} · ${name}` });
  await test.step('what goes out next says that it is not signed', async () => {
    await dana.goto('/calendar/going-out?client=KILN');
    await expect(row('Teaser').getByText('Not signed as it stands')).toBeVisible();
    await expect(row('First cut').getByText('Not signed as it stands')).toBeVisible();
  });

  await test.step('both are made and sent, and both contacts approve them', async () => {
    for (const [name, pieceId] of [
      ['Teaser', teaser],
      ['First cut', firstCut],
    ] as const) {
      const title = `${SOURCE} · ${name}`;
      await make(pieceId);
      await dana.goto(`/pieces/${pieceId}`);
      await dana.getByRole('link', { name: 'Send to the client' }).click();
      await expect(dana.getByRole('checkbox', { name: new RegExp(title) })).toBeChecked();
      await dana.getByRole('button', { name: 'Send 1 piece for sign-off' }).click();
      for (const email of ['greta@kilnlane.test', 'sam@kilnlane.test']) {
        const contact = await visitor(
          browser,
          zesting,
          linkIn((await mailTo(zesting, email, `For your sign-off: ${title}`)).text, '/room/'),
        );
        const article = contact.getByRole('article', { name: title });
        await article.getByRole('button', { name: 'Approve' }).click();
        await article.getByRole('button', { name: 'Yes, approve it' }).click();
        await expect(article.getByRole('button', { name: 'Approve' })).toBeHidden();
        await contact.close();
      }
    }
    await dana.goto('/calendar/going-out?client=KILN');
    await expect(row('Teaser').getByText('Not signed as it stands')).toHaveCount(0);
  });

  await test.step('preflight stops what was changed since, and lets it go once it is as it was signed', async () => {
    await dana.goto(`/pieces/${teaser}`);
    await dana.getByLabel('Tags', { exact: true }).fill('#kilnlane #oven #doors');
    await saved();
    await dana.goto('/calendar/going-out?client=KILN');
    await expect(row('Teaser').getByText('Not signed as it stands')).toBeVisible();
    await dana.goto(`/pieces/${teaser}`);
    await dana.getByLabel('Tags', { exact: true }).fill('#kilnlane #oven');
    await saved();
    await dana.goto('/calendar/going-out?client=KILN');
    await expect(row('Teaser').getByText('Not signed as it stands')).toHaveCount(0);
  });

  await test.step('its minute comes: the channel has it, with its tags and its picture', async () => {
    await zesting.query("insert into channel_links (channel_id, client_id, token, made_at) values ($1, $2, '', now())", [
      channels[0]?.id,
      source?.client_id,
    ]);
    const [placed] = await zesting.query<{ at: string }>(
      'select to_char(publish_at, \'YYYY-MM-DD"T"HH24:MI:SS"Z"\') as at from placements where piece_id = $1 and not cancelled',
      [teaser],
    );
    await zesting.setClock(placed?.at ?? '');
    await expect(row('Teaser').getByText('Out', { exact: true })).toBeVisible();
    const address = await row('Teaser').getByRole('link', { name: zesting.channelsAddress }).getAttribute('href');
    const there = await dana.context().newPage();
    await there.goto(address ?? '');
    await expect(there.getByText('#kilnlane #oven')).toBeVisible();
    await expect(there.getByAltText('The glass of the oven')).toBeVisible();
    await there.close();
  });

  await test.step('the other is posted by hand on a phone', async () => {
    const phone = await signIn(browser, zesting, 'dana@quillhaven.test', PHONE);
    const asked = phone.getByRole('dialog');
    await phone.goto('/calendar/going-out?client=KILN');
    await phone.getByRole('button', { name: `Post by hand: ${SOURCE} · First cut on Short-clip feed` }).tap();
    const [download] = await Promise.all([phone.waitForEvent('download'), asked.getByRole('link', { name: /^Download 01_/ }).tap()]);
    expect(download.suggestedFilename()).toMatch(/_KILN_inside-the-deck-oven-first-cut\.mp4$/);
    await expectAccessible(phone);
    await expectNoSidewaysScroll(phone);
    await asked.getByLabel('Where can it be seen?').fill('https://clips.kilnlane.test/first-cut');
    await asked.getByRole('button', { name: 'Mark as out' }).tap();
    await expect(asked).toHaveCount(0);
    await expect(row('First cut').getByText('Out', { exact: true })).toBeVisible();
  });

  await test.step('the pack of the month holds both as they went out', async () => {
    await dana.goto('/calendar/going-out?client=KILN');
    await dana.getByRole('button', { name: 'Pack' }).click();
    await dialog.getByRole('button', { name: 'This month' }).click();
    const [download] = await Promise.all([dana.waitForEvent('download'), dialog.getByRole('link', { name: 'Take the pack' }).click()]);
    const files = unzipSync(new Uint8Array(readFileSync(await download.path())));
    const names = Object.keys(files);
    const named = (pattern: RegExp): string => {
      const name = names.find((one) => pattern.test(one));
      if (name === undefined) throw new Error(`none of ${names.join(', ')} is like ${pattern}`);
      return name;
    };
    const picture = files[named(/inside-the-deck-oven-teaser[^/]*\.png$/)] ?? new Uint8Array();
    expect(await sharp(Buffer.from(picture)).metadata()).toMatchObject({ width: 900, height: 900 });
    named(/inside-the-deck-oven-first-cut[^/]*\.mp4$/);
    expect(strFromU8(files[named(/inside-the-deck-oven-first-cut[^/]*\.txt$/)] ?? new Uint8Array())).toContain(
      'Forty loaves rise at once, at 240 degrees.',
    );
    // the source itself never changed by what was done to its outputs
    const [kept] = await zesting.query<{ copy: string; media: number }>(
      "select content -> 'shared' ->> 'copy' as copy, jsonb_array_length(content -> 'shared' -> 'media') as media from pieces where id = $1",
      [source?.id],
    );
    expect(kept).toEqual({ copy: 'Forty loaves rise at once, at 240 degrees.', media: 1 });
  });
});

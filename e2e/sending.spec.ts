import { expect, expectAccessible, expectNoSidewaysScroll, signIn, tellStory, test } from './zesting';

tellStory('sending');

const PHONE = { viewport: { width: 390, height: 844 }, hasTouch: true } as const;

test('what the channel refused is sent again, and what it does not say is said by somebody who looked', async ({ browser, zesting }) => {
  const ivo = await signIn(browser, zesting, 'ivo@quillhaven.test');
  await ivo.goto('/calendar/going-out');
  const refused = ivo.getByRole('listitem').filter({ hasText: 'Undyed is a colour' });
  const unsure = ivo.getByRole('listitem').filter({ hasText: 'A blanket takes eleven days' });
  await expect(refused).toContainText('The channel refused it: This is not taken here: the channel says no.');
  await expect(unsure).toContainText('It may be out or not: look there, and say which.');
  await expect(ivo.getByText(/Newsletter of Copperloom Weavers: on .* does not go out by itself/)).toBeVisible();
  await expectAccessible(ivo);

  await refused.getByRole('button', { name: /^Send again/ }).click();
  const dialog = ivo.getByRole('dialog');
  await expect(dialog.getByRole('region', { name: 'Text' })).toHaveText('Four sheep, four greys, no vat.');
  await expectAccessible(ivo);
  await dialog.getByRole('button', { name: 'Send it now' }).click();
  await expect(dialog).toHaveCount(0);
  await expect(refused).toContainText('Out');
  await expect(refused.getByRole('link', { name: `${zesting.channelsAddress}/p/`, exact: false })).toBeVisible();

  const phone = await signIn(browser, zesting, 'ivo@quillhaven.test', PHONE);
  await phone.goto('/calendar/going-out');
  await expectNoSidewaysScroll(phone);
  await phone.getByRole('button', { name: /^Say which: A blanket/ }).tap();
  const asked = phone.getByRole('dialog');
  await expect(asked.getByRole('button', { name: 'Say it' })).toBeDisabled();
  await asked.getByLabel(/^It is out/).check();
  await asked.getByLabel('Where can it be seen?').fill('https://feed.loom.test/blanket');
  await expectAccessible(phone);
  await asked.getByRole('button', { name: 'It is out', exact: true }).tap();
  await expect(asked).toHaveCount(0);
  await expect(unsure.getByText('Out', { exact: true })).toBeVisible();
  await expect(ivo.getByRole('button', { name: /^Say which/ })).toHaveCount(0);
});

test('a channel is let go by itself, and what is signed is out on its minute as it was signed', async ({ browser, zesting }) => {
  const dana = await signIn(browser, zesting, 'dana@quillhaven.test');
  const dialog = dana.getByRole('dialog');
  const buns = dana.getByRole('listitem').filter({ hasText: 'Saturday buns, counted' });
  const goTo = (path: string) => dana.goto(path);

  await test.step('its channel is set up where channels are, and answers', async () => {
    await goTo('/clients?client=KILN');
    await dana
      .getByRole('link', { name: /Kiln Lane Bakehouse/ })
      .first()
      .click();
    await dana.getByRole('tab', { name: 'Channels' }).click();
    await dana.getByRole('button', { name: /^Send by itself… Photo feed/ }).click();
    await dialog.getByLabel(/A channel service at an address/).check();
    await dialog.getByRole('textbox', { name: 'Address' }).fill('http://elsewhere.test');
    await dialog.getByRole('button', { name: 'Send by itself' }).click();
    await expect(dialog.getByRole('alert')).toContainText('An address begins with https');
    await dialog.getByLabel(/simulated channel/).check();
    await expectAccessible(dana);
    await dialog.getByRole('button', { name: 'Send by itself' }).click();
    await expect(dialog).toHaveCount(0);
    await dana.getByRole('button', { name: /^Change… Photo feed/ }).click();
    await dialog.getByRole('button', { name: 'Try it' }).click();
    await expect(dialog.getByText('It answers: Simulated photo feed')).toBeVisible();
    await dialog.getByRole('button', { name: 'Leave as it was' }).click();
  });

  await test.step('its minute comes, and it is out, with its picture', async () => {
    await goTo('/calendar/going-out?client=KILN');
    await expect(buns).toContainText('by itself');
    await expect(buns.getByText('Ready', { exact: true })).toBeVisible();
    const [placed] = await zesting.query<{ at: string }>(
      'select to_char(l.publish_at, \'YYYY-MM-DD"T"HH24:MI:SS"Z"\') as at from placements l join pieces p on p.id = l.piece_id where p.title = \'Saturday buns, counted\'',
    );
    await zesting.setClock(placed?.at ?? '');
    await expect(buns.getByText('Out', { exact: true })).toBeVisible();
    const [address] = await Promise.all([buns.getByRole('link', { name: zesting.channelsAddress }).getAttribute('href')]);
    const there = await dana.context().newPage();
    await there.goto(address ?? '');
    await expect(there.getByRole('heading', { name: 'Kiln Lane Bakehouse, Photo feed' })).toBeVisible();
    await expect(there.getByText('We bake two hundred and forty. By eleven there are none.')).toBeVisible();
    await there.close();
  });
});

test('the channel is away at the minute of publication: the manager sees what is tried, and it goes out once it is there again', async ({
  browser,
  zesting,
}) => {
  const dana = await signIn(browser, zesting, 'dana@quillhaven.test');
  const weekend = dana.getByRole('listitem').filter({ hasText: 'Fig and fennel weekend' }).filter({ hasText: 'Photo feed' });
  const [placed] = await zesting.query<{ at: string; channel_id: string; client_id: string }>(
    `select to_char(l.publish_at, 'YYYY-MM-DD"T"HH24:MI:SS"Z"') as at, l.channel_id, l.client_id from placements l join pieces p on p.id = l.piece_id
     where p.title = 'Fig and fennel weekend' order by l.publish_at limit 1`,
  );
  await zesting.query(
    "insert into channel_links (channel_id, client_id, token, made_at) values ($1, $2, '', now()) on conflict do nothing", // as the test before left it
    [placed?.channel_id, placed?.client_id],
  );
  const channels = await dana.context().newPage();
  const behave = async (words: RegExp) => {
    await channels.goto(zesting.channelsAddress);
    const [option] = await channels.getByRole('option', { name: words }).all();
    await channels.getByLabel('How they behave').selectOption({ label: (await option?.textContent()) ?? '' });
    await channels.getByRole('button', { name: 'Behave like that' }).click();
    await expect(channels.getByLabel('How they behave')).toBeVisible();
  };
  await behave(/^away/);
  await zesting.setClock(placed?.at ?? '');
  await dana.goto('/calendar/going-out?client=KILN');
  await expect(weekend.getByText('Sending', { exact: true })).toBeVisible();
  await expect(weekend).toContainText(/The channel cannot be reached: .*\. Nothing is out\. Tried again at /);
  await expectAccessible(dana);
  await dana.goto('/calendar?client=KILN&month=2027-03');
  await dana
    .getByRole('button', { name: /Fig and fennel weekend/ })
    .first()
    .click();
  await expect(dana.getByRole('dialog').getByText('It is on its way to the channel')).toBeVisible();
  await expect(dana.getByRole('dialog').getByRole('button', { name: 'Move it there' })).toHaveCount(0);
  await dana.keyboard.press('Escape');
  await behave(/^fine/);
  await dana.goto('/calendar/going-out?client=KILN');
  await expect(weekend.getByText('Out', { exact: true })).toBeVisible();
  const posts = (await (await fetch(`${zesting.channelsAddress}/posts.json`)).json()) as { text: string }[];
  expect(posts.filter(({ text }) => text.startsWith('Two days only'))).toHaveLength(1);
});

test('one switch stops what goes out by itself, and everybody sees that it is stopped', async ({ browser, zesting }) => {
  const marta = await signIn(browser, zesting, 'marta@quillhaven.test');
  const ivo = await signIn(browser, zesting, 'ivo@quillhaven.test');
  await ivo.goto('/calendar/going-out');
  await marta.goto('/calendar/going-out');
  await marta.getByRole('button', { name: 'Stop sending' }).click();
  await marta.getByRole('dialog').getByLabel('Why').fill('A day of mourning');
  await marta.getByRole('dialog').getByLabel('Everything').check();
  await expectAccessible(marta);
  await marta.getByRole('dialog').getByRole('button', { name: 'Done' }).click();
  await expect(ivo.getByText('Nothing goes out by itself: everything.')).toBeVisible();
  await expect(ivo.getByText(/A day of mourning\. Marta Ilves/)).toBeVisible();
  await expect(ivo.getByRole('button', { name: /^Let it go again/ })).toHaveCount(0); // a lead's alone
  await marta.getByRole('button', { name: 'Let it go again: everything' }).click();
  await expect(ivo.getByText('Nothing goes out by itself: everything.')).toHaveCount(0);
});

test('what follows once something is out is kept with its channel, comes due on its day, and is ticked off', async ({
  browser,
  zesting,
}) => {
  const ivo = await signIn(browser, zesting, 'ivo@quillhaven.test');
  const dialog = ivo.getByRole('dialog');
  await ivo.goto('/clients?client=LOOM');
  await ivo
    .getByRole('link', { name: /Copperloom Weavers/ })
    .first()
    .click();
  await ivo.getByRole('tab', { name: 'Channels' }).click();
  await ivo.getByRole('button', { name: 'Change… what is done around Workshop notes' }).click();
  await dialog.getByRole('button', { name: 'Add a line' }).click();
  await dialog.getByRole('button', { name: 'Keep it' }).click();
  await expect(dialog.getByRole('alert')).toHaveText('Say what is done, or take the line out.');
  await dialog.getByLabel('Line 1', { exact: true }).fill('Pin it in the shop');
  await dialog.getByLabel('Days later, line 1').fill('2');
  await expectAccessible(ivo);
  await dialog.getByRole('button', { name: 'Keep it' }).click();
  await expect(dialog).toHaveCount(0);
  await expect(ivo.getByText('Pin it in the shop 2 days later')).toBeVisible();

  const [placed] = await zesting.query<{ id: string }>(
    "select l.id from placements l join pieces p on p.id = l.piece_id where p.title = 'Moths: a peace treaty' and not l.cancelled",
  );
  expect((await ivo.request.post(`/api/placements/${placed?.id}/out`, { data: {} })).status()).toBe(200);
  await ivo.goto('/calendar/going-out?client=LOOM');
  const after = ivo.getByRole('region', { name: 'Before and after' });
  const line = after.getByRole('listitem').filter({ hasText: 'Pin it in the shop' }).last(); // it stands in a list within the list once it is settled
  await expect(line).toContainText('Moths: a peace treaty');
  await expectAccessible(ivo);
  await line.getByRole('checkbox').check();
  await expect(after.getByText('1 settled today')).toBeVisible();
  await after.getByText('1 settled today').click();
  await expect(line).toContainText('done by Ivo Harcastle');
  await line.getByRole('button', { name: /^Take back/ }).click();
  await expect(line.getByRole('checkbox')).not.toBeChecked();
});

test('what is put in by hand is its doer’s on its day, and to be put in again at another time', async ({ browser, zesting }) => {
  const ivo = await signIn(browser, zesting, 'ivo@quillhaven.test');
  await zesting.setClock('2027-04-01T09:00:00Z'); // after whatever the tests before came to
  const placeOn = async (on: string, at: string) => {
    const [placed] = await zesting.query<{ id: string; version: number }>(
      `select l.id, l.version from placements l join pieces p on p.id = l.piece_id join channels h on h.id = l.channel_id
       where p.title = 'A knot a week: the rolling hitch' and h.name = 'Photo feed' and not l.cancelled`,
    );
    const moved = await ivo.request.put(`/api/placements/${placed?.id}/date`, {
      data: { on, at },
      headers: { 'If-Match': `"${placed?.version}"` },
    });
    expect(moved.status()).toBe(200);
  };
  await placeOn('2027-04-06', '10:00'); // a Tuesday
  await zesting.setClock('2027-04-06T11:00:00Z'); // early in the morning in New York
  const puttingIn = (part: ReturnType<typeof ivo.getByRole>) =>
    part.getByRole('listitem').filter({ hasText: 'Put it into the museum’s planner' }).filter({ hasText: 'the rolling hitch' }).last();
  await ivo.goto('/');
  const own = puttingIn(ivo.getByRole('region', { name: 'Around what goes out' }));
  await expect(own).toBeVisible();
  await expectAccessible(ivo);
  await own.getByRole('checkbox').check();
  await expect(own).toHaveCount(0);
  await ivo.goto('/calendar/going-out?client=TIDE');
  const around = ivo.getByRole('region', { name: 'Before and after' });
  await around.getByText(/^\d+ settled today$/).click();
  await expect(puttingIn(around)).toContainText('done by Ivo Harcastle');
  await placeOn('2027-04-06', '16:00');
  await expect(around.getByRole('checkbox', { name: /^Put it into the museum’s planner: A knot a week: the rolling hitch/, checked: false })).toBeVisible(); // prettier-ignore
});

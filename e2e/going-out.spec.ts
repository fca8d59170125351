import { addDays, getDay } from '@zesting/core';
import { expect, expectAccessible, expectNoSidewaysScroll, signIn, tellStory, test } from './zesting';

tellStory('going-out');

const PHONE = { viewport: { width: 390, height: 844 }, hasTouch: true } as const;

test('what goes out next: what stops it is seen and settled, it is looked at, posted by hand on the phone, and its address given later', async ({
  browser,
  zesting,
}) => {
  const dana = await signIn(browser, zesting, 'dana@quillhaven.test');
  const letter = dana.getByRole('listitem').filter({ hasText: 'Newsletter: what to sow now' });

  await test.step('the desk says what needs somebody, and leads to it; what is not ready says why', async () => {
    await dana.getByRole('link', { name: /out without an address.*Going out$/ }).click();
    await expect(dana.getByRole('heading', { name: 'Going out', level: 1 })).toBeVisible();
    await dana.goto('/calendar/going-out?client=MOSS&shown=unready');
    await expect(letter).toContainText('This channel takes no tags');
    await expectAccessible(dana);
  });

  await test.step('the rule is changed where it stands, and it is ready', async () => {
    await dana.goto('/clients?client=MOSS');
    await dana
      .getByRole('link', { name: /Mossgrove Nursery/ })
      .first()
      .click();
    await dana.getByRole('tab', { name: 'Channels' }).click();
    const rules = dana.getByRole('group', { name: 'Rules of Newsletter' });
    await expect(rules.getByLabel('What is out there has an address')).not.toBeChecked();
    await rules.getByLabel('What is out there has an address').check();
    const limit = dana.getByLabel('Tags', { exact: true }).nth(1);
    await expect(limit).toHaveValue('0');
    await limit.fill('');
    await dana.getByRole('button', { name: 'Save' }).click();
    await expect(dana.getByText(/^Saved/).first()).toBeVisible();
    await dana.goto('/calendar/going-out?client=MOSS');
    await expect(letter).not.toContainText('This channel takes no tags');
  });

  await test.step('its link leads nowhere until the client puts up the page, and it is asked again', async () => {
    const page = 'https://moss.test/newsletter-what-to-sow-now';
    await expect(letter.getByText(`There is no page at ${page}`)).toBeVisible();
    await expectAccessible(dana);
    const pages = await dana.context().newPage();
    await pages.goto(zesting.channelsAddress);
    await expect(pages.getByText(`${page} is not found`)).toBeVisible();
    await pages.getByLabel('Address of a page').fill(page);
    await pages.getByLabel('What it answers').selectOption({ label: 'is there' });
    await pages.getByRole('button', { name: 'Answer like that' }).click();
    await expect(pages.getByText(`${page} is not found`)).toHaveCount(0);
    await pages.close();
    // one that was asked a moment ago is not asked again at once
    await expect(async () => {
      await letter.getByRole('button', { name: /^Ask the pages again/ }).click({ timeout: 5_000 });
      await expect(letter.getByText('Ready', { exact: true })).toBeVisible({ timeout: 5_000 });
    }).toPass();
  });

  const marta = await signIn(browser, zesting, 'marta@quillhaven.test');
  const seen = marta.getByRole('listitem').filter({ hasText: 'Newsletter: what to sow now' });
  await test.step('a tick says who looked, and another window sees it; moved, it was looked at before that', async () => {
    await marta.goto('/calendar/going-out?client=MOSS');
    await letter.getByRole('checkbox', { name: /^Looked at/ }).check();
    await expect(seen.getByText(/^Dana Okafor, /)).toBeVisible();
    await marta.goto('/calendar?client=MOSS');
    await marta
      .getByRole('button', { name: /Newsletter: what to sow now/ })
      .first()
      .click();
    await marta.getByRole('dialog').getByLabel('Time', { exact: true }).fill('09:30');
    await marta.getByRole('dialog').getByRole('button', { name: 'Move it there' }).click();
    await expect(marta.getByRole('dialog')).toHaveCount(0);
    await expect(letter.getByText('Changed since')).toBeVisible();
    await letter.getByRole('checkbox', { name: /^Changed since/ }).check();
    await expect(letter.getByText(/^Dana Okafor, /)).toBeVisible();
  });

  const phone = await signIn(browser, zesting, 'dana@quillhaven.test', PHONE);
  const dialog = phone.getByRole('dialog');
  await test.step('on the phone each part is copied with one press, and it is marked as out', async () => {
    await phone.context().grantPermissions(['clipboard-read', 'clipboard-write']);
    await phone.goto('/calendar/going-out?client=MOSS');
    const post = phone.getByRole('button', { name: 'Post by hand: Newsletter: what to sow now on Newsletter' });
    await expect(post).toBeVisible();
    await expectAccessible(phone);
    await expectNoSidewaysScroll(phone);
    await post.tap();
    await expect(dialog.getByRole('link', { name: 'Open Newsletter' })).toHaveAttribute('href', 'https://post.moss.test/newsletter');
    await dialog.getByRole('button', { name: 'Copy: Text' }).tap();
    await expect(phone.getByText('Text: copied')).toBeVisible();
    expect(await phone.evaluate(() => navigator.clipboard.readText())).toBe('Five things to sow this week, and two that can wait.');
    await dialog.getByRole('button', { name: 'Copy: Tags' }).tap();
    expect(await phone.evaluate(() => navigator.clipboard.readText())).toBe('#undergreen #slowgarden');
    const [download] = await Promise.all([
      phone.waitForEvent('download'),
      dialog.getByRole('link', { name: /^Download 01_2027-03-\d\d_MOSS_newsletter-what-to-sow-now\./ }).tap(),
    ]);
    expect(download.suggestedFilename()).toMatch(/^01_2027-03-\d\d_MOSS_newsletter-what-to-sow-now\.\w+$/);
    await expectAccessible(phone);
    await dialog.getByLabel('It went out on').fill('10/3/2028');
    await dialog.getByRole('button', { name: 'Mark as out' }).tap();
    await expect(dialog.getByRole('alert')).toHaveText('That time has not come yet: what is out went before now.');
    await dialog.getByLabel('It went out on').fill('9/3/2027');
    await dialog.getByLabel('At', { exact: true }).fill('07:15');
    await dialog.getByRole('button', { name: 'Mark as out' }).tap();
    await expect(dialog).toHaveCount(0);
  });

  await test.step('its address is asked for until it is given', async () => {
    const asked = dana.getByRole('region', { name: 'Out, but nobody said where' }).getByRole('listitem');
    await expect(asked.filter({ hasText: 'Newsletter: what to sow now' })).toBeVisible();
    await asked
      .filter({ hasText: 'Newsletter: what to sow now' })
      .getByRole('button', { name: /^Where it is/ })
      .click();
    await expect(dana.getByRole('dialog').getByLabel('At', { exact: true })).toHaveValue('07:15');
    await dana.getByRole('dialog').getByLabel('Where can it be seen?').fill('mossgrove.test/letter');
    await dana.getByRole('dialog').getByRole('button', { name: 'Save' }).click();
    await expect(
      dana
        .getByRole('dialog')
        .getByText(/address/i)
        .first(),
    ).toBeVisible(); // it is none yet
    await dana.getByRole('dialog').getByLabel('Where can it be seen?').fill('https://mossgrove.test/letter');
    await dana.getByRole('dialog').getByRole('button', { name: 'Save' }).click();
    await expect(dana.getByRole('dialog')).toHaveCount(0);
    await expect(asked.filter({ hasText: 'Newsletter: what to sow now' })).toHaveCount(0);
  });
});

test('a client’s week is taken away as a pack; what is left out says why', async ({ browser, zesting }) => {
  const dana = await signIn(browser, zesting, 'dana@quillhaven.test');
  await dana.goto('/calendar/going-out?client=KILN');
  await dana.getByRole('button', { name: 'Pack' }).click();
  const dialog = dana.getByRole('dialog');
  await dialog.getByRole('button', { name: 'This month' }).click();
  await expect(dialog.getByText(/^\d+ placements?, \d+ files? of /)).toBeVisible();
  await expect(dialog.getByRole('region', { name: /not in it$/ })).toContainText('Not signed as it stands');
  await expectAccessible(dana);
  const [download] = await Promise.all([dana.waitForEvent('download'), dialog.getByRole('link', { name: 'Take the pack' }).click()]);
  expect(download.suggestedFilename()).toBe('2027-03-01_2027-03-31_KILN_pack.zip');
  await dana.reload(); // the address holds it
  await expect(dialog.getByRole('heading', { name: 'A pack for Kiln Lane Bakehouse' })).toBeVisible();
});

test('what does not fit on a channel is said while it is typed', async ({ browser, zesting }) => {
  const dana = await signIn(browser, zesting, 'dana@quillhaven.test');
  await dana.goto('/production?client=KILN');
  await dana.getByRole('link', { name: 'A day with the night baker' }).click();
  await dana.getByRole('tab', { name: /^Microblog/ }).click();
  const copy = dana.getByLabel('Copy on Microblog');
  await copy.fill('🍞'.repeat(281));
  await expect(dana.getByText('281 of 280 characters: 1 too many')).toBeVisible();
  await expect(copy).toHaveAttribute('aria-invalid', 'true');
  await expect(dana.getByRole('tab', { name: /^Microblog .*1 to settle before it goes out/ })).toBeVisible();
  await copy.fill('🍞'.repeat(280));
  await expect(copy).toHaveAttribute('aria-invalid', 'false');
  // tags stand in the text there
  await dana.getByLabel('Tags', { exact: true }).fill('#rye #don’t');
  await dana.getByLabel('Tags', { exact: true }).blur();
  await expect(dana.getByText('“don’t” is no whole tag')).toBeVisible();
  await expect(dana.getByText('292 of 280 characters: 12 too many')).toBeVisible();
  await dana.getByLabel('Link', { exact: true }).fill('kilnlane.test/menu');
  await expect(dana.getByText('“kilnlane.test/menu” is no whole address')).toBeVisible();
});

test('tags are kept as a set, and put in with one press where a channel is written', async ({ browser, zesting }) => {
  const dana = await signIn(browser, zesting, 'dana@quillhaven.test');
  const [kiln] = await zesting.query<{ id: string }>("select id from clients where code = 'KILN'");
  await dana.goto(`/clients/${kiln?.id ?? ''}?part=tags`);
  await expect(dana.getByRole('listitem').filter({ hasText: '#kilnlane #breadfirst' })).toContainText(/Used \d+ times within a year/);
  await dana.getByRole('button', { name: 'New tag set' }).click();
  const dialog = dana.getByRole('dialog');
  await dialog.getByRole('button', { name: 'Keep it' }).click();
  await expect(dialog.getByText('Give it a name.')).toBeVisible();
  await dialog.getByLabel('Name').fill('The night');
  await dialog.getByLabel('Tags').fill('#nightbaker, don’t');
  await dialog.getByRole('button', { name: 'Keep it' }).click();
  await expect(dialog.getByRole('alert')).toHaveText(/One of the tags is not whole/);
  await dialog.getByLabel('Tags').fill('#nightbaker #kilnlane #attwo');
  await dialog.getByRole('button', { name: 'Keep it' }).click();
  await expect(dialog).toHaveCount(0);
  await expect(dana.getByRole('listitem').filter({ hasText: 'The night' })).toContainText('Not used within a year');
  await expectAccessible(dana);
  await dana.goto('/production?client=KILN');
  await dana.getByRole('link', { name: 'A day with the night baker' }).click();
  await dana.getByRole('tab', { name: /^Short-clip feed/ }).click();
  await expect(dana.getByLabel('Tags', { exact: true })).toHaveValue('#kilnlane #breadfirst');
  await dana.getByLabel('Put in a tag set on Short-clip feed').selectOption({ label: 'The night: #nightbaker #kilnlane #attwo' });
  await expect(dana.getByLabel('Tags', { exact: true })).toHaveValue('#kilnlane #breadfirst #nightbaker #attwo');
  await expect(dana.getByText('Not saved yet')).toBeVisible();
});

test('what is under embargo does not go out before, whoever placed it there', async ({ browser, zesting }) => {
  const dana = await signIn(browser, zesting, 'dana@quillhaven.test');
  const [placed] = await zesting.query<{ piece: string; title: string; on: string }>(
    `select p.id as piece, p.title, l.on_day::text as on from placements l join pieces p on p.id = l.piece_id join clients c on c.id = l.client_id
     where c.code = 'KILN' and l.state = 'scheduled' order by l.publish_at limit 1`,
  );
  const { piece = '', title = '', on = '' } = placed ?? {};
  const row = dana.getByRole('listitem').filter({ hasText: title }).first();
  await dana.goto('/calendar/going-out?client=KILN');
  await expect(row.getByText('Ready', { exact: true })).toBeVisible();

  await dana.goto(`/pieces/${piece}`);
  const placements = dana.getByRole('region', { name: 'Placements' });
  await placements.getByRole('button', { name: 'Embargo or last day…' }).click();
  const dialog = dana.getByRole('dialog', { name: 'When it may be out' });
  await dialog.getByRole('button', { name: 'Keep it' }).click();
  await expect(dialog.getByText('Say from which day on, or until which')).toBeVisible();
  await dialog.getByLabel('Not before', { exact: true }).fill(addDays(getDay(on), 1));
  await dialog.getByLabel('Why').fill('The press has it first');
  await expectAccessible(dana);
  await dialog.getByRole('button', { name: 'Keep it' }).click();
  await expect(dialog).toHaveCount(0);
  await expect(placements.getByText('The press has it first')).toBeVisible();
  await expect(placements.getByText('Outside', { exact: true })).toBeVisible();
  await dana.reload();
  await expect(placements.getByText('Outside', { exact: true })).toBeVisible();
  await dana.goto('/calendar/going-out?client=KILN');
  await expect(row.getByText(/^It may not be out before /)).toBeVisible();

  await dana.goto(`/pieces/${piece}`);
  await placements.getByRole('button', { name: 'Any day' }).click();
  await expect(placements.getByText('Outside', { exact: true })).toHaveCount(0);
  await dana.goto('/calendar/going-out?client=KILN');
  await expect(row.getByText('Ready', { exact: true })).toBeVisible();
});

import { nextMonth } from '@zesting/core';
import { clip } from './clip';
import { dayAhead, expect, expectAccessible, linkIn, mailTo, signIn, tellStory, test, visitor } from './zesting';

tellStory('knowledge');

const PHONE = { viewport: { width: 390, height: 844 }, hasTouch: true };

test('what a contact knows: a set of questions, asked about an idea, answered by phone, read where it is needed', async ({
  browser,
  zesting,
}) => {
  const ivo = await signIn(browser, zesting, 'ivo@quillhaven.test');
  await ivo.goto('/plan/questions?client=LOOM');
  await expect(ivo.getByText('Nobody is asked anything')).toBeVisible();
  await ivo.getByRole('button', { name: 'New set' }).click();
  const dialog = ivo.getByRole('dialog');
  await dialog.getByLabel('Name (needed)').fill('Of a cloth');
  await dialog.getByRole('button', { name: 'Keep them' }).click();
  await expect(dialog.getByText('Write at least one, a line each.')).toBeVisible();
  await dialog.getByLabel('Questions, one on each line').fill('Whose hands made it?\nWhat does it cost in wool?');
  await expectAccessible(ivo);
  await dialog.getByRole('button', { name: 'Keep them' }).click();
  await expect(ivo.getByRole('button', { name: 'Of a cloth' })).toBeVisible();
  const [contact] = await zesting.query<{ name: string; email: string }>(
    "select x.name, x.email from contacts x join clients c on c.id = x.client_id where c.code = 'LOOM' order by x.position limit 1",
  );

  await test.step('asked about an idea', async () => {
    await ivo.goto('/plan/ideas?client=LOOM');
    await ivo.getByRole('button', { name: 'A warp of nine hundred threads' }).click();
    await ivo.getByRole('button', { name: 'Ask who knows…' }).click();
    const asking = ivo.getByRole('dialog', { name: 'Ask who knows' });
    await asking.getByLabel('Questions kept').selectOption({ label: 'Of a cloth' });
    await expect(asking.getByLabel('Questions, one on each line')).toHaveValue(/Whose hands/);
    await asking.getByLabel('Whom').selectOption({ label: contact?.name ?? '' });
    await asking.getByRole('button', { name: 'Send the questions' }).click();
    await expect(asking).toHaveCount(0);
    // the idea behind it was not sent with it
    await expect(ivo.getByRole('dialog', { name: 'Idea' }).getByText(/0 of 2 answered/)).toBeVisible();
    await expectAccessible(ivo);
  });

  await test.step('answered in the room, by phone; what is typed stays where the network fails', async () => {
    const mail = await mailTo(zesting, contact?.email ?? '', '2 questions for you: A warp');
    const room = await visitor(browser, zesting, linkIn(mail.text, '/room/'), PHONE);
    await expect(room.getByText('We would like to ask you 2 questions.')).toBeVisible();
    const field = room.getByRole('textbox', { name: 'Whose hands made it?' });
    await field.fill('Ingrid’s, for forty years.');
    await expectAccessible(room);
    expect(await room.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(390);
    await room.route('**/questions/*/answer', (route) => route.abort());
    await room.getByRole('button', { name: 'Keep this answer' }).click();
    await expect(room.getByRole('alert')).toContainText('What you typed is still here.');
    await room.unroute('**/questions/*/answer');
    await room.getByRole('button', { name: 'Keep this answer' }).click();
    await expect(room.getByText('1 of 2 answered')).toBeVisible();
    await room.reload();
    await expect(room.getByText('Ingrid’s, for forty years.')).toBeVisible();
    await expect(room.getByText('We would like to ask you 1 question.')).toBeVisible();
  });

  await test.step('the other is heard on the telephone and written down; then they are closed', async () => {
    await ivo.goto('/plan/questions?client=LOOM');
    await ivo.getByRole('button', { name: 'A warp of nine hundred threads' }).click();
    const shown = ivo.getByRole('dialog', { name: 'A warp of nine hundred threads' });
    await shown.getByRole('button', { name: /^Write down the answer/ }).click();
    await shown.getByRole('textbox').fill('Two fleeces.');
    await shown.getByRole('button', { name: 'Keep this answer' }).click();
    await expect(shown.getByText('2 of 2 answered')).toBeVisible();
    await shown.getByRole('button', { name: 'Close the questions' }).click();
    await expect(shown.getByRole('button', { name: 'Open them again' })).toBeVisible();
    await ivo.goto('/plan/questions?client=LOOM&asked=closed');
    await expect(ivo.getByRole('list', { name: 'Questions' }).getByText('A warp of nine hundred threads')).toBeVisible();
  });

  await test.step('and stands in the brief of the piece that the idea becomes', async () => {
    const [idea] = await zesting.query<{ id: string; clientId: string }>(
      `select id, client_id as "clientId" from ideas where title = 'A warp of nine hundred threads'`,
    );
    const slots = await ivo.request.get(`/api/clients/${idea?.clientId}/plan?month=${nextMonth(dayAhead(0).slice(0, 7), 1)}`);
    const { slots: all } = (await slots.json()) as {
      slots: { ruleId: string; on: string; planned: unknown; formatId: string | null; blackout: unknown }[];
    };
    const free = all.find((slot) => slot.planned === null && slot.blackout === null);
    const filled = await ivo.request.post(`/api/clients/${idea?.clientId}/plan`, {
      data: { slots: [{ ruleId: free?.ruleId, on: free?.on, ideaId: idea?.id }] },
      headers: { origin: zesting.address },
    });
    const { slots: lines } = (await filled.json()) as { slots: { pieceId: string | null; problem: string | null }[] };
    expect(lines[0]).toMatchObject({ problem: null });
    await ivo.goto(`/pieces/${lines[0]?.pieceId}`);
    const brief = ivo.getByRole('region', { name: 'Brief' });
    await expect(brief.getByText('Ingrid’s, for forty years.')).toBeVisible();
    await expect(brief.getByText('Two fleeces.')).toBeVisible();
  });
});

test('an idea is shared by phone, gets a file, is talked over, combined, and taken apart again', async ({ browser, zesting }) => {
  const phone = await signIn(browser, zesting, 'ivo@quillhaven.test', PHONE);
  // as a phone shares a page to an installed application
  await phone.goto('/plan/ideas?client=TIDE&title=Tar+and+oakum&url=https%3A%2F%2Ftar.test%2Foakum');
  await expect(phone.getByLabel('An idea in one line')).toHaveValue('Tar and oakum https://tar.test/oakum');
  await phone.getByRole('button', { name: 'Catch', exact: true }).click();
  await expect(phone.getByText('“Tar and oakum” is on the shelf.')).toBeVisible();
  await phone.getByLabel('Files of the idea').setInputFiles({ name: 'tar.mp4', mimeType: 'video/mp4', buffer: clip(2_000) });
  await expect(phone.getByRole('link', { name: 'tar.mp4' })).toBeVisible();
  await expectAccessible(phone);

  const ivo = await signIn(browser, zesting, 'ivo@quillhaven.test');
  await ivo.goto('/plan/ideas?client=TIDE');
  await ivo.getByRole('button', { name: 'Tar and oakum' }).click();
  const dialog = ivo.getByRole('dialog', { name: 'Idea' });
  await expect(dialog.getByLabel('Link')).toHaveValue('https://tar.test/oakum');
  await expect(dialog.getByRole('region', { name: 'Files' }).getByRole('link', { name: 'tar.mp4' })).toBeVisible();
  await dialog.getByPlaceholder('Write to the team').fill('Who has a caulking iron? @Marta');
  await dialog.getByRole('button', { name: 'Write it' }).click();
  await expect(dialog.getByText('told Marta')).toBeVisible();
  await dialog.getByRole('button', { name: 'Combine with another…' }).click();
  await dialog.getByLabel('Another idea').selectOption({ label: 'How the bell sounds in fog' });
  await dialog.getByRole('button', { name: 'Combine', exact: true }).click();
  await expect(dialog.getByRole('button', { name: 'Take it out again: How the bell sounds in fog' })).toBeVisible();
  await expectAccessible(ivo);
  await dialog.getByRole('button', { name: 'Close', exact: true }).first().click();
  const shelf = ivo.getByRole('list', { name: 'Ideas' });
  await expect(shelf.getByRole('button', { name: 'How the bell sounds in fog' })).toHaveCount(0);
  await expect(shelf.getByText('2 in one')).toBeVisible();
  await shelf.getByRole('button', { name: 'Tar and oakum' }).click();
  await dialog.getByRole('button', { name: 'Take it out again: How the bell sounds in fog' }).click();
  await expect(dialog.getByText('This one alone.')).toBeVisible();
  await dialog.getByRole('button', { name: 'Close', exact: true }).first().click();
  await expect(shelf.getByRole('button', { name: 'How the bell sounds in fog' })).toBeVisible();
});

test('days of note are chosen and added, a kind of marker is the agency’s own, and the month is started', async ({ browser, zesting }) => {
  const marta = await signIn(browser, zesting, 'marta@quillhaven.test');
  await marta.goto('/plan/year?client=LOOM');
  await marta.getByRole('button', { name: 'Observances…' }).click();
  const dialog = marta.getByRole('dialog');
  await dialog.getByLabel('Name or subject').fill('forest');
  await dialog.getByRole('checkbox', { name: /International Day of Forests/ }).check();
  await expectAccessible(marta);
  await dialog.getByRole('button', { name: 'Add one…' }).click();
  await dialog.getByLabel('Name (needed)').fill('Shearing day');
  await dialog.getByRole('button', { name: 'Add it' }).click();
  await expect(dialog.getByText('Say on which day it is.')).toBeVisible();
  await dialog.getByLabel('On', { exact: false }).first().fill(dayAhead(40).split('-').reverse().join('/'));
  await dialog.getByRole('button', { name: 'Add it' }).click();
  await expect(marta.getByText('Shearing day stands on the calendar, every year')).toBeVisible();
  await dialog.getByRole('button', { name: 'On the calendar' }).click();
  await expect(dialog.getByRole('checkbox', { name: /Shearing day/ })).toBeChecked();
  await dialog.getByRole('button', { name: 'Close' }).click();
  await expect(marta.getByRole('row', { name: /^Holidays and observances/ }).getByText('Shearing day')).toBeVisible();

  await marta.goto('/agency?part=lists');
  const kinds = marta.getByRole('region', { name: 'Kinds of markers' });
  await kinds.getByRole('button', { name: 'Add a kind' }).click();
  await kinds.getByLabel('Name of the new entry').fill('Wool market');
  await kinds.getByRole('button', { name: 'Save' }).click();
  await expect(kinds.getByText('unused')).toBeVisible();
  await marta.goto('/calendar?client=LOOM&open=marker');
  await dialog.getByLabel('Name (needed)').fill('Market in the valley');
  await dialog.getByLabel('Kind').selectOption({ label: 'Wool market' });
  await dialog.getByRole('button', { name: 'Put it there' }).click();
  await expect(marta.getByRole('button', { name: /Market in the valley.*Wool market/ })).toBeVisible();
  await expectAccessible(marta);

  await marta.goto('/plan');
  const starts = marta.getByRole('region', { name: 'Months to start' });
  await starts.getByRole('link').filter({ hasText: 'LOOM' }).first().click();
  await expect(dialog.getByRole('region', { name: 'Weeks' })).toBeVisible();
  await expectAccessible(marta);
  await dialog.getByRole('button', { name: 'Start the month' }).click();
  await expect(marta.getByText(/^LOOM-.* is begun$/)).toBeVisible();
});

test('the calendar tells due days, themes, and what a drop would do; a channel is seen as its followers see it', async ({
  browser,
  zesting,
}) => {
  const dana = await signIn(browser, zesting, 'dana@quillhaven.test');
  await dana.goto('/calendar?client=MOSS');
  await expect(dana.getByRole('list', { name: 'Due' })).toHaveCount(0);
  await dana.getByLabel('Days').selectOption('both');
  await expect(dana.getByRole('list', { name: 'Due' }).first()).toBeVisible();
  await expectAccessible(dana);
  await dana.getByLabel('Days').selectOption('due');
  await expect(dana).toHaveURL(/days=due/);
  await dana.goto('/calendar?client=MOSS');
  await dana.getByRole('button', { name: 'Filter' }).click();
  await dana.getByLabel('Theme').selectOption({ label: 'off it' });
  await expect(dana.getByText(/left out/)).toBeVisible();
  await dana.getByRole('button', { name: 'Show all' }).click();
  // by keyboard: lifted, carried a day on, looked at, and left where it was
  const chip = dana.locator('td button[aria-roledescription]').first();
  await chip.focus();
  await dana.keyboard.press('Space');
  await expect(chip).toHaveAttribute('aria-pressed', 'true');
  const hint = dana.getByRole('status').filter({ hasText: / on (Mon|Tue|Wed|Thu|Fri|Sat|Sun) / });
  // the sensor takes a key only after it has measured the page
  await expect(async () => {
    await dana.keyboard.press('ArrowRight');
    await expect(hint).toBeVisible({ timeout: 500 });
  }).toPass();
  await dana.keyboard.press('Escape');
  await expect(hint).toHaveCount(0);
  await dana.getByRole('button', { name: 'Year', exact: true }).click();
  await expect(dana.getByRole('region', { name: /^March 2027|^April 2027/ }).first()).toBeVisible();
  await expectAccessible(dana);
  await dana
    .getByRole('link', { name: /pencilled|firm/ })
    .first()
    .click();
  await expect(dana).toHaveURL(/view=week/);
  await dana.getByRole('link', { name: 'As followers see a channel' }).click();
  const tiles = dana.getByRole('list', { name: /newest first/ }).getByRole('link');
  await expect(tiles.first()).toBeVisible();
  await expectAccessible(dana);
  await dana.getByLabel('Channel').selectOption({ index: 1 });
  await expect(dana).toHaveURL(/channel=/);
});

import { addDays, getDay } from '@zesting/core';
import { dayAhead, expect, expectAccessible, expectDecided, linkIn, mailTo, signIn, tellStory, test, visitor } from './zesting';

tellStory('rounds');

test('a chase goes out in one click, and the reminder stops with the answer', async ({ browser, zesting }) => {
  const dana = await signIn(browser, zesting, 'dana@quillhaven.test');
  await dana.goto('/sign-off?client=MOSS');
  const packet = dana.getByRole('article', { name: 'Newsletter: open greenhouse' });
  await expect(packet.getByText('Past due')).toBeVisible();
  await packet.getByRole('button', { name: 'Chase…' }).click();
  await expect(dana.getByLabel('What it says')).toHaveValue(/“Newsletter: open greenhouse” has been with you for \d+ working days/);
  await expectAccessible(dana);
  await dana.getByRole('button', { name: 'Send it' }).click();
  await expect(dana.getByText('Sent to Hana Reweti')).toBeVisible();
  await expect(packet.getByText(/chased/)).toBeVisible();
  const chased = await mailTo(zesting, 'hana@mossgrove.test', 'Your word on Newsletter: open greenhouse');
  expect(chased.text).toContain('Best wishes,\nDana Okafor');

  // a packet whose answer is due some days ahead: half-way, a reminder; after the answer, none
  const [due] = await zesting.query<{ due: string; sent: string }>(
    "select due_on::text as due, (sent_at at time zone 'Pacific/Auckland')::date::text as sent from packets where title = 'Orchids that forgive'",
  );
  const reminders = async () =>
    (await zesting.mails('hana@mossgrove.test')).filter((mail) => mail.subject.startsWith('A reminder: Orchids that forgive')).length;
  const before = await reminders();
  await zesting.setClock(`${addDays(getDay(due?.due ?? ''), -1)}T21:00:00Z`); // the due day's morning in Auckland
  await expect.poll(reminders).toBe(before + 1);
  const room = linkIn((await mailTo(zesting, 'hana@mossgrove.test', 'A reminder: Orchids')).text, '/room/');
  const hana = await visitor(browser, zesting, room, { viewport: { width: 390, height: 844 }, hasTouch: true });
  const piece = hana.getByRole('article', { name: 'Orchids that forgive' });
  await piece.getByRole('button', { name: 'Approve' }).click();
  await piece.getByRole('button', { name: 'Yes, approve it' }).click();
  await expectDecided(zesting, 'Orchids that forgive');
  await zesting.setClock(`${addDays(getDay(due?.due ?? ''), 1)}T21:00:00Z`);
  await expect
    .poll(
      async () => (await zesting.query("select 1 from graphile_worker.jobs where task_identifier like 'notices%' and attempts = 0")).length,
    )
    .toBe(0);
  expect(await reminders()).toBe(before + 1);
  expect((await zesting.mails('dana@quillhaven.test')).filter((mail) => mail.text.includes('has not answered “Orchids'))).toEqual([]);
  await zesting.setClock('');
});

test('the cover of a manager on holiday sees the clients on those days, and not after', async ({ browser, zesting }) => {
  const marta = await signIn(browser, zesting, 'marta@quillhaven.test');
  await marta.goto('/people');
  await marta.getByRole('link', { name: 'Dana Okafor' }).click();
  const cover = marta.getByRole('region', { name: 'Cover' });
  const today = dayAhead(0);
  await cover.getByLabel('Who covers').selectOption('Ivo Harcastle');
  await cover.getByLabel('From').fill(today);
  await cover.getByLabel('Until').fill(addDays(today, 2));
  await expectAccessible(marta);
  await cover.getByRole('button', { name: 'Arrange cover' }).click();
  await expect(cover.getByText('Ivo Harcastle covers')).toBeVisible();
  const ivo = await signIn(browser, zesting, 'ivo@quillhaven.test');
  await ivo.goto('/production?client=KILN');
  await expect(ivo.getByRole('link', { name: 'Order by Thursday' })).toBeVisible();
  await ivo.getByRole('link', { name: 'Order by Thursday' }).click();
  await expect(ivo.getByRole('button', { name: 'Edit title and pillar' })).toBeVisible();
  await cover.getByRole('button', { name: 'Take away' }).first().click();
  await expect(cover.getByText('Ivo Harcastle covers')).toBeHidden();
  await ivo.reload();
  await expect(ivo.getByText('There is nothing here, or it is not yours to see.')).toBeVisible();
  await ivo.goto('/production');
  await expect(ivo.getByText('TIDE').first()).toBeVisible();
  await expect(ivo.locator('main').getByText('KILN')).toHaveCount(0);
});

test('who leaves is out at once, and the open steps are given to somebody else', async ({ browser, zesting }) => {
  const teo = await signIn(browser, zesting, 'teo@lightroomers.test');
  await expect(teo.getByRole('heading', { name: 'Your steps' })).toBeVisible();
  const marta = await signIn(browser, zesting, 'marta@quillhaven.test');
  await marta.goto('/people');
  await marta.getByRole('link', { name: 'Teo Brandvold' }).click();
  await marta.getByRole('button', { name: 'Leaves the agency' }).click();
  await expect(marta.getByText('Open steps to give to others')).toBeVisible();
  await expect(teo.getByRole('heading', { name: 'Sign in to Zesting' })).toBeVisible(); // without a reload
  await marta.getByRole('button', { name: 'Choose all' }).click();
  await marta.getByRole('combobox', { name: /Give \d+ steps? to/ }).selectOption('Piet Lindqvist');
  await marta.getByRole('button', { name: 'Give', exact: true }).click();
  await expect(marta.getByText(/given to Piet Lindqvist/)).toBeVisible();
  await expect(marta.getByRole('region', { name: 'Open steps' }).getByText('None.')).toBeVisible();
  const piet = await signIn(browser, zesting, 'piet@quillhaven.test');
  await expect(piet.getByText('Inside the deck oven').first()).toBeVisible();
});

test('texts besides the copy: asked for by the format, written with their limits, begun from the brief, and read by the client', async ({
  browser,
  zesting,
}) => {
  const marta = await signIn(browser, zesting, 'marta@quillhaven.test');
  await marta.goto('/agency/writing');
  await marta
    .getByRole('navigation', { name: 'Formats' })
    .getByRole('button', { name: /^Newsletter/ })
    .click();
  const texts = marta.getByRole('group', { name: 'Texts besides the copy' });
  await texts.getByRole('button', { name: 'Add a text' }).click();
  await texts.getByLabel('Name').last().fill('Greeting');
  await texts.getByRole('checkbox', { name: 'A piece goes out only with it' }).last().check();
  await expectAccessible(marta);
  await marta.getByRole('button', { name: 'Save' }).click();
  await expect(marta.getByText('Saved', { exact: true })).toBeVisible();
  await marta.reload(); // the address holds the format
  await expect(texts.getByLabel('Name').last()).toHaveValue('Greeting');

  const ivo = await signIn(browser, zesting, 'ivo@quillhaven.test');
  const content = ivo.getByRole('region', { name: 'Content' });
  const open = async (title: string) => {
    const [piece] = await zesting.query<{ id: string }>('select id from pieces where title = $1', [title]);
    await ivo.goto(`/pieces/${piece?.id}`);
  };

  await test.step('written with their limits', async () => {
    await open('Newsletter: the shearing calendar');
    const subject = content.getByRole('textbox', { name: 'Subject (needed)' });
    await expect(subject).not.toHaveValue('');
    await subject.fill('Six farms, six dates, one trailer, and the day on which the last of them is shorn');
    await expect(content.getByText('81 of 60 characters')).toBeVisible();
    await expect(content.getByText('21 characters too many')).toBeVisible();
    await expectAccessible(ivo);
    await subject.fill('Six farms, one trailer');
    await content.getByRole('textbox', { name: 'Greeting (needed)' }).fill('Hello from the loom');
    await content.getByRole('button', { name: 'Save', exact: true }).click();
    await expect(content.getByText('Not saved yet')).toHaveCount(0);
    await ivo.reload();
    await expect(content.getByRole('textbox', { name: 'Greeting (needed)' })).toHaveValue('Hello from the loom');
    await expect(subject).toHaveValue('Six farms, one trailer');
  });

  await test.step('begun from the outline and the brief', async () => {
    await open('The lighthouse keeper’s log');
    await content.getByRole('button', { name: 'Make a first draft' }).click();
    const dialog = ivo.getByRole('dialog', { name: 'Make a first draft' });
    await dialog.getByRole('checkbox', { name: /^Who is it for/ }).uncheck();
    await expect(dialog.getByRole('region', { name: 'The draft' })).toContainText('What we know');
    await expectAccessible(ivo);
    await dialog.getByRole('button', { name: 'Put it into the copy' }).click();
    const copy = content.getByRole('textbox', { name: 'Copy', exact: true });
    await expect(copy.getByRole('heading', { name: 'What we know' })).toBeVisible();
    await content.getByRole('button', { name: 'Save', exact: true }).click();
    await expect(content.getByText('Not saved yet')).toHaveCount(0);
    await ivo.reload();
    await expect(copy.getByRole('heading', { name: 'What we know' })).toBeVisible();
    await expect(copy).not.toContainText('Who is it for');
  });

  await test.step('read by the client above the copy', async () => {
    const { text } = await mailTo(zesting, 'hana@mossgrove.test', 'open greenhouse');
    const room = await visitor(browser, zesting, linkIn(text, '/room/'), { viewport: { width: 390, height: 844 } });
    const piece = room.getByRole('article', { name: 'Newsletter: open greenhouse' });
    await expect(piece.getByText('Open greenhouse', { exact: true })).toBeVisible();
    await expect(piece.getByText('Preview line')).toBeVisible();
    await piece.getByRole('button', { name: 'Ask for changes' }).click();
    await piece.getByRole('button', { name: 'Point at: Open greenhouse' }).click();
    await expect(piece.getByText('Subject: “Open greenhouse”')).toBeVisible();
    await piece.getByRole('textbox', { name: 'Change 1' }).fill('Say on which day');
    await expectAccessible(room);
  });
});

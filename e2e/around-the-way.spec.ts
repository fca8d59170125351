import { dayAhead, expect, expectAccessible, linkIn, mailTo, signIn, tellStory, test, visitor } from './zesting';

tellStory('around-the-way');

test('two people edit one piece: the second sees both states and neither text is lost', async ({ browser, zesting }) => {
  const [dana, marta] = [await signIn(browser, zesting, 'dana@quillhaven.test'), await signIn(browser, zesting, 'marta@quillhaven.test')];
  await dana.goto('/production');
  await dana.getByRole('link', { name: 'Watering by weight' }).click();
  await expect(dana.getByRole('heading', { name: 'Watering by weight', level: 1 })).toBeVisible();
  await marta.goto(new URL(dana.url()).pathname);
  const copy = (page: typeof dana) => page.getByLabel('Copy', { exact: true });
  await copy(dana).fill('Dana’s words');
  await copy(marta).fill('Marta’s words');
  await dana.getByRole('button', { name: 'Save' }).click();
  await expect(dana.getByText('Not saved yet')).toBeHidden();
  await marta.getByRole('button', { name: 'Save' }).click();
  const dialog = marta.getByRole('dialog', { name: 'Somebody else saved this meanwhile' });
  await expect(dialog.getByRole('region', { name: 'Yours, not saved' })).toContainText('Marta’s words');
  await expect(dialog.getByRole('region', { name: 'Theirs, saved' })).toContainText('Dana’s words');
  await expectAccessible(marta);
  await dialog.getByRole('button', { name: 'Go on editing mine' }).click();
  await expect(copy(marta)).toHaveText('Marta’s words');
  await copy(marta).fill('Dana’s words, and Marta’s words');
  await marta.getByRole('button', { name: 'Save' }).click();
  await marta.getByRole('button', { name: 'Save mine over theirs' }).click();
  await expect(dialog).toBeHidden();
  await dana.reload();
  await expect(copy(dana)).toHaveText('Dana’s words, and Marta’s words');
});

test('what is typed and not saved is still there after going elsewhere, and after another tab of a client’s page', async ({
  browser,
  zesting,
}) => {
  const dana = await signIn(browser, zesting, 'dana@quillhaven.test');
  await dana.goto('/production');
  await dana.getByRole('link', { name: 'Seed from your own tomatoes' }).click();
  const copy = dana.getByLabel('Copy', { exact: true });
  await copy.fill('Let one ripen past eating. Then wait, and wait.');
  await dana.getByRole('link', { name: 'Zesting: your desk' }).click();
  await expect(dana.getByRole('heading', { name: 'What needs you' })).toBeVisible();
  await dana.goBack();
  await expect(copy).toHaveText('Let one ripen past eating. Then wait, and wait.');
  await expect(dana.getByText('Not saved yet')).toBeVisible();
  await dana.getByRole('button', { name: 'Save' }).click();
  await expect(dana.getByText('Not saved yet')).toBeHidden();

  const marta = await signIn(browser, zesting, 'marta@quillhaven.test');
  await marta.goto('/clients');
  await marta.getByRole('link', { name: 'Mossgrove Nursery' }).click();
  await marta.getByRole('tab', { name: 'Brand sheet' }).click();
  await marta.getByLabel('Voice').fill('Like a good neighbour.');
  await marta.getByRole('tab', { name: 'Basics' }).click();
  await marta.getByRole('tab', { name: 'Brand sheet' }).click();
  await expect(marta.getByLabel('Voice')).toHaveValue('Like a good neighbour.');
  await marta.getByRole('button', { name: 'Leave as it was' }).click();
  await expect(marta.getByText('Not saved yet')).toBeHidden();
});

test('a piece is renamed, put on the shelf and taken off again', async ({ browser, zesting }) => {
  const dana = await signIn(browser, zesting, 'dana@quillhaven.test');
  await dana.goto('/production?client=MOSS');
  await dana.getByRole('link', { name: 'Gift plants for small flats' }).click();
  const edit = () => dana.getByRole('button', { name: 'Edit title and pillar' }).click();
  await edit();
  await dana.getByRole('dialog').getByRole('textbox', { name: 'Title' }).fill(' ');
  await dana.getByRole('button', { name: 'Save', exact: true }).last().click();
  await expect(dana.getByText('A piece needs a title.')).toBeVisible();
  await expectAccessible(dana);
  await dana.getByRole('dialog').getByRole('textbox', { name: 'Title' }).fill('Gift plants for very small flats');
  await dana.getByRole('combobox', { name: 'Pillar' }).selectOption('Behind the glass');
  await dana.getByRole('button', { name: 'Save', exact: true }).last().click();
  await expect(dana.getByRole('heading', { name: 'Gift plants for very small flats' })).toBeVisible();
  await edit();
  await dana.getByRole('button', { name: 'Put on the shelf' }).click();
  await expect(dana.getByText('Shelved', { exact: true })).toBeVisible();
  await edit();
  await dana.getByRole('button', { name: 'Take off the shelf' }).click();
  await expect(dana.getByText('Planned', { exact: true })).toBeVisible();
});

test('a decision given by telephone is recorded under the contact’s name', async ({ browser, zesting }) => {
  const dana = await signIn(browser, zesting, 'dana@quillhaven.test');
  await dana.goto('/sign-off?client=MOSS');
  const packet = dana.getByRole('article', { name: 'Orchids that forgive' });
  await packet.getByRole('button', { name: 'Record an answer' }).click();
  await expectAccessible(dana);
  await dana.getByLabel('How it was given').fill('By telephone at nine');
  await dana.getByRole('button', { name: 'Record it' }).click();
  await expect(packet).toBeHidden();
  await expect(dana).toHaveURL(/sign-off\?client=MOSS$/); // the dialog is closed and out of the address
  await dana.goto('/production?client=MOSS');
  await dana.getByRole('link', { name: 'Orchids that forgive' }).click();
  await expect(dana.getByText('recorded by Dana Okafor: By telephone at nine')).toBeVisible();
  await expect(dana.getByText('Approved', { exact: true }).first()).toBeVisible();
});

test('a request is declined with a reason, which its sender reads', async ({ browser, zesting }) => {
  const dana = await signIn(browser, zesting, 'dana@quillhaven.test');
  await dana.goto('/requests?client=MOSS');
  await dana.getByRole('link', { name: /Native seedlings for schools/ }).click();
  await dana.getByRole('button', { name: 'Decline…' }).click();
  await dana.getByRole('button', { name: 'Decline and send' }).click();
  await expect(dana.getByText('Say why: the requester reads it.')).toBeVisible();
  await expect(dana.getByRole('textbox', { name: 'Reason' })).toBeFocused();
  // the dialog has an address: it is there after a reload, and going back closes it
  await expect(dana).toHaveURL(/open=decline/);
  await dana.reload();
  await expect(dana.getByRole('dialog')).toBeVisible();
  await dana.goBack();
  await expect(dana.getByRole('dialog')).toHaveCount(0);
  await dana.getByRole('button', { name: 'Decline…' }).click();
  await dana.getByLabel('Reason').fill('We are full until the new year.');
  await dana.getByRole('button', { name: 'Decline and send' }).click();
  await expect(dana.getByText('Declined: We are full until the new year.')).toBeVisible();
  const mail = await mailTo(zesting, 'hana@mossgrove.test', 'Not taken on: Native seedlings');
  const sender = await visitor(browser, zesting, linkIn(mail.text, '/ask/receipt/'), { viewport: { width: 390, height: 844 } });
  await expect(sender.getByText('We are full until the new year.')).toBeVisible();
  await expectAccessible(sender);
});

test('every screen keeps its address over a reload, and goes back where it came from', async ({ browser, zesting }) => {
  const stranger = await visitor(browser, zesting, '/production');
  await expect(stranger.getByRole('heading', { name: 'Sign in to Zesting' })).toBeVisible();
  await expectAccessible(stranger);
  await stranger.getByLabel('E-mail').fill('dana@quillhaven.test');
  await stranger.getByLabel('Password').fill('wrong');
  await stranger.getByRole('button', { name: 'Sign in' }).click();
  await expect(stranger.getByText('E-mail or password is wrong.')).toBeVisible();

  const dana = await signIn(browser, zesting, 'dana@quillhaven.test');
  for (const [address, heading] of [
    ['/?client=KILN', 'What needs you'],
    ['/production?client=KILN', 'Production'],
    ['/requests?client=KILN', 'Requests'],
    ['/sign-off?client=KILN', 'Sign-off'],
    ['/links?client=KILN', 'Links to hand out'],
  ] as const) {
    await dana.goto(address);
    await expect(dana.getByRole('heading', { name: heading, level: 1 })).toBeVisible();
    await expect(dana.getByRole('button', { name: 'Client: Kiln Lane Bakehouse' })).toBeVisible();
    await expect(dana.getByText('Loading…')).toHaveCount(0);
    await expect(dana.locator('main').getByText('MOSS')).toHaveCount(0);
  }
  await dana.getByRole('link', { name: /Production/ }).click();
  await expect(dana.getByRole('link', { name: 'Seeded rye is back' })).toHaveCount(0); // it is out
  await dana.getByRole('button', { name: 'All', exact: true }).click();
  await dana.getByRole('link', { name: 'Seeded rye is back' }).click();
  await expect(dana.getByRole('heading', { name: 'Seeded rye is back' })).toBeVisible();
  await dana.goBack();
  await expect(dana.getByRole('heading', { name: 'Production', level: 1 })).toBeVisible();
  await expect(dana.getByRole('link', { name: 'Seeded rye is back' })).toBeVisible(); // the address holds what was asked for
  await dana.getByRole('button', { name: 'Open', exact: true }).click();
  await dana.getByLabel('With', { exact: true }).selectOption('nobody');
  await expect(dana.getByRole('columnheader', { name: 'Aim' })).toHaveAttribute('aria-sort', 'ascending'); // what is open stands by its days
  await dana.getByRole('button', { name: 'Slack' }).click();
  await expect(dana.getByRole('columnheader', { name: 'Slack' })).toHaveAttribute('aria-sort', 'ascending');
  await dana.reload();
  await expect(dana.getByRole('columnheader', { name: 'Slack' })).toHaveAttribute('aria-sort', 'ascending');
  await expect(dana.getByRole('row', { name: 'nobody' }).first()).toBeVisible();
  await expect(dana.getByRole('row').filter({ hasText: 'the client' })).toHaveCount(0);
  await dana.getByLabel('Stage').selectOption('approved');
  await expect(dana.getByText('No piece is like that')).toBeVisible();
  await expect(dana.getByText(/open pieces left out/)).toBeVisible();
  await dana.getByRole('button', { name: 'Show all', exact: true }).click();
  await expect(dana.getByRole('row').filter({ hasText: 'the client' }).first()).toBeVisible();
  await expectAccessible(dana);
  await dana.goto('/no-such-page');
  await expect(dana.getByText('There is no page at this address')).toBeVisible();
  await dana.goto('/pieces/00000000-0000-4000-8000-000000000000');
  await expect(dana.getByText('There is nothing here, or it is not yours to see.')).toBeVisible();
  await expect(dana.getByRole('link', { name: 'Go to your desk' })).toBeVisible();
  await dana.getByRole('button', { name: 'Dana Okafor, your menu' }).click();
  await dana.getByRole('menuitem', { name: 'Sign out' }).click();
  await expect(dana.getByRole('heading', { name: 'Sign in to Zesting' })).toBeVisible();
});

test('a forgotten password is set anew by mail, which signs out everywhere; a device is signed out from another', async ({
  browser,
  zesting,
}) => {
  const email = 'sunniva@quillhaven.test';
  const before = await signIn(browser, zesting, email);
  const sunniva = await visitor(browser, zesting, '/');
  await sunniva.getByLabel('E-mail').fill(email);
  await sunniva.getByRole('link', { name: 'Forgotten your password?' }).click();
  await expect(sunniva.getByLabel('E-mail')).toHaveValue(email);
  await expectAccessible(sunniva);
  await sunniva.getByRole('button', { name: 'Send me a link' }).click();
  await expect(sunniva.getByText('a link is on its way to them')).toBeVisible();
  const link = linkIn((await mailTo(zesting, email, 'A new password')).text, '/reset/');
  await sunniva.goto(link);
  const choose = async (password: string) => {
    await sunniva.getByLabel('New password').fill(password);
    await sunniva.getByLabel('The same again').fill(password);
    await sunniva.getByRole('button', { name: 'Set the password' }).click();
  };
  await choose('sunniva1234');
  await expect(sunniva.getByText('one of those that are guessed first')).toBeVisible();
  await expectAccessible(sunniva);
  await choose('two kettles, one lamp');
  await sunniva.getByRole('link', { name: `Sign in as ${email}` }).click();
  await sunniva.getByLabel('E-mail').fill(email);
  await sunniva.getByLabel('Password').fill('two kettles, one lamp');
  await sunniva.getByRole('button', { name: 'Sign in' }).click();
  await expect(sunniva.getByRole('link', { name: 'Desk' })).toBeVisible();
  await before.reload();
  await expect(before.getByRole('heading', { name: 'Sign in to Zesting' })).toBeVisible();
  await before.goto(link);
  await expect(before.getByText('This link was used, or its hour has passed.')).toBeVisible();

  const other = await visitor(browser, zesting, '/');
  expect((await other.request.post('/api/session', { data: { email, password: 'two kettles, one lamp' } })).status()).toBe(200);
  await sunniva.getByRole('button', { name: 'Sunniva Aldous, your menu' }).click();
  await sunniva.getByRole('menuitem', { name: 'Your page' }).click();
  await sunniva.getByRole('button', { name: 'Sign out there' }).click();
  await expect(sunniva.getByText('Signed out there')).toBeVisible();
  await expect(sunniva.getByRole('button', { name: 'Sign out there' })).toHaveCount(0);
  await other.reload();
  await expect(other.getByRole('heading', { name: 'Sign in to Zesting' })).toBeVisible();
});

test('a lead sets what the agency works by, and what is open is planned by it; a manager reads it', async ({ browser, zesting }) => {
  const marta = await signIn(browser, zesting, 'marta@quillhaven.test');
  await marta.getByRole('button', { name: 'Setup' }).click();
  await marta.getByRole('menuitem', { name: 'Agency' }).click();
  await marta.getByLabel('Name').fill('Quillhaven & Daughters');
  await marta.getByLabel('Tight').fill('5');
  await marta.getByRole('button', { name: 'Save' }).click();
  await expect(marta.getByText('Saved')).toBeVisible();
  const tight = "select count(*)::int as count from pieces where danger = 'tight'";
  await expect.poll(async () => (await zesting.query<{ count: number }>(tight))[0]?.count).toBeGreaterThan(0);
  const dana = await signIn(browser, zesting, 'dana@quillhaven.test');
  await dana.goto('/agency');
  await expect(dana.getByLabel('Name')).toHaveValue('Quillhaven & Daughters');
  await expect(dana.getByText('A lead changes these.')).toBeVisible();
  await expect(dana.getByRole('button', { name: 'Save' })).toHaveCount(0);
});

test('the calendar’s dialog opens and closes by keyboard, and a broken link says so', async ({ browser, zesting }) => {
  const dana = await signIn(browser, zesting, 'dana@quillhaven.test');
  await dana.goto('/calendar?client=KILN');
  const tray = dana.getByRole('complementary', { name: 'Without a date' });
  const chip = tray.getByRole('button', { name: /The four o’clock loaf/ }).first();
  await chip.focus();
  await dana.keyboard.press('Enter');
  await expect(dana.getByRole('dialog')).toBeVisible();
  await dana.keyboard.press('Escape');
  await expect(dana.getByRole('dialog')).toBeHidden();
  await expect(chip).toBeFocused();

  const guest = await visitor(browser, zesting, '/room/nothing-of-the-kind');
  await expect(guest.getByText('This link is no longer valid')).toBeVisible();
  await expectAccessible(guest);
});

test('a staff creator reads production and calendar of the clients, and cannot move or decide', async ({ browser, zesting }) => {
  const piet = await signIn(browser, zesting, 'piet@quillhaven.test');
  await expect(piet.getByRole('heading', { name: 'Your steps' })).toBeVisible();
  await expectAccessible(piet);
  await piet.getByRole('link', { name: 'Calendar' }).click();
  await expect(piet.getByRole('table')).toBeVisible();
  const outOn = dayAhead(-4).slice(0, 7);
  await piet.goto(`/calendar?month=${outOn}`);
  await expect(piet.getByRole('table')).toBeVisible();
  await expectAccessible(piet);
  await piet
    .getByRole('cell')
    .getByRole('button', { name: /Seeded rye is back/ })
    .first()
    .click();
  await expect(piet.getByRole('heading', { name: 'Seeded rye is back' })).toBeVisible();
  await expect(piet.getByRole('button', { name: 'Edit notes' })).toHaveCount(0);
  await expect(piet.getByLabel('Wish date')).toHaveCount(0);
  await expect(piet.getByRole('button', { name: 'Save' })).toBeDisabled();
  await piet.goto('/requests');
  await expect(piet.getByText('You are not allowed to do this.')).toBeVisible();
});

test('two windows move one placement: the second is told, and an unsigned piece is only pencilled', async ({ browser, zesting }) => {
  const [dana, marta] = [await signIn(browser, zesting, 'dana@quillhaven.test'), await signIn(browser, zesting, 'marta@quillhaven.test')];
  const later = dayAhead(40);
  for (const page of [dana, marta]) {
    await page.goto('/calendar?client=KILN');
    await page
      .getByRole('complementary', { name: 'Without a date' })
      .getByRole('button', { name: /Short-clip feed Inside the deck oven/ })
      .click();
    await page.getByRole('textbox', { name: 'Day' }).fill(later);
  }
  await dana.getByRole('button', { name: 'Place it there' }).click();
  await expect(dana.getByText('Pencilled until it is signed.')).toBeVisible();
  await marta.getByRole('button', { name: 'Place it there' }).click();
  await expect(marta.getByText('Somebody else moved this meanwhile')).toBeVisible();
  await dana.getByRole('button', { name: 'Undo' }).click();
  await expect(
    dana.getByRole('complementary', { name: 'Without a date' }).getByRole('button', { name: /Inside the deck oven/ }),
  ).toBeVisible();
});

test('the API describes itself: every answer and every body has a filled schema', async ({ zesting }) => {
  const document = (await (await fetch(`${zesting.address}/api/openapi.json`)).json()) as {
    components: { schemas: Record<string, { properties?: object }> };
    paths: Record<string, Record<string, { requestBody?: unknown; responses: Record<string, { content?: unknown }> }>>;
  }; // OpenAPI's own shape
  expect(Object.entries(document.components.schemas).filter(([, schema]) => Object.keys(schema.properties ?? {}).length === 0)).toEqual([]);
  const bare = Object.entries(document.paths).flatMap(([path, methods]) =>
    Object.entries(methods).flatMap(([method, { responses }]) =>
      responses['204'] || Object.values(responses).some((answer) => answer.content) ? [] : [`${method} ${path}`],
    ),
  );
  expect(bare).toEqual([]);
  const health = (await (await fetch(`${zesting.address}/api/health`)).json()) as Record<string, unknown>; // HealthShape
  expect(health).toMatchObject({ status: 'ok', database: true, jobs: true });
});

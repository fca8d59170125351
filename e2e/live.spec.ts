import { expect, expectAccessible, signIn, tellStory, test } from './zesting';

tellStory('live');

test('a change by one appears on another’s open screen by itself, and what is being typed stays', async ({ browser, zesting }) => {
  const [dana, marta] = [await signIn(browser, zesting, 'dana@quillhaven.test'), await signIn(browser, zesting, 'marta@quillhaven.test')];
  await dana.goto('/production?client=MOSS');
  await dana.getByRole('link', { name: 'Seed from your own tomatoes' }).click();
  await expect(dana.getByRole('heading', { name: 'Seed from your own tomatoes' })).toBeVisible();
  await marta.goto(new URL(dana.url()).pathname);
  await expect(dana.getByText('Marta Ilves has this open')).toBeVisible();
  await expect(marta.getByText('Dana Okafor has this open')).toBeVisible();
  await expectAccessible(dana);

  const typed = 'Half a sentence that is not';
  await dana.getByLabel('Copy', { exact: true }).fill(typed);
  await marta.getByRole('button', { name: 'Edit title and pillar' }).click();
  await marta.getByRole('dialog').getByRole('textbox', { name: 'Title' }).fill('Seed from your own best tomatoes');
  await marta.getByRole('button', { name: 'Save', exact: true }).last().click();
  await expect(dana.getByRole('heading', { name: 'Seed from your own best tomatoes' })).toBeVisible();
  await expect(dana.getByLabel('Copy', { exact: true })).toHaveText(typed);
  await expect(dana.getByLabel('Copy', { exact: true })).toBeFocused();

  await marta.goto('/production');
  await expect(dana.getByText('Marta Ilves has this open')).toBeHidden();
});

test('two windows of one browser share one stream, and the second goes on when the first is closed', async ({ browser, zesting }) => {
  const first = await signIn(browser, zesting, 'dana@quillhaven.test');
  await first.goto('/mark.svg'); // a page without a stream: what is counted begins with the next
  const streams: string[] = [];
  first.context().on('request', (request) => {
    if (request.url().endsWith('/api/live')) streams.push(request.url());
  });
  await first.goto('/');
  await expect.poll(() => streams.length).toBe(1);
  const second = await first.context().newPage();
  await second.goto('/requests?client=KILN');
  await second.getByRole('link', { name: /New oven, first bake/ }).click();
  await expect(second.getByRole('button', { name: 'Decline…' })).toBeVisible();
  const title = async (page: typeof first, requestTitle: string) => {
    await zesting.query('update requests set title = $1 where title like $2', [requestTitle, 'New oven%']);
    await zesting.query(
      "insert into activities (client_id, thing, thing_id, verb, actor, at) select client_id, 'request', id, 'request.received', 'x', now() from requests where title = $1",
      [requestTitle],
    );
    await zesting.query("select pg_notify('zesting_changes', '')");
    await expect(page.getByRole('heading', { name: requestTitle })).toBeVisible();
  };
  await title(second, 'New oven, second thoughts');
  expect(streams).toHaveLength(1); // the second window heard of it through the first
  await first.close();
  await expect.poll(() => streams.length).toBe(2);
  await title(second, 'New oven, first bake');
});

test('find and help by keyboard: pieces, actions, and back', async ({ browser, zesting }) => {
  const dana = await signIn(browser, zesting, 'dana@quillhaven.test');
  await dana.keyboard.press('Control+.');
  await expect(dana.getByRole('dialog', { name: 'Find' })).toBeVisible();
  await dana.keyboard.type('moss lawns');
  await expect(dana.getByRole('option', { name: /Moss lawns, honestly/ }).first()).toBeVisible();
  await expectAccessible(dana);
  await dana.keyboard.press('Enter');
  await expect(dana.getByRole('heading', { name: 'Moss lawns, honestly' })).toBeVisible();
  await dana.keyboard.press('Control+.');
  await dana.keyboard.type('this week');
  await expect(dana.getByRole('option', { name: /Calendar: this week/ })).toBeVisible();
  await dana.keyboard.press('Enter');
  await expect(dana).toHaveURL(/\/calendar\?view=week/);
  await dana.keyboard.press('Control+.');
  await dana.keyboard.type('zzz');
  await expect(dana.getByText('Nothing holds “zzz”.').first()).toBeVisible();
  await dana.keyboard.press('Escape');
  await dana.keyboard.press('?');
  await expect(dana.getByRole('dialog', { name: 'Keyboard help' })).toBeVisible();
  await expectAccessible(dana);
  await dana.keyboard.press('Escape');
  await expect(dana.getByRole('dialog')).toBeHidden();
});

import { dayAhead, expect, expectAccessible, signIn, tellStory, test } from './zesting';

tellStory('strategy');

test('pillars get topics and subtopics, treatments, an idea in a cell, a month; a branch comes back', async ({ browser, zesting }) => {
  const ivo = await signIn(browser, zesting, 'ivo@quillhaven.test');
  await ivo.goto('/plan/pillars?client=LOOM');
  await ivo.getByRole('button', { name: 'Name some of Wool and dye' }).click();
  const dialog = ivo.getByRole('dialog');
  await dialog.getByRole('button', { name: 'Add them' }).click();
  await expect(dialog.getByText('Name at least one, a line each.')).toBeVisible();
  await dialog.getByLabel('One on each line').fill('Plants that dye\nSheep\n');
  await dialog.getByRole('button', { name: 'Add them' }).click();
  await ivo.getByRole('button', { name: 'What can be done with Plants that dye' }).click();
  await ivo.getByRole('menuitem', { name: 'Add subtopics' }).click();
  await dialog.getByLabel('One on each line').fill('Weld\nWoad\nMadder');
  await dialog.getByRole('button', { name: 'Add them' }).click();
  await expect(ivo.getByRole('rowheader', { name: 'Madder' })).toBeVisible();
  await ivo.getByRole('button', { name: 'Treatments' }).click();
  await dialog.getByLabel('One on each line').fill('Story\nStory');
  await dialog.getByRole('button', { name: 'Keep' }).click();
  await expect(dialog.getByText('One of them stands there twice.')).toBeVisible();
  await dialog.getByLabel('One on each line').fill('Story\nHow to');
  await dialog.getByRole('button', { name: 'Keep' }).click();
  await expect(ivo.getByText(/4 subjects × 2 = 8 pieces/)).toBeVisible();
  await ivo.getByRole('button', { name: 'Catch an idea: Woad: How to' }).click();
  const row = ivo.getByRole('row', { name: /^Woad/ });
  await expect(row.getByRole('link', { name: /idea.*Woad: How to/ })).toBeVisible();
  await ivo.getByRole('button', { name: 'Put Woad into months' }).click();
  await dialog.getByRole('checkbox').nth(1).check();
  await dialog.getByRole('button', { name: 'Keep' }).click();
  await expect(dialog).toHaveCount(0);
  await ivo.goto('/plan/pillars?client=LOOM&rows=months');
  await expect(ivo.getByRole('rowheader', { name: /Woad/ })).toBeVisible();
  await expect(ivo.getByRole('rowheader', { name: 'Madder' })).toHaveCount(0);
  await expectAccessible(ivo);
  // archived, and taken back by the message that says so
  await ivo.getByRole('button', { name: 'What can be done with Woad' }).click();
  await ivo.getByRole('menuitem', { name: 'Archive' }).click();
  await expect(ivo.getByRole('rowheader', { name: /Woad/ })).toHaveCount(0);
  await ivo.getByRole('button', { name: 'Take it back' }).click();
  await expect(ivo.getByRole('rowheader', { name: /Woad/ })).toBeVisible();
});

test('a goal is set, read, and its pace told; a note on the strategy is kept', async ({ browser, zesting }) => {
  const ivo = await signIn(browser, zesting, 'ivo@quillhaven.test');
  await ivo.goto('/plan/goals?client=LOOM');
  await ivo.getByRole('button', { name: 'Set a goal' }).click();
  const dialog = ivo.getByRole('dialog');
  await dialog.getByLabel('Goal (needed)').fill('Orders for blankets');
  await dialog.getByLabel('What the figures count').fill('orders');
  await dialog.getByLabel('At the start').fill('a dozen');
  await dialog.getByRole('button', { name: 'Set it' }).click();
  await expect(dialog.getByText('Type a figure, with at most two decimals.')).toBeVisible();
  await dialog.getByLabel('At the start').fill('1,200');
  await dialog.getByLabel('Target').fill('1500');
  await dialog.getByLabel('From').fill(dayAhead(-70).split('-').reverse().join('/'));
  await dialog.getByLabel('By', { exact: false }).first().fill(dayAhead(280).split('-').reverse().join('/'));
  await dialog.getByLabel('Steps').fill('Show the loom\nAsk who ordered');
  await dialog.getByRole('button', { name: 'Set it' }).click();
  const card = ivo.getByRole('region', { name: 'Orders for blankets' });
  await expect(card.getByText('nothing read yet')).toBeVisible();
  await card.getByRole('button', { name: 'Type a reading of Orders for blankets' }).click();
  await dialog.getByLabel('Reading').fill('1230');
  await dialog.getByRole('button', { name: 'Keep it' }).click();
  await expect(card.getByText('behind')).toBeVisible();
  await expect(card.getByRole('img', { name: /Orders for blankets/ })).toBeVisible();
  // a tick is shown at once, and held while it is kept
  await card.getByLabel('Show the loom').click();
  await expect(card.getByLabel('Show the loom')).toBeChecked();
  await expect(card.getByLabel('Show the loom')).toBeEnabled();
  await ivo.reload();
  await expect(card.getByLabel('Show the loom')).toBeChecked();
  await ivo.getByRole('button', { name: 'Add to Admired' }).click();
  await dialog.getByLabel('What is known').fill('A mill that shows every mistake');
  await dialog.getByLabel('Link').fill('mill');
  await dialog.getByRole('button', { name: 'Keep' }).click();
  await expect(dialog.getByText('A link begins with https:// or http://.')).toBeVisible();
  await dialog.getByLabel('Link').fill('https://mill.example/mistakes');
  await dialog.getByRole('button', { name: 'Keep' }).click();
  await expect(ivo.getByRole('region', { name: 'Admired' }).getByText('A mill that shows every mistake')).toBeVisible();
  await expectAccessible(ivo);
});

test('a campaign is dragged a week later: what moves is shown before it does, and it can be taken back; the same by keyboard', async ({
  browser,
  zesting,
}) => {
  const marta = await signIn(browser, zesting, 'marta@quillhaven.test');
  await marta.goto('/plan/campaigns?client=MOSS');
  const bar = marta.getByRole('button', { name: /^Spring catalogue, / });
  const daysOf = async () =>
    (
      await zesting.query<{ on: string }>(
        `select l.on_day::text as on from campaigns c join campaign_pieces g on g.campaign_id = c.id join placements l on l.piece_id = g.piece_id
         where c.name = 'Spring catalogue' and l.on_day is not null order by l.id`,
      )
    ).map(({ on }) => on);
  const before = await daysOf();
  const box = await bar.boundingBox();
  const row = await marta.getByRole('list', { name: 'Campaigns' }).boundingBox();
  if (!box || !row) throw new Error('there is no bar');
  // by about a week of the quarter that is seen
  const week = ((row.width - 304) / 92) * 7;
  await marta.mouse.move(box.x + box.width / 2, box.y + box.height / 2);
  await marta.mouse.down();
  await marta.mouse.move(box.x + box.width / 2 + week, box.y + box.height / 2, { steps: 6 });
  await marta.mouse.up();
  const dialog = marta.getByRole('dialog', { name: 'Move “Spring catalogue”' });
  await expect(dialog.getByRole('button', { name: 'Everything by 7 days' })).toBeVisible();
  await expect(dialog.getByRole('list').getByRole('listitem').first()).toBeVisible();
  await expectAccessible(marta);
  expect(await daysOf()).toEqual(before); // nothing has moved yet
  await dialog.getByRole('button', { name: 'Move it' }).click();
  await expect(dialog).toHaveCount(0);
  const after = await daysOf();
  expect(after.filter((on, index) => on !== before[index]).length).toBeGreaterThan(0);
  await marta.getByRole('button', { name: 'Take it back' }).click();
  await expect.poll(daysOf).toEqual(before);
  // by keyboard: two days earlier, left with Escape; then the end alone
  await bar.focus();
  await marta.keyboard.press('ArrowLeft');
  await marta.keyboard.press('ArrowLeft');
  await marta.keyboard.press('Escape');
  await expect(dialog).toHaveCount(0);
  await marta.getByRole('button', { name: /^End of Spring catalogue, / }).focus();
  await marta.keyboard.press('Shift+ArrowRight');
  await marta.keyboard.press('Enter');
  await expect(dialog.getByRole('button', { name: /Everything by/ })).toHaveCount(0); // made longer: all stays
  await dialog.getByRole('button', { name: 'Move it' }).click();
  await expect(dialog).toHaveCount(0);
  expect(await daysOf()).toEqual(before);
});

test('the calendar is filtered by stage and campaign, coloured, kept as a view, and found again', async ({ browser, zesting }) => {
  const marta = await signIn(browser, zesting, 'marta@quillhaven.test');
  await marta.goto('/calendar');
  await marta.getByRole('button', { name: 'Filter' }).click();
  const filter = marta.getByRole('group', { name: 'Filter' });
  await filter.getByLabel('Campaign').selectOption({ label: 'Spring catalogue' });
  await expect(filter.getByRole('status')).toContainText('left out');
  await expect(marta.getByRole('button', { name: /Hedges that birds like/ }).first()).toBeVisible();
  await marta.getByRole('combobox', { name: 'Colour' }).selectOption('campaign');
  await expect(marta).toHaveURL(/campaign=/);
  await marta.getByRole('button', { name: 'Views' }).click();
  const dialog = marta.getByRole('dialog', { name: 'Views' });
  await dialog.getByLabel('Keep this view as').fill('The catalogue');
  await dialog.getByRole('button', { name: 'Keep it' }).click();
  await expect(dialog.getByRole('link', { name: 'The catalogue' })).toBeVisible();
  await expectAccessible(marta);
  await marta.keyboard.press('Escape');
  await filter.getByRole('button', { name: 'Show all' }).click();
  await expect(filter.getByRole('status')).toHaveCount(0);
  await marta.getByRole('button', { name: 'Quarter' }).click();
  await expect(marta.getByRole('table', { name: /The quarter/ })).toBeVisible();
  await marta.reload();
  await marta.getByRole('button', { name: 'Views' }).click();
  await dialog.getByRole('link', { name: 'The catalogue' }).click();
  await expect(dialog).toHaveCount(0);
  await expect(filter.getByLabel('Campaign')).toHaveValue(/.+/);
  await expect(marta.getByRole('table', { name: /The weeks ahead/ })).toBeVisible();
});

test('what stands in a month is copied into the next, after it was shown what that comes to; numbers are kept', async ({
  browser,
  zesting,
}) => {
  const dana = await signIn(browser, zesting, 'dana@quillhaven.test');
  await dana.goto('/plan/rhythm?client=MOSS');
  const numbers = dana.getByRole('form', { name: 'Numbers' });
  await numbers.getByLabel('pieces a week').fill('3');
  await numbers.getByRole('button', { name: 'Keep' }).click();
  await expect(numbers.getByRole('button', { name: 'Keep' })).toHaveCount(0);
  await dana.goto('/plan?client=MOSS');
  await expect(dana.getByRole('region', { name: 'Numbers' })).toContainText('weeks have their 3');
  const count = async () =>
    (
      await zesting.query<{ all: string }>(
        "select count(*) as all from pieces p join clients c on c.id = p.client_id where c.code = 'MOSS'",
      )
    )[0]?.all;
  const before = Number(await count());
  await dana.goto('/plan/year?client=MOSS');
  await dana
    .getByRole('button', { name: /^Theme of/ })
    .first()
    .click();
  await dana.getByRole('menuitem', { name: /^Copy what stands in/ }).click();
  const dialog = dana.getByRole('dialog', { name: /^Copy / });
  await expect(dialog.getByRole('list', { name: 'What it comes to' }).getByRole('listitem').first()).toBeVisible();
  await expectAccessible(dana);
  expect(Number(await count())).toBe(before);
  const action = dialog.getByRole('button', { name: /^Plan \d+ piece/ });
  const planned = Number(/\d+/.exec((await action.textContent()) ?? '')?.[0]);
  await action.click();
  await expect(dialog).toHaveCount(0);
  await expect.poll(async () => Number(await count())).toBe(before + planned);
});

import { readFileSync } from 'node:fs';
import { expect, expectAccessible, signIn, tellStory, test } from './zesting';

tellStory('load');

test('a piece that will be late by load is seen on the desk, explained, and saved by giving its step to somebody else', async ({
  browser,
  zesting,
}) => {
  const dana = await signIn(browser, zesting, 'dana@quillhaven.test');
  const late = dana.getByRole('region', { name: 'Will be late' });
  await expect(late.getByRole('link', { name: 'Watering by weight' })).toBeVisible();
  await expect(late).toContainText(/Write \(Noor Castellane\) is needed .*, predicted /);
  await late.getByRole('link', { name: 'Reassign' }).click();
  const path = dana.getByRole('region', { name: 'Path' });
  await expect(path).toContainText('The days would do, the hours do not: Write is needed');
  await expect(path.getByText(/^Predicted to end/).first()).toBeVisible();
  await expectAccessible(dana);
  await path.getByRole('button', { name: 'Write: Noor Castellane. Choose a person' }).click();
  const dialog = dana.getByRole('dialog', { name: 'Who does “Write”?' });
  await expect(dialog.getByRole('listitem').filter({ hasText: 'Noor Castellane' })).toContainText(/predicted to end .*, needed /);
  const inTime = dialog.getByRole('listitem').filter({ hasNotText: ', needed ' }).first();
  await inTime.getByRole('button', { name: /^Give to/ }).click();
  await expect(dialog).toBeHidden();
  // the prediction follows by a job, and the page by itself
  await expect(path).not.toContainText('the hours do not');
  await expect(dana.getByText('Will be late')).toHaveCount(0);
});

test('a creator says how much is left, by keyboard, and the prediction goes by it', async ({ browser, zesting }) => {
  const sunniva = await signIn(browser, zesting, 'sunniva@quillhaven.test');
  const line = sunniva.getByRole('listitem').filter({ hasText: 'Newsletter: the shearing calendar' });
  const predicted = async () => (await line.getByText(/^predicted /).innerText()).replace('predicted ', '');
  await expect(line.getByText(/^predicted /)).toBeVisible();
  const before = await predicted();
  const left = line.getByRole('button', { name: /left in Write of Newsletter/ });
  await left.focus();
  await sunniva.keyboard.press('Enter');
  await expect(line.getByRole('spinbutton')).toBeFocused();
  await sunniva.keyboard.type('60');
  await sunniva.keyboard.press('Enter');
  await expect(left).toHaveText('60 h left');
  await expect(left).toBeFocused();
  await expect.poll(predicted).not.toBe(before);
  await left.press('Enter');
  await line.getByRole('spinbutton').fill('2000');
  await sunniva.keyboard.press('Enter');
  await expect(sunniva.getByText('Hours left are a number from 0 to 1000. Nothing was changed.')).toBeVisible();
  await expect(line.getByRole('spinbutton')).toHaveValue('2000');
  await line.getByRole('spinbutton').fill('7');
  await sunniva.keyboard.press('Escape');
  await expect(left).toHaveText('60 h left');
  await left.press('Enter');
  await line.getByRole('spinbutton').fill('');
  await sunniva.keyboard.press('Enter');
  await expect(left).toHaveText('4 h left');
  await expect.poll(predicted).toBe(before);
});

test('a fee is agreed on, a rate said, and the month tells what an hour brings; a manager sees no rates', async ({ browser, zesting }) => {
  const [kiln] = await zesting.query<{ id: string }>("select id from clients where code = 'KILN'");
  const [teo] = await zesting.query<{ id: string }>("select id from people where email = 'teo@lightroomers.test'");
  const dana = await signIn(browser, zesting, 'dana@quillhaven.test');
  await dana.goto(`/clients/${kiln?.id}?part=allowance`);
  const fee = dana.getByRole('region', { name: 'Fee' });
  await fee.getByLabel(/^Fee of a month/).last().fill('6,000'); // prettier-ignore
  await fee.getByRole('button', { name: 'Save' }).click();
  await expect(fee.getByRole('button', { name: 'Save' })).toBeDisabled();
  await expectAccessible(dana);
  await dana.goto('/production/load');
  const fees = dana.getByRole('region', { name: /^Fees in / });
  await expect(fees.getByRole('row').filter({ hasText: 'KILN' })).toContainText('£6,000.00');
  await expect(fees).not.toContainText('Hours cost');
  await dana.goto(`/people/${teo?.id}`);
  await expect(dana.getByRole('heading', { name: 'Teo Brandvold' })).toBeVisible();
  await expect(dana.getByRole('region', { name: 'Rate' })).toHaveCount(0);

  const marta = await signIn(browser, zesting, 'marta@quillhaven.test');
  await marta.goto(`/people/${teo?.id}`);
  const rate = marta.getByRole('region', { name: 'Rate' });
  await rate.getByLabel(/^An hour/).fill('ten');
  await expect(rate).toContainText('This is no amount.');
  await rate.getByLabel(/^An hour/).fill('61,50');
  await rate.getByRole('button', { name: 'Save' }).click();
  await expect(rate.getByRole('button', { name: 'Save' })).toBeDisabled();
  await marta.reload();
  await expect(rate.getByLabel(/^An hour/)).toHaveValue('61.50');
  await marta.goto('/production/load');
  await expect(marta.getByRole('region', { name: /^Fees in / })).toContainText('Hours cost');
  const freelance = await signIn(browser, zesting, 'teo@lightroomers.test');
  await freelance.goto(`/people/${teo?.id}`);
  await expect(freelance.getByRole('region', { name: 'Rate' })).toContainText('£61.50');
});

test('production as a sheet: given out, renamed and pasted many at once, saved by line, and taken away', async ({ browser, zesting }) => {
  const dana = await signIn(browser, zesting, 'dana@quillhaven.test');
  await dana.goto('/production?client=KILN');
  await dana.getByRole('navigation', { name: 'Production' }).getByRole('link', { name: 'Sheet' }).click();
  const sheet = dana.getByRole('table', { name: 'Sheet' });
  const titles = sheet.getByRole('textbox', { name: /^Title of / });
  const doers = sheet.getByRole('combobox', { name: /^Who has of / });
  const save = dana.getByRole('button', { name: /^Save( |$)/ });
  await expect(titles.nth(2)).toBeVisible();
  await expectAccessible(dana);

  await test.step('put together and ordered, as the address holds it', async () => {
    await dana.getByLabel('Put together by').selectOption('stage');
    await expect(sheet.getByRole('cell', { name: /^Planned .* left/ })).toBeVisible();
    await sheet.getByRole('button', { name: 'Left' }).click();
    await dana.reload();
    await expect(sheet.getByRole('columnheader', { name: 'Left' })).toHaveAttribute('aria-sort', 'ascending');
    await expect(sheet.getByRole('cell', { name: /^Planned .* left/ })).toBeVisible();
    await dana.getByLabel('Put together by').selectOption('');
  });

  await test.step('given to one person, many at once', async () => {
    const named = (await doers.all()).slice(0, 2).map((one) => one.getAttribute('aria-label'));
    const ofWhat = (await Promise.all(named)).map((label) => (label ?? '').replace('Who has of ', ''));
    for (const title of ofWhat) await sheet.getByRole('checkbox', { name: `Choose ${title}`, exact: true }).check();
    const many = dana.getByRole('group', { name: 'Chosen pieces' });
    await many.getByLabel('With').selectOption({ label: 'Sunniva Aldous' });
    await expect(dana.getByRole('status').filter({ hasText: 'Nothing is saved yet.' })).toBeVisible();
    await save.click();
    await expect(dana.getByText(/^[12] pieces? saved$/)).toBeVisible();
    await dana.reload();
    for (const title of ofWhat)
      await expect(sheet.getByRole('combobox', { name: `Who has of ${title}`, exact: true }).locator('option:checked')).toHaveText(
        'Sunniva Aldous',
      );
  });

  await test.step('pasted from a spreadsheet, and taken back', async () => {
    const before = await titles.first().inputValue();
    await titles.first().evaluate((cell) => {
      const clipboardData = new DataTransfer();
      clipboardData.setData('text/plain', 'Rye by night\tNo such thing\r\nRye by day\t\r\n');
      cell.dispatchEvent(new ClipboardEvent('paste', { clipboardData, bubbles: true, cancelable: true }));
    });
    await expect(dana.getByRole('status').filter({ hasText: '3 cells filled, 1 could not be. Nothing is saved yet.' })).toBeVisible();
    await expect(titles.first()).toHaveValue('Rye by night');
    await dana.getByRole('button', { name: 'Take it back' }).click();
    await expect(titles.first()).toHaveValue(before);
    await expect(save).toBeDisabled();
  });

  await test.step('what a lead changes meanwhile is told, and nothing that was typed is lost', async () => {
    const label = (await titles.first().getAttribute('aria-label')) ?? '';
    const mine = titles.first();
    await mine.fill('As Dana has it');
    const marta = await signIn(browser, zesting, 'marta@quillhaven.test');
    await marta.goto('/production/sheet?client=KILN');
    await marta.getByRole('textbox', { name: label, exact: true }).fill('As Marta has it');
    await marta.getByRole('button', { name: 'Save 1 line' }).click();
    await expect(marta.getByText('1 piece saved')).toBeVisible();
    const behind = dana.getByRole('list', { name: 'Changed by somebody else meanwhile' });
    await expect(behind).toContainText('Somebody else changed “As Marta has it” meanwhile.');
    await expect(save).toBeDisabled();
    await expectAccessible(dana);
    await behind.getByRole('button', { name: 'Keep what I put in' }).click();
    await dana.getByRole('button', { name: 'Save 1 line' }).click();
    await expect(dana.getByText('1 piece saved')).toBeVisible();
    await expect(marta.getByRole('textbox', { name: 'Title of As Dana has it', exact: true })).toBeVisible();
    await marta.context().close();
  });

  await test.step('taken away, with the columns that are shown', async () => {
    await dana.getByRole('button', { name: 'Columns' }).click();
    await dana.getByRole('menuitemcheckbox', { name: 'Channels' }).click();
    await dana.keyboard.press('Escape');
    const [file] = await Promise.all([dana.waitForEvent('download'), dana.getByRole('link', { name: 'As CSV' }).click()]);
    const text = readFileSync((await file.path()) ?? '', 'utf8');
    expect(text.split('\r\n')[0]).toBe('\ufeffClient,Piece,Format,Pillar,Channels,Stage,At hand,With,Aim,Left (h),Danger');
    expect(text).toContain('As Dana has it');
    const [book] = await Promise.all([dana.waitForEvent('download'), dana.getByRole('link', { name: 'As a spreadsheet' }).click()]);
    expect(book.suggestedFilename()).toBe('pieces.xlsx');
    await sheet.getByRole('link', { name: 'Open As Dana has it' }).click();
    await expect(dana.getByRole('heading', { name: 'As Dana has it' })).toBeVisible();
    await dana.goBack();
    await expect(sheet.getByRole('columnheader', { name: 'Channels' })).toBeVisible();
  });
});

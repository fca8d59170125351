import { nextMonth } from '@zesting/core';
import { expect, expectAccessible, signIn, tellStory, test, dayAhead } from './zesting';

tellStory('plan');

/** A whole month that lies ahead. */
const month = nextMonth(dayAhead(0).slice(0, 7), 2);
const IDEAS = [
  'Why a bell has a waist',
  'The oldest rope in the yard',
  'Casting day, hour by hour',
  'Who rings on Sundays',
  'Bronze, and what else is in it',
];

test('a client without anything: rhythm, theme, ideas by phone, a proposal, and a month of planned pieces', async ({
  browser,
  zesting,
}) => {
  const marta = await signIn(browser, zesting, 'marta@quillhaven.test');
  await marta.goto('/clients');
  await marta.getByRole('button', { name: 'Take on a client' }).click();
  await marta.getByLabel('Name (needed)').fill('Bellfounders’ Row');
  await marta.getByLabel('Code (needed)').fill('BELL');
  await marta.getByRole('checkbox', { name: 'Photo feed' }).check();
  await marta.getByRole('checkbox', { name: 'Blog', exact: true }).check();
  await marta.getByRole('button', { name: 'Take on', exact: true }).click();
  await expect(marta.getByRole('heading', { name: 'Bellfounders’ Row' })).toBeVisible();
  const [{ id: clientId } = { id: '' }] = await zesting.query<{ id: string }>("select id from clients where code = 'BELL'");
  await zesting.query(
    "insert into pillars (client_id, name, share, position) values ($1, 'The foundry', 60, 0), ($1, 'The ringers', 40, 1)",
    [clientId],
  );

  await test.step('its rhythm: Tuesdays and Thursdays, and the last Friday of the month', async () => {
    await marta.goto('/plan?client=BELL');
    await expect(marta.getByText('Bellfounders’ Row has no rhythm yet')).toBeVisible();
    await expectAccessible(marta);
    await marta.getByRole('link', { name: 'Set the rhythm' }).click();
    await marta.getByRole('button', { name: 'Add to the rhythm' }).click();
    const dialog = marta.getByRole('dialog', { name: 'Add to the rhythm' });
    await expectAccessible(marta);
    await dialog.getByRole('button', { name: 'Thursday' }).click();
    await dialog.getByLabel('Time').fill('half past nine');
    await dialog.getByRole('button', { name: 'Add it' }).click();
    await expect(dialog.getByText('This is no time. Try 9:30 or 17.')).toBeVisible();
    await dialog.getByLabel('Time').fill('9.30');
    await dialog.getByLabel('Format').selectOption({ label: 'Still' });
    await dialog.getByRole('button', { name: 'Add it' }).click();
    await expect(marta.getByRole('region', { name: 'Photo feed' }).getByText('Tuesday and Thursday at 09:30')).toBeVisible();
    await marta.getByRole('button', { name: 'Add to the rhythm' }).click();
    await dialog.getByRole('button', { name: 'Own rule' }).click();
    await dialog.getByLabel('Rule', { exact: true }).fill('every last Friday');
    await dialog.getByLabel('Channel').selectOption({ label: 'Blog' });
    await dialog.getByRole('button', { name: 'Add it' }).click();
    await expect(dialog.getByText('This is no recurrence rule of days')).toBeVisible();
    await dialog.getByRole('button', { name: 'Nth weekday' }).click();
    await expect(dialog.getByText('The last Friday of every month')).toBeVisible();
    await dialog.getByRole('button', { name: 'Add it' }).click();
    await expect(marta.getByRole('region', { name: 'Blog' }).getByText('The last Friday of every month at')).toBeVisible();
    await expectAccessible(marta);
  });

  await test.step('five ideas, caught on the way by phone', async () => {
    const phone = await signIn(browser, zesting, 'marta@quillhaven.test', { viewport: { width: 390, height: 844 }, hasTouch: true });
    await phone.goto('/plan/ideas?client=BELL');
    for (const idea of IDEAS) {
      await phone.getByLabel('An idea in one line').fill(idea);
      await phone.getByLabel('An idea in one line').press('Enter');
      await expect(phone.getByRole('list', { name: 'Ideas' }).getByRole('button', { name: idea })).toBeVisible();
    }
    await expectAccessible(phone);
    expect(await phone.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(390);
    await phone.getByLabel('An idea in one line').fill('Casting day hour by hour');
    await phone.getByLabel('An idea in one line').press('Enter');
    await expect(phone.getByText('There is something like it already')).toBeVisible();
    await phone.getByRole('button', { name: 'Casting day hour by hour' }).click();
    await phone.getByRole('button', { name: 'Drop it' }).click();
    await expect(phone.getByRole('button', { name: 'Casting day hour by hour' })).toHaveCount(0);
  });

  await test.step('one is weighed, given its pillar, and kept', async () => {
    await marta.goto('/plan/ideas?client=BELL');
    await marta.getByRole('button', { name: IDEAS[1] ?? '' }).click();
    const dialog = marta.getByRole('dialog', { name: 'Idea' });
    await dialog.getByRole('button', { name: 'Merit 5 of 5' }).click();
    await dialog.getByLabel('Link').fill('rope');
    await dialog.getByLabel('Pillar').selectOption({ label: 'The foundry' });
    await dialog.getByRole('button', { name: 'Keep', exact: true }).click();
    await expect(dialog.getByText('A link begins with https://')).toBeVisible();
    await expectAccessible(marta);
    await dialog.getByLabel('Link').fill('https://rope.test/oldest');
    await dialog.getByRole('button', { name: 'Keep', exact: true }).click();
    await expect(dialog).toBeHidden();
    await expect(marta.getByRole('list', { name: 'Ideas' }).getByRole('listitem').first()).toContainText(IDEAS[1] ?? '');
  });

  await test.step('the month: a theme, a proposal of which one line is left out', async () => {
    await marta.goto(`/plan?client=BELL&month=${month}`);
    await marta.getByRole('textbox', { name: /^Theme of/ }).fill('Casting and bronze');
    await marta.getByRole('button', { name: 'Set', exact: true }).click();
    await expect(marta.getByText('The theme is set')).toBeVisible();
    await marta.getByRole('button', { name: 'Propose the month' }).click();
    await expect(marta.getByText('slots proposed.')).toBeVisible();
    await expect(marta.getByText('speaks to “Casting and bronze”').first()).toBeVisible();
    const ticks = marta.getByRole('table').getByRole('checkbox');
    await expect(ticks.first()).toBeChecked();
    const before = await ticks.count();
    await ticks.first().uncheck();
    await expectAccessible(marta);
    await marta.getByRole('button', { name: `Take ${before - 1} of ${before}` }).click();
    await expect(marta.getByText(`${before - 1} slots filled`)).toBeVisible();
    await expect(marta.getByText(`${before - 1} of`).first()).toBeVisible();
    await expect(marta.getByRole('table').getByText('Pencilled')).toHaveCount(before - 1);
    await marta.reload();
    await expect(marta.getByRole('table').getByText('Pencilled')).toHaveCount(before - 1);
  });

  await test.step('one slot is filled by hand, one left out and taken in again, one planned without an idea', async () => {
    const open = marta.getByRole('button', { name: /^See what fits on/ });
    const count = (await open.count()) - 1;
    await open.first().click();
    const fits = marta.getByRole('region', { name: 'What fits' });
    await fits
      .getByRole('button', { name: /^Put here: “/ })
      .first()
      .click();
    await expect(marta.getByText('1 slot filled')).toBeVisible();
    await expect(open).toHaveCount(count);
    await open.first().click();
    await fits.getByRole('button', { name: 'Leave this slot out' }).click();
    await expect(open).toHaveCount(count - 1);
    await marta.getByRole('button', { name: 'Undo' }).click();
    await expect(open).toHaveCount(count);
    await open.first().click();
    await fits.getByRole('button', { name: 'Plan without an idea' }).click();
    await expect(marta.getByRole('link', { name: /^Still for / })).toBeVisible();
    await expectAccessible(marta);
  });

  await test.step('the pieces have their paths, the desk says that nobody has them, the calendar shows what is still open', async () => {
    await marta
      .getByRole('table')
      .getByRole('link', { name: IDEAS[0] ?? '' })
      .click();
    await expect(marta.getByRole('heading', { name: IDEAS[0] ?? '' })).toBeVisible();
    await marta.goto('/?client=BELL');
    await expect(marta.getByRole('region', { name: 'Nobody has it' }).getByRole('link', { name: IDEAS[0] ?? '' })).toBeVisible();
    await expect(marta.getByRole('region', { name: 'Runway' }).getByRole('link', { name: /Bellfounders/ })).toContainText('day');
    await marta.goto(`/calendar?client=BELL&view=month&month=${nextMonth(month, 1)}`);
    await marta
      .getByRole('link', { name: /^09:30/ })
      .first()
      .click();
    await expect(marta.getByRole('region', { name: 'What fits' })).toBeVisible();
    await marta.goBack();
    await marta.getByRole('checkbox', { name: 'Slots' }).click();
    await expect(marta.getByRole('link', { name: /^09:30/ })).toHaveCount(0);
  });
});

test('two windows fill the same slot: one does, the other is told, and nothing of either is lost', async ({ browser, zesting }) => {
  const one = await signIn(browser, zesting, 'dana@quillhaven.test');
  const other = await signIn(browser, zesting, 'dana@quillhaven.test');
  await other.route('**/api/live*', () => undefined); // never answered: the pages opened from here on hear of nothing
  for (const page of [one, other]) {
    await page.goto(`/plan?client=MOSS&month=${month}`);
    await page
      .getByRole('button', { name: /^See what fits on/ })
      .first()
      .click();
  }
  await one
    .getByRole('button', { name: /^Put here: “/ })
    .first()
    .click();
  await expect(one.getByText('1 slot filled')).toBeVisible();
  await other
    .getByRole('button', { name: /^Put here: “/ })
    .nth(1)
    .click();
  await expect(other.getByText('Something stands in this slot already.')).toBeVisible();
});

test('a conference falls on a production day: the shortage is said, and the day made up for', async ({ browser, zesting }) => {
  const dana = await signIn(browser, zesting, 'dana@quillhaven.test');
  const [{ on } = { on: '' }] = await zesting.query<{ on: string }>(
    "select start_on::text as on from markers where name = 'Filming at the oven'",
  );
  await dana.goto(`/plan?client=KILN&month=${on.slice(0, 7)}`);
  await dana.getByRole('region', { name: 'Markers' }).getByRole('button', { name: 'Filming at the oven' }).click();
  const dialog = dana.getByRole('dialog', { name: 'Filming at the oven' });
  await expect(dialog.getByText('2 pieces short')).toBeVisible();
  await expect(dialog.getByText('Grain and milling fair stands in its way.')).toBeVisible();
  await expectAccessible(dana);
  await dialog.getByRole('button', { name: /^Make it up on/ }).click();
  await dialog.getByRole('button', { name: 'Change it' }).click();
  await expect(dialog).toBeHidden();
  await dana.getByRole('region', { name: 'Markers' }).getByRole('button', { name: 'Filming at the oven' }).click();
  await expect(dialog.getByText('2 of 3')).toBeVisible();
  await expect(dialog.getByText('stands in its way')).toHaveCount(0);
  await expect(dialog.getByText('pieces short')).toHaveCount(0);
});

test('the year by keyboard: a layer hidden, two themes swapped and swapped back, a month reached', async ({ browser, zesting }) => {
  const dana = await signIn(browser, zesting, 'dana@quillhaven.test');
  await dana.goto(`/plan/year?client=MOSS&month=${month}`);
  const table = dana.getByRole('table', { name: 'The year of Mossgrove Nursery' });
  await expect(table.getByRole('row')).toHaveCount(9);
  await dana.getByRole('checkbox', { name: 'Holidays and observances' }).focus();
  await dana.keyboard.press('Space');
  await expect(table.getByRole('row')).toHaveCount(8);
  await dana.reload();
  await expect(table.getByRole('row')).toHaveCount(8);
  const themes = table.getByRole('row', { name: /^Themes/ }).getByRole('button');
  const [first, second] = [await themes.nth(0).innerText(), await themes.nth(1).innerText()];
  await themes.nth(0).focus();
  await dana.keyboard.press('Enter');
  const last = dana.getByRole('menuitem', { name: /^Swap with/ }).last();
  await expect(last).toBeVisible();
  // the last of all is to copy the month
  await dana.keyboard.press('End');
  await dana.keyboard.press('ArrowUp');
  await expect(last).toBeFocused();
  await dana.keyboard.press('Enter');
  await expect(themes.nth(0)).toHaveText(second);
  await expect(themes.nth(1)).toHaveText(first);
  await dana.getByRole('button', { name: 'Undo' }).focus();
  await dana.keyboard.press('Enter');
  await expect(themes.nth(0)).toHaveText(first);
  await table
    .getByRole('link', { name: /slots filled$/ })
    .nth(2)
    .focus();
  await dana.keyboard.press('Enter');
  await expect(dana.getByRole('table', { name: 'Slots of the month' })).toBeVisible();
});

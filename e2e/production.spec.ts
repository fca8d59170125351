import type { Locator, Page } from '@playwright/test';
import { expect, expectAccessible, signIn, tellStory, test } from './zesting';

tellStory('production');

/** The middle of what is seen of something. */
async function middleOf(what: Locator): Promise<{ x: number; y: number }> {
  await what.scrollIntoViewIfNeeded();
  const box = await what.boundingBox();
  if (!box) throw new Error('it is not to be seen');
  return { x: box.x + box.width / 2, y: box.y + box.height / 2 };
}

/** Drags from one place to another as a hand does, and lets go. */
async function drag(page: Page, from: { x: number; y: number }, to: { x: number; y: number }, before?: () => Promise<void>): Promise<void> {
  await page.mouse.move(from.x, from.y);
  await page.mouse.down();
  await page.mouse.move((from.x + to.x) / 2, (from.y + to.y) / 2, { steps: 5 });
  await page.mouse.move(to.x, to.y, { steps: 5 });
  await before?.();
  await page.mouse.up();
}

test('what would help a late piece is told with what it does to others, and taken with one press', async ({ browser, zesting }) => {
  const dana = await signIn(browser, zesting, 'dana@quillhaven.test');
  await dana.getByRole('region', { name: 'Will be late' }).getByRole('link', { name: 'Watering by weight' }).click();
  const path = dana.getByRole('region', { name: 'Path' });
  await path.getByRole('button', { name: 'What would help' }).click();
  const dialog = dana.getByRole('dialog', { name: 'What would help' });
  const first = dialog.getByRole('listitem').filter({ hasText: 'makes its date' }).first();
  await expect(first).toContainText('No other piece becomes late by it.');
  await expect(dialog.getByText(/^\d+ changes? tried\.$/)).toBeVisible();
  await expect(dialog.getByText(/^Publish it on .* or later/)).toBeVisible();
  await expectAccessible(dana);
  await dana.reload(); // the address holds what is open
  await expect(first).toBeVisible();
  await zesting.query(
    "update steps set version = version + 1 where title = 'Write' and piece_id = (select id from pieces where title = 'Watering by weight')",
  );
  await first.getByRole('button', { name: 'Do it' }).click();
  await expect(dialog.getByRole('alert')).toContainText('Somebody else changed this meanwhile'); // and what helps is looked for anew
  await expect(first).toBeVisible();
  await first.getByRole('button', { name: 'Do it' }).click();
  await expect(dialog).toHaveCount(0);
  await expect(path).not.toContainText('the hours do not');
  await expect(path.getByRole('button', { name: 'What would help' })).toHaveCount(0);
});

test('the path of a piece is changed by hand, and what moves is shown before anything is saved', async ({ browser, zesting }) => {
  const dana = await signIn(browser, zesting, 'dana@quillhaven.test');
  await dana.goto('/production?client=MOSS');
  await dana.getByRole('link', { name: 'Gift plants for small flats' }).click();
  const path = dana.getByRole('region', { name: 'Path' });
  const dialog = dana.getByRole('dialog');
  const moves = dialog.getByRole('region', { name: 'What moves' });
  const steps = path.getByRole('list').first().getByRole('listitem');

  await test.step('other days: dates before and after, saved when it is said', async () => {
    await path.getByRole('button', { name: 'Change Design' }).click();
    await dialog
      .getByRole('button', { name: 'Change it' })
      .or(dialog.getByRole('button', { name: 'Pin it' }))
      .click();
    await expect(dialog.getByRole('alert')).toHaveText('Choose a day, or take the one away that is pinned.');
    await dialog.getByRole('button', { name: 'Days and hours' }).click();
    await dialog.getByLabel('Working days').fill('0');
    await dialog.getByRole('button', { name: 'Change it' }).click();
    await expect(dialog.getByRole('alert')).toContainText('1 to 60 whole days');
    await dialog.getByLabel('Working days').fill('4');
    const write = moves.getByRole('row', { name: /^Write/ });
    await expect(write).toContainText('→');
    await expectAccessible(dana);
    await expect(dana.locator('section[aria-labelledby="path"]')).not.toContainText('4 working days, done'); // nothing is saved
    await dana.route('**/path', (route) => route.abort());
    await dialog.getByRole('button', { name: 'Change it' }).click();
    await expect(dialog.getByRole('alert')).toBeVisible();
    await expect(dialog.getByLabel('Working days')).toHaveValue('4'); // what was typed is still there
    await dana.unroute('**/path');
    await dialog.getByRole('button', { name: 'Change it' }).click();
    await expect(dialog).toHaveCount(0);
    await expect(path).toContainText('4 working days, done');
  });

  await test.step('a step comes in, one is split, and both stand where they were put', async () => {
    await path.getByRole('button', { name: 'Change Design' }).click();
    await dialog.getByRole('button', { name: 'Add a step' }).click();
    await dialog.getByRole('button', { name: 'Add it' }).click();
    await expect(dialog.getByRole('alert')).toHaveText('A step needs a name.');
    await dialog.getByLabel('Name of the new step').fill('Proof the plant names');
    await dialog.getByLabel('What it does').selectOption('check');
    await dialog.getByLabel('Where it stands').selectOption({ label: 'after “Design”' });
    await expect(moves.getByRole('row', { name: /Proof the plant names new/ })).toBeVisible();
    await dialog.getByRole('button', { name: 'Add it' }).click();
    await expect(steps.nth(2)).toContainText('Proof the plant names');
    await path.getByRole('button', { name: 'Change Design' }).click();
    await dialog.getByRole('button', { name: 'Split', exact: true }).click();
    await dialog.getByLabel('Name of the second part').fill('Design for phones');
    await dialog.getByLabel('Where it stands').selectOption({ label: 'at the same time' });
    await dialog.getByRole('button', { name: 'Split it' }).click();
    await expect(steps.nth(2)).toContainText('Design for phones');
  });

  await test.step('a finish is pinned, seen, and let go of; a day off is refused', async () => {
    await path.getByRole('button', { name: 'Change Write' }).click();
    const day = dialog.getByLabel('To be finished on');
    await day.fill('13 Mar 2027'); // a Saturday
    await day.press('Tab');
    await expect(moves).toContainText('does not work on that day');
    await day.fill('16 Mar 2027');
    await day.press('Tab');
    await expect(moves.getByRole('table').or(moves.getByText('No date moves.'))).toBeVisible();
    await dialog.getByRole('button', { name: 'Pin it' }).click();
    await expect(path).toContainText('Pinned to Tue 16 Mar');
    await expect(dialog).toHaveCount(0);
    await dana.reload();
    await expect(path).toContainText('pinned by hand');
    await path.getByRole('button', { name: 'Change Write' }).click();
    await dialog.getByLabel('To be finished on').fill('');
    await dialog.getByRole('button', { name: 'Take the pin away' }).click();
    await expect(path).not.toContainText('Pinned to');
  });

  await test.step('what was added is left out again; a step of the route can be brought back', async () => {
    await path.getByRole('button', { name: 'Change Proof the plant names' }).click();
    await dialog.getByRole('button', { name: 'Leave out' }).click();
    await expect(moves.getByRole('row', { name: /Proof the plant names/ })).toContainText('goes');
    await dialog.getByRole('button', { name: 'Leave it out' }).click();
    await expect(steps.filter({ hasText: 'Proof the plant names' })).toHaveCount(0);
    await zesting.query(
      "update steps set optional = true where title = 'Design' and piece_id = (select id from pieces where title = 'Gift plants for small flats')",
    );
    await expect(dialog).toHaveCount(0); // it goes back in the history, which a reload must not cut short
    await dana.reload();
    // what is predicted anew moves the button while it is pressed
    await expect(async () => {
      await path.getByRole('button', { name: 'Change Design', exact: true }).click({ timeout: 5_000 });
      await expect(dialog).toBeVisible({ timeout: 3_000 });
    }).toPass();
    await dialog.getByRole('button', { name: 'Leave out' }).click();
    await dialog.getByRole('button', { name: 'Leave it out' }).click();
    await path.getByRole('button', { name: 'Bring Design back' }).click();
    await expect(path.getByRole('list', { name: 'Left out' })).toHaveCount(0);
    await expect(steps.filter({ hasText: /^Design/ }).first()).toBeVisible();
    const activity = dana.getByRole('region', { name: 'Activity' });
    await expect(activity.or(dana.locator('main'))).toContainText('brought back');
  });
});

test('the line: the same drag by mouse and by keyboard, what it does told on the way, and taken back', async ({ browser, zesting }) => {
  const dana = await signIn(browser, zesting, 'dana@quillhaven.test');
  await dana.goto('/production?client=KILN');
  await dana.getByRole('link', { name: 'Line', exact: true }).click();
  await expect(dana).toHaveURL(/\/production\/line\?client=KILN$/); // what was asked for stays
  const row = dana.getByRole('listitem').filter({ hasText: 'Inside the deck oven' });
  const bar = row.getByRole('button', { name: /^Script, .*Arrow keys/ });
  const hint = dana.getByRole('status').filter({ hasText: 'Inside the deck oven: Script' });
  const pin = async () =>
    (
      await zesting.query<{ on: string | null }>(
        "select s.pinned_finish_on::text as on from steps s join pieces p on p.id = s.piece_id where p.title = 'Inside the deck oven' and s.title = 'Script'",
      )
    )[0]?.on ?? null;
  await expect(bar).toBeVisible();
  await expectAccessible(dana);
  const [track, from] = [await row.locator('[data-axis]').boundingBox(), await middleOf(bar)];
  const dayWidth = (track?.width ?? 0) / 28;

  await drag(dana, from, { x: from.x + 7 * dayWidth, y: from.y }, async () => {
    await expect(hint).toContainText(/To be finished on/);
  });
  await expect(dana.getByText(/“Script” is pinned to/)).toBeVisible();
  await expect.poll(pin).not.toBeNull();
  const byMouse = await pin();
  await expect(bar).toHaveAccessibleName(/pinned to/);
  await dana.getByRole('button', { name: 'Undo' }).click();
  await expect.poll(pin).toBeNull();
  await expect(bar).toHaveAccessibleName(/finish by/);

  await bar.focus();
  await dana.keyboard.press('Shift+ArrowRight');
  await expect(hint).toContainText(/To be finished on/);
  await dana.keyboard.press('Escape');
  await expect(hint).toHaveCount(0);
  await dana.keyboard.press('Shift+ArrowRight');
  await dana.keyboard.press('Enter');
  await expect.poll(pin).toBe(byMouse);

  await test.step('its end gives it more days; so many that it cannot be met is said while it is held', async () => {
    const end = row.getByRole('button', { name: /^End of Script/ });
    await expect(end).toHaveCount(0); // a day of four weeks is too narrow for two things to take hold of
    // what the pin does to the order of work has been reckoned
    await expect.poll(async () => (await zesting.query('select 1 from predictions_wanted')).length).toBe(0);
    await dana.setViewportSize({ width: 2560, height: 900 });
    await expect(bar).toHaveAccessibleName(/pinned to Tue 16 Mar/);
    await end.focus();
    for (let times = 0; times < 3; times++) await dana.keyboard.press('Shift+ArrowRight');
    await expect(hint).toContainText(/out of reach|overdue/);
    await dana.keyboard.press('Escape');
    await dana.keyboard.press('ArrowRight');
    await expect(hint).toContainText('Nothing changes.'); // Noor is off on Wednesdays
    await dana.keyboard.press('ArrowRight');
    await dana.keyboard.press('Enter');
    await expect(dana.getByText(/“Script” has \d working days\./)).toBeVisible();
    await dana.setViewportSize({ width: 1280, height: 800 });
  });

  await test.step('the diamond moves the day that it goes out', async () => {
    const mark = row.getByRole('button', { name: /^(Wished for|.*goes out)/ });
    await mark.focus();
    await dana.keyboard.press('ArrowLeft');
    await expect(dana.getByRole('status').filter({ hasText: 'Goes out on' })).toBeVisible();
    await dana.keyboard.press('Enter');
    await expect(dana.getByRole('button', { name: 'Undo' }).first()).toBeVisible();
  });

  await test.step('somebody else changed the step meanwhile: nothing is overwritten', async () => {
    await dana.route('**/api/live*', (route) => route.abort());
    await zesting.query(
      "update steps set version = version + 5 where title = 'Script' and piece_id = (select id from pieces where title = 'Inside the deck oven')",
    );
    await bar.focus();
    await dana.keyboard.press('ArrowLeft');
    await dana.keyboard.press('Enter');
    await expect(dana.getByText('Somebody else changed this meanwhile').first()).toBeVisible();
    await dana.unroute('**/api/live*');
  });

  await test.step('narrowed, it says how much it leaves out; later days, and a shorter time', async () => {
    await dana.getByLabel('Danger').selectOption({ label: 'Overdue' });
    await expect(dana.getByText(/left out$/)).toBeVisible();
    await dana.reload();
    await expect(dana.getByLabel('Danger')).toHaveValue('overdue');
    await dana.getByRole('button', { name: 'Show all', exact: true }).click();
    await dana.getByRole('button', { name: '3 months' }).click();
    await dana.getByRole('button', { name: 'Later' }).click();
    await expect(dana).toHaveURL(/from=/);
    await dana.getByRole('button', { name: 'This week' }).click();
    await expect(dana).not.toHaveURL(/from=/);
  });
});

test('load: who has too much and by what, and a step is given away by mouse, taken back, and given by keyboard', async ({
  browser,
  zesting,
}) => {
  const marta = await signIn(browser, zesting, 'marta@quillhaven.test');
  await marta.goto('/production/load');
  const grid = marta.getByRole('grid', { name: 'Load' });
  const noor = grid.getByRole('button', { name: 'Noor Castellane', exact: true });
  await noor.click();
  const panel = marta.getByRole('complementary', { name: 'Work of Noor Castellane' });
  const card = panel.getByRole('listitem').filter({ hasText: 'The flour arrives' });
  await expect(card).toContainText(/left/);
  await expectAccessible(marta);
  const doer = async () =>
    (
      await zesting.query<{ name: string | null }>(
        "select d.name from steps s join pieces p on p.id = s.piece_id left join people d on d.id = s.doer_id where p.title = 'The flour arrives' and s.title = 'Script'",
      )
    )[0]?.name ?? null;
  expect(await doer()).toBe('Noor Castellane');
  const other = grid.getByRole('row').filter({ hasText: 'Sunniva Aldous' });
  await drag(
    marta,
    await middleOf(card.getByTitle('Drag it to somebody else’s row')),
    await middleOf(other.getByRole('rowheader')),
    async () => {
      await expect(marta.getByRole('status').filter({ hasText: /Sunniva Aldous: / })).toContainText('would end it');
    },
  );
  await expect.poll(doer).toBe('Sunniva Aldous');
  await expect(card).toHaveCount(0);
  await marta.getByRole('button', { name: 'Undo' }).click();
  await expect.poll(doer).toBe('Noor Castellane');
  await expect(card).toBeVisible();

  await noor.focus();
  await marta.keyboard.press('ArrowRight');
  for (let times = 0; times < 7; times++) await marta.keyboard.press('ArrowRight');
  await marta.keyboard.press('Enter');
  await expect(marta).toHaveURL(/day=/);
  await marta.keyboard.press('Home');
  await expect(noor).toBeFocused();
  await noor.press('Enter');
  await card.getByRole('button', { name: /^Give Script of The flour arrives/ }).click();
  const dialog = marta.getByRole('dialog', { name: 'Who does “Script”?' });
  await dialog.getByRole('button', { name: 'Give to Sunniva' }).click();
  await expect.poll(doer).toBe('Sunniva Aldous');
  await expect(dialog).toHaveCount(0);
  await expect(card).toHaveCount(0);
  await marta.reload();
  await expect(panel).toBeVisible(); // the address holds whose work is looked at
  await panel.getByRole('button', { name: 'Close' }).click();
  await expect(panel).toHaveCount(0);
  await expect(marta.getByRole('region', { name: /^Hours in / })).toContainText('not agreed');

  const ivo = await signIn(browser, zesting, 'ivo@quillhaven.test');
  await ivo.goto('/production/load');
  // of clients that he does not look after, hours alone are told
  await ivo.getByRole('grid', { name: 'Load' }).getByRole('button', { name: 'Noor Castellane', exact: true }).click();
  await expect(ivo.getByRole('complementary').getByText('A step for a client that you do not look after').first()).toBeVisible();

  const sunniva = await signIn(browser, zesting, 'sunniva@quillhaven.test');
  await sunniva.goto('/production');
  await expect(sunniva.getByRole('navigation', { name: 'Production' })).toHaveCount(0);
  await sunniva.goto('/production/load');
  await expect(sunniva.getByRole('grid')).toHaveCount(0);
});

test('doers are proposed for what nobody has, together: one is left out, the rest given, and the desk has less to act on', async ({
  browser,
  zesting,
}) => {
  const dana = await signIn(browser, zesting, 'dana@quillhaven.test');
  const nobody = async () =>
    (
      await zesting.query<{ n: number }>(
        `select count(*)::int as n from steps s join pieces p on p.id = s.piece_id join clients c on c.id = p.client_id
         where c.code in ('KILN', 'MOSS') and p.list is not null and s.finished_on is null and s.doer_id is null and s.kind in ('make', 'check')`,
      )
    )[0]?.n ?? 0;
  const before = await nobody();
  await dana.goto('/');
  await dana.getByRole('link', { name: 'Propose doers' }).click();
  const proposal = dana.getByRole('region', { name: 'The proposal' });
  await expect(proposal).toContainText('Nothing is given until you say so.');
  await expectAccessible(dana);
  const boxes = dana.getByRole('main').getByRole('checkbox', { checked: true });
  const all = await boxes.count();
  expect(all).toBeGreaterThan(3);
  await boxes.first().focus();
  await dana.keyboard.press('Space');
  // one goes to another than is proposed; what it would come to is told before anything is given
  const who = dana.getByRole('combobox', { name: /^Who takes/ }).last();
  await who.selectOption({ index: 1 });
  const chosen = (await who.locator('option:checked').textContent())?.split(',')[0];
  await expect(dana.getByRole('region', { name: 'Who gets what' })).toContainText(chosen ?? '');
  await expect(dana.getByText('Reckoning what it would come to …')).toHaveCount(0);
  await expect(dana.getByText(/With what is chosen, nothing|late with it/).first()).toBeVisible();
  const [, step, piece] = /“(.*)” of “(.*)”/.exec((await who.getAttribute('aria-label')) ?? '') ?? [];
  await proposal.getByRole('button', { name: `Give ${all - 1} of ${all}` }).click();
  await expect.poll(nobody).toBe(before - (all - 1));
  const given = await zesting.query<{ name: string }>(
    'select d.name from steps s join pieces p on p.id = s.piece_id join people d on d.id = s.doer_id where s.title = $1 and p.title = $2 and s.finished_on is null',
    [step, piece],
  );
  expect(given.map(({ name }) => name)).toContain(chosen);
  // asked anew: what was left out is proposed again
  await expect(proposal.getByRole('button', { name: 'Give 1 of 1' })).toBeVisible();
  // over a longer time more is due; the address holds it, and Back leads to where one came from
  await dana.getByRole('button', { name: '3 months' }).click();
  await expect(dana).toHaveURL(/weeks=13/);
  await dana.reload();
  await expect(dana.getByRole('button', { name: '3 months' })).toHaveAttribute('aria-pressed', 'true');
  await expect(proposal).toBeVisible();
  await dana.goBack();
  await expect(dana.getByRole('heading', { name: 'What needs you' })).toBeVisible();
});

test('a route is changed in mid-flight: what would move is seen, some are taken along, and their paths are the route’s', async ({
  browser,
  zesting,
}) => {
  const marta = await signIn(browser, zesting, 'marta@quillhaven.test');
  await marta.goto('/routes');
  await marta.getByRole('button', { name: /^Short clip/ }).click();
  const underWay = marta.getByRole('region', { name: 'Under way' });
  await expect(marta.getByRole('list', { name: 'The route as a picture' }).getByRole('button', { name: /^Film/ })).toBeVisible();
  await expect(underWay).toHaveCount(0);
  await marta.getByRole('list', { name: 'The route as a picture' }).getByRole('button', { name: /^Film/ }).click();
  await expect(marta.getByLabel('Step', { exact: true }).nth(1)).toBeFocused();
  const span = marta.getByLabel('Span, days').nth(1);
  await span.fill(String(Number(await span.inputValue()) + 1));
  await marta.getByRole('button', { name: 'Save' }).click();
  await expect(underWay).toContainText(/\d+ pieces under way go by the route as it was before/);
  await expectAccessible(marta);
  await underWay.getByRole('button', { name: 'See what would move' }).click();
  const dialog = marta.getByRole('dialog', { name: 'Take along: Short clip' });
  const moving = dialog.getByRole('listitem').filter({ hasText: /“Film”.* changes its days/ });
  await expect(moving.first()).toBeVisible();
  await expectAccessible(marta);
  const title = 'The flour arrives';
  const film = async () =>
    (
      await zesting.query<{ days: number; from: string | null }>(
        `select s.span_days as days, p.late_from_on::text as from from steps s join pieces p on p.id = s.piece_id
         where p.title = $1 and s.title = 'Film' and s.round = 1`,
        [title],
      )
    )[0];
  const before = await film();
  // all but one are left as they are, by keyboard
  for (const box of await dialog.getByRole('checkbox', { disabled: false }).all()) {
    if ((await box.locator('..').textContent())?.includes(title)) continue;
    await box.focus();
    await marta.keyboard.press('Space');
  }
  await dialog.getByRole('button', { name: 'Take 1 piece along' }).click();
  await expect(dialog).toHaveCount(0);
  const after = await film();
  expect(after?.days).toBe((before?.days ?? 0) + 1);
  expect((after?.from ?? '') < (before?.from ?? '')).toBe(true);
  await expect(underWay).toBeVisible(); // the others are left
  const [piece] = await zesting.query<{ id: string }>('select id from pieces where title = $1', [title]);
  await marta.goto(`/pieces/${piece?.id}`);
  await expect(marta.getByText('took it along with its route')).not.toHaveCount(0); // in its history
});

test('a step is taken together with somebody, who finds it among their own and sees the piece', async ({ browser, zesting }) => {
  const ivo = await signIn(browser, zesting, 'ivo@quillhaven.test');
  const noor = await signIn(browser, zesting, 'noor@pencraft.test');
  const [piece] = await zesting.query<{ id: string }>("select id from pieces where title = 'The model room opens'");
  await ivo.goto(`/pieces/${piece?.id}`);
  await ivo.getByRole('button', { name: 'Design: Piet Lindqvist. Choose a person' }).click();
  const dialog = ivo.getByRole('dialog');
  await dialog.getByLabel('Somebody who takes it with them, to learn it').selectOption('Noor Castellane');
  await expect(dialog).toHaveCount(0);
  await expect(ivo.getByText('with Noor Castellane')).toBeVisible();
  await noor.goto('/');
  const together = noor.getByRole('region', { name: 'With somebody' });
  await expect(together).toContainText('Design with Piet Lindqvist');
  await expectAccessible(noor);
  await together.getByRole('link', { name: 'The model room opens' }).click();
  await expect(noor.getByRole('heading', { name: 'The model room opens' })).toBeVisible();
  await expect(noor.getByRole('button', { name: 'Save', exact: true })).toHaveCount(0); // only its doer writes
});

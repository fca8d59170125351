import { addDays, getDay } from '@zesting/core';
import { expect, expectAccessible, signIn, tellStory, test } from './zesting';

tellStory('calendar');

test('two placements are swapped, and the swap is undone', async ({ browser, zesting }) => {
  const dana = await signIn(browser, zesting, 'dana@quillhaven.test');
  const dates = async () =>
    zesting.query(
      "select p.title, l.on_day::text, l.at_time::text from placements l join pieces p on p.id = l.piece_id where p.title in ('Saturday buns, counted', 'Fig and fennel weekend') and l.on_day is not null order by p.title, l.on_day",
    );
  const before = await dates();
  const [buns] = await zesting.query<{ id: string; month: string }>(
    "select l.id, to_char(l.on_day, 'YYYY-MM') as month from placements l join pieces p on p.id = l.piece_id where p.title = 'Saturday buns, counted'",
  );
  const [figs] = await zesting.query<{ on: string }>(
    "select min(l.on_day)::text as on from placements l join pieces p on p.id = l.piece_id where p.title = 'Fig and fennel weekend'",
  );
  // a week or month that shows both
  await dana.goto(`/calendar?client=KILN&month=${figs?.on.slice(0, 7)}&placement=${buns?.id}`);
  if (
    !(await dana
      .getByRole('dialog')
      .isVisible()
      .catch(() => false))
  )
    await dana.goto(`/calendar?client=KILN&month=${buns?.month}&placement=${buns?.id}`);
  await dana.getByText('Swap dates with another…').click();
  const options = dana.getByLabel('Swap with').locator('option');
  const wanted = (await options.allInnerTexts()).find((text) => text.includes('Fig and fennel')) ?? (await options.allInnerTexts()).at(-1);
  await dana.getByLabel('Swap with').selectOption({ label: wanted ?? '' });
  await expectAccessible(dana);
  await dana.getByRole('button', { name: 'Swap the two' }).click();
  await expect(dana.getByText(/^Swapped\./)).toBeVisible();
  expect(await dates()).not.toEqual(before);
  await dana.getByRole('button', { name: 'Undo' }).click();
  await expect.poll(dates).toEqual(before);
});

test('all not yet out move together, a placement is made once more, cancelled and brought back', async ({ browser, zesting }) => {
  const dana = await signIn(browser, zesting, 'dana@quillhaven.test');
  const rows = () =>
    zesting.query<{ id: string; on: string; cancelled: boolean }>(
      "select l.id, l.on_day::text as on, l.cancelled from placements l join pieces p on p.id = l.piece_id where p.title = 'Shade corner before and after' order by l.on_day, l.created_at",
    );
  const [first, second] = await rows();
  await dana.goto(`/calendar?client=MOSS&month=${first?.on.slice(0, 7)}&placement=${first?.id}`);
  await dana.getByRole('radio', { name: 'All 2 not yet out, by as many days' }).check();
  const to = addDays(getDay(first?.on ?? ''), 7);
  await dana.getByRole('textbox', { name: 'Day' }).fill(to);
  await dana.getByRole('button', { name: 'Move it there' }).click();
  await expect(dana.getByText('1 other placement of the piece moved as many days.')).toBeVisible();
  expect((await rows()).map((row) => row.on)).toEqual([to, addDays(getDay(second?.on ?? ''), 7)]);
  await dana.getByRole('button', { name: 'Undo' }).click();
  await expect.poll(async () => (await rows()).map((row) => row.on)).toEqual([first?.on, second?.on]);

  await dana.goto(`/calendar?client=MOSS&month=${first?.on.slice(0, 7)}&placement=${first?.id}`);
  await dana.getByText('Place it once more…').click();
  await dana.getByLabel('Day there').fill(addDays(getDay(first?.on ?? ''), 40));
  await dana.getByRole('button', { name: 'Place it once more' }).click();
  await expect(dana.getByText(/^Placed once more\./)).toBeVisible();
  expect(await rows()).toHaveLength(3);
  await dana.goto(`/calendar?client=MOSS&month=${first?.on.slice(0, 7)}&placement=${first?.id}`);
  await dana.getByRole('button', { name: 'Cancel this placement' }).click();
  await expect(dana.getByText(/cancelled\.$/)).toBeVisible();
  await dana.getByRole('button', { name: 'Undo' }).click();
  await expect.poll(async () => (await rows()).filter((row) => row.cancelled).length).toBe(0);
});

test('the calendar shows a week with each client’s own midnight, hides weekends and says how much, takes markers', async ({
  browser,
  zesting,
}) => {
  const dana = await signIn(browser, zesting, 'dana@quillhaven.test');
  await dana.goto('/calendar');
  await dana.getByRole('button', { name: 'Week', exact: true }).click();
  await expect(dana.getByRole('rowheader', { name: /MOSS.*Auckland.*midnight \d\d:00/s })).toBeVisible();
  await expectAccessible(dana);
  await dana.getByRole('button', { name: 'The week after' }).click();
  await expect(dana).toHaveURL(/week=\d{4}-\d\d-\d\d/);
  await dana.getByRole('button', { name: 'Month', exact: true }).click();
  await dana.getByRole('checkbox', { name: /Weekends/ }).click();
  await expect(dana.getByText(/\((nothing|\d+ placements?) hidden\)/)).toBeVisible();
  await expect(dana.getByRole('columnheader')).toHaveCount(5);
  await dana.getByLabel('Colour').selectOption('Pillar');
  await expectAccessible(dana);
  await dana.reload();
  await expect(dana.getByRole('columnheader')).toHaveCount(5);
  await dana.getByRole('checkbox', { name: /Weekends/ }).click();
  await expect(dana.getByRole('columnheader')).toHaveCount(7);

  await dana.getByRole('button', { name: 'Put a marker on the calendar' }).click();
  await dana.getByRole('button', { name: 'Put it there' }).click();
  await expect(dana.getByText('This is needed.')).toBeVisible();
  await dana.getByRole('textbox', { name: 'Name' }).fill('Harvest supper');
  await dana.getByLabel('Kind').selectOption('Event');
  await dana.getByLabel('Whose').selectOption('Kiln Lane Bakehouse');
  await expectAccessible(dana);
  await dana.getByRole('button', { name: 'Put it there' }).click();
  const marker = dana.getByRole('button', { name: 'KILN Harvest supper: Event' });
  await expect(marker).toBeVisible();
  await marker.click();
  await dana.getByRole('menuitem', { name: 'Take it off the calendar' }).click();
  await expect(marker).toBeHidden();
  await dana.getByRole('button', { name: 'Undo' }).click();
  await expect(marker).toBeVisible();
});

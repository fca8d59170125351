import { dayAhead, expect, expectAccessible, expectNoSidewaysScroll, signIn, tellStory, test } from './zesting';

tellStory('spin-offs');

const typed = (day: string): string => day.split('-').reverse().join('/');

test('a spread is drawn up, looked at for what it comes to, and put to use', async ({ browser, zesting }) => {
  const ivo = await signIn(browser, zesting, 'ivo@quillhaven.test');
  const dialog = ivo.getByRole('dialog');
  await ivo.goto('/clients?client=LOOM');
  await ivo
    .getByRole('link', { name: /Copperloom Weavers/ })
    .first()
    .click();
  await ivo.getByRole('tab', { name: 'Spreads' }).click();
  await expect(ivo.getByText('No spread is kept yet')).toBeVisible();
  await ivo.getByRole('button', { name: 'New spread' }).click();
  await dialog.getByRole('button', { name: 'Keep it' }).click();
  await expect(dialog.getByText('Give it a name.')).toBeVisible();
  await expect(dialog.getByText('Say at least one thing that is made.')).toBeVisible();
  await dialog.getByLabel('Name (needed)').fill('From workshop notes');
  await dialog.getByLabel('Made from').selectOption({ label: 'Article' });
  await dialog.getByRole('button', { name: 'Add an output' }).click();
  const slides = dialog.getByRole('group', { name: 'Output 1' });
  await slides.getByLabel('Called').fill('Slides');
  await slides.getByLabel('Channel').selectOption({ label: 'Photo feed' });
  await slides.getByLabel('Route').selectOption({ label: 'Still: Still with copy' });
  await slides.getByLabel('How many').fill('2');
  await slides.getByLabel('What is to be changed').fill('One thought to a slide.');
  await slides.getByLabel(/as slides/).check();
  await dialog.getByRole('button', { name: 'Add an output' }).click();
  const letter = dialog.getByRole('group', { name: 'Output 2' });
  await letter.getByLabel('Called').fill('Letter');
  await letter.getByLabel('Channel').selectOption({ label: 'Newsletter' });
  await letter.getByLabel('Route').selectOption({ label: 'Newsletter' });
  await letter.getByLabel('From its source’s day').selectOption({ label: 'days before' });
  await letter.getByLabel('How many').fill('1');
  await letter.getByText('Call to action, guideline, doers').click();
  await letter.getByLabel('Call to action').fill('Read the whole of it.');
  await letter.getByLabel('Who does write').selectOption({ label: 'Sunniva Aldous' });
  await expectAccessible(ivo);
  await dialog.getByRole('button', { name: 'Keep it' }).click();
  await expect(dialog).toHaveCount(0);
  await expect(ivo.getByText('2 working days after')).toBeVisible();
  await expect(ivo.getByText('1 day before')).toBeVisible();

  await ivo.getByRole('button', { name: 'What it comes to: From workshop notes' }).click();
  await expect(dialog.getByRole('row', { name: /^write/ })).toContainText('Sunniva Aldous');
  await dialog.getByLabel('Its source is published').fill(typed(dayAhead(2)));
  await dialog.getByLabel('Its source is published').press('Tab');
  await expect(dialog.getByRole('row', { name: /^Letter/ })).toContainText('Out of reach');
  await expectAccessible(ivo);
  await ivo.keyboard.press('Escape');
  await ivo.getByRole('button', { name: 'Put to use: From workshop notes' }).click();
  await expect(ivo.getByText(/^In use since/)).toBeVisible();
});

test('a source is made into several after a look, follows into them, and what was shown is settled', async ({ browser, zesting }) => {
  const ivo = await signIn(browser, zesting, 'ivo@quillhaven.test');
  const dialog = ivo.getByRole('dialog');
  const [source] = await zesting.query<{ id: string }>("select id from pieces where title = 'Moths: a peace treaty'");
  await ivo.goto('/production/sources?client=LOOM');
  await expect(ivo.getByText('Nothing yet on Photo feed, Newsletter.')).toBeVisible();
  await ivo.goto(`/pieces/${source?.id}`);
  await ivo.getByLabel('Copy', { exact: true }).fill('# Moths\n\n## Cedar\n\nIt smells of peace.\n\n## Cold\n\nTwo weeks of it.');
  await ivo.getByRole('button', { name: 'Save', exact: true }).click();
  await expect(ivo.getByRole('button', { name: 'Save', exact: true })).toBeDisabled();
  await ivo.getByRole('button', { name: 'Make spin-offs…' }).click();
  await expect(dialog.getByText(/^Its day is/)).toBeVisible();
  const letter = dialog.getByRole('group', { name: 'Moths: a peace treaty · Letter' });
  await letter.getByLabel('Day').fill(typed(dayAhead(1)));
  await letter.getByLabel('Day').press('Tab');
  await expect(letter.getByText('Out of reach')).toBeVisible();
  await expect(dialog.getByText('1 of 2 would not be in time.')).toBeVisible();
  await letter.getByLabel('Day').fill(typed(dayAhead(40)));
  await letter.getByLabel('Day').press('Tab');
  await expect(letter.getByText('In time')).toBeVisible();
  await letter.getByText('Name, clip times').click();
  await letter.getByLabel('Clip from').fill('1:40');
  await letter.getByLabel('Clip to').fill('1:15');
  await dialog.getByRole('button', { name: 'Make 2 pieces' }).click();
  await expect(dialog.getByRole('alert')).toContainText('A clip has a beginning and an end after it');
  await letter.getByLabel('Clip from').fill('');
  await letter.getByLabel('Clip to').fill('');
  await expectAccessible(ivo);
  await dialog.getByRole('button', { name: 'Make 2 pieces' }).click();
  await expect(dialog).toHaveCount(0);
  const outputs = ivo.getByRole('region', { name: 'Spin-offs' });
  await expect(outputs.getByText('On 3 of 3 channels.')).toBeVisible();
  await outputs.getByRole('link', { name: 'Slides' }).click();
  await expect(ivo.getByRole('heading', { name: 'Moths: a peace treaty · Slides' })).toBeVisible();
  await expect(ivo.getByLabel('Copy', { exact: true })).toHaveValue('1. Cedar\nIt smells of peace.\n\n2. Cold\nTwo weeks of it.');
  const slidesAddress = ivo.url();

  // as long as nobody was shown it, it follows
  const write = async (copy: string) => {
    await ivo.goto(`/pieces/${source?.id}`);
    await ivo.getByLabel('Copy', { exact: true }).fill(copy);
    await ivo.getByRole('button', { name: 'Save', exact: true }).click();
    await expect(ivo.getByRole('button', { name: 'Save', exact: true })).toBeDisabled();
    await ivo.goto(slidesAddress);
  };
  await write('## Cedar\n\nIt smells of peace.\n\n## Cold\n\nThree weeks of it.');
  await expect(ivo.getByLabel('Copy', { exact: true })).toHaveValue(/Three weeks/);
  // handed in, it stays, and says in what it is behind
  const [step] = await zesting.query<{ id: string }>('select id from steps where piece_id = $1 order by position limit 1', [
    slidesAddress.split('/').at(-1),
  ]);
  expect((await ivo.request.post(`/api/steps/${step?.id}/hand-in`, { data: {} })).ok()).toBe(true);
  await expect(ivo.getByText('Its source was changed since.')).toHaveCount(0);
  await write('## Cedar\n\nIt smells of peace.\n\n## Cold\n\nFour weeks of it.');
  const made = ivo.getByRole('region', { name: 'Made from' });
  await expect(made.getByText('Its source was changed since.')).toBeVisible();
  await expect(ivo.getByLabel('Copy', { exact: true })).toHaveValue(/Three weeks/);
  await expectAccessible(ivo);
  await ivo.goto('/?client=LOOM');
  await ivo.getByRole('link', { name: /spin-off is behind what it was made from/ }).click();
  await expect(ivo.getByText('Behind: text')).toBeVisible();
  await expectAccessible(ivo);
  await ivo.getByRole('link', { name: 'Slides' }).click();

  // what another window settled meanwhile is not settled twice
  const marta = await signIn(browser, zesting, 'marta@quillhaven.test');
  await marta.goto(slidesAddress);
  await made.getByRole('button', { name: 'Take over: Text' }).click();
  await expect(ivo.getByLabel('Copy', { exact: true })).toHaveValue(/Four weeks/);
  await expect(made.getByText('Its source was changed since.')).toHaveCount(0);
  await expect(marta.getByText('Its source was changed since.')).toHaveCount(0);
});

test('a source that moves asks whether its spin-offs move along, and is shelved after them', async ({ browser, zesting }) => {
  const ivo = await signIn(browser, zesting, 'ivo@quillhaven.test');
  const dialog = ivo.getByRole('dialog');
  const [source] = await zesting.query<{ id: string; on: string }>(
    `select p.id, l.on_day::text as on from pieces p join placements l on l.piece_id = p.id where p.title = 'Moths: a peace treaty' and not l.cancelled`,
  );
  const outputs = ivo.getByRole('region', { name: 'Spin-offs' });
  const daysNow = async () =>
    (
      await zesting.query<{ on: string }>(
        'select l.on_day::text as on from spin_offs s join placements l on l.piece_id = s.piece_id where s.source_id = $1 order by l.on_day',
        [source?.id],
      )
    ).map(({ on }) => on);
  const before = await daysNow();
  await ivo.goto(`/pieces/${source?.id}`);
  await ivo.getByRole('button', { name: 'Move on Workshop notes' }).click();
  await dialog.getByLabel('Day', { exact: true }).fill(typed(dayAhead(50)));
  await dialog.getByRole('button', { name: 'Move it there' }).click();
  await expect(ivo.getByRole('heading', { name: 'Do its spin-offs move along?' })).toBeVisible();
  await expectAccessible(ivo);
  await dialog.getByRole('button', { name: 'Let them stay' }).click();
  await expect(dialog).toHaveCount(0);
  expect(await daysNow()).toEqual(before);
  await expect(ivo.getByRole('region', { name: 'Placements' })).toContainText('28 Apr');
  await ivo.getByRole('button', { name: 'Move on Workshop notes' }).click();
  await dialog.getByLabel('Day', { exact: true }).fill(typed(dayAhead(51)));
  await dialog.getByRole('button', { name: 'Move it there' }).click();
  await dialog.getByRole('button', { name: 'Move 2 along' }).click();
  await expect(ivo.getByText('2 spin-offs moved along.')).toBeVisible();
  await expect.poll(daysNow).not.toEqual(before);

  await ivo.getByRole('button', { name: 'Edit title and pillar' }).click();
  await dialog.getByRole('button', { name: 'Put on the shelf' }).click();
  await expect(ivo.getByText(/are under way: shelve them or cut them loose first/)).toBeVisible();
  await ivo.keyboard.press('Escape');
  await outputs.getByRole('link', { name: 'Letter' }).click();
  await ivo.getByRole('button', { name: 'Change… how it is made from its source' }).click();
  await dialog.getByRole('button', { name: 'Cut it loose' }).click();
  await expect(ivo.getByRole('region', { name: 'Made from' })).toHaveCount(0);
  await expect(ivo.getByText('Begun from')).toBeVisible();
});

test('sources are read on a phone', async ({ browser, zesting }) => {
  const phone = await signIn(browser, zesting, 'ivo@quillhaven.test', { viewport: { width: 390, height: 844 } });
  await phone.goto('/production/sources');
  await expect(phone.getByRole('link', { name: 'Steaming a plank', exact: true })).toBeVisible();
  await expectNoSidewaysScroll(phone);
  await expectAccessible(phone);
});

test('what was made before is found by its words, used again, and copied beside what is being written', async ({ browser, zesting }) => {
  const dana = await signIn(browser, zesting, 'dana@quillhaven.test');
  await dana.goto('/production/library');
  const words = dana.getByLabel('Words that it says');
  await words.fill('watering weigh');
  await expect(dana.getByRole('link', { name: 'Watering by weight' })).toBeVisible();
  await expect(dana.getByRole('link', { name: 'Seeded rye is back' })).toHaveCount(0);
  await words.fill('forgiving orchid');
  await expect(dana.getByRole('link', { name: 'Orchids that forgive' })).toBeVisible();
  await expect(dana).toHaveURL(/words=forgiving/);
  await expectAccessible(dana);
  await dana.reload();
  await expect(words).toHaveValue('forgiving orchid');
  await dana.getByRole('button', { name: 'Use it again: Orchids that forgive' }).click();
  await expect(dana.getByRole('dialog', { name: 'Begin another from “Orchids that forgive”' })).toBeVisible();
  await dana.keyboard.press('Escape');
  await words.fill('"orchids forgive"');
  await expect(dana.getByText('No piece says that')).toBeVisible();

  const [other] = await zesting.query<{ id: string }>("select id from pieces where title = 'Moss lawns, honestly'");
  await dana.goto(`/pieces/${other?.id}`);
  await dana.getByText('From what was made before').click();
  const panel = dana.getByRole('region', { name: 'From what was made before' });
  await panel.getByLabel('Words that it says').fill('orchid');
  await expect(panel.getByRole('button', { name: 'Copy: text of Orchids that forgive' })).toBeVisible();
  await expectAccessible(dana);
});

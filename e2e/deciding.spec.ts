import { dayAhead, expect, expectAccessible, linkIn, mailTo, signIn, tellStory, test, visitor } from './zesting';

tellStory('deciding');

test('a request is judged, asked back, answered from the mailed link, and split into three pieces that all have the brief', async ({
  browser,
  zesting,
}) => {
  const dana = await signIn(browser, zesting, 'dana@quillhaven.test');
  await dana.goto('/requests?client=MOSS');
  await dana.getByRole('link', { name: /Native seedlings for schools/ }).click();
  const request = dana.getByRole('article', { name: 'Native seedlings for schools' });
  const verdict = request.getByRole('region', { name: 'Verdict' });
  await expect(verdict.getByText(/wished for .*, earliest .*:/)).toBeVisible();
  await expect(verdict.getByText(/of \d+ h free/).first()).toBeVisible();
  await verdict.getByLabel('judged as').selectOption('Short clip');
  await expect(verdict.getByText(/film/)).toBeVisible();
  await expectAccessible(dana);

  await request.getByRole('button', { name: 'Ask back…' }).click();
  await dana.getByRole('button', { name: 'Send the question' }).click();
  await expect(dana.getByText('Say what you want to know.')).toBeVisible();
  await dana.getByLabel('Question').fill('How many trays can one school have?');
  await dana.getByRole('button', { name: 'Send the question' }).click();
  await expect(request.getByText(/turn: a question is waiting for an answer/)).toBeVisible();

  const mail = await mailTo(zesting, 'hana@mossgrove.test', 'A question about Native seedlings');
  expect(mail.text).toContain('How many trays can one school have?');
  const hana = await visitor(browser, zesting, linkIn(mail.text, '/ask/receipt/'), { viewport: { width: 390, height: 844 } });
  await expect(hana.getByText('How many trays can one school have?')).toBeVisible();
  await hana.getByRole('button', { name: 'Send' }).click();
  await expect(hana.getByText('This is needed.')).toBeVisible();
  await hana.getByLabel('Your answer').fill('Three, and one more for the teacher.');
  await hana.getByLabel('Files').setInputFiles({ name: 'trays.txt', mimeType: 'text/plain', buffer: Buffer.from('three and one') });
  await expect(hana.getByRole('button', { name: 'Take out trays.txt' })).toBeVisible();
  await expectAccessible(hana);
  await hana.getByRole('button', { name: 'Send' }).click();
  await expect(hana.getByText('Three, and one more for the teacher.')).toBeVisible();
  await expect(hana.getByText('Files that came with it: trays.txt')).toBeVisible();

  // it comes back by itself, unread, and is split
  await expect(request.getByText('Three, and one more for the teacher.')).toBeVisible();
  await request.getByRole('button', { name: 'Accept…' }).click();
  for (const title of ['Seedlings: the sign-up', 'Seedlings: a look back']) {
    await dana.getByRole('button', { name: 'Split off another piece' }).click();
    await dana
      .getByRole('list', { name: 'Further pieces' })
      .getByRole('textbox', { name: /^Title of piece/ })
      .last()
      .fill(title);
  }
  await dana.getByLabel('Route of piece 3').selectOption('Article');
  await expectAccessible(dana);
  await dana.getByRole('dialog').getByRole('button', { name: 'Accept', exact: true }).click();
  const pieces = request.getByRole('list', { name: 'Pieces of this request' });
  await expect(pieces.getByRole('link')).toHaveCount(3);
  for (const title of ['Native seedlings for schools', 'Seedlings: the sign-up', 'Seedlings: a look back']) {
    await pieces.getByRole('link', { name: new RegExp(title) }).click();
    await expect(dana.getByRole('heading', { name: title, level: 1 })).toBeVisible();
    await expect(dana.getByRole('region', { name: 'Brief' }).getByText('Three, and one more for the teacher.')).toBeVisible();
    await dana.goBack();
  }
  await hana.reload();
  await expect(hana.getByText('Accepted and planned')).toBeVisible();
  await expect(hana.getByRole('button', { name: 'I do not need this any more' })).toBeHidden();
});

test('what is alike is merged and undone, something is taken down by telephone, and the list is narrowed by address', async ({
  browser,
  zesting,
}) => {
  const dana = await signIn(browser, zesting, 'dana@quillhaven.test');
  await dana.goto('/requests?client=KILN');
  await dana.getByRole('button', { name: 'Take one down…' }).click();
  const dialog = dana.getByRole('dialog');
  await dialog.getByLabel('Form').selectOption('New idea for the bakehouse');
  await dialog.getByRole('button', { name: 'Take it down' }).click();
  await expect(dialog.getByText('Say who asks.')).toBeVisible();
  await dialog.getByLabel('Who asks').fill('A voice on the telephone');
  await dialog.getByLabel('What is it about?').fill('The new oven, its first bake');
  await dialog.getByLabel('What should people do or feel').fill('Come on Saturday.');
  await dialog.getByRole('radio', { name: 'People who know us', exact: true }).check();
  await expectAccessible(dana);
  await dialog.getByRole('button', { name: 'Take it down' }).click();
  const request = dana.getByRole('article', { name: 'The new oven, its first bake' });
  await expect(request.getByText('no e-mail')).toBeVisible();
  await expect(request.getByText('by telephone')).toBeVisible();
  await expect(request.getByRole('button', { name: 'Ask back…' })).toBeHidden();

  await request.getByRole('button', { name: 'Merge with it: “New oven, first bake”' }).click();
  await expect(request.getByText(/Merged with/)).toBeVisible();
  await dana.getByRole('button', { name: 'Undo' }).click();
  await expect(request.getByRole('button', { name: 'Accept…' })).toBeVisible();

  await dana.getByRole('button', { name: 'To decide', exact: true }).click();
  const list = dana.getByRole('navigation', { name: 'Requests' });
  await expect(list.getByText('Accepted')).toHaveCount(0);
  await dana.getByLabel('Form', { exact: true }).selectOption('A clip from the bakehouse');
  await expect(list.getByRole('link')).toHaveCount(1);
  await dana.reload();
  await expect(list.getByRole('link', { name: /The night shift in sixty seconds/ })).toBeVisible();
  await expect(list.getByRole('link')).toHaveCount(1);
});

test('a contact who asks from their room is told what is alike and left; several are accepted and taken back; one is kept for later', async ({
  browser,
  zesting,
}) => {
  const dana = await signIn(browser, zesting, 'dana@quillhaven.test');
  const [kiln] = await zesting.query<{ id: string; contact: string }>(
    "select c.id, x.id as contact from clients c join contacts x on x.client_id = c.id where x.email = 'greta@kilnlane.test'",
  );
  await dana.request.post(`/api/clients/${kiln?.id}/links`, { data: { kind: 'room', id: kiln?.contact, change: 'renew' } });
  const { text } = await mailTo(zesting, 'greta@kilnlane.test', 'Your new link from Quillhaven');
  const greta = await visitor(browser, zesting, linkIn(text, '/room/'), { viewport: { width: 390, height: 844 } });
  await expect(
    greta.getByRole('region', { name: 'What others of you asked for' }).getByText('The night shift in sixty seconds'),
  ).toBeVisible();
  await greta.getByRole('link', { name: 'Ask for something new' }).click();
  await expect(greta.getByLabel('Your name')).toHaveValue('Greta Vosper');
  await greta.getByLabel('What is it about?').fill('The night shift in sixty seconds, again');
  const known = greta.getByRole('complementary', { name: 'Known already' });
  await expect(known.getByText('The night shift in sixty seconds')).toBeVisible();
  await expect(known.getByText(/Left of .*Short clip: \d of 4, hours: \d+(\.\d)? of 80/)).toBeVisible();
  await expect(greta.getByText(/The earliest realistic date is .*It takes 4 steps over \d+ working days/)).toBeVisible();
  await expectAccessible(greta);

  await dana.goto('/requests?client=KILN&shown=open&order=danger');
  const list = dana.getByRole('navigation', { name: 'Requests' });
  await expect(list.getByText(/begin by/).first()).toBeVisible();
  await dana.getByRole('button', { name: 'Several' }).click();
  await list.getByRole('checkbox', { name: 'New oven, first bake, among several' }).check();
  await dana.getByRole('region', { name: 'Several requests' }).getByRole('button', { name: 'Accept' }).click();
  await dana.getByText('1 request accepted').hover(); // what the pointer rests on stays
  await expect(list.getByRole('link', { name: /New oven, first bake/ })).toHaveCount(0);
  await dana.getByRole('button', { name: 'Undo' }).click();
  await list.getByRole('link', { name: /New oven, first bake/ }).click();
  const request = dana.getByRole('article', { name: 'New oven, first bake' });

  await request.getByRole('button', { name: 'For later…' }).click();
  await dana.getByLabel('A word to them').fill('Once it is built.');
  await expectAccessible(dana);
  await dana.getByRole('button', { name: 'Keep for later' }).click();
  await expect(request.getByText('An idea for later', { exact: true })).toBeVisible();
  expect((await mailTo(zesting, 'sam@kilnlane.test', 'Kept for later: New oven, first bake')).text).toContain('Once it is built.');
  await dana.getByRole('button', { name: 'Ideas', exact: true }).click();
  await expect(list.getByRole('link', { name: /New oven, first bake/ })).toBeVisible();
  await request.getByRole('button', { name: 'Take it up again' }).click();
  await expect(request.getByRole('button', { name: 'Accept…' })).toBeVisible();
});

test('a pasted month of twelve lines becomes nine dates on the calendar and three requests', async ({ browser, zesting }) => {
  const dana = await signIn(browser, zesting, 'dana@quillhaven.test');
  const month = (days: number) => dayAhead(days).split('-').slice(1).reverse().join('.') + '.';
  const titles = [
    'Night bake',
    'Advent fair',
    'Panettone launch',
    'Staff party',
    'Flour talk',
    'Oven visit',
    'Baker for a day',
    'Crust contest',
    'Rye week',
  ];
  const lines = [
    ...titles.map((title, at) => `${month(40 + at)} ${title}`),
    `Post about the starter ${month(60)}`,
    `A clip of the ${month(61)} delivery`,
    'and something without a day',
  ];
  await dana.goto('/requests?client=KILN&open=dates');
  const dialog = dana.getByRole('dialog');
  await dialog.getByRole('button', { name: 'Read them' }).click();
  await expect(dialog.getByText('Paste the lines first.')).toBeVisible();
  await dialog.getByLabel('Lines').fill(lines.join('\n'));
  await dialog.getByRole('button', { name: 'Read them' }).click();
  const dates = dialog.getByRole('list', { name: 'Dates' }).getByRole('listitem');
  await expect(dates).toHaveCount(12);
  await expect(dates.nth(11).getByText('No day found: give it one, or leave it out.')).toBeVisible();
  await expectAccessible(dana);
  for (const at of [9, 10, 11]) {
    await dates.nth(at).getByRole('checkbox', { name: 'on the calendar' }).uncheck();
    await dates.nth(at).getByRole('checkbox', { name: 'as a request' }).check();
  }
  await dialog.getByRole('button', { name: 'Put 12 lines' }).click();
  await expect(dialog.getByText('Line 12 needs a day and words, or leave it out.')).toBeVisible();
  await dates.nth(11).getByLabel('Day of line 12', { exact: true }).fill(month(62));
  await dialog.getByRole('button', { name: 'Put 12 lines' }).click();
  await expect(dana.getByText('9 dates on the calendar, 3 requests')).toBeVisible();
  const list = dana.getByRole('navigation', { name: 'Requests' });
  for (const title of ['Post about the starter', /A clip of the.* delivery/, 'and something without a day'])
    await expect(list.getByRole('link', { name: title })).toBeVisible();
  expect(await zesting.query('select 1 from markers where name = any($1)', [titles])).toHaveLength(9);
  // pasted again, what is there already is said and not ticked
  await dana.goto('/requests?client=KILN&open=dates');
  await dialog.getByLabel('Lines').fill(lines.slice(0, 2).join('\n'));
  await dialog.getByRole('button', { name: 'Read them' }).click();
  await expect(dates.first().getByText('There is already: Night bake')).toBeVisible();
  await expect(dialog.getByRole('button', { name: 'Nothing is ticked' })).toBeDisabled();
});

import { expect, expectAccessible, expectNoSidewaysScroll, signIn, tellStory, test } from './zesting';

tellStory('evergreen');

test('what was out is said to last, rests, and goes out again where the rhythm asks for it', async ({ browser, zesting }) => {
  const ivo = await signIn(browser, zesting, 'ivo@quillhaven.test');
  const dialog = ivo.getByRole('dialog');
  const [piece] = await zesting.query<{ id: string }>("select id from pieces where title = 'How to read a tide table'");
  await ivo.goto(`/pieces/${piece?.id}`);
  const section = ivo.getByRole('region', { name: 'Evergreen' });

  await test.step('it is said with a rest; what is wrong is told at its field', async () => {
    await section.getByRole('button', { name: 'It lasts…' }).click();
    await dialog.getByLabel('Rest, days').fill('0');
    await dialog.getByLabel('Times at most').fill('1');
    await dialog.getByRole('button', { name: 'Keep it' }).click();
    await expect(dialog.getByText('At least a day.')).toBeVisible();
    await expect(dialog.getByText('At least twice: it was out once.')).toBeVisible();
    await expectAccessible(ivo);
    await dialog.getByLabel('Rest, days').fill('60');
    await dialog.getByLabel('Times at most').fill('');
    await dialog.getByRole('button', { name: 'Keep it' }).click();
    await expect(section.getByText('It lasts: out again after 60 days.')).toBeVisible();
    await expect(section.getByText(/^1 time, last .* rests until/)).toBeVisible();
    await expectAccessible(ivo);
  });

  await test.step('the stock stands with the rhythm, and a line of it asks for it', async () => {
    await ivo.goto('/plan/rhythm?client=TIDE');
    const stock = ivo.getByRole('region', { name: 'Evergreen stock' });
    await expect(stock.getByRole('listitem').filter({ hasText: 'How to read a tide table' })).toBeVisible();
    await expect(ivo.getByText('from the evergreen stock').first()).toBeVisible();
    await ivo.getByRole('button', { name: 'Add to the rhythm' }).click();
    await dialog.getByLabel('Channel').selectOption({ label: 'Photo feed' });
    await dialog.getByLabel('Time', { exact: false }).first().fill('18:30');
    await dialog.getByRole('checkbox', { name: 'From the evergreen stock' }).check();
    await dialog.getByRole('button', { name: 'Add it' }).click();
    await expect(dialog).toHaveCount(0);
    await expect(ivo.getByText('from the evergreen stock')).toHaveCount(2);
    await expectAccessible(ivo);
  });

  await test.step('a slot of it takes what has rested, and nothing new', async () => {
    await ivo.goto('/plan?client=TIDE');
    const open = ivo
      .getByRole('row')
      .filter({ hasText: 'from the stock' })
      .filter({ has: ivo.getByRole('button', { name: /^See what fits on/ }) })
      .last();
    await open.getByRole('button', { name: /^See what fits on/ }).click();
    const fits = ivo.getByRole('region', { name: 'What fits' });
    await expect(fits.getByText('from the stock, as asked').first()).toBeVisible();
    await expectAccessible(ivo);
    const first = fits.getByRole('button', { name: /^Put here: “/ }).first();
    const title = /“(.*)”/.exec((await first.getAttribute('aria-label')) ?? '')?.[1] ?? '';
    expect(['A knot a week: the bowline', 'A knot a week: the sheet bend', 'The pilot boat comes home']).toContain(title);
    await first.click();
    await expect(ivo.getByText('1 slot filled')).toBeVisible();
    const placed = await zesting.query<{ state: string }>(
      `select l.state from placements l join pieces p on p.id = l.piece_id where p.title = '${title}' and not l.cancelled order by l.on_day`,
    );
    expect(placed.map(({ state }) => state)).toEqual(['out', 'scheduled']); // signed as it was: nobody is asked anew
  });

  await test.step('taken out of the stock it is gone from there, and stays where it was placed', async () => {
    await ivo.goto(`/pieces/${piece?.id}`);
    await section.getByRole('button', { name: 'Take it out of the stock' }).click();
    await expect(section.getByRole('button', { name: 'It lasts…' })).toBeVisible();
    await ivo.setViewportSize({ width: 390, height: 844 });
    await expectNoSidewaysScroll(ivo);
  });
});

test('a phrase is kept, put into a piece where it stands, and counted there', async ({ browser, zesting }) => {
  const dana = await signIn(browser, zesting, 'dana@quillhaven.test');
  const dialog = dana.getByRole('dialog');
  const [moss] = await zesting.query<{ id: string }>("select id from clients where code = 'MOSS'");
  const [piece] = await zesting.query<{ id: string }>("select id from pieces where title = 'Moss lawns, honestly'");
  await dana.goto(`/clients/${moss?.id}?part=phrases`);
  await expect(dana.getByRole('region', { name: 'Openings' }).getByText('Down at the nursery this week:')).toBeVisible();
  await dana.getByRole('button', { name: 'New phrase' }).click();
  await dialog.getByRole('button', { name: 'Keep it' }).click();
  await expect(dialog.getByText('Write it down.')).toBeVisible();
  await dialog.getByLabel('What it is').selectOption({ label: 'Closing' });
  await dialog.getByLabel('Words').fill('Moss asks for nothing but shade.');
  await expectAccessible(dana);
  await dialog.getByRole('button', { name: 'Keep it' }).click();
  await expect(dialog).toHaveCount(0);
  const kept = dana.getByRole('listitem').filter({ hasText: 'Moss asks for nothing but shade.' });
  await expect(kept.getByText('Not used yet')).toBeVisible();
  await expectAccessible(dana);

  await dana.goto(`/pieces/${piece?.id}`);
  const copy = dana.getByLabel('Copy', { exact: true });
  const before = await copy.inputValue();
  await dana.getByLabel('Put in a phrase').selectOption({ label: 'Moss asks for nothing but shade.' });
  await expect(copy).toHaveValue(`${before.trimEnd()}\n\nMoss asks for nothing but shade.`);
  await dana.getByLabel('Put in a phrase').selectOption({ label: 'Moss asks for nothing but shade.' });
  await expect(copy).toHaveValue(`${before.trimEnd()}\n\nMoss asks for nothing but shade.`); // once is enough
  await dana.getByRole('button', { name: 'Save', exact: true }).click();
  await expect(dana.getByRole('button', { name: 'Save', exact: true })).toBeDisabled();
  await dana.goto(`/clients/${moss?.id}?part=phrases`);
  await expect(kept.getByText(/^In 1 piece, last on/)).toBeVisible();
  await kept.getByRole('button', { name: 'Change…' }).click();
  await dialog.getByRole('button', { name: 'Put it away' }).click();
  await expect(kept).toHaveCount(0);
});

import { expect, expectAccessible, linkIn, mailTo, signIn, tellStory, test, visitor } from './zesting';

tellStory('long-copy');

test('a long copy: laid out by the format, written with headings, lists and links, read by the client as that, and pointed at', async ({
  browser,
  zesting,
}) => {
  const dana = await signIn(browser, zesting, 'dana@quillhaven.test');
  const content = dana.getByRole('region', { name: 'Content' });
  const copy = content.getByRole('textbox', { name: 'Copy', exact: true });
  const tools = content.getByRole('toolbar', { name: 'How copy is laid out' });
  const save = async () => {
    await content.getByRole('button', { name: 'Save', exact: true }).click();
    await expect(content.getByText('Not saved yet')).toHaveCount(0);
  };
  const idOf = async (title: string) =>
    (await zesting.query<{ id: string }>('select id from pieces where title = $1', [title]))[0]?.id ?? '';
  const stored = async (id: string) =>
    (
      await zesting.query<{ shared: { copy: string; isLaidOut?: boolean } }>(
        "select content -> 'shared' as shared from pieces where id = $1",
        [id],
      )
    )[0]?.shared;
  const pieceId = await idOf('Watering by weight');

  await test.step('written', async () => {
    await dana.goto(`/pieces/${pieceId}`);
    await expect(copy.getByRole('heading', { name: 'Why it works' })).toBeVisible();
    await copy.getByRole('heading', { name: 'Why it works' }).click();
    await expect(tools.getByLabel('Kind of line')).toHaveValue('1');
    await copy.fill('');
    await tools.getByLabel('Kind of line').selectOption('Heading');
    await copy.pressSequentially('Lift it');
    await copy.press('Enter');
    await tools.getByRole('button', { name: 'List', exact: true }).click();
    await copy.pressSequentially('light: *water*');
    await copy.press('Enter');
    await copy.pressSequentially('heavy: wait. ');
    await copy.pressSequentially('See how');
    for (let letter = 0; letter < 'how'.length; letter++) await copy.press('Shift+ArrowLeft');
    await tools.getByRole('button', { name: 'Link' }).click();
    const address = content.getByRole('textbox', { name: 'Where the link leads' });
    await address.fill('javascript:alert(1)');
    await content.getByRole('button', { name: 'Put the link' }).click();
    await expect(content.getByText(/That is no address of a page/)).toBeVisible();
    await expectAccessible(dana);
    await address.fill('mossgrove.test/stick');
    await address.press('Enter');
    await expect(copy.getByRole('link', { name: 'how' })).toBeVisible();
    await expect(content.getByText(/\d+ words, \d+ characters/).first()).toBeVisible();
    await save();
    // the stars that were typed are emphasis by now; nothing that was typed is a mark by accident
    expect(await stored(pieceId)).toMatchObject({
      copy: '# Lift it\n\n- light: *water*\n- heavy: wait. See [how](https://mossgrove.test/stick)',
      isLaidOut: true,
    });
    await dana.reload();
    await expect(copy.getByRole('listitem')).toHaveCount(2);
  });

  await test.step('as words alone, and back', async () => {
    await content.getByRole('button', { name: 'Write it as words alone' }).click();
    await expect(copy).toHaveValue('Lift it\n\n• light: water\n• heavy: wait. See how (https://mossgrove.test/stick)');
    await save();
    await dana.goto(`/pieces/${pieceId}/versions`);
    await dana.goBack();
    await content.getByRole('button', { name: 'Write it with headings and lists' }).click();
    await expect(copy).toContainText('• light: water');
    await save();
    expect((await stored(pieceId))?.isLaidOut).toBe(true);
  });

  await test.step('pasted from elsewhere: what a copy has comes as that, all else as its words', async () => {
    await copy.fill('');
    await copy.evaluate((field) => {
      const data = new DataTransfer();
      data.setData(
        'text/html',
        '<h1 style="color:red">Rye</h1><table><tr><td>a <b>b</b></td></tr></table><ul><li>c</li></ul><script>d()</script><img src="x">',
      );
      field.dispatchEvent(new ClipboardEvent('paste', { clipboardData: data, bubbles: true, cancelable: true }));
    });
    await expect(copy.getByRole('heading', { name: 'Rye' })).toBeVisible();
    await save();
    expect(await stored(pieceId)).toMatchObject({ copy: '# Rye\n\na **b**\n\n- c', isLaidOut: true });
  });

  await test.step('read by the client, who points at a point of a list', async () => {
    const { text } = await mailTo(zesting, 'hana@mossgrove.test', 'open greenhouse');
    const hana = await visitor(browser, zesting, linkIn(text, '/room/'), { viewport: { width: 390, height: 844 } });
    const piece = hana.getByRole('article', { name: 'Newsletter: open greenhouse' });
    await expect(piece.getByRole('heading', { name: 'What is ready' })).toBeVisible();
    await expect(piece.getByRole('link', { name: 'the way, with a map' })).toHaveAttribute('href', 'https://mossgrove.test/find-us');
    await piece.getByRole('button', { name: 'Ask for changes' }).click();
    await piece.getByRole('button', { name: 'Point at: Native seedlings, two trays to a school' }).first().click();
    await expectAccessible(hana);
    await expect(piece.getByText('“Native seedlings, two trays to a school”')).toBeVisible();
    await piece.getByLabel('Change 1', { exact: true }).fill('Three trays by now');
    await piece.getByRole('button', { name: 'Rather this: Saturday at nine, and the kettle is on' }).click();
    await expect(piece.getByLabel('Change 2', { exact: true })).toHaveValue('Subject: rather “Saturday at nine, and the kettle is on”');
    await piece.getByRole('button', { name: 'Send the changes' }).click();
    await expect(piece).toHaveCount(0); // it stands with what was decided before
  });

  await test.step('and the team sees where', async () => {
    await dana.goto(`/pieces/${await idOf('Newsletter: open greenhouse')}/remarks`);
    const shown = dana.getByRole('region', { name: 'The piece' });
    await expect(dana.getByText('at “Native seedlings, two trays to a school”')).toBeVisible();
    await expect(dana.getByText('Subject: rather “Saturday at nine, and the kettle is on”')).toBeVisible();
    await expect(shown.locator('mark')).toHaveText(['Native seedlings, ', 'two trays to a school']);
    await expect(shown.getByRole('link', { name: 'the way, with a map' })).toBeVisible();
    await expectAccessible(dana);
  });

  await test.step('the other wording is taken, and changes places with what stood there', async () => {
    await dana.getByRole('link', { name: 'To the piece' }).click();
    await content.getByRole('button', { name: 'Take it: Saturday at nine, and the kettle is on' }).click();
    await expect(content.getByRole('textbox', { name: 'Subject (needed)' })).toHaveValue('Saturday at nine, and the kettle is on');
    await expect(content.getByRole('list', { name: 'Other wordings: Subject' })).toContainText('Open greenhouse');
    await expectAccessible(dana);
    await save();
    await dana.reload();
    await expect(content.getByRole('textbox', { name: 'Subject (needed)' })).toHaveValue('Saturday at nine, and the kettle is on');
  });
});

test('slides: written beside their pictures, moved with them, and pointed at by the client', async ({ browser, zesting }) => {
  const dana = await signIn(browser, zesting, 'dana@quillhaven.test');
  const idOf = async (title: string) =>
    (await zesting.query<{ id: string }>('select id from pieces where title = $1', [title]))[0]?.id ?? '';
  const content = dana.getByRole('region', { name: 'Content' });
  const slides = content.getByRole('group', { name: 'Slides' }).last();
  const pieceId = await idOf('Sourdough, day one to five');
  await dana.goto(`/pieces/${pieceId}`);
  await expect(slides.getByRole('textbox')).toHaveCount(5);
  await expect(slides.getByText('no picture yet')).toHaveCount(4);
  await slides.getByRole('button', { name: 'Move slide 1 down' }).click();
  await slides.getByRole('textbox', { name: 'Words of slide 1' }).fill('Day one: flour and water.');
  await slides.getByRole('button', { name: 'Add a slide' }).click();
  await slides.getByRole('textbox', { name: 'Words of slide 6' }).fill('Day six: eat.');
  await expectAccessible(dana);
  await content.getByRole('button', { name: 'Save', exact: true }).click();
  await expect(content.getByText('Not saved yet')).toHaveCount(0);
  await dana.reload();
  await expect(slides.getByRole('textbox', { name: 'Words of slide 2' })).toHaveValue('Flour, water, five days.');
  await expect(slides.getByRole('textbox')).toHaveCount(6);

  const { text } = await mailTo(zesting, 'greta@kilnlane.test', 'butter');
  const greta = await visitor(browser, zesting, linkIn(text, '/room/'), { viewport: { width: 390, height: 844 } });
  const piece = greta.getByRole('article', { name: 'Why our butter is cold' });
  await expect(piece.getByRole('listitem').filter({ hasText: 'Apart means layers.' })).toContainText('3');
  await piece.getByRole('button', { name: 'Ask for changes' }).click();
  await piece.getByRole('button', { name: 'Point at: Warm butter soaks in.' }).click();
  await expectAccessible(greta);
  await piece.getByLabel('Change 1', { exact: true }).fill('Melts, not soaks');
  await piece.getByRole('button', { name: 'Send the changes' }).click();
  await expect(piece).toHaveCount(0);

  await dana.goto(`/pieces/${await idOf('Why our butter is cold')}/remarks`);
  await expect(dana.getByText('at Slides: “Warm butter soaks in.”')).toBeVisible();
  const second = dana.getByRole('region', { name: 'The piece' }).getByRole('listitem').filter({ hasText: 'Cold butter stays apart.' });
  await expect(second.locator('mark')).toHaveText(['Warm butter soaks in.']);
});

import { readFileSync } from 'node:fs';
import type { Locator } from '@playwright/test';
import sharp from 'sharp';
import { silence } from './clip';
import { expect, expectAccessible, linkIn, mailTo, signIn, tellStory, test, visitor } from './zesting';

tellStory('making');

test('a maker says on the phone what stands in the way; who must act hears it, and says that it is gone', async ({ browser, zesting }) => {
  const noor = await signIn(browser, zesting, 'noor@pencraft.test', { viewport: { width: 390, height: 844 }, hasTouch: true });
  await noor
    .getByRole('listitem')
    .filter({ hasText: 'Seed from your own tomatoes' })
    .getByRole('link', { name: /Go on|Open/ })
    .click();
  const path = noor.getByRole('region', { name: 'Path' });
  const predicted = path.getByText(/^Predicted to end/).first();
  const before = await predicted.textContent();
  await path.getByRole('button', { name: 'Something is in the way of Write' }).click();
  const dialog = noor.getByRole('dialog', { name: 'In the way of “Write”' });
  await dialog.getByRole('button', { name: 'Say it' }).click();
  await expect(dialog.getByText('Say what stands in the way.')).toBeVisible(); // and the field has the focus
  await expect(dialog.getByLabel('What stands in the way')).toBeFocused();
  await noor.keyboard.type('No scales in the studio');
  await dialog.getByRole('button', { name: 'One of us' }).click();
  await dialog.getByLabel('Who of us').selectOption({ label: 'Dana Okafor' });
  await expectAccessible(noor);
  await noor.route('**/obstacles', (route) => (route.request().method() === 'POST' ? route.abort() : route.continue()));
  await dialog.getByRole('button', { name: 'Say it' }).click();
  await expect(dialog.getByRole('alert')).toBeVisible(); // nothing typed is lost
  await noor.unroute('**/obstacles');
  await dialog.getByRole('button', { name: 'Say it' }).click();
  await expect(dialog).toHaveCount(0);
  const standing = path.getByRole('list', { name: 'In the way of Write' });
  await expect(standing).toContainText('Waits for Dana Okafor, since today. Said by Noor Castellane.');
  await expect.poll(() => predicted.textContent()).not.toBe(before); // a day later at least

  const dana = await signIn(browser, zesting, 'dana@quillhaven.test');
  const desk = dana.getByRole('region', { name: 'In the way' });
  const line = desk.getByRole('listitem').filter({ hasText: 'No scales in the studio' });
  await expect(line).toContainText('waits for you');
  await expectAccessible(dana);
  await line.getByRole('link', { name: 'It is gone: No scales in the studio' }).click();
  const gone = dana.getByRole('dialog', { name: 'It is gone' });
  await gone.getByLabel('How it went away').fill('Bought two');
  await gone.getByRole('button', { name: 'Out of the way' }).click();
  await expect(gone).toHaveCount(0);
  await expect(dana.getByRole('region', { name: 'Path' })).toContainText('Was in the way: 1');
  await expect(standing).toHaveCount(0); // on her phone, without a reload
  await expect.poll(() => predicted.textContent()).toBe(before);
});

test('versions stand side by side, words and pictures, and one is brought back', async ({ browser, zesting }) => {
  const ivo = await signIn(browser, zesting, 'ivo@quillhaven.test');
  await ivo.goto('/production?client=TIDE');
  await ivo.getByRole('link', { name: 'Volunteers who varnish' }).click();
  const content = ivo.getByRole('region', { name: 'Content' });
  await content
    .getByRole('button', { name: /^Take out / })
    .first()
    .click();
  const buffer = await sharp({ create: { width: 300, height: 300, channels: 3, background: '#2b6a94' } })
    .png()
    .toBuffer();
  await content.getByLabel('Add pictures or clips').setInputFiles({ name: 'blue.png', mimeType: 'image/png', buffer });
  await expect(content.getByRole('button', { name: 'Take out blue.png' })).toBeVisible();
  await content.getByLabel('Copy', { exact: true }).fill('Sundays at ten. Old clothes, steady hands. That is all.');
  await content.getByRole('button', { name: 'Save' }).click();
  await expect(content.getByText('Not saved yet')).toHaveCount(0);

  await content.getByRole('link', { name: 'Versions' }).click();
  const differs = ivo.getByRole('list', { name: 'What differs' });
  await expect(differs.getByRole('listitem')).toHaveText(['Copy 1 word gone, 1 word new', 'Pictures and clips 1 file gone, 1 file new']);
  await expect(ivo.getByRole('group', { name: 'Version 2' }).first().getByRole('deletion')).toHaveText('Saturdays');
  await expect(ivo.getByRole('group', { name: 'Being worked on' }).first().getByRole('insertion')).toHaveText('Sundays');
  await expectAccessible(ivo);
  await ivo.getByRole('button', { name: 'One over the other' }).click();
  const slider = ivo.getByRole('slider', { name: 'How much is seen of the later picture' });
  await slider.focus();
  await ivo.keyboard.press('End');
  await expect(slider).toHaveValue('100');
  await ivo.getByLabel('Before').selectOption('1');
  await expect(differs.getByRole('listitem').first()).toHaveText('Copy 1 word gone, 4 words new');
  await ivo.reload(); // the address holds which
  await expect(differs.getByRole('listitem').first()).toHaveText('Copy 1 word gone, 4 words new');

  await ivo.getByRole('button', { name: 'Bring back version 2' }).click();
  const dialog = ivo.getByRole('dialog', { name: 'Bring back version 2' });
  await zesting.query("update pieces set content_version = content_version + 1 where title = 'Volunteers who varnish'");
  await dialog.getByRole('button', { name: 'Bring it back' }).click();
  await expect(dialog.getByRole('alert')).toContainText('Somebody else changed this meanwhile');
  await ivo.reload();
  await dialog.getByRole('button', { name: 'Bring it back' }).click();
  await expect(dialog).toHaveCount(0);
  await expect(differs.getByRole('listitem')).toHaveText(['Copy 3 words new']); // of version 1, which is still chosen
  await ivo.getByRole('link', { name: 'To the piece' }).click();
  await expect(content.getByLabel('Copy', { exact: true })).toHaveValue('Saturdays at ten. Old clothes, steady hands. That is all.');
});

test('who usually does what is proposed first, and what is written down reaches the maker at their step', async ({ browser, zesting }) => {
  const dana = await signIn(browser, zesting, 'dana@quillhaven.test');
  await test.step('the team of a client', async () => {
    await dana.goto('/clients');
    await dana.getByRole('link', { name: /Kiln Lane/ }).click();
    await dana.getByRole('tab', { name: 'Team' }).click();
    const write = dana.getByLabel('write', { exact: true });
    await expect(write.getByRole('option', { selected: true })).toHaveText('Nobody in particular');
    await write.selectOption({ label: 'Noor Castellane' });
    await expect(dana.getByText('Noor Castellane usually does write here.')).toBeVisible();
    await expectAccessible(dana);
    await zesting.query(
      "update client_team set person_id = (select id from people where name = 'Dana Okafor') where skill = 'write' and client_id = (select id from clients where code = 'KILN')",
    );
    await write.selectOption({ label: 'Sunniva Aldous' });
    await expect(dana.getByRole('alert')).toContainText('Somebody else changed this meanwhile');
    await expect(write.getByRole('option', { selected: true })).toHaveText('Dana Okafor'); // as it is now
    await write.selectOption({ label: 'Sunniva Aldous' });
    await expect(dana.getByText('Sunniva Aldous usually does write here.')).toBeVisible();
    await dana.goto('/production?client=KILN');
    await dana.getByRole('link', { name: 'Flour from three fields' }).click();
    await dana.getByRole('button', { name: 'Write: nobody yet. Choose a person' }).click();
    const first = dana.getByRole('dialog').getByRole('listitem').first();
    await expect(first).toContainText('Sunniva Aldous');
    await expect(first).toContainText('Usually does this');
    await first.getByRole('button', { name: 'Give to Sunniva' }).click();
    await expect(dana.getByRole('dialog')).toHaveCount(0);
  });

  await test.step('a guideline', async () => {
    await dana.goto('/guidelines?client=KILN');
    await dana.getByRole('button', { name: 'New guideline' }).click();
    const dialog = dana.getByRole('dialog', { name: 'New guideline' });
    await dialog.getByRole('button', { name: 'Write it down' }).click();
    await expect(dialog.getByText('Give it a name.')).toBeVisible();
    await dialog.getByLabel('Name', { exact: false }).first().fill('Flour has a name');
    await dialog.getByLabel('How it is made').fill('Say which field it grew on: https://fields.example/map');
    await dialog.getByLabel('Client').selectOption('');
    await dialog.getByRole('button', { name: 'Write it down' }).click();
    await expect(dialog.getByRole('alert')).toContainText('written by a lead');
    await dialog.getByLabel('Client').selectOption({ label: 'Kiln Lane Bakehouse' });
    await dialog.getByLabel('Whoever does').selectOption('write');
    await expectAccessible(dana);
    await dialog.getByRole('button', { name: 'Write it down' }).click();
    await expect(dana.getByRole('listitem').filter({ hasText: 'Flour has a name' })).toContainText(
      'Kiln Lane Bakehouse · whoever does write',
    );
    const field = await sharp({ create: { width: 600, height: 400, channels: 3, background: '#c9a227' } })
      .png()
      .toBuffer();
    const guideline = dana.getByRole('listitem').filter({ hasText: 'Flour has a name' }).first();
    await guideline.getByLabel('Pictures of Flour has a name').setInputFiles({ name: 'field.png', mimeType: 'image/png', buffer: field });
    await expect(guideline.getByRole('img', { name: 'field.png' })).toBeVisible();
    await expectAccessible(dana);
  });

  await test.step('on the phone of who writes', async () => {
    const sunniva = await signIn(browser, zesting, 'sunniva@quillhaven.test', { viewport: { width: 390, height: 844 }, hasTouch: true });
    await sunniva.getByRole('link', { name: '2 guidelines for Flour from three fields' }).click();
    const how = sunniva.getByRole('region', { name: 'How we make this' });
    await expect(how.getByRole('listitem').filter({ hasText: 'Flour has a name' })).toContainText('for your step');
    await expect(how.getByRole('link', { name: 'https://fields.example/map' })).toBeInViewport(); // stands open, and is come to
    await how.getByRole('img', { name: 'field.png' }).scrollIntoViewIfNeeded();
    await expect.poll(() => how.getByRole('img', { name: 'field.png' }).evaluate((image) => (image as HTMLImageElement).naturalWidth)).toBeGreaterThan(0); // prettier-ignore
    await expectAccessible(sunniva);
  });
});

test('remarks stand on a sentence, a part of a picture and a second of a sound; they follow what is changed, and are settled', async ({
  browser,
  zesting,
}) => {
  const mail = await mailTo(zesting, 'abe@tidelight.test', 'Night sail for members');
  const abe = await visitor(browser, zesting, linkIn(mail.text, '/room/'), { viewport: { width: 390, height: 844 }, hasTouch: true });
  const piece = abe.getByRole('article', { name: 'Night sail for members' });

  await test.step('the client points at them on the phone, and says what should change', async () => {
    await piece.getByRole('button', { name: 'Ask for changes' }).tap();
    await piece.getByRole('button', { name: 'Send the changes' }).tap();
    await expect(piece.getByRole('alert')).toHaveText('Say what should change.');
    await piece.getByRole('button', { name: /^Point at: Lanterns lit/ }).tap();
    await expect(piece.getByText('“Lanterns lit, phones away, twelve places.”')).toBeVisible();
    await expect(piece.getByLabel('Change 1', { exact: true })).toBeFocused();
    await piece.getByLabel('Change 1', { exact: true }).fill('Say fourteen');
    const picture = piece.getByRole('button', { name: /^Point at a part of picture 1/ }).locator('..');
    await picture.tap({ position: { x: 20, y: 20 } });
    await piece.getByRole('button', { name: 'Send the changes' }).tap();
    await expect(piece.getByRole('alert')).toContainText('You pointed at a place and said nothing about it');
    await piece.getByLabel('Change 2', { exact: true }).fill('The moon is too bright');
    await expectAccessible(abe);
    await abe.route('**/decisions', (route) => route.abort());
    await piece.getByRole('button', { name: 'Send the changes' }).tap();
    await expect(piece.getByRole('alert')).toBeVisible();
    await abe.unroute('**/decisions');
    await expect(piece.getByLabel('Change 1', { exact: true })).toHaveValue('Say fourteen'); // nothing typed is lost
    await piece.getByRole('button', { name: 'Send the changes' }).tap();
    await expect(piece).toHaveCount(0); // it stands with what was decided before
  });

  const ivo = await signIn(browser, zesting, 'ivo@quillhaven.test');
  await ivo.goto('/production?client=TIDE');
  await ivo.getByRole('link', { name: 'Night sail for members' }).click();
  const content = ivo.getByRole('region', { name: 'Content' });
  const said = ivo.getByRole('region', { name: 'What was said' });
  const line = (words: string) => said.getByRole('listitem').filter({ hasText: words });

  await test.step('the team sees them where they stand, in what it changed as well', async () => {
    await expect(ivo.getByRole('region', { name: 'Remarks' })).toContainText('2 to settle or answer');
    await content.getByLabel('Copy', { exact: true }).fill('New this year. Lanterns lit, phones away, fourteen places. Bring a coat.');
    await content.getByLabel('Add pictures or clips').setInputFiles({ name: 'waves.wav', mimeType: 'audio/wav', buffer: silence(4) });
    await expect(content.getByRole('button', { name: 'Take out waves.wav' })).toBeVisible();
    await content.getByRole('button', { name: 'Save' }).click();
    await expect(content.getByText('Not saved yet')).toHaveCount(0);
    await content.getByRole('link', { name: 'Remark at a place' }).click();
    await expect(line('Say fourteen')).toContainText('at “Lanterns lit, phones away, twelve places.”');
    await expect(line('Say fourteen')).toContainText('changed since: “Lanterns lit, phones away, fourteen places.”');
    await expect(line('The moon is too bright')).toContainText('at picture 1, upper left');
    const whole = ivo.getByRole('region', { name: 'The piece' });
    await expect(whole.locator('mark')).toHaveText('Lanterns lit, phones away, fourteen places.');
    await whole.getByRole('button', { name: 'Remark 2' }).click();
    await expect(line('The moon is too bright')).toHaveClass(/bg-lake-soft/);
  });

  const [{ name, email }] = (await zesting.query<{ name: string; email: string }>(
    "select d.name, d.email from steps s join pieces p on p.id = s.piece_id join people d on d.id = s.doer_id where p.title = 'Night sail for members' and s.finished_on is null and s.kind = 'make' order by s.position limit 1",
  )) as [{ name: string; email: string }]; // the round that was asked for begins with somebody
  const first = name.split(' ')[0] ?? '';

  await test.step('and says more: at a second of the sound, with the keys on the picture, for itself or for the client', async () => {
    const fresh = ivo.getByRole('region', { name: 'A new remark' });
    await fresh.getByRole('button', { name: 'Add the remark' }).click();
    await expect(fresh.getByRole('alert')).toHaveText('Write something first.');
    await fresh.getByRole('button', { name: 'Point at a place' }).click();
    await expectAccessible(ivo);
    await ivo.locator('audio').evaluate((sound: HTMLMediaElement) => {
      sound.currentTime = 2.5;
    });
    await ivo.getByRole('button', { name: 'Point at 0:02 of clip 2' }).click();
    await fresh.getByLabel('What you have to say').fill(`Too quiet from here, @${first}`);
    await expect(fresh.getByRole('checkbox', { name })).toBeChecked();
    await fresh.getByRole('button', { name: 'Add the remark' }).click();
    await expect(line('Too quiet from here')).toContainText('at clip 2 at 0:02');
    await expect(line('Too quiet from here')).toContainText(`told ${name}`);
    await fresh.getByRole('button', { name: 'Point at a place' }).click();
    const keys = ivo.getByRole('button', { name: /^Point at a part of picture 1/ });
    await keys.focus();
    for (let count = 0; count < 9; count++) await ivo.keyboard.press('ArrowRight');
    await ivo.keyboard.press('Shift+ArrowLeft');
    await ivo.keyboard.press('Enter');
    await fresh.getByLabel('What you have to say').fill('This boat is yours');
    await fresh.getByRole('radio', { name: 'The client reads it, too' }).check();
    await fresh.getByRole('button', { name: 'Add the remark' }).click();
    await expect(line('This boat is yours')).toContainText('at picture 1, right');
    await expect(line('This boat is yours')).toContainText('for the client');
    await line('Too quiet from here').getByRole('button', { name: 'Say something to it' }).click();
    await ivo.getByLabel(`Say something to: Too quiet from here, @${first}`).fill('I turn it up');
    await ivo.getByRole('button', { name: 'Say it' }).click();
    await expect(line('Too quiet from here')).toContainText('I turn it up');
    for (const words of ['Say fourteen', 'The moon is too bright', `Too quiet from here, @${first}`])
      await said.getByRole('checkbox', { name: `Settled: ${words}` }).click();
    await expect(said.getByText('Settled by Ivo Harcastle')).toHaveCount(3);
    await expectAccessible(ivo);
  });

  await test.step('the maker finds them from the own steps', async () => {
    const phone = await signIn(browser, zesting, email, { viewport: { width: 390, height: 844 }, hasTouch: true });
    await phone.getByRole('link', { name: '1 open remark on Night sail for members' }).tap();
    await expect(phone.getByRole('region', { name: 'What was said' }).getByText('This boat is yours')).toBeVisible();
    await expectAccessible(phone);
  });
});

test('a month’s copy is pasted from a spreadsheet, filled down, saved, and taken away', async ({ browser, zesting }) => {
  const dana = await signIn(browser, zesting, 'dana@quillhaven.test');
  await dana.goto('/production');
  await dana.getByRole('navigation', { name: 'Production' }).getByRole('link', { name: 'Copy' }).click();
  await dana
    .getByRole('region', { name: 'Whose copy?' })
    .getByRole('link', { name: /Kiln Lane/ })
    .click();
  const table = dana.getByRole('table', { name: 'Copy of Kiln Lane Bakehouse' });
  const cells = (column: string) => table.getByRole('textbox', { name: new RegExp(`^${column} of `) });
  const save = dana.getByRole('button', { name: /^Save/ });
  await expect(cells('Copy').nth(1)).toBeVisible();
  await expectAccessible(dana);
  const before = await cells('Copy').first().inputValue();

  await test.step('pasted: from a cell to the right and down', async () => {
    const paste = (text: string, html = '') =>
      cells('Copy')
        .first()
        .evaluate(
          (cell, [plain = '', marked = '']) => {
            const clipboardData = new DataTransfer();
            clipboardData.setData('text/plain', plain);
            if (marked) clipboardData.setData('text/html', marked);
            cell.dispatchEvent(new ClipboardEvent('paste', { clipboardData, bubbles: true, cancelable: true }));
          },
          [text, html],
        );
    await paste('"Warm at six.\nGone by nine."\t#warm #six\r\nFlour on Friday\t#flour\r\n');
    await expect(dana.getByRole('status').filter({ hasText: '4 cells filled. Nothing is saved yet.' })).toBeVisible();
    await expect(cells('Copy').first()).toHaveValue('Warm at six.\nGone by nine.');
    await expect(cells('Tags').nth(1)).toHaveValue('#flour');
    await dana.getByRole('button', { name: 'Take it back' }).click();
    await expect(cells('Copy').first()).toHaveValue(before);
    await expect(save).toBeDisabled();
    await paste('Flour on Friday', '<table><tr><td>Flour on Friday</td></tr></table>');
    await expect(cells('Copy').first()).toHaveValue('Flour on Friday');
    await dana.getByRole('button', { name: 'Take it back' }).click();
  });

  await test.step('typed, with its limit, and filled down', async () => {
    await zesting.query("update channels set tag_limit = 2 where client_id = (select id from clients where code = 'KILN')");
    await dana.reload();
    await expect(cells('Copy').first()).toHaveValue(before);
    await cells('Tags').first().fill('#one #two #three');
    await expect(table.getByText('3 of 2 tags: 1 too many').first()).toBeVisible();
    await cells('Tags').first().fill('#dawn');
    await expect(table.getByText('too many')).toHaveCount(0);
    for (const row of [0, 1]) await table.getByRole('checkbox').nth(row).check();
    await dana.getByRole('group', { name: 'Fill down' }).getByRole('button', { name: 'Tags' }).click();
    await expect(cells('Tags').nth(1)).toHaveValue('#dawn');
    await expectAccessible(dana);
  });

  await test.step('saved, where nobody else changed it meanwhile', async () => {
    await cells('First comment').first().fill('Ask us for the recipe');
    const label = (await cells('First comment').first().getAttribute('aria-label')) ?? '';
    const title = /^First comment of (.*) on /.exec(label)?.[1] ?? '';
    await zesting.query('update pieces set content_version = content_version + 1 where title = $1', [title]);
    await save.click();
    const behind = table.getByRole('alert').filter({ hasText: 'Somebody else changed this meanwhile' });
    await expect(behind.first()).toBeVisible();
    await expect(cells('First comment').first()).toHaveValue('Ask us for the recipe'); // nothing typed is lost
    await behind.first().getByRole('button', { name: 'Keep what I typed' }).click();
    await expect(behind).toHaveCount(0);
    // it is disabled while it is on its way as well: a reload would cut that short
    const [kept] = await Promise.all([
      dana.waitForResponse((response) => response.request().method() !== 'GET' && /\/copy\b|\/copies\b/.test(response.url())),
      save.click(),
    ]);
    expect(kept.ok()).toBe(true);
    await expect(save).toBeDisabled();
    await dana.reload();
    await expect(cells('First comment').first()).toHaveValue('Ask us for the recipe');
    await expect(cells('Tags').nth(1)).toHaveValue('#dawn');
  });

  await test.step('taken away', async () => {
    const [file] = await Promise.all([dana.waitForEvent('download'), dana.getByRole('link', { name: 'As CSV' }).click()]);
    const text = readFileSync((await file.path()) ?? '', 'utf8');
    expect(text).toContain('Ask us for the recipe');
    expect(text.split('\r\n')[0]).toBe('\ufeffDay,Time,Channel,No.,Piece,Purpose,Copy,Tags,First comment,Link');
  });
});

test('a freelancer’s day on the phone: takes one on, turns one down, works by the clock and types hours', async ({ browser, zesting }) => {
  const noor = await signIn(browser, zesting, 'noor@pencraft.test', { viewport: { width: 390, height: 844 }, hasTouch: true });
  const line = (title: string) => noor.getByRole('listitem').filter({ hasText: title });
  const offered = line('Inside the deck oven');
  await expect(offered.getByText('Do you take it on?')).toBeVisible();
  await expectAccessible(noor);
  await offered.getByRole('button', { name: /^I cannot/ }).tap();
  const why = noor.getByRole('dialog', { name: /^Turn down/ });
  await why.getByRole('button', { name: 'Turn it down' }).tap();
  await expect(why.getByText('Say why: it helps to find somebody else.')).toBeVisible();
  await why.getByLabel('Why').fill('No kiln near me that week');
  await why.getByRole('button', { name: 'Turn it down' }).tap();
  await expect(offered).toHaveCount(0);
  const dana = await signIn(browser, zesting, 'dana@quillhaven.test');
  await dana.goto('/production?client=KILN');
  await dana.getByRole('link', { name: 'Inside the deck oven' }).click();
  await expect(dana.getByRole('button', { name: /: nobody yet\. Choose a person$/ }).first()).toBeVisible();
  await dana.getByText(/^Activity \(/).click();
  await expect(dana.getByText('No kiln near me that week').first()).toBeVisible();
  await dana
    .getByRole('button', { name: /: nobody yet\. Choose a person$/ })
    .first()
    .click();
  await dana.getByRole('dialog').getByRole('button', { name: 'Give to Noor' }).click();
  const script = dana.getByRole('region', { name: 'Path' }).getByRole('listitem').filter({ hasText: 'Script' }).first();
  await expect(script.getByText('not taken on yet')).toBeVisible();
  await offered.getByRole('button', { name: /^Take it on/ }).tap();
  await expect(offered.getByText('Do you take it on?')).toHaveCount(0);
  await expect(script.getByText('not taken on yet')).toHaveCount(0);

  const left = offered.getByRole('button', { name: /left in/ });
  const before = await left.textContent();
  await offered.getByRole('button', { name: /^Start the clock/ }).tap();
  await expect(offered.getByRole('button', { name: /^Pause/ })).toBeVisible();
  await expectAccessible(noor);
  await zesting.query("update worked set started_at = started_at - interval '40 minutes' where minutes is null");
  await offered.getByRole('button', { name: /^Pause/ }).tap();
  await expect(offered.getByRole('button', { name: /^40 min worked/ })).toBeVisible();
  await expect(left).not.toHaveText(before ?? '');

  // one that was forgotten is asked for
  await offered.getByRole('button', { name: /^Start the clock/ }).tap();
  await expect(offered.getByRole('button', { name: /^Pause/ })).toBeVisible();
  await zesting.query("update worked set started_at = started_at - interval '20 hours' where minutes is null");
  await offered.getByRole('button', { name: /^Pause/ }).tap();
  const forgotten = noor.getByRole('dialog', { name: 'How long was it?' });
  await forgotten.getByLabel('Worked').fill('long');
  await forgotten.getByRole('button', { name: 'Put it down' }).tap();
  await expect(forgotten.getByText(/Type a time up to twelve hours/)).toBeVisible();
  await forgotten.getByLabel('Worked').fill('0:20');
  await forgotten.getByRole('button', { name: 'Put it down' }).tap();
  await expect(offered.getByRole('button', { name: /^1 h worked/ })).toBeVisible();

  await offered.getByRole('button', { name: /^1 h worked/ }).tap();
  const hours = noor.getByRole('dialog', { name: /^Hours of/ });
  await hours.getByLabel('Worked today').fill('1,5');
  await hours.getByRole('button', { name: 'Add' }).tap();
  await expect(hours.getByText('2 h 30 min')).toBeVisible();
  await expectAccessible(noor);
  await hours.getByRole('button', { name: 'Take back' }).first().tap();
  await expect(hours.getByRole('listitem')).toHaveCount(3); // two, and the sum
});

test('steps of a kind are made one after another: handed in, the next comes by itself; all are read from', async ({ browser, zesting }) => {
  const noor = await signIn(browser, zesting, 'noor@pencraft.test', { viewport: { width: 390, height: 844 }, hasTouch: true });
  await noor.getByRole('link', { name: 'One after another' }).tap();
  await expect(noor.getByRole('table', { name: 'What there is to make' })).toBeVisible();
  await expectAccessible(noor);
  await noor.getByRole('link', { name: /steps?: write, all formats/ }).tap();
  const list = noor.getByRole('navigation', { name: 'One after another' });
  const titles = async () => (await list.getByRole('button').locator('span.font-medium').allTextContents()).map((title) => title.trim());
  await expect(list.getByRole('button').nth(2)).toBeVisible();
  const before = await titles();
  await expect(list.getByRole('button').first()).toHaveAttribute('aria-current', 'step');
  await expectAccessible(noor);

  // the second is made first
  await list.getByRole('button').nth(1).tap();
  const current = noor.getByRole('region', { name: before[1] ?? '' });
  await current.getByLabel('Copy', { exact: true }).fill('Read me aloud, slowly.');
  await current.getByRole('button', { name: 'Hand in' }).tap();
  await expect(noor.getByRole('region', { name: before[2] ?? '' })).toBeVisible(); // the next of the list
  await expect.poll(titles).toEqual(before.filter((_, index) => index !== 1));
  await noor.reload(); // the address holds where one is
  await expect(noor.getByRole('region', { name: before[2] ?? '' })).toBeVisible();
  await noor
    .getByRole('region', { name: before[2] ?? '' })
    .getByLabel('Copy', { exact: true })
    .fill('The script of this one.');
  await noor.getByRole('button', { name: 'Save' }).tap();
  await expect(noor.getByText('Not saved yet')).toHaveCount(0);

  await noor.getByRole('button', { name: 'Read', exact: true }).tap();
  const read = noor.getByRole('listitem').filter({ hasText: 'The script of this one.' });
  await expect(read).toBeVisible();
  await expectAccessible(noor);
  await read.getByRole('button', { name: /^Done: hand in/ }).tap();
  await expect(read).toHaveCount(0);

  const dana = await signIn(browser, zesting, 'dana@quillhaven.test');
  await dana.goto('/production/make');
  const cell = dana.getByRole('link', { name: /steps?: design, all formats/ });
  await expect(cell).toBeVisible();
  await dana.getByLabel('With').selectOption({ label: 'nobody' });
  await expect(dana).toHaveURL(/with=nobody/);
  await dana.getByRole('button', { name: 'Show all' }).click();
  await expect(cell).toBeVisible();
  await expectAccessible(dana);
});

test('another piece is begun from one: with its words and pictures, apart from it', async ({ browser, zesting }) => {
  const dana = await signIn(browser, zesting, 'dana@quillhaven.test');
  await dana.goto('/production?client=MOSS&shown=all');
  await dana.getByRole('link', { name: 'Moss lawns, honestly' }).click();
  const copy = dana.getByRole('region', { name: 'Content' }).getByLabel('Copy', { exact: true });
  const words = await copy.inputValue();
  await dana.getByRole('button', { name: 'Begin another from this' }).click();
  const dialog = dana.getByRole('dialog', { name: 'Begin another from “Moss lawns, honestly”' });
  await expect(dialog.getByLabel('Working title')).toHaveValue('Moss lawns, honestly');
  await expectAccessible(dana);
  await dialog.getByLabel('Working title').fill('Moss lawns, a year on');
  await dialog.getByRole('button', { name: 'Begin', exact: true }).click();
  await expect(dana.getByRole('heading', { level: 1, name: 'Moss lawns, a year on' })).toBeVisible();
  await expect(dana.getByText(/^Begun from Moss lawns, honestly \(no\. \d+\)$/)).toBeVisible();
  await expect(copy).toHaveValue(words);
  await copy.fill(`${words} A year on.`);
  await dana.getByRole('button', { name: 'Save' }).click();
  await expect(dana.getByText('Not saved yet')).toHaveCount(0);
  await dana.getByRole('link', { name: 'Moss lawns, honestly' }).click();
  await expect(dana.getByText(/^Used again in Moss lawns, a year on/)).toBeVisible();
  await expect(copy).toHaveValue(words); // the one it was begun from is as it was
});

test('stages: a piece moves by what that means, by mouse and by button, and why not is said', async ({ browser, zesting }) => {
  const dana = await signIn(browser, zesting, 'dana@quillhaven.test');
  await dana.goto('/production?client=KILN');
  await dana.getByRole('link', { name: 'Stages', exact: true }).click();
  const column = (name: string) => dana.getByRole('region', { name: new RegExp(`^${name} \\d+$`) });
  const card = (name: string) => column(name).getByRole('listitem').filter({ hasText: 'Gift boxes, early list' });
  await expect(card('Planned')).toBeVisible();
  await expectAccessible(dana);
  const dragTo = async (from: Locator, to: Locator, told: string) => {
    const [start, end] = [await from.boundingBox(), await to.boundingBox()];
    if (!start || !end) throw new Error('not on the screen');
    await dana.mouse.move(start.x + 12, start.y + start.height - 6);
    await dana.mouse.down();
    await dana.mouse.move(start.x + 40, start.y + start.height, { steps: 3 });
    await dana.mouse.move(end.x + end.width / 2, end.y + 60, { steps: 6 });
    await expect(to.getByText(told).first()).toBeVisible(); // on the way
    await dana.mouse.up();
  };
  await dragTo(card('Planned'), column('Approved'), 'The client’s word makes it so.');
  await expect(dana.getByText('Gift boxes, early list: The client’s word makes it so.')).toBeVisible();
  await expect(card('Planned')).toBeVisible();
  await dragTo(card('Planned'), column('In production'), 'Begin “');
  await expect(card('In production')).toBeVisible();
  await card('In production')
    .getByRole('button', { name: /^Hand in “/ })
    .waitFor({ state: 'detached' }); // another making step comes first
  const returned = column('In review').getByRole('listitem').first();
  await returned.getByRole('button', { name: /^Hand back from “/ }).click();
  await expect(dana.getByRole('dialog', { name: 'Hand back to the maker' })).toBeVisible();
});

test('a creator is ill for a week: what becomes late, who takes over, accepted, and nothing is late by it', async ({
  browser,
  zesting,
}) => {
  const marta = await signIn(browser, zesting, 'marta@quillhaven.test');
  await marta.goto('/people');
  await marta.getByRole('link', { name: 'Sunniva Aldous' }).click();
  const off = marta.getByRole('region', { name: 'Time off' });
  await off.getByRole('button', { name: 'See what becomes late…' }).click();
  await expect(off.getByText('Choose the first and the last day.')).toBeVisible();
  await off.getByLabel('First day').fill('9 March 2027');
  await off.getByLabel('First day').press('Enter');
  await expect(off.getByLabel('Last day')).toHaveValue('Tue 9 Mar 2027'); // it follows; what is typed meanwhile would stand behind it
  await off.getByLabel('Last day').fill('26 March 2027');
  await off.getByLabel('Last day').press('Enter');
  const late = async () =>
    (
      await zesting.query<{ title: string }>(
        "select title from pieces where list is not null and danger in ('overdue', 'out_of_reach', 'will_be_late') order by title",
      )
    ).map(({ title }) => title);
  const predicted = () => expect.poll(async () => (await zesting.query('select 1 from predictions_wanted')).length).toBe(0);
  await predicted(); // what happened before this has been reckoned
  const before = await late();
  await off.getByRole('button', { name: 'See what becomes late…' }).click();
  const dialog = marta.getByRole('dialog', { name: /^Sunniva Aldous away/ });
  const later = dialog.getByRole('region', { name: /would be later$/ });
  await expect(later.getByText('in time with what is proposed').first()).toBeVisible();
  await expect(
    later
      .getByRole('listitem')
      .filter({ hasText: /in time now, \d+ working days? late then/ })
      .first(),
  ).toBeVisible();
  await expectAccessible(marta);
  // one is left with her, and taken back in: only the whole is said to be in time
  const first = dialog.getByRole('checkbox').first();
  await first.uncheck();
  await expect(later.getByText('in time with what is proposed')).toHaveCount(0);
  await first.check();
  await zesting.query("update steps set version = version + 1 where doer_id = (select id from people where name = 'Sunniva Aldous')");
  await dialog.getByRole('button', { name: /^Enter it and give \d+ steps?$/ }).click();
  await expect(dialog.getByRole('alert')).toContainText('Nothing was entered');
  expect(
    await zesting.query(
      "select 1 from time_off where start_on = '2027-03-09' and person_id = (select id from people where name = 'Sunniva Aldous')",
    ),
  ).toEqual([]);
  await expect(later.getByText('in time with what is proposed').first()).toBeVisible(); // looked at anew
  await dialog.getByRole('button', { name: /^Enter it and give \d+ steps?$/ }).click();
  await expect(dialog).toHaveCount(0);
  await expect(off.getByText('Tue 9 Mar to Fri 26 Mar').first()).toBeVisible();
  // once all is predicted anew, nothing is late that was not before
  await predicted();
  expect((await late()).filter((title) => !before.includes(title))).toEqual([]);
});

test('what is looked at before work is handed in: written in the route, ticked on the piece, asked for by the hand-in', async ({
  browser,
  zesting,
}) => {
  const marta = await signIn(browser, zesting, 'marta@quillhaven.test');
  await marta.goto('/routes');
  await marta.getByRole('button', { name: /^Article/ }).click();
  await marta.getByRole('button', { name: 'Checklist…' }).first().click();
  const lines = marta.getByLabel('Checklist of Write');
  await lines.fill('Every link pressed\n\nNames as the client spells them');
  await expectAccessible(marta);
  await marta.getByRole('button', { name: 'Save' }).click();
  await expect(marta.getByText('Saved').first()).toBeVisible();
  await marta.reload();
  await marta.getByRole('button', { name: /^Article/ }).click();
  await expect(lines).toHaveValue('Every link pressed\nNames as the client spells them');

  const dana = await signIn(browser, zesting, 'dana@quillhaven.test');
  await dana.goto('/production?client=MOSS&open=begin');
  const begin = dana.getByRole('dialog');
  await begin.getByLabel('Working title').fill('Mulch, in its season');
  await begin.getByLabel(/^Route/).selectOption({ label: 'Article' });
  await begin.getByRole('button', { name: 'Begin', exact: true }).click();
  await expect(dana.getByRole('heading', { level: 1, name: 'Mulch, in its season' })).toBeVisible();
  await dana.getByRole('region', { name: 'Content' }).getByLabel('Copy', { exact: true }).fill('Leaf mould first.');
  const list = dana.getByRole('group', { name: 'Checklist of Write' });
  await dana.getByRole('button', { name: 'Hand in' }).click();
  await expect(dana.getByRole('alert').filter({ hasText: '2 lines to tick first.' })).toBeVisible();
  await list.getByRole('checkbox', { name: /^Every link pressed/ }).focus();
  await dana.keyboard.press('Space');
  await expect(list.getByText(/Dana Okafor, /)).toHaveCount(1);
  await expect(dana.getByRole('alert').filter({ hasText: '1 line to tick first.' })).toBeVisible();
  await expectAccessible(dana);
  await dana.reload();
  await expect(list.getByRole('checkbox', { name: /^Every link pressed/ })).toBeChecked();
  await list.getByRole('checkbox', { name: /^Names as the client/ }).check();
  await expect(list.getByText(/Dana Okafor, /)).toHaveCount(2);
  await dana.getByRole('region', { name: 'Content' }).getByLabel('Copy', { exact: true }).fill('Leaf mould first, then bark.');
  await dana.getByRole('button', { name: 'Hand in' }).click();
  await expect(dana.getByText('Write: handed in')).toBeVisible();
  await expect(list).toHaveCount(0);
  // who looked stays to be seen in the path
  const path = dana.getByRole('region', { name: 'Path' });
  await path.getByText('Checklist: 2 of 2 ticked').click();
  await expect(path.getByText(/^Every link pressed · Dana Okafor, /)).toBeVisible();
});

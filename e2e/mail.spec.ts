import { expect, expectAccessible, mailTo, signIn, tellStory, test, visitor } from './zesting';

tellStory('mail');

test('a mail with two files becomes a request; a question is answered by mail; a stranger’s mail waits for one click', async ({
  browser,
  zesting,
}) => {
  const dana = await signIn(browser, zesting, 'dana@quillhaven.test');
  await dana.goto('/links?client=KILN');
  const address = (await dana.getByRole('link', { name: /^kiln@/ }).textContent()) ?? '';
  await dana.goto('/requests?client=KILN');

  // the mail program of the demo stands in for everybody's
  const catcher = await visitor(browser, zesting, zesting.mailAddress);
  const write = async (from: string, subject: string, words: string, files: string[] = [], to = address) => {
    await catcher.goto(`${zesting.mailAddress}/write`);
    await catcher.getByLabel('From').fill(from);
    await catcher.getByLabel('To').fill(to);
    await catcher.getByLabel('Subject').fill(subject);
    await catcher.getByLabel('Words').fill(words);
    const text = (name: string) => ({ name, mimeType: 'text/plain', buffer: Buffer.from(`This is ${name}.`) });
    await catcher.getByLabel('Files').setInputFiles(files.map(text));
    await catcher.getByRole('button', { name: 'Send it' }).click();
  };
  await write('Nobody <nobody@x.test>', 'Wrong', 'Hello', [], 'zzz@ask.zesting.test');
  await expect(catcher.getByRole('alert')).toContainText('Nobody has this address');
  await write('Sam Adewole <sam@kilnlane.test>', 'Fwd: Crumpets for the fair', 'Can we show the crumpets?', [
    'list.txt',
    'Größe der Stände.txt',
  ]);
  await expect(catcher.getByRole('heading', { name: 'It is sent' })).toBeVisible();

  // it stands on the open list by itself
  const list = dana.getByRole('navigation', { name: 'Requests' });
  await list.getByRole('link', { name: /Crumpets for the fair/ }).click();
  const request = dana.getByRole('article', { name: 'Crumpets for the fair', exact: true });
  await expect(request.getByText('by mail')).toBeVisible();
  await expect(request.getByText('Can we show the crumpets?')).toBeVisible();
  for (const name of ['list.txt', 'Größe der Stände.txt']) await expect(request.getByRole('link', { name })).toBeVisible();
  await mailTo(zesting, 'sam@kilnlane.test', 'We have your request');

  await request.getByRole('button', { name: 'Ask back…' }).click();
  await dana.getByRole('dialog').getByRole('textbox').fill('Which fair, and on which day?');
  await dana.getByRole('dialog').getByRole('button', { name: 'Send the question' }).click();
  await mailTo(zesting, 'sam@kilnlane.test', 'A question about Crumpets');
  await catcher.goto(`${zesting.mailAddress}/?to=sam@kilnlane.test`);
  await catcher
    .getByRole('article')
    .filter({ hasText: 'A question about Crumpets' })
    .getByRole('link', { name: 'Answer this mail' })
    .click();
  await catcher.getByLabel('Subject').fill('Something quite different');
  const quoted = await catcher.getByLabel('Words').inputValue();
  expect(quoted).toContain('> Which fair, and on which day?');
  await catcher.getByLabel('Words').fill(`The spring fair, on 3 April.${quoted}`);
  await catcher.getByRole('button', { name: 'Send it' }).click();
  await expect(catcher.getByRole('heading', { name: 'It is sent' })).toBeVisible();
  const thread = request.getByRole('list', { name: 'Questions and answers' });
  await expect(thread.getByText('The spring fair, on 3 April.', { exact: true })).toBeVisible();
  await expect(list.getByRole('link', { name: /Something quite different/ })).toHaveCount(0);

  await write('Edna Rook <edna@fairs.test>', 'A stall for the bakehouse', 'Would the bakehouse like a stall?', ['stall.txt']);
  await dana.getByRole('link', { name: 'Say what it is' }).click();
  const mail = dana.getByRole('article', { name: 'A stall for the bakehouse' });
  await expect(mail.getByText('No contact of this client has this address.')).toBeVisible();
  await expectAccessible(dana);
  await mail.getByRole('button', { name: 'It is no request' }).click();
  await dana.getByRole('button', { name: 'Undo' }).click();
  await mail.getByRole('button', { name: 'Take it as a request' }).click();
  await dana.getByRole('button', { name: 'Open it' }).click();
  await expect(dana.getByRole('article', { name: 'A stall for the bakehouse' }).getByRole('link', { name: 'stall.txt' })).toBeVisible();
  await mailTo(zesting, 'edna@fairs.test', 'We have your request');
});

import { createServer } from 'node:http';
import type { AddressInfo } from 'node:net';
import { writeFileSync } from 'node:fs';
import type { Page } from '@playwright/test';
import { clip } from './clip';
import { expect, expectAccessible, signIn, tellStory, test, visitor } from './zesting';

tellStory('forms');

/** Adds an item of a kind after the one that is open, and gives it its words. */
async function add(page: Page, kind: string, words: string): Promise<void> {
  await page.getByRole('button', { name: 'Add a question' }).click();
  await page.getByRole('menuitem', { name: kind, exact: true }).click();
  await page.getByLabel('Question (needed)').fill(words);
}

test('a form with two levels of conditions is built, tried, published, and filled in on a phone with a large file', async ({
  browser,
  zesting,
}, info) => {
  const marta = await signIn(browser, zesting, 'marta@quillhaven.test');
  await marta.goto('/forms');
  await marta.getByRole('button', { name: 'New form' }).click();
  await marta.getByLabel('Begin with').selectOption('One question, the rest is yours');
  await marta.getByRole('button', { name: 'Begin it' }).click();
  await expect(marta.getByText('A form needs a title.')).toBeVisible();
  await marta.getByLabel('Title').fill('Ask for something moving');
  await marta.getByLabel('For the client').selectOption({ label: 'Kiln Lane Bakehouse' });
  await marta.getByRole('button', { name: 'Begin it' }).click();
  await expect(marta.getByRole('heading', { name: 'Ask for something moving', level: 1 })).toBeVisible();

  const preview = marta.getByRole('region', { name: 'The form as it is seen' });
  await add(marta, 'One of', 'What kind?');
  await marta.getByLabel('Choice 1', { exact: true }).fill('still');
  await marta.getByLabel('Choice 2', { exact: true }).fill('clip');
  await add(marta, 'Number', 'How many seconds?');
  await marta.getByRole('radio', { name: 'Always needed' }).check();
  await marta.getByRole('radio', { name: 'Shown only where' }).check();
  await marta.getByRole('group', { name: 'Shown where' }).getByLabel('Value').selectOption('clip');
  await add(marta, 'Long text', 'What happens when?');
  await marta.getByRole('radio', { name: 'Needed only where' }).check();
  const needed = marta.getByRole('group', { name: 'Needed where' });
  await needed.getByLabel('Question').selectOption('How many seconds?');
  await needed.getByLabel('Test').selectOption('is at least');
  await needed.getByLabel('Value').fill('30');
  await marta.getByRole('radio', { name: 'Shown only where' }).check();
  const shown = marta.getByRole('group', { name: 'Shown where' });
  await shown.getByLabel('Question').selectOption('How many seconds?');
  await shown.getByLabel('Test').selectOption('is answered');
  await add(marta, 'Files', 'The material');
  await expectAccessible(marta);

  // the real form beside follows over both levels, and checks as the page of the link will
  await expect(preview.getByText('How many seconds?')).toBeHidden();
  await preview.getByRole('radio', { name: 'clip' }).check();
  await preview.getByLabel('How many seconds?').fill('45');
  await expect(preview.getByLabel('What happens when?')).toBeVisible();
  await preview.getByRole('button', { name: 'Check the answers' }).click();
  await expect(preview.getByText('2 answers keep it from being sent.')).toBeVisible();

  // order by keyboard, undone and done again
  const order = () => marta.getByRole('list', { name: 'Items of the form' }).getByRole('button', { expanded: false }).allInnerTexts();
  await marta.getByRole('button', { name: 'The material Files' }).click();
  const before = await order();
  await marta.getByRole('button', { name: 'Move The material', exact: true }).focus();
  await marta.keyboard.press('Space');
  await expect(marta.getByText('“The material” would stand at place 5 of 5.')).toBeAttached();
  await marta.keyboard.press('ArrowUp');
  await expect(marta.getByText('“The material” would stand at place 4 of 5.')).toBeAttached();
  await marta.keyboard.press('Space');
  await expect.poll(order).not.toEqual(before);
  await marta.getByRole('button', { name: 'Undo' }).click();
  await expect.poll(order).toEqual(before);
  await marta.getByRole('button', { name: 'Redo' }).click();
  await expect.poll(order).not.toEqual(before);

  // nothing is published with a fault; a reload keeps what was typed
  await marta.getByRole('button', { name: 'Publish' }).click();
  await expect(marta.getByText('No route is chosen: a request takes one.')).toBeVisible();
  await marta.getByRole('button', { name: 'Mend it' }).click();
  await marta.getByRole('tab', { name: 'Settings' }).click();
  await marta.getByLabel('Route').selectOption('Short clip (Short clip)');
  await marta.getByLabel('Words of thanks').fill('Thank you: we look at it tomorrow.');
  await expect(marta.getByText('All is kept')).toBeVisible();
  await marta.reload();
  await marta.getByRole('tab', { name: 'Sorting' }).click();
  await marta.getByRole('button', { name: 'Add a rule' }).click();
  await marta.getByRole('group', { name: 'When' }).getByLabel('Value').selectOption('clip');
  await marta.getByLabel('It takes the route').selectOption('Short clip');
  await expect(marta.getByText('When What kind? is clip, it takes the route Short clip and goes to the lead person.')).toBeVisible();
  await expectAccessible(marta);
  await marta.getByRole('button', { name: 'Publish' }).click();
  await expect(marta.getByText('Version 1 is asked', { exact: true })).toBeVisible();
  await marta.getByRole('tab', { name: 'Links' }).click();
  await marta.getByRole('button', { name: 'Make a link' }).click();
  await marta.getByLabel('Handed out').fill('Shop window');
  await marta.getByRole('button', { name: 'Make it' }).click();
  const address = (await marta.getByRole('link', { name: zesting.address }).getAttribute('href')) ?? '';
  await expectAccessible(marta);

  // on a phone, with a file whose way is cut once
  const phone = await visitor(browser, zesting, address, { viewport: { width: 390, height: 844 } });
  await phone.getByLabel('What is it about?').fill('The oven at night');
  await phone.getByRole('radio', { name: 'clip' }).check();
  await phone.getByRole('button', { name: 'Send' }).click();
  await expect(phone.getByText('This is needed.')).toHaveCount(1);
  await phone.getByLabel('How many seconds?').fill('1,5 min');
  await phone.getByRole('button', { name: 'Send' }).click();
  await expect(phone.getByText('This is not a number.')).toBeVisible();
  await phone.getByLabel('How many seconds?').fill('90');
  await expect(phone.getByText('This is not a number.')).toBeHidden();
  await phone.getByLabel('What happens when?').fill('Dark, then the door opens.');
  const file = info.outputPath('night.mp4');
  writeFileSync(file, clip(60_000_000));
  let parts = 0;
  await phone.route('**/uploads/*', (route) => {
    if (route.request().method() !== 'PATCH') return route.continue();
    parts += 1;
    return parts === 3 ? route.abort('connectionfailed') : route.continue();
  });
  await phone.getByLabel('The material').setInputFiles(file);
  await expect(phone.getByRole('button', { name: 'Take out night.mp4' })).toBeVisible();
  await phone.getByLabel('Your name').fill('Hollis Marchetti');
  await phone.getByLabel('Your e-mail').fill('hollis@kilnlane.test');
  await phone.reload();
  await expect(phone.getByLabel('How many seconds?')).toHaveValue('90');
  await expectAccessible(phone);
  expect(await phone.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(390);

  // a new version meanwhile: what was typed stays, with a word of it
  await marta.getByRole('tab', { name: /^Questions/ }).click();
  await add(marta, 'Yes or no', 'Is it urgent?');
  await marta.getByRole('button', { name: 'Publish' }).click();
  await expect(marta.getByText('Version 2 is asked', { exact: true })).toBeVisible();
  await phone.getByRole('button', { name: 'Send' }).click();
  await expect(phone.getByText('This form has changed since you began.')).toBeVisible();
  await expect(phone.getByLabel('What happens when?')).toHaveValue('Dark, then the door opens.');
  await phone.getByRole('button', { name: 'Send' }).click();
  await expect(phone.getByRole('heading', { name: 'We have your request' })).toBeVisible();
  await expect(phone.getByText('Thank you: we look at it tomorrow.')).toBeVisible();

  await marta.goto('/requests?client=KILN');
  await marta.getByRole('link', { name: /The oven at night/ }).click();
  const request = marta.getByRole('article', { name: 'The oven at night' });
  await expect(request.getByText('Dark, then the door opens.')).toBeVisible();
  await expect(request.getByText('night.mp4')).toBeVisible();
  await request.getByRole('button', { name: 'Accept…' }).click();
  await expect(marta.getByLabel('Route')).toHaveValue(/./);
  await expect(marta.getByLabel('Route').locator('option:checked')).toHaveText(/Short clip/);
});

test('a form in the second language, open from a day on, on a site of the client’s own; a leaked link dies', async ({
  browser,
  zesting,
}) => {
  const marta = await signIn(browser, zesting, 'marta@quillhaven.test');
  await marta.goto('/forms?open=new');
  await marta.getByLabel('Begin with').selectOption('An event to support');
  await marta.getByLabel('Title').fill('Eine Veranstaltung');
  await marta.getByLabel('For the client').selectOption({ label: 'Mossgrove Nursery' });
  await marta.getByRole('button', { name: 'Begin it' }).click();
  await marta.getByRole('tab', { name: 'Settings' }).click();
  await marta.getByLabel('Language of the built-in words').selectOption('German');
  await marta.getByRole('button', { name: 'Publish' }).click();
  await expect(marta.getByText('Version 1 is asked', { exact: true })).toBeVisible();

  // the client's own site, which the link names; and one that it does not
  const page = { html: '' };
  const site = createServer((_, response) => response.setHeader('Content-Type', 'text/html').end(page.html));
  await new Promise<void>((resolve) => site.listen(0, '127.0.0.1', resolve));
  try {
    const { port } = site.address() as AddressInfo; // it listens
    await marta.getByRole('tab', { name: 'Links' }).click();
    await marta.getByRole('button', { name: 'Make a link' }).click();
    await marta.getByLabel('Handed out').fill('Website');
    await marta.getByLabel('Sites that may embed it').fill('no address');
    await marta.getByRole('button', { name: 'Make it' }).click();
    await expect(marta.getByText('Write each as https://www.example.test, with nothing after it.')).toBeVisible();
    await marta.getByLabel('Sites that may embed it').fill(`http://127.0.0.1:${port}`);
    await marta.getByRole('button', { name: 'Make it' }).click();
    const address = (await marta.getByRole('link', { name: zesting.address }).getAttribute('href')) ?? '';
    page.html = `<iframe src="${address.replace('127.0.0.1', 'localhost')}?embedded" style="width:100%;height:1500px"></iframe>`;
    const visit = await visitor(browser, zesting, `http://127.0.0.1:${port}/`);
    const form = visit.frameLocator('iframe');
    await expect(form.getByText('What is the event called?')).toBeVisible();
    await form.getByRole('button', { name: 'Senden' }).click();
    await expect(form.getByText('Das wird gebraucht.').first()).toBeVisible();
    await form.getByLabel('What is the event called?').fill('Herbstmarkt');
    await form.getByLabel('Von').fill('in 3 Wochen');
    await form.getByLabel('Bis').fill('in 4 Wochen');
    await form.getByRole('radio', { name: 'online' }).check();
    await form.getByRole('checkbox', { name: 'announce it' }).check();
    await form.getByLabel('Ihr Name').fill('Jonna Blomqvist');
    await form.getByLabel('Ihre E-Mail-Adresse').fill('jonna@mossgrove.test');
    await form.getByRole('button', { name: 'Senden' }).click();
    await expect(form.getByRole('heading', { name: 'Ihre Anfrage ist da' })).toBeVisible();

    const elsewhere = await visitor(browser, zesting, `http://localhost:${port}/`);
    await expect(elsewhere.frameLocator('iframe').getByText('What is the event called?')).toBeHidden();

    await marta.getByRole('button', { name: 'Renew: Website' }).click();
    await marta.getByRole('button', { name: 'Renew the link' }).click();
    await expect(marta.getByRole('link', { name: address })).toBeHidden();
    const late = await visitor(browser, zesting, address);
    await expect(late.getByRole('heading', { name: 'This page cannot be opened' })).toBeVisible();
  } finally {
    site.close();
  }
});

test('what the page of a form loads first is less than 120 kB of compressed script', async ({ zesting }) => {
  const page = await (await fetch(`${zesting.address}/ask/any`)).text();
  const scripts = [...new Set([...page.matchAll(/assets\/[\w.-]+\.js/g)].map(([path]) => path))];
  expect(scripts.length).toBeGreaterThan(3);
  const sizes = await Promise.all(
    scripts.map(async (path) => {
      const answer = await fetch(`${zesting.address}/${path}`, { headers: { 'Accept-Encoding': 'br' } });
      await answer.arrayBuffer();
      return Number(answer.headers.get('content-length'));
    }),
  );
  expect(Math.min(...sizes)).toBeGreaterThan(0);
  expect(sizes.reduce((sum, bytes) => sum + bytes, 0)).toBeLessThan(120_000);
});

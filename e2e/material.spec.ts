import sharp from 'sharp';
import { expect, expectAccessible, linkIn, mailTo, signIn, tellStory, test, visitor } from './zesting';

tellStory('material');

const picture = () =>
  sharp({ create: { width: 300, height: 200, channels: 3, background: '#6a7b3c' } })
    .png()
    .toBuffer();
const PHONE = { viewport: { width: 390, height: 844 }, hasTouch: true } as const;

test('the client is asked to bring something, leaves it bit by bit on the phone, and the work can begin', async ({ browser, zesting }) => {
  const dana = await signIn(browser, zesting, 'dana@quillhaven.test');
  const path = dana.getByRole('region', { name: 'Path' });
  const dialog = dana.getByRole('dialog');

  await test.step('a step is added in which the client brings it; what that moves is told', async () => {
    await dana.goto('/production?client=MOSS');
    await dana.getByRole('link', { name: 'Gift plants for small flats' }).click();
    await path.getByRole('button', { name: 'Change Write' }).click();
    await dialog.getByRole('button', { name: 'Add a step' }).click();
    await dialog.getByLabel('Name of the new step').fill('Price list');
    await dialog.getByLabel('What it does').selectOption('the client brings something');
    await expect(dialog.getByLabel('Skill')).toHaveCount(0);
    await dialog.getByLabel('Where it stands').selectOption('before “Write”');
    await dialog.getByLabel('Working days').fill('2');
    await dialog.getByRole('button', { name: 'Add it' }).click();
    await expect(dialog).toHaveCount(0);
    await expect(path.getByText('Nobody has asked the client yet.')).toBeVisible();
  });

  await test.step('the desk says that it is to be asked, and leads to it', async () => {
    await dana.getByRole('link', { name: 'Desk' }).click();
    const row = dana
      .getByRole('region', { name: 'To be asked of the client' })
      .getByRole('listitem')
      .filter({ hasText: 'Gift plants for small flats' });
    await expect(row).toContainText('Price list is the client’s to bring');
    await row.getByRole('link', { name: /Ask for it/ }).click();
  });

  await test.step('a contact is asked, with what else waits for the client, in one mail', async () => {
    await path.getByRole('button', { name: 'Ask the client… (Price list)' }).click();
    await dialog.getByRole('button', { name: 'Ask', exact: true }).click();
    await expect(dialog.getByText('Say what you need.')).toBeVisible();
    await dialog.getByLabel('Who is asked').selectOption('Ollie Fairweather');
    await dialog.getByLabel('What we need').fill('The prices from March, as a file.');
    await dialog.getByRole('checkbox', { name: /^The leaf press: Autumn leaves, kept/ }).check();
    await expectAccessible(dana);
    await dialog.getByRole('button', { name: 'Ask', exact: true }).click();
    await expect(dialog).toHaveCount(0);
    await expect(path.getByText(/^Ollie Fairweather was asked .* to bring it by /)).toBeVisible();
  });

  const mail = await mailTo(zesting, 'ollie@mossgrove.test', 'We need 2 things from you');
  expect(mail.text).toContain('The prices from March, as a file.');
  const ollie = await visitor(browser, zesting, linkIn(mail.text, '/room/'), PHONE);
  const wanted = ollie.getByRole('region', { name: 'Price list: Gift plants for small flats' });
  const brought = wanted.getByRole('list', { name: 'Brought so far' }).getByRole('listitem');

  await test.step('they leave words, an address and a file; what is left is kept over a reload', async () => {
    await expect(ollie.getByText('We need 2 things from you.')).toBeVisible();
    await wanted.getByRole('button', { name: 'That is all' }).tap();
    await expect(wanted.getByRole('alert')).toHaveText('Add something, or say in a word why there is nothing to bring.');
    await wanted.getByLabel('A link, or words').fill('https://files.mossgrove.test/prices');
    await wanted.getByRole('button', { name: 'Add this' }).tap();
    await expect(brought).toHaveCount(1);
    await wanted
      .getByLabel('Files for Price list')
      .setInputFiles({ name: 'prices.csv', mimeType: 'text/csv', buffer: Buffer.from('plant,price\nfern,9\n') });
    await expect(brought).toHaveCount(2);
    await ollie.reload();
    await expect(brought).toHaveText([/files\.mossgrove\.test/, /prices\.csv/]);
    await wanted.getByRole('button', { name: 'Take out https://files.mossgrove.test/prices' }).tap();
    await expect(brought).toHaveCount(1);
    await expectAccessible(ollie);
  });

  await test.step('the team sees what has come while it comes', async () => {
    await expect(path.getByText('1 thing so far')).toBeVisible();
    await expect(dana.getByRole('list', { name: 'Originals' }).getByRole('listitem')).toContainText(['prices.csv']);
  });

  await test.step('that is all: the step is done, and what follows can begin', async () => {
    await wanted.getByLabel('A link, or words').fill('The small ferns are sold out.'); // what is typed goes with it
    await wanted.getByRole('button', { name: 'That is all' }).tap();
    await expect(wanted.getByText(/^Brought /).first()).toBeVisible();
    await expect(ollie.getByText('We need 1 thing from you.')).toBeVisible();
    await expect(path.getByRole('listitem').filter({ hasText: 'Price list' })).toContainText('Done');
    await expect(dana.getByRole('list', { name: 'Originals' })).toContainText('The small ferns are sold out.');
    await expect(dana.getByRole('list', { name: 'Originals' }).getByText('from the client')).toHaveCount(2);
  });
});

test('material of the team stands beside the content, and is taken away and put back', async ({ browser, zesting }) => {
  const piet = await signIn(browser, zesting, 'piet@quillhaven.test');
  const [piece] = await zesting.query<{ id: string }>("select id from pieces where title = 'Meet the cutting bench'");
  await piet.goto(`/pieces/${piece?.id}`);
  const material = piet.getByRole('region', { name: 'Material' });
  await expect(material.getByText('Ollie at the bench, by telephone')).toBeVisible();
  await material.getByText('Ollie at the bench, by telephone').click();
  await expect(material.getByText(/You cut below the leaf, never above it/)).toBeVisible();
  await material.getByLabel('Files as').selectOption('a reference');
  await material
    .getByLabel('Files for the material')
    .setInputFiles({ name: 'light.txt', mimeType: 'text/plain', buffer: Buffer.from('From the left') });
  const references = material.getByRole('list', { name: 'References' });
  await expect(references.getByRole('link', { name: 'light.txt' })).toBeVisible();
  await material.getByRole('button', { name: 'Add a link or words…' }).click();
  const dialog = piet.getByRole('dialog');
  await dialog.getByLabel('Link').fill('not an address');
  await dialog.getByRole('button', { name: 'Add', exact: true }).click();
  await expect(dialog.getByText('A whole address, such as https://example.org/folder.')).toBeVisible();
  await dialog.getByLabel('Link').fill('https://light.test/how');
  await expectAccessible(piet);
  await dialog.getByRole('button', { name: 'Add', exact: true }).click();
  await expect(references.getByRole('listitem')).toHaveCount(2);
  await references.getByRole('button', { name: 'Take light.test/how away' }).click();
  await expect(references.getByRole('listitem')).toHaveCount(1);
  await piet.getByRole('button', { name: 'Undo' }).click();
  await expect(references.getByRole('listitem')).toHaveCount(2);
  await piet.reload();
  await expect(references.getByRole('listitem')).toHaveCount(2);
  // a picture of it is taken into the content, and none of the rest
  const content = piet.getByRole('region', { name: 'Content' });
  await material.getByLabel('Files for the material').setInputFiles({ name: 'knife.png', mimeType: 'image/png', buffer: await picture() });
  await content.getByRole('button', { name: 'From material or brief' }).click();
  await piet.getByRole('menuitem', { name: 'knife.png' }).click();
  await content.getByLabel('Alternative text of knife.png').fill('A knife');
  await content.getByRole('button', { name: 'Save' }).click();
  await expect(material.getByText('in the content')).toBeVisible();
  const [row] = await zesting.query<{ media: unknown[] }>(
    "select content -> 'shared' -> 'media' as media from pieces where title = 'Meet the cutting bench'",
  );
  expect(row?.media).toHaveLength(2);
  expect(JSON.stringify(row?.media)).toContain('A knife');
});

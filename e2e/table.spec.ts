import { expect, expectAccessible, signIn, tellStory, test } from './zesting';

tellStory('table');

test('a table becomes requests: columns are matched, every problem is told by line, nothing is half taken', async ({
  browser,
  zesting,
}) => {
  const dana = await signIn(browser, zesting, 'dana@quillhaven.test');
  await dana.goto('/requests?client=KILN');
  await dana.getByRole('button', { name: 'More ways in' }).click();
  await dana.getByRole('menuitem', { name: 'From a table (CSV, XLSX)' }).click();
  await dana.getByLabel('Form').selectOption('New idea for the bakehouse');
  const file = (name: string, text: string) => ({ name, mimeType: 'text/csv', buffer: Buffer.from(text) });
  await dana.getByLabel('File').setInputFiles(file('odd.csv', 'a\n"never ends'));
  await expect(dana.getByText('This is no table that can be read: CSV or XLSX is')).toBeVisible();

  const lines = [
    'Subject;What should people do or feel?;Who is it for?;Asked by;Mail',
    'Hot cross buns;They should come on Friday.;People who know us;Greta;greta@kilnlane.test',
    ';Nothing is said of what.;People who know us;Greta;',
    'Poppy plait;They should try it.;everybody in the street;Greta;nowhere',
  ];
  await dana.getByLabel('File').setInputFiles(file('ideas.csv', lines.join('\r\n')));
  await dana.getByLabel('Subject becomes').selectOption('What is it about?');
  await dana.getByLabel('Who is it for? becomes').selectOption('Who is it for first of all?');
  await expect(dana.getByLabel('Asked by becomes')).toHaveValue('name');
  await expect(dana.getByLabel('Mail becomes')).toHaveValue('email');
  await expect(dana.getByRole('heading', { name: '3 lines: 1 can be taken, 2 cannot' })).toBeVisible();
  const problems = dana.getByRole('list', { name: 'Problems' });
  await expect(problems.getByRole('listitem')).toHaveText([
    /^Line 3, “What is it about\?”: This is needed/,
    /^Line 4, “Who is it for first of all\?”: Choose one of the options. “everybody in the street”/,
    /^Line 4, their e-mail: This is not an e-mail address. “nowhere”/,
  ]);
  await expect(dana.getByRole('button', { name: 'Take 1 request' })).toBeDisabled();
  await expectAccessible(dana);
  await dana.getByLabel('Leave out the 2 lines that cannot be taken').check();
  await dana.getByRole('button', { name: 'Take 1 request' }).click();
  await dana
    .getByRole('navigation', { name: 'Requests' })
    .getByRole('link', { name: /Hot cross buns/ })
    .click();
  await expect(dana.getByRole('article', { name: 'Hot cross buns' }).getByText('Greta (greta@kilnlane.test)')).toBeVisible();
  await expect(dana.getByRole('navigation', { name: 'Requests' }).getByRole('link', { name: /Poppy plait/ })).toHaveCount(0);
});

import sharp from 'sharp';
import { dayAhead, expect, expectAccessible, expectNoSidewaysScroll, signIn, tellStory, test } from './zesting';

tellStory('kept-files');

const typed = (day: string): string => day.split('-').reverse().join('/');
const picture = (background: string) =>
  sharp({ create: { width: 900, height: 900, channels: 3, background } })
    .png()
    .toBuffer();

test('a picture is kept for a client, taken into a piece, and renewed: what has the older one is told', async ({ browser, zesting }) => {
  const dana = await signIn(browser, zesting, 'dana@quillhaven.test');
  const dialog = dana.getByRole('dialog');
  const files = dana.getByRole('list', { name: 'Kept files' });

  await test.step('it is brought and said what it is; what is missing is told', async () => {
    await dana.goto('/production/library?client=KILN');
    await dana.getByRole('link', { name: 'Files', exact: true }).click();
    await expect(files.getByRole('listitem').first()).toContainText('Old shop front');
    await expectAccessible(dana);
    await dana.getByRole('button', { name: 'Keep a file' }).click();
    await dialog.getByRole('button', { name: 'Keep it' }).click();
    await expect(dialog.getByText('Bring the file first.')).toBeVisible();
    await expect(dialog.getByText('Say what it is.')).toBeVisible();
    await dialog.getByLabel('The file').setInputFiles({ name: 'pan_loaf.png', mimeType: 'image/png', buffer: await picture('#d9b38c') });
    await expect(dialog.getByLabel('Title (needed)')).toHaveValue('pan loaf');
    await dialog.getByLabel('Title (needed)').fill('Pan loaf');
    await dialog.getByLabel('What can be seen or heard').fill('A tin loaf on a blue cloth');
    await dialog.getByLabel('To be renewed by').fill(typed(dayAhead(40)));
    await expectAccessible(dana);
    await dialog.getByRole('button', { name: 'Keep it' }).click();
    await expect(dialog).toHaveCount(0);
  });

  await test.step('it is found by its words, also after a reload', async () => {
    const words = dana.getByLabel('Words of its title or of what can be seen');
    await words.fill('blue clo');
    await expect(files.getByRole('listitem')).toHaveCount(1);
    await expect(files).toContainText('In no piece yet');
    await dana.reload();
    await expect(files.getByRole('listitem')).toHaveCount(1);
    await words.fill('nothing like it');
    await expect(dana.getByText('No file is like that')).toBeVisible();
    await words.fill('');
    await dana.getByRole('button', { name: /^To be renewed/ }).click();
    await expect(files.getByText('Seeded rye, whole')).toBeVisible();
    await expect(files.getByText('Pan loaf')).toHaveCount(0);
  });

  await test.step('it is taken into the content of a piece, with its alternative text', async () => {
    const [piece] = await zesting.query<{ id: string }>("select id from pieces where title = 'A day with the night baker'");
    await dana.goto(`/pieces/${piece?.id}`);
    await dana.getByRole('button', { name: 'From the library' }).click();
    await expect(dialog.getByRole('img', { name: 'A tin loaf on a blue cloth' })).toBeVisible();
    await expectAccessible(dana);
    await dialog.getByLabel('Words of its title or of what can be seen').fill('pan');
    await expect(dialog.getByRole('listitem')).toHaveCount(1);
    await dialog.getByRole('button', { name: 'Into the content: Pan loaf' }).click();
    await expect(dialog).toHaveCount(0);
    await expect(dana.getByLabel('Alternative text of pan_loaf.png')).toHaveValue('A tin loaf on a blue cloth');
    await dana.getByRole('button', { name: 'Save', exact: true }).click();
    await expect(dana.getByText('Not saved yet')).toBeHidden();
    await dana.getByRole('button', { name: 'From the library' }).click();
    await dialog.getByRole('button', { name: 'Into the material: Frame of the four o’clock loaf' }).click();
    await expect(dana.getByRole('region', { name: 'Material' }).getByText('Frame of the four o’clock loaf')).toBeVisible();
  });

  await test.step('a newer one takes its place: the piece that goes out is told that it has the older one', async () => {
    await dana.goto('/production/library/files?client=KILN&words=pan');
    await expect(files).toContainText('In 1 piece');
    await dana.getByRole('button', { name: 'Change… Pan loaf' }).click();
    await dialog
      .getByLabel('A newer file')
      .setInputFiles({ name: 'pan-loaf-2.png', mimeType: 'image/png', buffer: await picture('#c08850') });
    await expect(dialog.getByText('pan-loaf-2.png')).toBeVisible();
    await dialog.getByLabel('To be renewed by').fill(typed(dayAhead(200)));
    await dialog.getByRole('button', { name: 'Renew it' }).click();
    await expect(dialog).toHaveCount(0);
    const [placed] = await zesting.query<{ at: string }>(
      `select to_char(l.publish_at - interval '5 days', 'YYYY-MM-DD"T"HH24:MI:SS"Z"') as at from placements l join pieces p on p.id = l.piece_id
       where p.title = 'A day with the night baker' and not l.cancelled order by l.publish_at limit 1`,
    );
    await zesting.setClock(placed?.at ?? '');
    await dana.goto('/calendar/going-out?client=KILN');
    const row = dana.getByRole('listitem').filter({ hasText: 'A day with the night baker' }).first();
    await expect(row.getByText('“pan_loaf.png” was to be renewed by then')).toBeVisible();
    await zesting.setClock('');
  });

  await test.step('it is put away and taken back', async () => {
    await dana.goto('/production/library/files?client=KILN&words=pan');
    await dana.getByRole('button', { name: 'Change… Pan loaf' }).click();
    await dialog.getByRole('button', { name: 'Put it away' }).click();
    await expect(dana.getByText('No file is like that')).toBeVisible();
    await dana.getByRole('button', { name: 'Put away', exact: true }).click();
    await dana.getByRole('button', { name: 'Take back Pan loaf' }).click();
    await expect(dana.getByText('No file is like that')).toBeVisible();
    await dana.getByRole('button', { name: 'All', exact: true }).click();
    await expect(files.getByRole('listitem')).toHaveCount(1);
  });
});

test('a maker takes kept files in on the phone; another client’s are not offered', async ({ browser, zesting }) => {
  const noor = await signIn(browser, zesting, 'noor@pencraft.test', { viewport: { width: 390, height: 844 }, hasTouch: true });
  const [step] = await zesting.query<{ piece_id: string }>(
    `select s.piece_id from steps s join people d on d.id = s.doer_id join pieces p on p.id = s.piece_id join clients c on c.id = p.client_id
     where d.email = 'noor@pencraft.test' and s.finished_on is null and not p.shelved and c.code = 'KILN' order by s.piece_id limit 1`,
  );
  await noor.goto(`/pieces/${step?.piece_id}`);
  await noor.getByRole('button', { name: 'From the library' }).tap();
  const dialog = noor.getByRole('dialog');
  await expect(dialog.getByText('Saturday bun, cut')).toBeVisible();
  await expect(dialog.getByText('Tree fern, unrolling')).toHaveCount(0);
  await expectAccessible(noor);
  await expectNoSidewaysScroll(noor);
  await dialog.getByRole('button', { name: 'Into the content: Saturday bun, cut' }).tap();
  await expect(noor.getByLabel('Alternative text of saturday-bun-cut.png')).toHaveValue('A cinnamon bun cut in two');
  await noor.goto('/production/library/files');
  await expect(noor.getByRole('list', { name: 'Kept files' })).toHaveCount(0); // sees no list of clients' files
});

import { addDays, getDay, type Day } from '@zesting/core';
import { expect, expectAccessible, signIn, tellStory, test, type Zesting } from './zesting';

tellStory('duties');

/** Ten in the morning where the agency is, or eleven. */
const goTo = (zesting: Zesting, on: Day) => zesting.setClock(`${on}T10:00:00Z`);

test('a duty that comes every day: set up, ticked off by who does it, missed, and its manager sees it', async ({ browser, zesting }) => {
  let dueOn: Day;
  const marta = await signIn(browser, zesting, 'marta@quillhaven.test');

  await test.step('it is added, with the days and the people', async () => {
    await marta.goto('/plan/duties?client=LOOM');
    await expect(marta.getByText('has no duties yet')).toBeVisible();
    await expectAccessible(marta);
    await marta.getByRole('button', { name: 'Add a duty' }).click();
    const dialog = marta.getByRole('dialog', { name: 'Add a duty' });
    await dialog.getByRole('button', { name: 'Add it' }).click();
    await expect(dialog.getByText('Say what is to be done.')).toBeVisible();
    await dialog.getByLabel('What (needed)').fill('Look after the comments');
    await dialog.getByRole('button', { name: 'Tuesday' }).click();
    await dialog.getByRole('button', { name: 'Friday' }).click();
    await dialog.getByLabel('Lead person').selectOption({ label: 'Piet Lindqvist' });
    await dialog.getByLabel('Each time', { exact: true }).fill('20');
    await dialog.getByLabel('Checklist').fill('Questions\nThanks');
    await expectAccessible(marta);
    await dialog.getByRole('button', { name: 'Add it' }).click();
    const line = marta.getByRole('list', { name: 'Duties' }).getByRole('listitem');
    await expect(line).toHaveCount(1);
    await expect(line).toContainText('Piet Lindqvist');
    await expect(line).toContainText('20 min each time');
    const [loom] = await zesting.query<{ id: string }>("select id from clients where code = 'LOOM'");
    const answer = await marta.request.get(`/api/duties?clientId=${loom?.id}`);
    // a working day of his: whatever today is
    dueOn = getDay(((await answer.json()) as { duties: { next: { dueOn: string } }[] }).duties[0]?.next.dueOn ?? '');
  });

  await test.step('who does it finds it on the own page, ticks a line, and it is there after a reload', async () => {
    await goTo(zesting, dueOn);
    const piet = await signIn(browser, zesting, 'piet@quillhaven.test', { viewport: { width: 390, height: 844 }, hasTouch: true });
    const mine = piet.getByRole('region', { name: /Your duties/ });
    await expect(mine).toContainText('Look after the comments');
    await mine.getByLabel('Thanks').check();
    await piet.reload();
    await expect(mine.getByLabel('Thanks')).toBeChecked();
    await expectAccessible(piet);
    await mine.getByRole('button', { name: /^Done: Look after the comments/ }).click();
    await expect(mine.getByText('Look after the comments')).toHaveCount(0);
    // taken back by the message that says so
    await piet.getByRole('button', { name: 'Take back' }).click();
    await expect(mine).toContainText('Look after the comments');
  });

  await test.step('a day later it was missed: the manager sees it, and lets it be', async () => {
    await goTo(zesting, addDays(dueOn, 1));
    await marta.goto('/plan/duties?client=LOOM');
    await marta.getByRole('button', { name: /missed of Look after the comments/ }).click();
    const dialog = marta.getByRole('dialog', { name: 'Look after the comments' });
    await expect(dialog.getByText('missed', { exact: true }).first()).toBeVisible();
    await expectAccessible(marta);
    await dialog
      .getByRole('button', { name: /^Leave out/ })
      .first()
      .click();
    await expect(dialog.getByText('left out', { exact: true })).toBeVisible();
    await marta.goBack();
    await expect(dialog).toHaveCount(0);
  });
});

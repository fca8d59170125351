import { addDays, weekdayOf, type Day } from '@zesting/core';
import type { Locator, Page } from '@playwright/test';
import { dayAhead, expect, linkIn, mailTo, signIn, tellStory, test, visitor } from './zesting';

tellStory('keyboard');

const TITLE = 'Quince jelly morning';

/** Goes on with Tab until the target has the focus, and back from an end of the page, as a person without a mouse does. */
async function tabTo(page: Page, target: Locator): Promise<void> {
  await expect(target).toBeEnabled();
  // a dialog that is closing keeps the focus, and lists are drawn anew while they are passed: who does not get there tries once more
  const trail = await tabThrough(page, target);
  if (trail.length === 0) return;
  await page.waitForTimeout(2000);
  const again = await tabThrough(page, target);
  if (again.length > 0) throw new Error(`the focus never comes there, but to\n${again.slice(-80).join('\n')}`);
}

/** @returns where the focus was instead; nothing when it came to the target */
async function tabThrough(page: Page, target: Locator): Promise<string[]> {
  let element = await target.elementHandle();
  let [key, still, patience] = ['Tab', 0, 1];
  const trail: string[] = [];
  for (let presses = 0; presses < 250; presses++) {
    // looked up once, which is quick; anew where the page has drawn it anew
    if (!(await page.evaluate((found) => found?.isConnected ?? false, element))) element = await target.elementHandle();
    if (await page.evaluate((found) => found === document.activeElement, element)) return [];
    const before = await page.evaluateHandle(() => document.activeElement);
    await page.keyboard.press(key);
    const [isSame, name] = await page.evaluate(
      (old) => [old === document.activeElement, document.activeElement?.outerHTML.slice(0, 100) ?? ''] as const,
      before,
    );
    trail.push(name);
    // where it does not go on it goes back, and at the other end on again. Within a date field the focus stays too, while its parts are passed
    still = isSame ? still + 1 : 0;
    if (still >= patience) [key, still, patience] = [key === 'Tab' ? 'Shift+Tab' : 'Tab', 0, 6];
  }
  return trail;
}

const press = async (page: Page, target: Locator, key = 'Enter') => {
  await tabTo(page, target);
  await page.keyboard.press(key);
};

const type = async (page: Page, target: Locator, text: string) => {
  await tabTo(page, target);
  await page.keyboard.type(text);
};

/** A day as somebody types it. */
const digits = (day: Day) => `${day.slice(8)}/${day.slice(5, 7)}/${day.slice(0, 4)}`;

/** Finds something to do or to look at, and goes there. */
async function find(page: Page, words: string, option: RegExp): Promise<void> {
  await page.keyboard.press('Control+.');
  await page.keyboard.type(words);
  await expect(page.getByRole('option', { name: option }).first()).toBeVisible();
  await expect(page.getByRole('option', { name: option }).first()).toHaveAttribute('aria-selected', 'true');
  await page.keyboard.press('Enter');
}

test('the whole way by keyboard alone: asked, accepted, given, made, checked, signed off, placed', async ({ browser, zesting }) => {
  let wish = dayAhead(40);
  while (weekdayOf(wish) !== 3 || Number(wish.slice(8)) > 20) wish = addDays(wish, 1); // a Wednesday, with room to the right in its month
  const dana = await signIn(browser, zesting, 'dana@quillhaven.test');
  await dana.goto('/links?client=KILN');
  const form = new URL(await dana.getByRole('link', { name: /^Form: New idea for the bakehouse.*\/ask\// }).innerText()).pathname;

  const contact = await visitor(browser, zesting, form);
  await type(contact, contact.getByLabel('What is it about?'), TITLE);
  await type(contact, contact.getByLabel('What should people do or feel'), 'They should bring their own jar.');
  await press(contact, contact.getByRole('radio', { name: 'People who know us', exact: true }), 'Space');
  await type(contact, contact.getByLabel('When would you like it out?'), digits(wish));
  await type(contact, contact.getByLabel('Your name'), 'Greta Vosper');
  await type(contact, contact.getByLabel('Your e-mail'), 'greta@kilnlane.test');
  await press(contact, contact.getByRole('button', { name: 'Send' }));
  await expect(contact.getByRole('heading', { name: 'We have your request' })).toBeVisible();

  await find(dana, TITLE, new RegExp(TITLE));
  await press(dana, dana.getByRole('button', { name: 'Accept…' }));
  await press(dana, dana.getByRole('dialog').getByRole('button', { name: 'Accept', exact: true }));
  await expect(dana.getByRole('heading', { name: TITLE })).toBeVisible();
  const path = new URL(dana.url()).pathname;
  for (const [step, person] of [
    ['Write', 'Dana'],
    ['Design', 'Dana'],
    ['Check', 'Dana'],
  ] as const) {
    await press(dana, dana.getByRole('button', { name: new RegExp(`^${step}: .*Choose a person`) }));
    await press(dana, dana.getByRole('button', { name: `Give to ${person}` }));
    await expect(dana.getByRole('dialog')).toBeHidden();
  }
  await type(dana, dana.getByLabel('Copy', { exact: true }), 'Bring a jar. We bring the quinces.');
  for (const done of ['Hand in', 'Hand in', 'Pass']) {
    await press(dana, dana.getByRole('button', { name: done, exact: true }));
    await expect(dana.getByText('Not saved yet')).toBeHidden();
  }
  await press(dana, dana.getByRole('link', { name: 'Send to the client' }));
  await expect(dana.getByRole('checkbox', { name: new RegExp(TITLE) })).toBeChecked();
  await press(dana, dana.getByRole('button', { name: 'Send 1 piece for sign-off' }));
  await expect(dana.getByRole('article', { name: TITLE })).toBeVisible();

  for (const who of ['greta@kilnlane.test', 'sam@kilnlane.test']) {
    const mail = await mailTo(zesting, who, `For your sign-off: ${TITLE}`);
    const room = await visitor(browser, zesting, linkIn(mail.text, '/room/'));
    const piece = room.getByRole('article', { name: TITLE });
    await press(room, piece.getByRole('button', { name: 'Approve' }));
    await press(room, piece.getByRole('button', { name: 'Yes, approve it' }));
    await expect(piece.getByRole('button', { name: 'Yes, approve it' })).toBeHidden();
  }

  await dana.goto(`/calendar?client=KILN&month=${wish.slice(0, 7)}`);
  const tray = dana.getByRole('complementary', { name: 'Without a date' });
  await press(dana, tray.getByRole('button', { name: new RegExp(TITLE) }));
  await type(dana, dana.getByRole('textbox', { name: 'Day' }), digits(wish));
  await press(dana, dana.getByRole('button', { name: 'Place it there' }));
  const placed = dana.getByRole('cell').getByRole('button', { name: new RegExp(`07:30 ${TITLE}`) });
  await expect(placed).toBeVisible();
  // lifted with Space, one day to the right with an arrow key, dropped with Space
  const next = addDays(wish, 1);
  await tabTo(dana, placed);
  await dana.keyboard.press('Space');
  await dana.waitForTimeout(300); // the sensor takes the next key only after it has measured the page
  await dana.keyboard.press('ArrowRight');
  await dana.waitForTimeout(300);
  await dana.keyboard.press('Space');
  const [row] = await zesting.query<{ id: string }>('select id from pieces where title = $1', [TITLE]);
  await expect
    .poll(
      async () =>
        (
          await zesting.query<{ on: string }>('select on_day::text as on from placements where piece_id = $1 and on_day is not null', [
            row?.id,
          ])
        )[0]?.on,
    )
    .toBe(next);
  expect(path).toContain(row?.id);
});

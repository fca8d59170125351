import { addDays, getDay, isWorkingDay, MONDAY_TO_FRIDAY, toCalendar, weekdayOf, type Day } from '@zesting/core';
import ICAL from 'ical.js';
import sharp from 'sharp';
import { dayAhead, expect, expectAccessible, linkIn, mailTo, signIn, signInByHand, tellStory, test, visitor } from './zesting';

tellStory('the-way');

const PHONE = { viewport: { width: 390, height: 844 }, hasTouch: true };
const TITLE = 'Fig trees for balconies';

const picture = (): Promise<Buffer> =>
  sharp({ create: { width: 1080, height: 1350, channels: 3, background: '#7a9a5b' } })
    .png()
    .toBuffer();

/** A weekday some weeks ahead. */
function weekdayAhead(days: number): Day {
  let day = dayAhead(days);
  while (weekdayOf(day) > 5) day = addDays(day, 1);
  return day;
}

test('one piece goes the whole way, from the form to the feed', async ({ browser, zesting }) => {
  // it is night where some of them are: their mail would wait for the morning, as that of the demo does
  await zesting.query('update agencies set quiet_to = quiet_from');
  await zesting.query('delete from notices where sent_at is null');
  const manager = await signInByHand(browser, zesting, 'dana@quillhaven.test');
  await manager.goto('/links?client=MOSS');
  await expect(manager.getByRole('heading', { name: 'Links to hand out' })).toBeVisible();
  const formLink = new URL(await manager.getByRole('link', { name: /^Form: Ask for content.*\/ask\// }).innerText()).pathname;
  const feedAddress = await manager.getByRole('link', { name: /\/feeds\// }).innerText();
  const wish = weekdayAhead(35);

  await test.step('the contact fills in the form on a phone, badly first', async () => {
    const contact = await visitor(browser, zesting, formLink, PHONE);
    await expect(contact.getByRole('heading', { name: 'Ask for content' })).toBeVisible();
    await expectAccessible(contact);
    await contact.getByLabel('A page that people should reach').fill('not an address');
    await contact.getByRole('button', { name: 'Send' }).click();
    await expect(contact.getByText('A full address is needed')).toBeVisible();
    await expect(contact.getByText('Tell us your name.')).toBeVisible();
    await expect(contact.getByLabel('What is it about?')).toBeFocused();
    await expectAccessible(contact);

    await contact.getByLabel('What is it about?').fill(TITLE);
    await contact.getByLabel('What should people do or feel').fill('They should dare to grow figs on a balcony.');
    await contact.getByRole('radio', { name: 'People who know us', exact: true }).check();
    await contact.getByLabel('When would you like it out?').fill(addDays(getDay(wish), -34));
    await expect(contact.getByText('sooner than we can usually do')).toBeVisible();
    await contact.getByLabel('When would you like it out?').fill(wish);
    await contact.getByLabel('A page that people should reach').fill('https://mossgrove.test/figs');
    await contact
      .getByLabel('Pictures or papers')
      .setInputFiles({ name: 'fake.png', mimeType: 'image/png', buffer: Buffer.from('<script>alert(1)</script>') });
    await expect(contact.getByText('This kind of file is not taken')).toBeVisible();
    await contact.getByLabel('Pictures or papers').setInputFiles({ name: 'figs.png', mimeType: 'image/png', buffer: await picture() });
    await expect(contact.getByRole('button', { name: 'Take out figs.png' })).toBeVisible();
    await contact.getByRole('button', { name: 'Give up fake.png' }).click();
    await contact.getByLabel('Your name').fill('Hana Reweti');
    await contact.getByLabel('Your e-mail').fill('hana@mossgrove.test');

    await contact.reload();
    await expect(contact.getByLabel('What is it about?')).toHaveValue(TITLE);
    await expect(contact.getByRole('button', { name: 'Take out figs.png' })).toBeVisible();

    // the answer to the first try is lost on the way: pressing again makes no second request
    let tries = 0;
    await contact.route('**/requests', async (route) => {
      tries += 1;
      if (tries > 1) return route.continue();
      await route.fetch();
      await route.abort();
    });
    await contact.getByRole('button', { name: 'Send' }).click();
    await expect(contact.getByText('The connection failed')).toBeVisible();
    await contact.getByRole('button', { name: 'Send' }).click();
    await expect(contact.getByRole('heading', { name: 'We have your request' })).toBeVisible();
    expect(tries).toBe(2);

    const receipt = await mailTo(zesting, 'hana@mossgrove.test', 'We have your request');
    await contact.goto(linkIn(receipt.text, '/ask/receipt/'));
    await expect(contact.getByText('We have it')).toBeVisible();
    await expectAccessible(contact);
  });

  await test.step('the manager reads it and accepts it as a piece on two channels', async () => {
    await manager.goto('/');
    await expect(manager.getByRole('heading', { name: 'What needs you' })).toBeVisible();
    await manager
      .getByRole('link', { name: /Requests/ })
      .first()
      .click();
    await expect(manager.getByRole('link', { name: new RegExp(TITLE) })).toHaveCount(1);
    await manager.getByRole('link', { name: new RegExp(TITLE) }).click();
    await expect(manager.getByText('They should dare to grow figs')).toBeVisible();
    await expect(manager.getByRole('img', { name: 'figs.png' })).toBeVisible();
    await manager.getByRole('button', { name: 'Accept…' }).click();
    await expect(manager.getByLabel('Working title')).toHaveValue(TITLE);
    await expect(manager.getByText('The earliest date this route allows')).toBeVisible();
    await manager.getByRole('checkbox', { name: 'Blog' }).check();
    await manager.getByLabel('Pillar').selectOption('How to grow');
    await expectAccessible(manager);
    await manager.getByRole('button', { name: 'Accept', exact: true }).click();
    await expect(manager.getByRole('heading', { name: TITLE })).toBeVisible();
    await mailTo(zesting, 'hana@mossgrove.test', `Accepted: ${TITLE}`);
  });
  const pieceAddress = new URL(manager.url()).pathname;

  await test.step('the path says what cannot be met and offers the earliest date', async () => {
    await manager.getByLabel('Wish date').fill(addDays(getDay(wish), -34));
    await manager.getByLabel('Wish date').blur();
    await expect(manager.getByText('cannot be met')).toBeVisible();
    await manager.getByRole('button', { name: /^Take / }).click();
    await expect(manager.getByText('cannot be met')).toBeHidden();
    await expect(manager.getByText('No slack: every day counts.')).toBeVisible();
    await manager.getByLabel('Wish date').fill(wish);
    await manager.getByLabel('Wish date').blur();
    await expect(manager.getByText(/working days of slack/)).toBeVisible();
    for (const [step, person] of [
      ['Write', 'Noor'],
      ['Design', 'Piet'],
      ['Check', 'Dana'],
    ] as const) {
      await manager.getByRole('button', { name: new RegExp(`^${step}: .*Choose a person`) }).click();
      await expect(manager.getByText('Whoever usually does it first')).toBeVisible();
      await manager.getByRole('button', { name: `Give to ${person}` }).click();
      await expect(manager.getByRole('dialog')).toBeHidden();
    }
    await expectAccessible(manager);
  });

  await test.step('a freelancer writes, a staff creator adds the picture, each told by mail', async () => {
    const told = await mailTo(zesting, 'noor@pencraft.test', `Write: ${TITLE}`);
    const writer = await signIn(browser, zesting, 'noor@pencraft.test', PHONE);
    await expect(writer.getByRole('heading', { name: 'Your steps' })).toBeVisible();
    await writer.goto(linkIn(told.text, '/pieces/'));
    await expect(writer.getByText('They should dare to grow figs')).toBeVisible();
    await expect(writer.getByText('Anything about the budget?')).toHaveCount(0);
    await writer.getByRole('button', { name: 'Begin' }).click();
    await writer.getByRole('button', { name: 'Hand in' }).click();
    await expect(writer.getByText('There is nothing to hand in yet')).toBeVisible();
    await writer.getByLabel('Copy', { exact: true }).fill('A pot, a wall, and six hours of sun.\nFigs ask for little.');
    await writer.getByLabel('Copy on Photo feed').fill('Figs on a balcony? Yes.');
    await expectAccessible(writer);
    await writer.getByRole('button', { name: 'Hand in' }).click();
    await expect(writer.getByText('Finished', { exact: false }).first()).toBeVisible();

    await mailTo(zesting, 'piet@quillhaven.test', `Design: ${TITLE}`);
    const designer = await signIn(browser, zesting, 'piet@quillhaven.test');
    await designer.goto(pieceAddress);
    await designer
      .getByLabel('Add pictures or clips')
      .setInputFiles({ name: 'balcony.png', mimeType: 'image/png', buffer: await picture() });
    await designer.getByLabel('Alternative text of balcony.png').fill('A fig tree in a pot on a balcony');
    await designer.getByRole('button', { name: 'Hand in' }).click();
    await expect(designer.getByRole('button', { name: 'Hand in' })).toBeHidden();
  });

  await test.step('the check hands back once, then passes', async () => {
    await manager.goto(pieceAddress);
    await manager.getByRole('button', { name: 'Hand back…' }).click();
    await manager.getByLabel('What should be different?').fill('The pot is cut off at the edge.');
    await manager.getByRole('button', { name: 'Hand back', exact: true }).click();
    await mailTo(zesting, 'piet@quillhaven.test', `Handed back: ${TITLE}`);
    const designer = await signIn(browser, zesting, 'piet@quillhaven.test');
    await expect(designer.getByText('The pot is cut off at the edge.')).toBeVisible();
    await designer.goto(pieceAddress);
    await designer.getByRole('button', { name: 'Hand in' }).click();
    await expect(designer.getByRole('button', { name: 'Hand in' })).toBeHidden();
    await manager.reload();
    await manager.getByRole('button', { name: 'Pass' }).click();
    await manager.getByRole('link', { name: 'Send to the client' }).click();
  });

  const send = async () => {
    await expect(manager.getByRole('checkbox', { name: new RegExp(TITLE) })).toBeChecked();
    await manager.getByRole('button', { name: 'Send 1 piece for sign-off' }).click();
    await expect(manager.getByRole('article', { name: TITLE })).toBeVisible();
  };

  await test.step('the contact asks for changes, on a phone and without an account', async () => {
    await send();
    const mail = await mailTo(zesting, 'hana@mossgrove.test', `For your sign-off: ${TITLE}`);
    const contact = await visitor(browser, zesting, linkIn(mail.text, '/room/'), PHONE);
    const piece = contact.getByRole('article', { name: TITLE });
    await expect(piece.getByRole('img', { name: 'A fig tree in a pot' })).toBeVisible();
    await expect(piece.getByText('Figs on a balcony? Yes.')).toBeVisible();
    await piece.getByRole('button', { name: 'Blog' }).click();
    await expect(piece.getByText('Figs ask for little.')).toBeVisible();
    await expectAccessible(contact);
    await piece.getByRole('button', { name: 'Ask for changes' }).click();
    await piece.getByRole('button', { name: 'Send the changes' }).click();
    await expect(piece.getByText('Say what should change.')).toBeVisible();
    await piece.getByLabel('Change 1').fill('Say that they need a wall behind them.');
    await piece.getByRole('button', { name: 'One more change' }).click();
    await piece.getByLabel('Change 2').fill('Name the variety.');
    await piece.getByRole('button', { name: 'Send the changes' }).click();
    await expect(contact.getByText('Decided before')).toBeVisible();
  });

  await test.step('round two is planned, made and sent', async () => {
    await manager.goto(pieceAddress);
    await expect(manager.getByText('Round 2 of 2 agreed')).toBeVisible();
    await expect(manager.getByRole('checkbox', { name: /Say that they need a wall/ })).toBeVisible();
    const designer = await signIn(browser, zesting, 'piet@quillhaven.test');
    await designer.goto(pieceAddress);
    await designer.getByLabel('Copy', { exact: true }).fill('A pot, a wall behind it, and six hours of sun.\nFigs ask for little.');
    await designer.getByRole('checkbox', { name: /Say that they need a wall/ }).click();
    await expect(designer.getByText('1 to settle or answer')).toBeVisible();
    await designer.getByRole('button', { name: 'Hand in' }).click();
    await expect(designer.getByRole('button', { name: 'Hand in' })).toBeHidden();
    await manager.getByRole('button', { name: 'Pass' }).click();
    await manager.getByRole('link', { name: 'Send to the client' }).click();
    await expect(manager.getByRole('checkbox', { name: new RegExp(TITLE) })).toBeDisabled();
    await manager.getByRole('link', { name: '1 remark to settle or answer first' }).click();
    await manager.getByRole('button', { name: 'Answer instead…' }).click();
    await manager.getByLabel('What is said instead of changing it').fill('It stands in the second line.');
    await expectAccessible(manager);
    await manager.getByRole('button', { name: 'Answer', exact: true }).click();
    await expect(manager.getByText('All settled or answered')).toBeVisible();
    await expect(manager.getByText(/^Predicted to end/)).toBeVisible(); // what comes by itself moves the link that is clicked next
    await manager.getByRole('link', { name: 'Send to the client' }).click();
    await expect(manager).toHaveURL(/sign-off/);
    await send();
  });

  await test.step('the contact approves exactly that version', async () => {
    await expect
      .poll(
        async () => (await zesting.mails('hana@mossgrove.test')).filter((mail) => mail.subject === `For your sign-off: ${TITLE}`).length,
      )
      .toBe(2);
    const mail = await mailTo(zesting, 'hana@mossgrove.test', `For your sign-off: ${TITLE}`);
    const contact = await visitor(browser, zesting, linkIn(mail.text, '/room/'), PHONE);
    const piece = contact.getByRole('article', { name: TITLE }).first();
    await expect(piece.getByText('round 2 of 2 agreed')).toBeVisible();
    await expect(piece.getByText('It stands in the second line.')).toBeVisible();
    await piece.getByRole('button', { name: 'Approve' }).click();
    await expect(piece.getByText('You approve exactly this version')).toBeVisible();
    await piece.getByRole('button', { name: 'Yes, approve it' }).click();
    await expect(piece.getByRole('button', { name: 'Approve' })).toBeHidden();
    await mailTo(zesting, 'dana@quillhaven.test', `Approved: ${TITLE}`);
  });

  await test.step('the manager places it on two channels: by the dialog, and by dragging', async () => {
    await manager.goto(`/calendar?client=MOSS&month=${wish.slice(0, 7)}`);
    await expect(manager.getByRole('table')).toBeVisible();
    const tray = manager.getByRole('complementary', { name: 'Without a date' });
    await tray.getByRole('button', { name: new RegExp(`Photo feed ${TITLE}`) }).press('Enter');
    await manager.getByLabel('Day', { exact: true }).fill(wish);
    await manager.getByLabel('Time', { exact: true }).fill('08:00');
    await expectAccessible(manager);
    await manager.getByRole('button', { name: 'Place it there' }).click();
    const placed = manager.getByRole('button', { name: new RegExp(`08:00 ${TITLE}, Photo feed, Scheduled`) });
    await expect(placed).toBeVisible();

    const chip = tray.getByRole('button', { name: new RegExp(`Blog ${TITLE}`) });
    const cell = manager.getByRole('cell').filter({ has: placed });
    await chip.scrollIntoViewIfNeeded();
    const [from, to] = [await chip.boundingBox(), await cell.boundingBox()];
    if (!from || !to) throw new Error('not on the screen');
    await manager.mouse.move(from.x + 20, from.y + 10);
    await manager.mouse.down();
    await manager.mouse.move(from.x - 30, from.y + 14, { steps: 4 });
    await manager.mouse.move(to.x + to.width / 2, to.y + to.height / 2, { steps: 12 });
    await manager.mouse.up();
    await expect(manager.getByRole('cell').getByRole('button', { name: new RegExp(`08:00 ${TITLE}, Blog, Scheduled`) })).toBeVisible();
    await manager.reload();
    await expect(manager.getByRole('cell').getByRole('button', { name: new RegExp(`08:00 ${TITLE}, Blog, Scheduled`) })).toBeVisible();
  });

  await test.step('the client’s feed shows both, at the right hour, confirmed', async () => {
    const text = await (await fetch(feedAddress)).text();
    const events = new ICAL.Component(ICAL.parse(text)).getAllSubcomponents('vevent').map((component) => new ICAL.Event(component));
    const mine = events.filter((event) => event.summary.startsWith(TITLE));
    expect(mine).toHaveLength(2);
    for (const event of mine) {
      const inAuckland = new Intl.DateTimeFormat('sv-SE', { timeZone: 'Pacific/Auckland', dateStyle: 'short', timeStyle: 'short' }).format(
        event.startDate.toJSDate(),
      );
      expect(inAuckland).toBe(`${wish} 08:00`);
      expect(event.component.getFirstPropertyValue('status')).toBe('CONFIRMED');
    }
    expect(new Set(mine.map((event) => event.uid)).size).toBe(2);
  });

  await test.step('an edit of one channel voids that part only, visibly', async () => {
    await manager.goto(pieceAddress);
    await manager.getByRole('tab', { name: /Photo feed/ }).click();
    await manager.getByLabel('Copy on Photo feed').fill('Figs on a balcony? Oh yes.');
    await manager.getByRole('button', { name: 'Save' }).click();
    await expect(manager.getByRole('tab', { name: 'Photo feed Changed after sign-off' })).toBeVisible();
    await expect(manager.getByRole('tab', { name: 'Blog Signed' })).toBeVisible();
    await manager.getByLabel('Copy on Photo feed').fill('Figs on a balcony? Yes.');
    await manager.getByRole('button', { name: 'Save' }).click();
    await expect(manager.getByRole('tab', { name: 'Photo feed Signed' })).toBeVisible();
  });
  expect(isWorkingDay(toCalendar({ weeklyMinutes: MONDAY_TO_FRIDAY }), wish)).toBe(true);
});

import { addDays, type Day } from '@zesting/core';
import { test, type Page } from '@playwright/test';
import { expect, expectAccessible, linkIn, mailTo, startOwn, visitor, type Zesting } from './zesting';

const LEAD = { name: 'Orla Quince', email: 'orla@harrow.test', password: 'seven lanterns over the quay' };
const MAKER = { name: 'Una Brook', email: 'una@harrow.test', password: 'eleven kettles on a shelf' };
const CONTACT = { name: 'Ned Plumtree', email: 'ned@plumrow.test' };

/** Any day ten days and more ahead that is no weekend, whatever today is. */
function weekdayAhead(todayOn: Day, days: number): Day {
  let day = addDays(todayOn, days);
  while ([0, 6].includes(new Date(`${day}T12:00:00Z`).getUTCDay())) day = addDays(day, 1);
  return day;
}

test('an agency begins with nothing and comes to its first approved, placed piece', async ({ browser }) => {
  const { zesting, end } = await startOwn();
  try {
    const lead = await visitor(browser, zesting, '/');
    await setUp(lead);
    await tryTheMail(lead, zesting);
    await takeOnAMaker(lead, zesting);
    await takeOnAClient(lead);
    const todayOn = (await (await lead.request.get('/api/session')).json()).todayOn as Day; // the contract's
    await answerARequest(browser, lead, zesting, weekdayAhead(todayOn, 40));
    const on = weekdayAhead(todayOn, 30);
    const address = await beginByHand(lead, on);
    await make(browser, lead, zesting, address);
    await sign(browser, lead, zesting);
    await place(lead, on);
    await lead.goto('/');
    await expect(lead.getByText('All set up')).toBeVisible();
    await lead.getByRole('button', { name: 'Put this away' }).click();
    await expect(lead.getByText('All set up')).toBeHidden();
  } finally {
    await end();
  }
});

const setUp = (page: Page) =>
  test.step('the first page sets up the agency, badly first', async () => {
    await expect(page.getByRole('heading', { name: 'Set up your agency' })).toBeVisible();
    await expectAccessible(page);
    await page.getByRole('button', { name: 'Set up and begin' }).click();
    await expect(page.getByText('Give the agency’s name.')).toBeVisible();
    await expectAccessible(page);
    await page.getByLabel('Name (needed)', { exact: true }).fill('Harrow & Quince');
    await page.getByLabel('Time zone').selectOption('Europe/Dublin');
    await page.getByLabel('Region').selectOption('IE');
    await page.getByLabel('Cut-off').fill('1.30 pm');
    await page.getByLabel('Your name').fill(LEAD.name);
    await page.getByLabel('Your e-mail').fill(LEAD.email);
    for (const password of ['orla quince', LEAD.password]) {
      await page.getByLabel('Password', { exact: true }).fill(password);
      await page.getByLabel('The same again').fill(password);
      await page.getByRole('button', { name: 'Set up and begin' }).click();
      if (password !== LEAD.password) await expect(page.getByText('one of those that are guessed first').first()).toBeVisible();
    }
    await expect(page.getByRole('heading', { name: 'What comes next' })).toBeVisible();
    await expect(page.getByText('1 of 7 done')).toBeVisible();
    await expectAccessible(page);
    await page.goto('/agency');
    await expect(page.getByLabel('Cut-off')).toHaveValue('13:30');
  });

const tryTheMail = (page: Page, zesting: Zesting) =>
  test.step('mail comes from the agency, and arrives', async () => {
    await page.goto('/');
    await page.getByRole('link', { name: 'Try the mail' }).click();
    await page.getByLabel('Name', { exact: true }).fill('Harrow & Quince');
    await page.getByLabel('Address').fill('desk@harrow.test');
    await page.getByRole('region', { name: 'Whom mail comes from' }).getByRole('button', { name: 'Save' }).click();
    await page.getByRole('button', { name: 'Send me a trial mail' }).click();
    await expect(page.getByText('The mail server took a trial mail')).toBeVisible();
    await expectAccessible(page);
    await mailTo(zesting, LEAD.email, 'A trial mail');
  });

const takeOnAMaker = (page: Page, zesting: Zesting) =>
  test.step('somebody is taken on, with skills of the agency’s list', async () => {
    await page.goto('/');
    await page.getByRole('link', { name: 'Take somebody on' }).click();
    await page.getByRole('button', { name: 'Take on a person' }).click();
    await page.getByLabel('Name (needed)').fill(MAKER.name);
    await page.getByLabel('E-mail (needed)').fill(MAKER.email);
    await page.getByRole('button', { name: 'Take on and invite' }).click();
    await expect(page.getByRole('heading', { name: MAKER.name })).toBeVisible();
    for (const skill of ['write', 'design']) await page.getByLabel('Another skill').selectOption(skill);
    await page.getByRole('button', { name: 'Save' }).first().click();
    await expect(page.getByText('Saved').first()).toBeVisible();
    const invitation = await mailTo(zesting, MAKER.email, 'Your place at the agency');
    expect(invitation.text).toContain('/invite/');
  });

const takeOnAClient = (page: Page) =>
  test.step('a client comes with channels, a form and somebody who signs', async () => {
    await page.goto('/');
    await page.getByRole('link', { name: 'Take on a client' }).click();
    await page.getByRole('button', { name: 'Take on a client' }).click();
    await page.getByLabel('Name (needed)').fill('Plum Row');
    await expect(page.getByLabel('Code (needed)')).toHaveValue('PR');
    await page.getByRole('checkbox', { name: 'Photo feed' }).check();
    await page.getByRole('checkbox', { name: 'Blog', exact: true }).check();
    await expectAccessible(page);
    await page.getByRole('button', { name: 'Take on', exact: true }).click();
    await expect(page.getByRole('heading', { name: 'Plum Row' })).toBeVisible();
    await page.getByRole('tab', { name: 'Contacts' }).click();
    await page.getByRole('button', { name: 'Add a contact' }).click();
    await page.getByLabel('Name', { exact: true }).fill(CONTACT.name);
    await page.getByLabel('E-mail', { exact: true }).fill(CONTACT.email);
    await page.getByRole('checkbox', { name: 'signs off' }).check();
    await page.getByRole('button', { name: 'Save' }).click();
    await expect(page.getByText('Saved').first()).toBeVisible();
  });

const answerARequest = (browser: Parameters<typeof visitor>[0], page: Page, zesting: Zesting, wish: Day) =>
  test.step('the client asks through the form; the request becomes a piece without a step that may be left out', async () => {
    await page.goto('/links');
    const address = await page.getByRole('link', { name: /\/ask\// }).innerText();
    const contact = await visitor(browser, zesting, new URL(address).pathname, { viewport: { width: 390, height: 844 } });
    await expect(contact.getByText('with Harrow & Quince')).toBeVisible();
    await contact.getByLabel('What is it about?').fill('Plum jam evening');
    await contact.getByLabel('What should people do or feel').fill('Come by.');
    await contact.getByLabel('When would you like it out?').fill('no day at all');
    await contact.getByLabel('When would you like it out?').blur();
    await contact.getByLabel('When would you like it out?').fill(wish);
    await contact.getByLabel('Your name').fill(CONTACT.name);
    await contact.getByLabel('Your e-mail').fill(CONTACT.email);
    await contact.getByRole('button', { name: 'Send' }).click();
    await expect(contact.getByRole('heading', { name: 'We have your request' })).toBeVisible();
    await page.goto('/requests');
    await page.getByRole('link', { name: /Plum jam evening/ }).click();
    await page.getByRole('button', { name: 'Accept…' }).click();
    // what is told of the date and of who is free comes a moment later, and moves the button down
    await expect(page.getByText('The earliest date this route allows')).toBeVisible();
    await expect(page.getByText('Give the steps to who is free first')).toBeVisible();
    await page.getByRole('button', { name: 'Accept', exact: true }).click();
    await expect(page.getByRole('heading', { name: 'Plum jam evening' })).toBeVisible();
    await mailTo(zesting, CONTACT.email, 'Accepted: Plum jam evening');
  });

const beginByHand = (page: Page, on: Day) =>
  test.step('a piece is begun by hand for a day, without a title, and its brief is added to', async () => {
    await page.goto('/production?open=begin');
    await expect(page.getByRole('dialog', { name: 'Begin a piece' })).toBeVisible();
    await page.getByLabel('Wish date').fill(on);
    await page.getByRole('checkbox', { name: /Pencil it/ }).check();
    await page.getByLabel('Brief').fill('The jars in the window.');
    await expect(page.getByText('The earliest date this route allows')).toBeVisible();
    await expectAccessible(page);
    await page.getByRole('button', { name: 'Begin', exact: true }).click();
    await expect(page.getByRole('heading', { name: /^Still for / })).toBeVisible();
    const address = new URL(page.url()).pathname;
    await page.getByRole('button', { name: 'Add to the brief…' }).click();
    await page.getByLabel('What is added to the brief').fill('Colours as in https://plumrow.test/shelf.');
    await page.getByRole('button', { name: 'Add to the brief', exact: true }).click();
    await expect(page.getByRole('link', { name: 'https://plumrow.test/shelf' })).toBeVisible();
    await page.getByRole('button', { name: 'Edit title and pillar' }).click();
    await page.getByLabel('Title (needed)').fill('Jars in the window');
    await page.getByRole('button', { name: 'Save', exact: true }).click();
    await expect(page.getByRole('heading', { name: 'Jars in the window' })).toBeVisible();
    return address;
  });

const make = (browser: Parameters<typeof visitor>[0], lead: Page, zesting: Zesting, address: string) =>
  test.step('the maker answers the invitation, is asked something, makes it; the lead checks', async () => {
    for (const step of ['Write', 'Design']) {
      await lead.getByRole('button', { name: new RegExp(`^${step}: .*Choose a person`) }).click();
      await lead.getByRole('button', { name: `Give to ${MAKER.name.split(' ')[0] ?? ''}` }).click();
      await expect(lead.getByRole('dialog')).toBeHidden();
    }
    await lead.getByLabel('Write to the team').fill('@Una how many jars are there?');
    await expect(lead.getByRole('checkbox', { name: MAKER.name })).toBeChecked();
    await lead.getByRole('button', { name: 'Write it' }).click();
    await expect(lead.getByText(`told ${MAKER.name}`)).toBeVisible();

    const invitation = await mailTo(zesting, MAKER.email, 'Your place at the agency');
    const maker = await visitor(browser, zesting, linkIn(invitation.text, '/invite/'));
    await maker.getByLabel('New password').fill(MAKER.password);
    await maker.getByLabel('The same again').fill(MAKER.password);
    await maker.getByRole('button', { name: 'Set the password' }).click();
    await maker.getByRole('link', { name: /Sign in as/ }).click();
    await maker.getByLabel('E-mail').fill(MAKER.email);
    await maker.getByLabel('Password').fill(MAKER.password);
    await maker.getByRole('button', { name: 'Sign in' }).click();
    await expect(maker.getByRole('heading', { name: 'Your steps' })).toBeVisible();
    await maker.goto(address);
    await expect(maker.getByText('@Una how many jars are there?')).toBeVisible();
    await maker.getByLabel('Write to the team').fill('Forty.');
    await maker.getByRole('button', { name: 'Write it' }).click();
    await maker.getByLabel('Copy', { exact: true }).fill('Forty jars, one window.');
    for (const step of ['Write', 'Design']) {
      await expect(maker.getByText(`${step} is at hand`)).toBeVisible();
      await maker.getByRole('button', { name: 'Hand in' }).click();
      await expect.poll(async () => (await finished(zesting)).includes(step)).toBe(true);
    }
    await lead.reload();
    await expect(lead.getByText('Forty.', { exact: true })).toBeVisible();
    await lead.getByRole('button', { name: 'Pass' }).click();
    await lead.getByRole('link', { name: 'Send to the client' }).click();
  });

const finished = async (zesting: Zesting): Promise<string[]> =>
  (
    await zesting.query<{ title: string }>(
      "select s.title from steps s join pieces p on p.id = s.piece_id where p.title = 'Jars in the window' and s.finished_on is not null",
    )
  ).map((row) => row.title);

const sign = (browser: Parameters<typeof visitor>[0], lead: Page, zesting: Zesting) =>
  test.step('the contact signs it', async () => {
    await lead.getByRole('button', { name: 'Send 1 piece for sign-off' }).click();
    await expect(lead.getByRole('article', { name: 'Jars in the window' })).toBeVisible();
    const mail = await mailTo(zesting, CONTACT.email, 'For your sign-off: Jars in the window');
    const contact = await visitor(browser, zesting, linkIn(mail.text, '/room/'), { viewport: { width: 390, height: 844 } });
    const piece = contact.getByRole('article', { name: 'Jars in the window' });
    await piece.getByRole('button', { name: 'Approve' }).click();
    await piece.getByRole('button', { name: 'Yes, approve it' }).click();
    await expect(piece.getByRole('button', { name: 'Approve' })).toBeHidden();
  });

const place = (lead: Page, on: Day) =>
  test.step('it stands on the calendar, scheduled', async () => {
    await lead.goto(`/calendar?client=PR&view=month&month=${on.slice(0, 7)}`);
    await expect(lead.getByRole('button', { name: /09:00 Jars in the window, Photo feed, Scheduled/ })).toBeVisible();
  });

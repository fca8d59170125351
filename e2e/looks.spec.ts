import type { Page } from '@playwright/test';
import { COLOUR_RULES, expect, expectAccessible, expectNoSidewaysScroll, linkIn, mailTo, signIn, test, visitor } from './zesting';

test.use({ story: 'looks' });
// these only look: they need not wait for each other
test.describe.configure({ mode: 'parallel' });

const settled = async (page: Page) => {
  await expect(page.getByText('Loading…')).toHaveCount(0);
  await expect(page.getByRole('main').or(page.locator('#root')).first()).toBeVisible();
};

const PARTS_OF_A_CLIENT = [
  'basics',
  'days',
  'contacts',
  'sign-off',
  'channels',
  'allowance',
  'pillars',
  'tags',
  'phrases',
  'brand',
  'links',
  'activity',
];
const SCREENS: Record<string, (id: Record<'piece' | 'client' | 'person' | 'own' | 'request' | 'form', string>) => string[]> = {
  'of the plan': () => [
    '/',
    '/plan',
    '/plan?client=MOSS',
    '/plan/year?client=TIDE',
    '/plan/rhythm?client=MOSS',
    '/plan/ideas',
    '/plan/campaigns',
    '/plan/campaigns?client=MOSS&open=new',
    '/plan/goals?client=MOSS',
    '/plan/goals?client=MOSS&open=goal',
    '/plan/duties',
    '/plan/pillars?client=MOSS',
    '/plan/pillars?client=MOSS&open=treatments',
    '/plan/duties?open=duty&client=MOSS',
  ],
  'of production': ({ piece }) => [
    '/production',
    '/production/line',
    '/production/line?weeks=13',
    '/production/load',
    '/production/load?weeks=13',
    '/production/copy?client=MOSS',
    '/production/stages',
    '/production/library',
    '/production/library/files',
    '/production/library/files?client=KILN&open=new-file',
    '/production/make',
    '/production/make/sitting?skill=write',
    '/production/make/sitting?skill=write&way=read',
    `/pieces/${piece}`,
  ],
  'of requests, sign-off and calendar': ({ request }) => [
    '/requests',
    `/requests/${request}`,
    '/sign-off',
    '/calendar',
    '/calendar?colour=stage&weekends=off',
    '/calendar?view=quarter',
    '/calendar/going-out',
    '/calendar?view=week',
    '/calendar?view=week&client=TIDE',
    '/links',
    '/routes',
  ],
  'of clients and forms': ({ client, form }) => [
    '/clients',
    ...PARTS_OF_A_CLIENT.map((part) => `/clients/${client}?part=${part}`),
    `/brand/${client}`,
    '/forms',
    ...['questions', 'settings', 'rules', 'links', 'versions'].map((part) => `/forms/${form}?part=${part}`),
  ],
  'of people and the agency': ({ person, own }) => [
    '/people',
    `/people/${person}`,
    `/people/${own}`,
    ...['work', 'look', 'messages', 'lists', 'ideas', 'new-clients', 'demo'].map((part) => `/agency?part=${part}`),
  ],
};

for (const [which, addresses] of Object.entries(SCREENS))
  test(`every screen ${which} passes axe in light and in dark, and fits 1280 and 1920`, async ({ browser, zesting }) => {
    const marta = await signIn(browser, zesting, 'marta@quillhaven.test');
    const one = async (sql: string) => (await zesting.query<{ id: string }>(sql))[0]?.id ?? '';
    const ids = {
      piece: await one("select id from pieces where title = 'Why our butter is cold'"),
      client: await one("select id from clients where code = 'TIDE'"),
      person: await one("select id from people where name = 'Sunniva Aldous'"),
      own: await one("select id from people where email = 'marta@quillhaven.test'"),
      request: await one("select id from requests where title = 'A song about bread'"),
      form: await one("select id from intake_forms where title = 'A clip from the bakehouse'"),
    };
    for (const address of addresses(ids)) {
      await marta.setViewportSize({ width: 1280, height: 800 });
      await marta.goto(address);
      await settled(marta);
      await marta.emulateMedia({ colorScheme: 'light' });
      await expectAccessible(marta);
      await marta.emulateMedia({ colorScheme: 'dark' });
      await expectAccessible(marta, COLOUR_RULES);
      await expectNoSidewaysScroll(marta);
      await marta.setViewportSize({ width: 1920, height: 1080 });
      await expectNoSidewaysScroll(marta);
    }
  });

for (const colorScheme of ['light', 'dark'] as const)
  test(`form, room and a creator’s own work pass axe and fit a phone in ${colorScheme}, without motion where that is asked`, async ({
    browser,
    zesting,
  }) => {
    const phone = { viewport: { width: 390, height: 844 }, hasTouch: true, colorScheme, reducedMotion: 'reduce' } as const;
    const dana = await signIn(browser, zesting, 'dana@quillhaven.test');
    await dana.goto('/links?client=MOSS');
    const form = new URL(await dana.getByRole('link', { name: /^Form: Ask for content.*\/ask\// }).innerText()).pathname;
    const mail = await mailTo(zesting, 'winnie@tidelight.test', 'For your sign-off: Night sail for members');
    const sunniva = await signIn(browser, zesting, 'sunniva@quillhaven.test', phone);
    const pages = [
      await visitor(browser, zesting, form, phone),
      await visitor(browser, zesting, linkIn(mail.text, '/room/'), phone),
      sunniva,
    ];
    for (const page of pages) {
      await settled(page);
      await expectAccessible(page);
      await expectNoSidewaysScroll(page);
      const moving = await page.evaluate(
        () =>
          [...document.querySelectorAll('*')].filter((element) => {
            const { animationName, transitionDuration } = getComputedStyle(element);
            return animationName !== 'none' || transitionDuration.split(',').some((part) => parseFloat(part) > 0);
          }).length,
      );
      expect(moving).toBe(0);
    }
    await sunniva
      .getByRole('main')
      .getByRole('link', { name: /^(Open|Go on|Look)$/ })
      .first()
      .click();
    await expect(sunniva.getByRole('heading', { name: 'Content' })).toBeVisible();
    await expectAccessible(sunniva);
    await expectNoSidewaysScroll(sunniva);
  });

test('the calendar and a packet print without what is only for the screen', async ({ browser, zesting }) => {
  const dana = await signIn(browser, zesting, 'dana@quillhaven.test');
  for (const address of ['/calendar?client=KILN', '/sign-off?client=MOSS']) {
    await dana.goto(address);
    await settled(dana);
    await dana.emulateMedia({ media: 'print' });
    await expect(dana.getByRole('link', { name: 'Desk' })).toBeHidden();
    await expect(dana.getByRole('button', { name: /^(This (month|week)|Chase…)$/ })).toHaveCount(0);
    await dana.emulateMedia({ media: 'screen' });
  }
  const mail = await mailTo(zesting, 'winnie@tidelight.test', 'For your sign-off: Night sail for members');
  const room = await visitor(browser, zesting, linkIn(mail.text, '/room/'));
  await settled(room);
  await room.emulateMedia({ media: 'print' });
  await expect(room.getByRole('heading', { name: 'Night sail for members' }).last()).toBeVisible();
  await expect(room.getByRole('button', { name: 'Approve' })).toBeHidden();
});

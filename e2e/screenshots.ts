import { mkdirSync } from 'node:fs';
import { join } from 'node:path';
import { linkIn, mailTo, signIn, test, visitor } from './zesting';

const folder = join(__dirname, '..', 'docs', 'screenshots');
const PHONE = { viewport: { width: 390, height: 844 } };

/** Makes the pictures of docs/screenshots from the demo: `npm run shots`. */
test('pictures of the main views', async ({ browser, zesting }) => {
  mkdirSync(folder, { recursive: true });
  const dana = await signIn(browser, zesting, 'dana@quillhaven.test');
  const shoot = async (page: typeof dana, name: string) => {
    await page.waitForLoadState('networkidle');
    await page.getByText('Loading…').waitFor({ state: 'hidden' });
    await page.screenshot({ path: join(folder, `${name}.png`) });
  };
  const ivo = await signIn(browser, zesting, 'ivo@quillhaven.test');
  await ivo.goto('/calendar/going-out');
  await shoot(ivo, 'going-out');
  for (const [address, name] of [
    ['/', 'desk'],
    ['/requests', 'requests'],
    ['/production/sheet?group=week', 'sheet'],
    ['/production/line', 'line'],
    ['/production/load?weeks=4', 'load'],
    ['/sign-off', 'sign-off'],
    ['/calendar', 'calendar'],
    ['/plan/year?client=MOSS', 'year'],
    ['/plan/pillars?client=MOSS', 'pillars'],
  ] as const) {
    await dana.goto(address);
    await shoot(dana, name);
  }
  await dana.goto('/plan?client=KILN');
  await dana.getByRole('button', { name: 'The month after' }).click();
  await dana.getByRole('button', { name: 'Propose the month' }).click();
  await dana.getByText('slots proposed.').waitFor();
  await shoot(dana, 'plan');
  await dana.goto('/production');
  await dana.getByRole('link', { name: 'Moss lawns, honestly' }).click();
  await dana.getByRole('heading', { name: 'Path' }).waitFor();
  await shoot(dana, 'piece');
  await dana.goto('/production');
  await dana.getByRole('link', { name: 'Meet the cutting bench' }).click();
  await dana.goto('/production');
  await dana.getByRole('link', { name: 'A day with the night baker' }).click();
  await dana.getByRole('button', { name: /^Cut a-day-with/ }).click();
  await dana
    .getByRole('img', { name: /^Loaves cooling/ })
    .last()
    .waitFor();
  await shoot(dana, 'crop');
  const marta = await signIn(browser, zesting, 'marta@quillhaven.test');
  await marta.goto('/production/sources');
  await shoot(marta, 'sources');
  await marta.goto('/forms');
  await marta.getByRole('link', { name: /A clip from the bakehouse/ }).click();
  await marta.getByRole('button', { name: /^Where can we film/ }).click();
  const beside = marta.getByRole('region', { name: 'The form as it is seen' });
  await beside.getByRole('radio', { name: 'some' }).check();
  await shoot(marta, 'form');
  await dana.goto('/plan/ideas?client=KILN');
  await dana.getByRole('heading', { name: 'Ideas', level: 1 }).waitFor();
  await shoot(dana, 'ideas');
  await dana.goto('/links?client=MOSS');
  const form = new URL(await dana.getByRole('link', { name: /^Form: Ask for content.*\/ask\// }).innerText()).pathname;
  await shoot(await visitor(browser, zesting, form, PHONE), 'ask-phone');
  const mail = await mailTo(zesting, 'hana@mossgrove.test', 'For your sign-off: Orchids');
  await shoot(await visitor(browser, zesting, linkIn(mail.text, '/room/'), PHONE), 'room-phone');
  await shoot(await signIn(browser, zesting, 'noor@pencraft.test', PHONE), 'my-steps-phone');
});

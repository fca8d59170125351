import { writeFileSync } from 'node:fs';
import { expect, expectDecided, linkIn, mailTo, signIn, signInByHand, tellStory, test, visitor } from './zesting';

tellStory('behind-proxy', { behindProxy: true });

test('behind a TLS proxy: sign in, follow changes, send a clip in parts, mail a link that a contact signs off by', async ({
  browser,
  zesting,
}, info) => {
  expect(zesting.address).toMatch(/^https:/);
  const dana = await signInByHand(browser, zesting, 'dana@quillhaven.test');
  const cookies = await dana.context().cookies();
  expect(cookies.map(({ secure, httpOnly, sameSite }) => ({ secure, httpOnly, sameSite }))).toEqual([
    { secure: true, httpOnly: true, sameSite: 'Lax' },
  ]);
  const answer = await dana.request.get('/');
  expect(answer.headers()['strict-transport-security']).toMatch(/max-age=\d{7,}/);
  // another site's page gets nothing written, even with the cookie
  expect((await dana.request.delete('/api/session', { headers: { Origin: 'https://elsewhere.test' } })).status()).toBe(403);

  // the stream gets through: a change by somebody else appears by itself
  await dana.goto('/production?client=KILN');
  await dana.getByRole('link', { name: 'Inside the deck oven' }).click();
  const marta = await signIn(browser, zesting, 'marta@quillhaven.test');
  await marta.goto(new URL(dana.url()).pathname);
  await marta.getByRole('button', { name: 'Edit title and pillar' }).click();
  await marta.getByRole('dialog').getByRole('textbox', { name: 'Title' }).fill('Inside the deck oven, by night');
  await marta.getByRole('button', { name: 'Save', exact: true }).last().click();
  await expect(dana.getByRole('heading', { name: 'Inside the deck oven, by night' })).toBeVisible();

  // so does a clip, in parts
  const file = info.outputPath('oven.mp4');
  const clip = Buffer.alloc(30 * 1024 * 1024, 7);
  Buffer.from('000000186674797069736f6d0000020069736f6d69736f32', 'hex').copy(clip);
  writeFileSync(file, clip);
  await dana.getByLabel('Add pictures or clips').setInputFiles(file);
  await expect(dana.getByLabel('Alternative text of oven.mp4')).toBeVisible();
  await dana.getByRole('button', { name: 'Save' }).click();
  await expect(dana.getByText('Not saved yet')).toBeHidden();

  // links begin with the public address, and open there; Chromium was seen once to give up its own connection here, as a person would reload
  await expect(() => dana.goto('/sign-off?client=MOSS')).toPass();
  const packet = dana.getByRole('article', { name: 'Newsletter: open greenhouse' });
  await packet.getByRole('button', { name: 'Chase…' }).click();
  await dana.getByRole('button', { name: 'Send it' }).click();
  const { text } = await mailTo(zesting, 'hana@mossgrove.test', 'Your word on Newsletter: open greenhouse');
  expect(text).toContain(`${zesting.address}/room/`);
  const hana = await visitor(browser, zesting, linkIn(text, '/room/'), { viewport: { width: 390, height: 844 }, hasTouch: true });
  const piece = hana.getByRole('article', { name: 'Newsletter: open greenhouse' });
  await piece.getByRole('button', { name: 'Approve' }).click();
  await piece.getByRole('button', { name: 'Yes, approve it' }).click();
  await expectDecided(zesting, 'Newsletter: open greenhouse');
});

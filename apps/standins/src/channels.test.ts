import { mkdtempSync, appendFileSync } from 'node:fs';
import { createHash } from 'node:crypto';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { startChannels, type Channels } from './channels';

describe('a simulated channel', () => {
  const folder = mkdtempSync(join(tmpdir(), 'zesting-channels-'));
  let channels: Channels;
  const start = async () => {
    channels = await startChannels({ port: 0, folder });
  };
  beforeAll(start);
  afterAll(() => channels.close());

  const call = (method: string, path: string, body?: unknown) =>
    fetch(`${channels.address}/c/feed${path}`, { method, body: body === undefined ? null : JSON.stringify(body) });
  const post = (reference: string, more: object = {}) =>
    call('POST', '/posts', { reference, from: 'Client <b>, Feed', text: 'Fresh', tags: ['rye'], link: null, audience: null, media: [], meantFor: '2027-03-09T10:00:00Z', ...more }); // prettier-ignore
  const settle = async (reference: string): Promise<unknown> => (await call('POST', `/posts/${reference}/settle`)).json();
  const count = () => channels.store.list().length;

  it('publishes what it gets, also twice, and shows it', async () => {
    const answer = await post('one');
    expect(answer.status).toBe(201);
    const { address } = (await answer.json()) as { address: string };
    const page = await (await fetch(address)).text();
    expect(page).toContain('Fresh');
    expect(page).toContain('Client &lt;b&gt;, Feed');
    await post('one');
    expect(count()).toBe(2); // only whoever sends keeps it from being doubled
    expect((await call('PUT', '/posts/one/first-comment', { text: 'Which one?' })).status).toBe(204);
    expect((await call('PUT', '/posts/none/first-comment', { text: 'Which one?' })).status).toBe(404);
    expect(await (await fetch(channels.address)).text()).toContain('First comment: Which one?');
    expect(await settle('one')).toMatchObject({ state: 'published', address });
  });

  it('keeps files by their hash alone, and refuses a post without its files', async () => {
    const bytes = Buffer.from('a picture');
    const hash = createHash('sha256').update(bytes).digest('hex');
    const media = [{ sha256: hash, name: 'a.png', mime: 'image/png', alt: '' }];
    expect((await post('two', { media })).status).toBe(422);
    const put = (name: string) => fetch(`${channels.address}/c/feed/files/${name}`, { method: 'PUT', body: bytes });
    expect((await put('0'.repeat(64))).status).toBe(422);
    expect((await call('HEAD', `/files/${hash}`)).status).toBe(404);
    expect((await put(hash)).status).toBe(204);
    expect((await call('HEAD', `/files/${hash}`)).status).toBe(200);
    expect((await post('two', { media })).status).toBe(201);
  });

  it('takes nothing any more under a reference that it was asked for in vain', async () => {
    expect(await settle('three')).toEqual({ state: 'none', final: true });
    expect((await post('three')).status).toBe(409);
  });

  it('misbehaves as it is told', async () => {
    const before = count();
    channels.behave('refuses');
    expect((await post('four')).status).toBe(422);
    channels.behave('limits');
    expect((await post('four')).headers.get('retry-after')).toBe('60');
    channels.behave('away');
    await expect(post('four')).rejects.toThrow();
    channels.behave('vague');
    expect((await post('five')).status).toBe(503);
    expect(count()).toBe(before);
    channels.behave('loses');
    await expect(post('six')).rejects.toThrow();
    expect(count()).toBe(before + 1);
    channels.behave('later');
    expect((await post('seven')).status).toBe(202);
    channels.behave('fine');
    expect(await settle('seven')).toEqual({ state: 'pending' });
    expect(await settle('five')).toEqual({ state: 'none', final: false });
    const chosen = await fetch(`${channels.address}/behaviour`, { method: 'POST', body: new URLSearchParams({ behaviour: 'refuses' }), redirect: 'manual' }); // prettier-ignore
    expect(chosen.status).toBe(303);
    expect((await post('eight')).status).toBe(422);
    expect((await fetch(`${channels.address}/behaviour`, { method: 'POST', body: new URLSearchParams({ behaviour: 'sings' }) })).status).toBe(422); // prettier-ignore
    channels.behave('fine');
    expect((await fetch(`${channels.address}/c/feed/nothing`)).status).toBe(404);
    expect((await call('POST', '/posts', 'no object')).status).toBe(400);
  });

  it('knows all of it after a new start, and skips a line that was cut off', async () => {
    const before = count();
    await channels.close();
    appendFileSync(join(folder, 'posts.jsonl'), '{"post": {"chan');
    await start();
    expect(count()).toBe(before);
    expect(await settle('three')).toEqual({ state: 'none', final: true });
    expect((await post('three')).status).toBe(409);
    expect(await settle('five')).toEqual({ state: 'none', final: false });
    expect(channels.store.find('feed', 'one')?.firstComment).toBe('Which one?');
  });

  it('asks for pages that are all there, but those of which something else was said', async () => {
    const ask = async (address: string): Promise<unknown> =>
      (await fetch(`${channels.address}/pages`, { method: 'POST', body: JSON.stringify({ address }) })).json();
    const say = async (address: string, answer: string) =>
      (await fetch(`${channels.address}/pages/say`, { method: 'POST', body: new URLSearchParams({ address, answer }), redirect: 'manual' }))
        .status;
    const page = 'https://example.test/<menu>';
    expect(await ask(page)).toEqual({ status: 200 });
    expect([await say(page, 'gone'), await say('https://example.test/b', 'silent'), await say(page, 'elsewhere')]).toEqual([303, 303, 422]);
    expect([await ask(page), await ask('https://example.test/b')]).toEqual([{ status: 404 }, { status: null }]);
    expect(await (await fetch(channels.address)).text()).toContain('https://example.test/&lt;menu&gt; is not found');
    await channels.close();
    await start(); // it is kept
    expect(await ask(page)).toEqual({ status: 404 });
    expect([await say(page, 'there'), await ask(page)]).toEqual([303, { status: 200 }]);
  });
});

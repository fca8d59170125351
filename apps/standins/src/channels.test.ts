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

  const call = (method: string, path: string, body?: unknown, channel = 'feed') =>
    fetch(`${channels.address}/c/${channel}${path}`, { method, body: body === undefined ? null : JSON.stringify(body) });
  const post = (reference: string, more: object = {}, channel = 'feed') =>
    call('POST', '/posts', { reference, from: 'Client <b>, Feed', text: 'Fresh', tags: ['rye'], link: null, audience: null, media: [], meantFor: '2027-03-09T10:00:00Z', ...more }, channel); // prettier-ignore
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

  describe('of a kind', () => {
    const bytes = Buffer.from('a clip');
    const sha256 = createHash('sha256').update(bytes).digest('hex');
    const file = (mime: string, more: object = {}) => ({ sha256, name: 'a.file', mime, alt: 'Loaves', ...more });
    beforeAll(async () => {
      await fetch(`${channels.address}/c/feed/files/${sha256}`, { method: 'PUT', body: bytes });
    });
    const refusal = async (kind: string, more: object): Promise<unknown> => {
      const answer = await post(`of-${kind}`, more, `${kind}/one`);
      return answer.status === 422 ? ((await answer.json()) as { reason: string }).reason : answer.status;
    };

    it.each([
      ['photo_feed', {}, 'Words alone are not taken here'],
      ['photo_feed', { media: [file('image/png')] }, 201],
      ['photo_feed', { media: [file('audio/wav')] }, 'a.file is of a kind that is not taken here'],
      ['short_clip_feed', { media: [file('video/mp4'), file('video/mp4')] }, '2 files came, and 1 is taken here'],
      ['short_clip_feed', { media: [file('video/mp4')], text: 'x'.repeat(295) }, 201],
      ['short_clip_feed', { media: [file('video/mp4')], text: 'x'.repeat(296) }, 'The text has 301 characters, and 300 are taken here'],
      ['microblog', { text: 'x'.repeat(275) }, 201], // with the space and #rye 280
      ['microblog', { text: 'x'.repeat(276) }, 'The text has 281 characters, and 280 are taken here'],
      ['microblog', { text: '👩‍👩‍👧'.repeat(275) }, 201], // counted as people perceive them: one each
      ['newsletter', {}, 'Nobody is named who gets it'],
      ['newsletter', { audience: 'Regulars' }, 201],
      ['video_site', { media: [file('video/mp4')] }, 202],
      ['podcast', { media: [file('image/png')] }, 'a.file is of a kind that is not taken here'],
      ['podcast', { media: [file('audio/mpeg')] }, 202],
      ['blog', { text: ' ' }, 'There is nothing in it'],
      ['community_board', {}, 201],
    ])('%s answers what it is given', async (kind, more, expected) => {
      expect(await refusal(kind, more)).toBe(expected);
    });

    it('says its name, where it is seen and whether it can be commented', async () => {
      expect(await (await fetch(`${channels.address}/c/podcast/one/about`)).json()).toEqual({ name: 'Simulated podcast host' });
      const letter = (await (await post('letter', { audience: 'Regulars' }, 'newsletter/list')).json()) as object;
      expect(Object.keys(letter)).toEqual(['publishedAt']);
      const comment = (channel: string, reference: string) =>
        call('PUT', `/posts/${reference}/first-comment`, { text: 'Which one?' }, channel);
      expect((await comment('newsletter/list', 'letter')).status).toBe(404);
      await post('told', {}, 'microblog/one');
      expect((await comment('microblog/one', 'told')).status).toBe(204);
    });

    it('shows a clip with its cover, and headings of a text, and runs nothing of it', async () => {
      const html = '<h2>Rye</h2><script>alert(1)</script>';
      const answer = await post('shown', { html, media: [file('video/mp4', { cover: sha256 })] }, 'blog/one');
      const { address } = (await answer.json()) as { address: string };
      const shown = await fetch(address);
      expect(shown.headers.get('content-security-policy')).toMatch(/^default-src 'none'/);
      expect(shown.headers.get('content-security-policy')).not.toContain('script-src');
      const page = await shown.text();
      expect(page).toContain('<h2>Rye</h2>');
      expect(page).toContain(`poster="/p/one/shown/${sha256}"`);
      const clip = await fetch(`${address}/${sha256}`);
      expect([clip.headers.get('content-type'), Buffer.from(await clip.arrayBuffer())]).toEqual(['video/mp4', bytes]);
      expect((await fetch(`${address}/${'0'.repeat(64)}`)).status).toBe(404);
    });

    it('behaves as that kind was told, all others as all were told', async () => {
      channels.behave('refuses', 1, 'microblog');
      expect([await refusal('microblog', {}), await refusal('community_board', {})]).toEqual([
        'This is not taken here: the channel says no',
        201,
      ]);
      const behave = (kind: string) =>
        fetch(`${channels.address}/behaviour`, { method: 'POST', body: new URLSearchParams({ behaviour: 'limits', kind }), redirect: 'manual' }); // prettier-ignore
      expect([(await behave('blog')).status, (await behave('choir')).status]).toEqual([303, 422]);
      expect((await post('many', {}, 'blog/one')).status).toBe(429);
      expect(await (await fetch(channels.address)).text()).toContain('Simulated blog: says that too much comes.');
      channels.behave('fine'); // of all: what was said of kinds is over
      expect([await refusal('microblog', {}), await refusal('blog', {})]).toEqual([201, 201]);
    });
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

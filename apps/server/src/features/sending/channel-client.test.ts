import { createServer, type IncomingMessage, type Server, type ServerResponse } from 'node:http';
import { createServer as createTcp, type AddressInfo } from 'node:net';
import { askForPost, bringFile, putComment, putPost, tryChannel, type ChannelAt, type OutgoingPost } from './channel-client.js';

const POST: OutgoingPost = {
  reference: 'one',
  from: 'Client, Feed',
  texts: [],
  html: null,
  text: 'Fresh',
  tags: [],
  link: null,
  audience: null,
  media: [],
  meantFor: '2027-03-01T10:00:00Z',
};

/** A channel that answers everything as it is told. */
describe('a channel over the wire', () => {
  let server: Server;
  let at: ChannelAt;
  let answer: (request: IncomingMessage, response: ServerResponse) => void;
  let calls: string[] = [];

  beforeAll(async () => {
    server = createServer((request, response) => {
      calls.push(`${request.method} ${request.url} ${request.headers.authorization ?? 'nobody'}`);
      answer(request, response);
    });
    await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve));
    at = { address: `http://127.0.0.1:${(server.address() as AddressInfo).port}/c/feed`, token: 'secret', timeoutMs: 1500 };
  });
  beforeEach(() => {
    calls = [];
  });
  afterAll(() => {
    server.closeAllConnections();
    server.close();
  });

  const says = (status: number, body: unknown = {}, headers: Record<string, string> = {}) => {
    answer = (_request, response) =>
      void response
        .writeHead(status, { 'Content-Type': 'application/json', ...headers })
        .end(typeof body === 'string' ? body : JSON.stringify(body));
  };

  it('is told who calls, and published is what it says is published', async () => {
    says(201, { address: 'https://feed.test/1', publishedAt: '2027-03-01T11:00:00+01:00' });
    expect(await putPost(at, POST)).toEqual({ kind: 'published', address: 'https://feed.test/1', at: '2027-03-01T10:00:00.000Z' });
    expect(calls).toEqual(['POST /c/feed/posts Bearer secret']);
    says(200, { address: 'javascript:alert(1)', publishedAt: 'yesterday' });
    expect(await putPost({ ...at, token: '' }, POST)).toEqual({ kind: 'published', address: null, at: null });
    expect(calls[1]).toBe('POST /c/feed/posts nobody');
    says(201, 'no JSON at all');
    expect(await putPost(at, POST)).toEqual({ kind: 'published', address: null, at: null });
    says(202);
    expect(await putPost(at, POST)).toEqual({ kind: 'accepted' });
  });

  it('may have taken it wherever it does not say clearly that it did not', async () => {
    for (const status of [500, 502, 503, 504, 408]) {
      says(status);
      expect(await putPost(at, POST)).toEqual({ kind: 'unknown', reason: `It answered ${status}` });
    }
    answer = (request) => void request.destroy();
    expect(await putPost(at, POST)).toMatchObject({ kind: 'unknown' });
    answer = () => undefined; // never
    expect(await putPost(at, POST)).toEqual({ kind: 'unknown', reason: 'It took too long to answer' });
    answer = (_request, response) => void response.writeHead(201, { 'Content-Type': 'application/json' }).write('{"address":'); // and no more
    expect(await putPost(at, POST)).toMatchObject({ kind: 'unknown' });
  });

  it('did not take it where it says so, is told to wait, or leads elsewhere', async () => {
    for (const status of [400, 401, 403, 404, 409, 413, 422, 302]) {
      says(status, status === 422 ? { reason: ' Too long\0 \ud800' } : {}, status === 302 ? { Location: 'https://elsewhere.test/' } : {});
      expect(await putPost(at, POST)).toEqual({ kind: 'refused', reason: status === 422 ? 'Too long' : `It answered ${status}` });
    }
    for (const [said, seconds] of [
      ['120', 120],
      ['Wed, 21 Oct 2027 07:28:00 GMT', null],
      ['-1', null],
    ] as const) {
      // prettier-ignore
      says(429, {}, { 'Retry-After': said });
      expect(await putPost(at, POST)).toEqual({ kind: 'limited', afterSeconds: seconds });
    }
  });

  it('got nothing where no connection came about', async () => {
    const probe = createTcp();
    await new Promise<void>((resolve) => probe.listen(0, '127.0.0.1', resolve));
    const { port } = probe.address() as AddressInfo;
    await new Promise((resolve) => probe.close(resolve));
    for (const address of [`http://127.0.0.1:${port}`, 'http://nowhere.invalid']) {
      expect(await putPost({ ...at, address, timeoutMs: 10_000 }, POST)).toMatchObject({ kind: 'unreachable', reason: expect.stringMatching(/ECONNREFUSED|ENOTFOUND|EAI_AGAIN/) }); // prettier-ignore
      expect(await askForPost({ ...at, address, timeoutMs: 10_000 }, 'one')).toMatchObject({ kind: 'silent' });
    }
  });

  it('is asked, and silent unless it says one of four things', async () => {
    const said = async (body: unknown, status = 200) => {
      says(status, body);
      return askForPost(at, 'one');
    };
    expect(await said({ state: 'published', address: 'https://feed.test/1' })).toMatchObject({ kind: 'published' });
    expect(calls).toEqual(['POST /c/feed/posts/one/settle Bearer secret']);
    expect(await said({ state: 'pending' })).toEqual({ kind: 'pending' });
    expect(await said({ state: 'refused', reason: 'No' })).toEqual({ kind: 'refused', reason: 'No' });
    expect(await said({ state: 'none', final: true })).toEqual({ kind: 'none', isFinal: true });
    for (const final of [false, 'true', 1, undefined])
      expect(await said({ state: 'none', final })).toEqual({ kind: 'none', isFinal: false });
    for (const body of [{}, [], 'none', { state: 'gone' }, 'x'.repeat(50_000)]) expect(await said(body)).toMatchObject({ kind: 'silent' });
    for (const status of [202, 404, 401, 500]) expect(await said({ state: 'none', final: true }, status)).toMatchObject({ kind: 'silent' });
  });

  it('is brought a file once, as it was', async () => {
    const read = () => Promise.resolve(Buffer.from('abc'));
    const hash = 'ba7816bf8f01cfea414140de5dae2223b00361a396177a9cb410ff61f20015ad'; // FIPS 180-2, B.1: SHA-256 of "abc"
    says(200);
    expect(await bringFile(at, hash, read)).toBeNull();
    expect(calls).toEqual([`HEAD /c/feed/files/${hash} Bearer secret`]);
    answer = (request, response) => void response.writeHead(request.method === 'HEAD' ? 404 : 204).end();
    expect(await bringFile(at, hash, read)).toBeNull();
    expect(await bringFile(at, hash, () => Promise.resolve(Buffer.from('abd')))).toMatchObject({ kind: 'refused' });
    expect(await bringFile(at, hash, () => Promise.reject(new Error('ENOENT')))).toEqual({ kind: 'refused', reason: 'A file is no longer where it was kept' }); // prettier-ignore
    says(413);
    expect(await bringFile(at, hash, read)).toMatchObject({ kind: 'refused' });
    says(500);
    expect(await bringFile(at, hash, read)).toMatchObject({ kind: 'unreachable' }); // no post yet: it may be tried again
    says(429, {}, { 'Retry-After': '7' });
    expect(await bringFile(at, hash, read)).toEqual({ kind: 'limited', afterSeconds: 7 });
  });

  it('puts a first comment, and says its name', async () => {
    says(204);
    expect(await putComment(at, 'one', 'Hello')).toBe(true);
    expect(calls).toEqual(['PUT /c/feed/posts/one/first-comment Bearer secret']);
    says(404);
    expect(await putComment(at, 'one', 'Hello')).toBe(false);
    says(200, { name: 'A feed' });
    expect(await tryChannel(at)).toEqual({ name: 'A feed', reason: null });
    says(401, { reason: 'No' });
    expect(await tryChannel(at)).toEqual({ name: null, reason: 'No' });
  });
});

import { ApiProblem, call, wordsOf } from './api';

const answer = (status: number, body: unknown): Response =>
  new Response(status === 204 ? null : JSON.stringify(body), { status, headers: { 'Content-Type': 'application/json' } });

describe('calling the API', () => {
  const asked: { url: string; init: RequestInit }[] = [];
  let next: () => Promise<Response>;
  const real = globalThis.fetch;
  beforeEach(() => {
    asked.length = 0;
    globalThis.fetch = (url, init) => {
      asked.push({ url: String(url), init: init ?? {} });
      return next();
    };
  });
  afterAll(() => {
    globalThis.fetch = real;
  });

  it('sends the version as If-Match, the key as Idempotency-Key, and a body as JSON', async () => {
    next = () => Promise.resolve(answer(200, { done: true }));
    expect(await call('/x', { method: 'PUT', body: { a: 1 }, version: 7, idempotencyKey: 'k' })).toEqual({ done: true });
    expect(asked[0]).toEqual({
      url: '/api/x',
      init: { method: 'PUT', headers: { 'Content-Type': 'application/json', 'If-Match': '"7"', 'Idempotency-Key': 'k' }, body: '{"a":1}' },
    });
  });

  it('throws refusals with their code, their fields and plain words', async () => {
    next = () => Promise.resolve(answer(412, { code: 'http.changed_meanwhile', theirs: { version: 8 }, errors: { a: ['x'] } }));
    const problem: unknown = await call('/x').catch((error: unknown) => error);
    expect(problem).toBeInstanceOf(ApiProblem);
    expect(problem).toMatchObject({ code: 'http.changed_meanwhile', status: 412, body: { theirs: { version: 8 } }, errors: { a: ['x'] } });
    expect(wordsOf(problem)).toBe('Somebody else changed this meanwhile. Nothing was overwritten.');
  });

  it('says that nothing is lost when the connection fails, and stays calm when an answer is no JSON', async () => {
    next = () => Promise.reject(new TypeError('network'));
    await expect(call('/x')).rejects.toMatchObject({ code: 'http.offline' });
    next = () => Promise.resolve(new Response('<html>', { status: 502 }));
    await expect(call('/x')).rejects.toMatchObject({ code: 'http.unexpected', status: 502 });
  });

  it('returns nothing for 204', async () => {
    next = () => Promise.resolve(answer(204, null));
    expect(await call('/x', { method: 'POST' })).toBeUndefined();
  });
});

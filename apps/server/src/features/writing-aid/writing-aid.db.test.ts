import { createServer, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { startChannels, type Channels } from '@zesting/standins';
import type { PieceShape } from '@zesting/contract';
import { callerAs, makePiece, makeScene, type Caller, type Scene } from '../../../test-support/scene.js';

const ASKED = {
  opening: 'Stop kneading.',
  outline: [{ heading: 'What it is about', prompt: '' }],
  answers: [{ question: 'Who is it for', answer: 'Those who bake at home' }],
  isLaidOut: true,
};

describe('a writing aid', () => {
  const answers: { status: number; body: string }[] = [];
  const told: unknown[] = [];
  let aid: Server;
  let scene: Scene;
  let manager: Caller;
  let pieceId: string;
  beforeAll(async () => {
    aid = createServer((request, response) => {
      const parts: Buffer[] = [];
      request.on('data', (part: Buffer) => parts.push(part));
      request.on('end', () => {
        told.push([request.method, request.url, JSON.parse(Buffer.concat(parts).toString())]);
        const { status, body } = answers.shift() ?? { status: 200, body: '{"draft":"Rye."}' };
        response.writeHead(status, { Location: '/elsewhere' }).end(body);
      });
    });
    await new Promise<void>((resolve) => aid.listen(0, '127.0.0.1', resolve));
    scene = await makeScene({ env: { ZESTING_WRITING_AID: `http://127.0.0.1:${(aid.address() as AddressInfo).port}` } }); // it listens on a port
    manager = await callerAs(scene, 'manager');
  });
  afterAll(async () => {
    await scene.close();
    aid.close();
  });
  beforeEach(async () => {
    await scene.begin();
    told.length = 0;
    pieceId = await makePiece(scene, scene.a);
  });
  const ask = (body: object = ASKED) => manager.call('POST', `/api/pieces/${pieceId}/drafts`, { body });

  it('is told what was chosen of the brief and how the client writes, and its draft is saved nowhere', async () => {
    await scene.app.read(`update clients set brand = brand || '{"wordsToUse": ["Kiln Lane"], "wordsNever": ["cheap"]}' where id = $1`, [
      scene.a.id,
    ]);
    const before = (await manager.call('GET', `/api/pieces/${pieceId}`)).body as unknown as PieceShape;
    expect(before.content.canAskAid).toBe(true);
    expect(await ask()).toMatchObject({ status: 200, body: { draft: 'Rye.' } });
    const [piece] = await scene.app.read<{ title: string; format: string }>(
      'select p.title, f.name as format from pieces p join formats f on f.id = p.format_id where p.id = $1',
      [pieceId],
    );
    expect(told).toEqual([['POST', '/drafts', { ...ASKED, ...piece, language: 'en', wordsToUse: ['Kiln Lane'], wordsNever: ['cheap'] }]]);
    const after = (await manager.call('GET', `/api/pieces/${pieceId}`)).body as unknown as PieceShape;
    expect(after.content).toEqual(before.content);
  });

  it.each([
    [500, '{"draft":"Rye."}'],
    [302, '{"draft":"Rye."}'],
    [200, 'no JSON'],
    [200, '{"draft":" "}'],
    [200, '{"draft":7}'],
    [200, JSON.stringify({ draft: 'x'.repeat(50_001) })],
  ])('that answers %i %s is told to be of no help, and nothing else happens', async (status, body) => {
    answers.push({ status, body });
    expect(await ask()).toMatchObject({ status: 503, body: { code: 'aid.silent' } });
    expect(told).toHaveLength(1);
  });

  it('is not told what is no question of it', async () => {
    expect((await ask({ ...ASKED, answers: [{ question: 'Q', answer: 'x'.repeat(20_001) }] })).body['code']).toBe('http.invalid');
    expect((await ask({})).body['code']).toBe('http.invalid');
    expect(told).toEqual([]);
  });
});

describe('without a writing aid', () => {
  let channels: Channels;
  let scene: Scene;
  beforeAll(async () => {
    channels = await startChannels({ port: 0, folder: null });
    scene = await makeScene({ env: { ZESTING_CHANNELS: channels.address } });
  });
  afterAll(async () => {
    await scene.close();
    await channels.close();
  });

  it('none is offered and none is asked, wherever one is simulated', async () => {
    await scene.begin();
    const manager = await callerAs(scene, 'manager');
    const pieceId = await makePiece(scene, scene.a);
    expect(((await manager.call('GET', `/api/pieces/${pieceId}`)).body as unknown as PieceShape).content.canAskAid).toBe(false);
    expect((await manager.call('POST', `/api/pieces/${pieceId}/drafts`, { body: ASKED })).body['code']).toBe('aid.off');
  });

  it('the simulated one answers with what it was told', async () => {
    const answer = await fetch(`${channels.address}/drafts`, { method: 'POST', body: JSON.stringify(ASKED) });
    expect(await answer.json()).toEqual({
      draft: 'Stop kneading.\n\n# What it is about\n\nThose who bake at home',
    });
  });
});

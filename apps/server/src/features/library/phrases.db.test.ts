import type { OfferedPhrasesShape, PhrasesShape } from '@zesting/contract';
import { callerAs, makePiece, makeScene, type Caller, type Scene } from '../../../test-support/scene.js';

describe('phrases of a client', () => {
  let scene: Scene;
  let manager: Caller;
  let staff: Caller;
  let pieceId: string;
  let pillars: { id: string }[];
  beforeAll(async () => {
    scene = await makeScene();
    [manager, staff] = [await callerAs(scene, 'manager'), await callerAs(scene, 'staff')];
    pillars = await scene.app.read(
      "insert into pillars (client_id, name, share, position) values ($1, 'Craft', 60, 0), ($1, 'People', 40, 1) returning id",
      [scene.a.id],
    );
  });
  afterAll(() => scene.close());
  beforeEach(async () => {
    await scene.begin();
    await scene.app.read('delete from phrase_uses');
    await scene.app.read('delete from phrases');
    pieceId = await makePiece(scene, scene.a);
    await scene.app.read('update pieces set pillar_id = $2 where id = $1', [pieceId, pillars[0]?.id]);
  });

  const body = (more: object = {}) => ({ kind: 'opening', text: 'Did you know?', pillarId: null, ...more });
  const keep = async (more: object = {}) => {
    const { status, body: made } = await manager.call('POST', `/api/clients/${scene.a.id}/phrases`, { body: body(more) });
    expect(status).toBe(201);
    return made['phraseId'] as string;
  };
  const all = async () => (await manager.call('GET', `/api/clients/${scene.a.id}/phrases`)).body as unknown as PhrasesShape;
  const offered = async (id = pieceId) =>
    ((await manager.call('GET', `/api/pieces/${id}/phrases`)).body as unknown as OfferedPhrasesShape).phrases;
  const put = (id: string, more: object, version: number) =>
    manager.call('PUT', `/api/phrases/${id}`, { body: body(more), headers: { 'If-Match': `"${version}"` } });
  const use = (phraseId: string, by = manager, id = pieceId) => by.call('POST', `/api/pieces/${id}/phrases`, { body: { phraseId } });

  it('are kept, changed, put away and taken back; what is empty or of no kind is refused', async () => {
    for (const wrong of [{ text: '  ' }, { kind: 'joke' }, { text: 'x'.repeat(5001) }])
      expect((await manager.call('POST', `/api/clients/${scene.a.id}/phrases`, { body: body(wrong) })).status).toBe(400);
    const id = await keep({ text: ' Did you know? ' });
    expect((await all()).phrases).toMatchObject([{ id, text: 'Did you know?', used: 0, lastAt: null, version: 1 }]);
    expect((await put(id, { kind: 'closing', text: 'See you' }, 1)).status).toBe(204);
    expect((await put(id, { text: 'Other' }, 1)).status).toBe(412);
    expect((await manager.call('POST', `/api/phrases/${id}/archive`, { body: { archived: true } })).status).toBe(204);
    expect(await all()).toMatchObject({ phrases: [], archived: [{ id, kind: 'closing', text: 'See you' }] });
    expect(await offered()).toEqual([]);
    expect((await manager.call('POST', `/api/phrases/${id}/archive`, { body: { archived: false } })).status).toBe(204);
    expect((await all()).phrases).toHaveLength(1);
  });

  it('are offered for the piece’s pillar first, of these the ones that rested longest; not those of another pillar or client', async () => {
    const [any, craft, other] = [await keep({ text: 'Any' }), await keep({ text: 'Craft', pillarId: pillars[0]?.id }), await keep({ text: 'Craft too', pillarId: pillars[0]?.id })]; // prettier-ignore
    await keep({ text: 'People', pillarId: pillars[1]?.id });
    const closing = await keep({ kind: 'closing', text: 'Bye' });
    await use(craft);
    expect((await offered()).map(({ id }) => id)).toEqual([closing, other, craft, any]);
    const elsewhere = await makePiece(scene, scene.b);
    const lead = await callerAs(scene, 'lead');
    expect((await lead.call('GET', `/api/pieces/${elsewhere}/phrases`)).body).toEqual({ phrases: [] });
    expect((await use(any, lead, elsewhere)).body['code']).toBe('phrase.unknown');
  });

  it('count the pieces that they were put into, each once, by whoever writes them', async () => {
    const id = await keep();
    scene.app.clock.set('2027-03-02T09:00:00Z');
    expect((await use(id)).status).toBe(204);
    scene.app.clock.set('2027-03-03T09:00:00Z');
    expect((await use(id)).status).toBe(204);
    expect((await use(id, manager, await makePiece(scene, scene.a))).status).toBe(204);
    const [phrase] = (await all()).phrases;
    expect([phrase?.used, phrase?.lastAt?.slice(0, 10)]).toEqual([2, '2027-03-03']);
    expect((await use(id, staff)).status).toBe(404); // has no step of it
  });
});

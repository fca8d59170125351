import type { SavedViewsShape } from '@zesting/contract';
import { callerAs, makeScene, type Caller, type Scene } from '../../../test-support/scene.js';

describe('saved views', () => {
  let scene: Scene;
  let manager: Caller;
  let staff: Caller;
  beforeAll(async () => {
    scene = await makeScene();
    [manager, staff] = [await callerAs(scene, 'manager'), await callerAs(scene, 'staff')];
  });
  afterAll(() => scene.close());
  beforeEach(() => scene.app.read('delete from saved_views'));

  const keep = (by: Caller, name: string, more: object = {}) =>
    by.call('POST', '/api/views', { body: { page: 'calendar', name, query: 'view=month&stage=approved', isShared: false, ...more } });
  const seen = async (by: Caller, page = 'calendar') =>
    ((await by.call('GET', `/api/views?page=${page}`)).body as unknown as SavedViewsShape).views.map(
      ({ name, isOwn }) => `${name}${isOwn ? '' : ', shared'}`,
    );

  it('are one’s own, and others’ where they share them; each page has its own', async () => {
    await keep(manager, 'Signed');
    await keep(manager, 'For all', { isShared: true });
    await keep(manager, 'Late', { page: 'production' });
    await keep(staff, 'Mine');
    expect(await seen(manager)).toEqual(['For all', 'Signed']);
    expect(await seen(staff)).toEqual(['Mine', 'For all, shared']);
    expect(await seen(manager, 'production')).toEqual(['Late']);
  });

  it('have each name once, many at once too, and hold nothing but choices', async () => {
    const all = await Promise.all(['Signed', ' signed', 'SIGNED', 'signed ', 'Signed', 'signed'].map((name) => keep(manager, name)));
    expect(all.map(({ status }) => status).sort()).toEqual([201, 422, 422, 422, 422, 422]);
    expect((await keep(staff, 'Signed')).status).toBe(201);
    expect((await keep(manager, 'Elsewhere', { query: '//evil.test/?x=1' })).status).toBe(400);
    expect((await keep(manager, 'Script', { query: 'a=<script>' })).status).toBe(400);
    expect((await manager.call('GET', '/api/views?page=desk')).status).toBe(400);
  });

  it('are let go of by whoever kept them alone', async () => {
    const id = String((await keep(manager, 'For all', { isShared: true })).body['viewId']);
    expect((await staff.call('DELETE', `/api/views/${id}`)).status).toBe(404);
    expect((await manager.call('DELETE', `/api/views/${id}`)).status).toBe(204);
    expect(await seen(manager)).toEqual([]);
  });
});

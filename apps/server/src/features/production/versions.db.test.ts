import { getValue } from '@zesting/core';
import type { VersionsShape } from '@zesting/contract';
import { callerAs, makePiece, makeScene, stepOf, type Caller, type Scene } from '../../../test-support/scene.js';
import { signOffIn } from '../../../test-support/sign-off.js';
import { assignStep, bringBack, editContent, handIn } from './index.js';

describe('versions side by side', () => {
  let scene: Scene;
  let manager: Caller;
  let freelance: Caller;
  let pieceId: string;
  beforeAll(async () => {
    scene = await makeScene();
    manager = await callerAs(scene, 'manager');
    freelance = await callerAs(scene, 'freelance');
  });
  afterAll(() => scene.close());
  beforeEach(async () => {
    await scene.begin();
    pieceId = await makePiece(scene, scene.a);
  });

  const contentVersion = async () =>
    (await scene.app.read<{ v: number }>('select content_version as v from pieces where id = $1', [pieceId]))[0]?.v ?? 0;
  const write = async (copy: string, tags: string[] = []) => {
    const channels = scene.a.channelIds.slice(0, 1).map((channelId) => ({ channelId, copy: '', tags, firstComment: '', link: '' }));
    const body = { shared: { copy, disclosure: '', media: [] }, channels };
    return getValue(await editContent(scene.app, scene.people.manager, pieceId, body, await contentVersion()));
  };
  const handInStep = async (key: string) => getValue(await handIn(scene.app, scene.people.lead, await stepOf(scene, pieceId, key)));
  const show = async (query = '', caller = manager) => {
    const answer = await caller.call('GET', `/api/pieces/${pieceId}/versions${query}`);
    return { status: answer.status, ...(answer.body as unknown as VersionsShape) };
  };
  const bring = (caller: Caller, number: number | string, version: number) =>
    caller.call('POST', `/api/pieces/${pieceId}/versions/${number}/bring-back`, { headers: { 'If-Match': `"${version}"` } });

  it('are the newest and what is being worked on; before any there is nothing to tell apart', async () => {
    expect(await show()).toMatchObject({
      status: 200,
      versions: [],
      before: { number: null, copy: '' },
      after: { number: null, copy: '' },
    });
    await write('One');
    await handInStep('write');
    await write('Two', ['new']);
    expect(await show()).toMatchObject({
      versions: [{ number: 1, frozenBy: 'Lea', rounds: [], approvals: 0, changes: 0 }],
      before: { number: 1, copy: 'One', channels: [{ name: 'Photo feed', tags: [] }, { name: 'Blog' }] },
      after: { number: null, copy: 'Two', channels: [{ name: 'Photo feed', tags: ['new'] }, { name: 'Blog' }] },
      contentVersion: await contentVersion(),
    });
    await handInStep('design');
    expect(await show('?older=1&newer=2')).toMatchObject({ before: { number: 1 }, after: { number: 2, copy: 'Two' } });
    expect((await show('?older=3')).status).toBe(404);
    expect((await show('?older=x')).status).toBe(400);
    expect((await show('', freelance)).status).toBe(404); // no step of it
  });

  it('are what the client saw last, and what is being worked on, once it was sent', async () => {
    await write('One');
    for (const key of ['write', 'design', 'check']) await handInStep(key);
    const packet = getValue(await signOffIn(scene).send(scene.a, [pieceId]));
    getValue(await signOffIn(scene).say(packet, pieceId, 'changes'));
    await write('Two');
    await handInStep('design');
    await write('Three');
    expect(await show()).toMatchObject({
      versions: [
        { number: 2, rounds: [] },
        { number: 1, rounds: [1], approvals: 0, changes: 1 },
      ],
      before: { number: 1, copy: 'One' },
      after: { number: null, copy: 'Three' },
    });
    // once that went out and nothing was written since, it is told from what they saw before
    await handInStep('check');
    for (const { id } of await scene.app.read<{ id: string }>("select id from remarks where piece_id = $1 and state = 'open'", [pieceId]))
      expect((await manager.call('PATCH', `/api/remarks/${id}`, { body: { state: 'settled' } })).status).toBe(204);
    getValue(await signOffIn(scene).send(scene.a, [pieceId]));
    expect(await show()).toMatchObject({
      versions: [{ number: 3, rounds: [2] }, { number: 2 }, { number: 1 }],
      before: { number: 1, copy: 'One' },
      after: { number: null, copy: 'Three' },
    });
  });

  it('come back as a new edit, approved again where it was approved; not over what somebody else wrote, nor by who may not write', async () => {
    await write('One', ['a']);
    for (const key of ['write', 'design', 'check']) await handInStep(key);
    const packet = getValue(await signOffIn(scene).send(scene.a, [pieceId]));
    getValue(await signOffIn(scene).say(packet, pieceId, 'approve'));
    const stage = async () => (await scene.app.read<{ stage: string }>('select stage from pieces where id = $1', [pieceId]))[0]?.stage;
    expect(await stage()).toBe('approved');
    const now = await write('Two', ['b']);
    expect(await stage()).not.toBe('approved');
    expect((await bring(freelance, 1, now)).status).toBe(404);
    expect((await bring(manager, 1, now - 1)).body['code']).toBe('http.changed_meanwhile');
    expect((await bring(manager, 9, now)).body['code']).toBe('version.unknown');
    expect((await bring(manager, 'x', now)).status).toBe(400);
    expect((await bring(manager, 1, now)).status).toBe(204);
    expect((await show()).after).toMatchObject({ copy: 'One', channels: [{ tags: ['a'] }, {}] });
    expect(await stage()).toBe('approved');
    const [entry] = await scene.app.read<{ verb: string; detail: unknown }>(
      'select verb, detail from activities where thing_id = $1 order by id desc limit 1',
      [pieceId],
    );
    expect(entry).toEqual({ verb: 'piece.version_brought_back', detail: { version: '1' } });
  });

  it('two bring back at once, or write: one does, the other is told', async () => {
    getValue(await assignStep(scene.app, scene.people.lead, await stepOf(scene, pieceId, 'write'), scene.people.freelance.personId));
    await write('One');
    await handInStep('write');
    const now = await write('Two');
    const done = await Promise.all([
      bringBack(scene.app, scene.people.manager, pieceId, 1, now),
      editContent(scene.app, scene.people.freelance, pieceId, { shared: { copy: 'Three', disclosure: '', media: [] }, channels: [] }, now),
    ]);
    expect(done.filter(({ ok }) => ok)).toHaveLength(1);
    expect(done.find(({ ok }) => !ok)).toMatchObject({ failure: { code: 'http.changed_meanwhile' } });
  });
});

import * as contract from '@zesting/contract';
import { getValue } from '@zesting/core';
import { defaultMetadataStorage } from 'class-transformer/cjs/storage.js';
import { getMetadataStorage } from 'class-validator';
import { randomUUID } from 'node:crypto';
import { Caller, callerAs, callerByLink, makePiece, makeScene, type Scene, type SceneClient } from '../../../test-support/scene.js';
import { submitRequest } from '../../features/intake/index.js';
import { signOffIn } from '../../../test-support/sign-off.js';
import { CASES, OF_THE_AGENCY, type Case, type Named } from '../../../test-support/bodies.js';
import { makeThings } from '../../../test-support/things.js';

type Class = new () => object;

/** The paths of all ids that a body can hold, by the rules of its class. */
function idsIn(body: Class, prefix = ''): string[] {
  const rules = getMetadataStorage().getTargetValidationMetadatas(body, '', false, false);
  const ids = rules.filter(({ name }) => name === 'isUuid').map(({ propertyName }) => `${prefix}${propertyName}`);
  const nested = [...new Set(rules.map(({ propertyName }) => propertyName))].flatMap((name) => {
    const inside = defaultMetadataStorage.findTypeMetadata(body, name);
    if (!inside) return [];
    const isList = inside.reflectedType === Array || rules.some((rule) => rule.propertyName === name && rule.name === 'isArray');
    return idsIn(inside.typeFunction() as Class, `${prefix}${name}${isList ? '[]' : ''}.`);
  });
  return [...new Set([...ids, ...nested])];
}

describe('ids in bodies', () => {
  let scene: Scene;
  let own: Named;
  let other: Named;
  let manager: Caller;
  let contact: Caller;
  let receipt: Caller;

  async function named(client: SceneClient, isOwn: boolean): Promise<Named> {
    const { app } = scene;
    const found = await makeThings(scene, client, isOwn);
    const { ready } = signOffIn(scene);
    const one = async (sql: string, values: unknown[]) => (await app.read<{ id: string }>(sql, values))[0]?.id ?? '';
    const asked = async () =>
      getValue(await submitRequest(app, client.linkId, { name: 'N', email: 'n@x.test', answers: { about: 'X' }, version: 1 }, randomUUID()))
        .requestId;
    const freeChannelId = await one("insert into channels (client_id, kind, name, position) values ($1, 'blog', 'Free', 9) returning id", [
      client.id,
    ]);
    const openPiece = await makePiece(scene, client);
    await app.read(
      "update placements set on_day = '2027-04-12', at_time = '09:00', publish_at = '2027-04-12T09:00:00Z' where piece_id = $1 and channel_id = $2",
      [openPiece, client.channelIds[0]],
    );
    return {
      ...found,
      pillarId: found['pillarId'] ?? '',
      freeChannelId,
      channelId: client.channelIds[0] ?? '',
      readyId: await ready(client),
      openId: openPiece,
      makeStepId: await one("select id from steps where piece_id = $1 and key = 'write'", [openPiece]),
      openStepId: await one("select id from steps where piece_id = $1 and kind = 'sign_off'", [openPiece]),
      placedId: await one('select id from placements where piece_id = $1 and channel_id = $2', [openPiece, client.channelIds[0]]),
      email: await one('select email as id from contacts where id = $1', [client.contactId]),
      mergedId: await asked(),
      attachedId: await asked(),
      looseId: await one(
        'insert into assets (client_id, hash, name, mime, bytes, created_at) select client_id, hash, name, mime, bytes, created_at from assets where id = $1 returning id',
        [found['assetId']],
      ),
      otherIdeaId: await one(
        "insert into ideas (client_id, title, author_id, created_at) select client_id, 'Other', author_id, created_at from ideas where id = $1 returning id",
        [found['ideaId']],
      ),
      ideaFileId: await one(
        'insert into assets (idea_id, hash, name, mime, bytes, created_at) select $2, hash, name, mime, bytes, created_at from assets where id = $1 returning id',
        [found['assetId'], found['ideaId']],
      ),
      versionId: await one('select version_id as id from packet_items where packet_id = $1', [found['packetId']]),
    };
  }

  beforeAll(async () => {
    scene = await makeScene();
    [own, other] = [await named(scene.a, true), await named(scene.b, false)];
    manager = await callerAs(scene, 'manager');
    contact = await callerByLink(scene, 'room', scene.a.contactId);
    receipt = await callerByLink(scene, 'receipt', own['receipt'] ?? '');
  });
  afterAll(() => scene.close());

  it('are all named here, or belong to no client', async () => {
    const { body } = await manager.call('GET', '/api/openapi.json');
    const paths = body['paths'] as Record<string, Record<string, { requestBody?: unknown }>>; // OpenAPI's own shape
    const all = Object.entries(paths).flatMap(([path, methods]) =>
      Object.entries(methods).flatMap(([method, { requestBody }]) => {
        const name = /#\/components\/schemas\/(\w+)/.exec(JSON.stringify(requestBody ?? {}))?.[1] ?? '';
        const shape = Reflect.get(contract, name) as Class | undefined;
        return shape ? idsIn(shape).map((id) => `${method.toUpperCase()} ${path} ${id}`) : [];
      }),
    );
    expect(all.length).toBeGreaterThan(30);
    const tried = Object.entries(CASES).flatMap(([route, cases]) => cases.map(({ ids }) => `${route} ${ids}`));
    expect(all.filter((id) => !OF_THE_AGENCY.some((pattern) => pattern.test(id))).sort()).toEqual(tried.sort());
  });

  const trials = Object.entries(CASES).flatMap(([route, cases]) => cases.map((one) => [`${route}: ${one.ids}`, route, one] as const));

  async function send(route: string, one: Case, of: Named): Promise<{ status: number; code: unknown }> {
    const [method = '', path = ''] = route.split(' ');
    const link = one.by === 'receipt' ? own['receipt'] : own['contact'];
    const at = one.path?.(own) ?? path.replace(/\{(\w+)\}/g, (_, name: string) => (name === 'linkId' ? link : own[name]) ?? '');
    const thing = /\{(\w+)\}/.exec(path)?.[1] ?? '';
    const [row] = one.version ? await scene.app.read<{ version: number }>(one.version, [own[thing]]) : [];
    const caller = { contact, receipt, manager }[one.by ?? 'manager'];
    const answer = await caller.call(method, at, {
      body: one.body(of, own),
      headers: { 'Idempotency-Key': randomUUID(), ...(row ? { 'If-Match': `"${row.version}"` } : {}) },
    });
    return { status: answer.status, code: answer.body['code'] };
  }

  it.each(trials)('%s of another client is refused, of the own it is taken', async (_name, route, one) => {
    const refused = await send(route, one, other);
    expect(refused).toEqual({ status: expect.any(Number) as number, code: expect.stringMatching(one.code) as string });
    expect(refused.status).toBeGreaterThanOrEqual(400);
    expect(refused.status).toBeLessThan(500);
    expect(refused.code).not.toBe('http.invalid');
    const taken = await send(route, one, own);
    expect([taken.status < 300, taken.code]).toEqual([true, taken.status < 300 ? taken.code : 'none']);
  });
});

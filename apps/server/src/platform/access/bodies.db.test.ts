import * as contract from '@zesting/contract';
import { getValue } from '@zesting/core';
import { defaultMetadataStorage } from 'class-transformer/cjs/storage.js';
import { getMetadataStorage } from 'class-validator';
import { randomUUID } from 'node:crypto';
import { Caller, callerAs, callerByLink, makePiece, makeScene, type Scene, type SceneClient } from '../../../test-support/scene.js';
import { submitRequest } from '../../features/intake/index.js';
import { signOffIn } from '../../../test-support/sign-off.js';
import { makeThings, type Things } from '../../../test-support/things.js';

/** What a client has that a body can name, beside what paths name. */
interface Named extends Things {
  readonly channelId: string;
  readonly freeChannelId: string;
  readonly pillarId: string;
  readonly readyId: string;
  readonly placedId: string;
  readonly email: string;
  readonly versionId: string;
  /** requests that nobody has decided, for what can be done to one once */
  readonly mergedId: string;
  readonly attachedId: string;
  /** a file that nothing uses yet */
  readonly looseId: string;
}

interface Case {
  /** by whom it is called; the manager unless told */
  readonly by?: 'contact' | 'receipt';
  /** the ids in the body that it tries */
  readonly ids: string;
  /** what is sent: everything is of the own client but what is taken from `named` */
  readonly body: (named: Named, own: Named) => object;
  /** what If-Match must say: the version of a thing of the own client */
  readonly version?: string;
  /** the code it is refused with; an access code where the guard or the policy does it */
  readonly code: string | RegExp;
  /** where the thing is made anew for the call that must pass */
  readonly path?: (own: Named) => string;
}

const piece = { routeId: '', channelIds: [] as string[] };

/** Every id in a body that names a client's thing. The manager of one client sends another's; then the own, which passes. */
const CASES: Record<string, Case[]> = {
  'POST /api/markers': [
    {
      ids: 'clientId',
      body: ({ clientId }) => ({ clientId, kind: 'launch', name: 'L', startOn: '2027-03-20', endOn: '2027-03-20' }),
      code: 'access.refused',
    },
  ],
  'PATCH /api/clients/{clientId}': [
    {
      ids: 'contacts[].id',
      body: ({ contactId }, own) => ({
        contacts: [{ id: contactId, name: 'Contact', email: own.email, canAsk: true, canView: true, canSignOff: true }],
      }),
      version: 'select version from clients where id = $1',
      code: /unknown/,
    },
    {
      ids: 'channels[].id',
      body: (named) => ({
        channels: [named.channelId, named.freeChannelId].map((id, n) => ({
          id,
          kind: 'photo_feed',
          name: `Feed ${n}`,
          ratio: '1:1',
          copyLimit: null,
          tagLimit: null,
          mediaLimit: null,
          leadDays: 0,
          usualTime: null,
        })),
      }),
      version: 'select version from clients where id = $1',
      code: /unknown/,
    },
    {
      ids: 'pillars[].id',
      body: ({ pillarId }) => ({ pillars: [{ id: pillarId, name: 'P', share: 10 }] }),
      version: 'select version from clients where id = $1',
      code: /unknown/,
    },
    {
      ids: 'brand.logos',
      body: ({ assetId }) => ({ brand: { voice: '', palette: [], logos: [assetId], wordsToUse: [], wordsNever: [], disclosure: '' } }),
      version: 'select version from clients where id = $1',
      code: 'file.unknown',
    },
    {
      ids: 'policy.contactIds',
      body: ({ contactId }) => ({ policy: { kind: 'named', contactIds: [contactId] } }),
      version: 'select version from clients where id = $1',
      code: /policy|unknown|contact/,
    },
  ],
  'POST /api/clients/{clientId}/links': [
    { ids: 'id', body: ({ form }) => ({ kind: 'form', id: form, change: 'renew' }), code: /access|link|unknown/ },
  ],
  'POST /api/forms': [
    { ids: 'clientIds', body: ({ clientId }) => ({ title: 'F', clientIds: [clientId] }), code: 'access.not_found' },
    { ids: 'copyOf', body: ({ formId }) => ({ title: 'F', clientIds: [], copyOf: formId }), code: 'access.not_found' },
  ],
  'POST /api/forms/{formId}/links': [
    { ids: 'clientId', body: ({ clientId }) => ({ clientId, label: 'L', origins: [] }), code: 'access.not_found' },
  ],
  'PUT /api/forms/{formId}/clients': [{ ids: 'clientIds', body: ({ clientId }) => ({ clientIds: [clientId] }), code: 'access.not_found' }],
  'POST /api/requests/{requestId}/merge': [
    {
      ids: 'intoId',
      body: ({ requestId }) => ({ intoId: requestId }),
      code: 'request.unknown',
      path: ({ mergedId }) => `/api/requests/${mergedId}/merge`,
    },
  ],
  'POST /api/requests/{requestId}/attach': [
    {
      ids: 'pieceId',
      body: ({ pieceId }) => ({ pieceId }),
      code: 'piece.unknown',
      path: ({ attachedId }) => `/api/requests/${attachedId}/attach`,
    },
  ],
  'POST /api/receipts/{linkId}/messages': [
    { ids: 'assetIds', by: 'receipt', body: ({ looseId }) => ({ text: 'T', assetIds: [looseId] }), code: 'file.unknown' },
  ],
  'POST /api/requests/taken-down/{clientId}': [
    { ids: 'formId', body: ({ formId }) => ({ formId, name: 'N', email: null, answers: { about: 'A' } }), code: 'form.unknown' },
  ],
  'POST /api/requests/{requestId}/accept': [
    {
      ids: 'channelIds',
      body: ({ channelId }, own) => ({ ...piece, routeId: own['routeId'], title: 'T', channelIds: [channelId] }),
      code: 'channel.unknown',
    },
    {
      ids: 'pillarId',
      body: ({ pillarId }, own) => ({ ...piece, routeId: own['routeId'], title: 'T', pillarId, further: true }),
      code: 'pillar.unknown',
    },
    {
      ids: 'also[].channelIds',
      body: ({ channelId }, own) => ({
        ...piece,
        routeId: own['routeId'],
        title: 'T',
        further: true,
        also: [{ ...piece, routeId: own['routeId'], title: 'U', channelIds: [channelId] }],
      }),
      code: 'channel.unknown',
    },
    {
      ids: 'also[].pillarId',
      body: ({ pillarId }, own) => ({
        ...piece,
        routeId: own['routeId'],
        title: 'T',
        further: true,
        also: [{ ...piece, routeId: own['routeId'], title: 'U', pillarId }],
      }),
      code: 'pillar.unknown',
    },
  ],
  'POST /api/clients/{clientId}/pieces': [
    {
      ids: 'channelIds',
      body: ({ channelId }, own) => ({ ...piece, routeId: own['routeId'], channelIds: [channelId], isPencilled: false }),
      code: 'channel.unknown',
    },
    {
      ids: 'pillarId',
      body: ({ pillarId }, own) => ({ ...piece, routeId: own['routeId'], pillarId, isPencilled: false }),
      code: 'pillar.unknown',
    },
  ],
  'PATCH /api/pieces/{pieceId}': [
    {
      ids: 'pillarId',
      body: ({ pillarId }) => ({ pillarId }),
      version: 'select version from pieces where id = $1',
      code: 'pillar.unknown',
    },
  ],
  'PUT /api/pieces/{pieceId}/content': [
    {
      ids: 'shared.media[].assetId',
      body: ({ assetId }) => ({ shared: { copy: 'C', disclosure: '', media: [{ assetId, alt: '' }] }, channels: [] }),
      version: 'select content_version as version from pieces where id = $1',
      code: 'file.unknown',
    },
    {
      ids: 'channels[].channelId',
      body: ({ channelId }) => ({
        shared: { copy: 'C', disclosure: '', media: [] },
        channels: [{ channelId, copy: '', tags: [], firstComment: '', link: '' }],
      }),
      version: 'select content_version as version from pieces where id = $1',
      code: 'channel.unknown',
    },
  ],
  'POST /api/pieces/{pieceId}/placements': [
    { ids: 'channelId', body: ({ freeChannelId }) => ({ channelId: freeChannelId }), code: 'channel.unknown' },
  ],
  'POST /api/placements/{placementId}/swap': [
    { ids: 'withId', body: ({ placedId }) => ({ withId: placedId }), code: /access\.not_found|placement\.other_client/ },
  ],
  'POST /api/placements/{placementId}/duplicate': [
    { ids: 'channelId', body: ({ channelId }) => ({ channelId, on: '2027-04-20' }), code: 'channel.unknown' },
  ],
  'POST /api/pieces/{pieceId}/notes': [
    { ids: 'assetIds', body: ({ assetId }) => ({ kind: 'comment', text: 'T', assetIds: [assetId], mentionIds: [] }), code: /unknown/ },
  ],
  'POST /api/clients/{clientId}/packets': [
    {
      ids: 'pieceIds',
      body: ({ readyId }) => ({ title: 'P', message: '', pieceIds: [readyId], dueOn: '2027-03-10' }),
      code: /access\.not_found|piece\.other_client/,
    },
  ],
  'POST /api/packets/{packetId}/decisions': [
    {
      ids: 'contactId',
      body: ({ contactId }, own) => ({ contactId, pieceId: own['pieceId'], verdict: 'approve', remark: '', how: 'by telephone' }),
      code: /./,
    },
    {
      ids: 'pieceId',
      body: ({ pieceId }, own) => ({ contactId: own['contactId'], pieceId, verdict: 'approve', remark: '', how: 'by telephone' }),
      code: /./,
    },
  ],
  'POST /api/room/{linkId}/decisions': [
    {
      by: 'contact',
      ids: 'packetId',
      body: ({ packetId }, own) => ({ packetId, pieceId: own['pieceId'], versionId: own.versionId, verdict: 'approve', remark: '' }),
      code: /./,
    },
    {
      by: 'contact',
      ids: 'pieceId',
      body: ({ pieceId }, own) => ({ packetId: own['packetId'], pieceId, versionId: own.versionId, verdict: 'approve', remark: '' }),
      code: /./,
    },
    {
      by: 'contact',
      ids: 'versionId',
      body: ({ versionId }, own) => ({ packetId: own['packetId'], pieceId: own['pieceId'], versionId, verdict: 'approve', remark: '' }),
      code: /./,
    },
  ],
};

/** Ids in bodies that name what belongs to no client: people, routes, formats, skills; or steps of the piece in the path. */
const OF_THE_AGENCY = [
  /^PATCH \/api\/agency /,
  /managerIds|policy\.personId|mentionIds|routeId/,
  /^POST \/api\/clients managerIds/,
  /covers coverId/,
  /^POST \/api\/people\/\{personId\}\/give-steps /, // a lead's alone
  /doer personId/,
  /owner ownerId/,
  /hand-back stepIds/,
  /^PATCH \/api\/people\/\{personId\} clients\[\]\.clientId/, // a lead's alone
];

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
    const pillarId = await one("insert into pillars (client_id, name) values ($1, 'Pillar') returning id", [client.id]);
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
      pillarId,
      freeChannelId,
      channelId: client.channelIds[0] ?? '',
      readyId: await ready(client),
      placedId: await one('select id from placements where piece_id = $1 and channel_id = $2', [openPiece, client.channelIds[0]]),
      email: await one('select email as id from contacts where id = $1', [client.contactId]),
      mergedId: await asked(),
      attachedId: await asked(),
      looseId: await one(
        'insert into assets (client_id, hash, name, mime, bytes, created_at) select client_id, hash, name, mime, bytes, created_at from assets where id = $1 returning id',
        [found['assetId']],
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
  }, 60_000);
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

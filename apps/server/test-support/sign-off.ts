import { getValue } from '@zesting/core';
import { editContent, handIn } from '../src/features/production/index.js';
import { settleRemark } from '../src/features/remarks/index.js';
import { decide, sendPacket, thingsIn, type DecisionInput } from '../src/features/sign-off/index.js';
import { makePiece, stepOf, type Scene, type SceneClient } from './scene.js';

/** The way of a piece up to the client's word, each step through its use case, as the lead. */
export function signOffIn(scene: Scene) {
  const lead = scene.people.lead;

  /** Writes the piece's copy: the shared one and the first channel's. */
  const write = async (pieceId: string, copy: string, onFeed = '') => {
    const [row] = await scene.app.read<{ content_version: number; client_id: string }>(
      'select content_version, client_id from pieces where id = $1',
      [pieceId],
    );
    const client = row?.client_id === scene.a.id ? scene.a : scene.b;
    const channels = [{ channelId: client.channelIds[0] ?? '', copy: onFeed, tags: [], firstComment: '', link: '' }];
    const content = { shared: { copy, disclosure: '', media: [] }, channels };
    getValue(await editContent(scene.app, lead, pieceId, content, row?.content_version ?? 0));
  };
  /** Hands in the steps of those keys, in turn. */
  const make = async (pieceId: string, keys = ['write', 'design', 'check']) => {
    for (const key of keys) getValue(await handIn(scene.app, lead, await stepOf(scene, pieceId, key)));
  };
  /** A piece of the client that only waits to be sent. */
  const ready = async (client: SceneClient): Promise<string> => {
    const pieceId = await makePiece(scene, client);
    await write(pieceId, 'Copy', 'Feed');
    await make(pieceId);
    return pieceId;
  };
  const send = (client: SceneClient, pieceIds: string[], dueOn = '2027-03-10') =>
    sendPacket(scene.app, lead, client.id, { title: 'Packet', pieceIds, dueOn });
  /** The word of a contact of client A, unless another is named. */
  const say = (
    packetId: string,
    pieceId: string,
    verdict: 'approve' | 'changes',
    { remark, ...more }: Partial<DecisionInput> & { remark?: string } = {},
  ) =>
    decide(scene.app, {
      packetId,
      pieceId,
      contactId: scene.a.contactId,
      verdict,
      things: thingsIn(remark ?? (verdict === 'changes' ? 'Warmer' : '')),
      versionId: null,
      onBehalf: null,
      ...more,
    });
  /** Ticks off every remark on a piece that is open. */
  const settleAll = async (pieceId: string) => {
    for (const { id } of await scene.app.read<{ id: string }>("select id from remarks where piece_id = $1 and state = 'open'", [pieceId]))
      getValue(await settleRemark(scene.app, lead, id, { state: 'settled' }));
  };
  return { write, make, ready, send, say, settleAll };
}

/** One more contact of client A who signs off, asked after those before. */
export async function addApprover(scene: Scene, name: string, position: number): Promise<string> {
  const [made] = await scene.app.read<{ id: string }>(
    'insert into contacts (client_id, name, email, can_sign_off, position) values ($1, $2, $3, true, $4) returning id',
    [scene.a.id, name, `${name.toLowerCase()}@aaa.test`, position],
  );
  return made?.id ?? '';
}

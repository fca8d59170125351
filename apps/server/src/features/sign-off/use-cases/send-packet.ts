import {
  asksClient,
  awaited,
  fail,
  getDay,
  isAllSigned,
  isWorkingDay,
  ok,
  type InstantText,
  type Result,
  type SignOffPolicy,
} from '@zesting/core';
import type { SendPacketBody } from '@zesting/contract';
import type { Viewer } from '../../../platform/access/access.js';
import { recordActivity } from '../../../platform/activity.js';
import type { App } from '../../../platform/app.js';
import { rowsOf, type Tx } from '../../../platform/database/transaction.js';
import { untell } from '../../notices/index.js';
import { clientKey, getDoer, loadCalendars, loadSources, signOffOf, replan } from '../../planning/index.js';
import { appendSignOff, freezeVersion, lockPiece, openSignOffStep, stepKey, stepsOf, todayOf, type Piece } from '../../production/index.js';
import { openRemarks } from '../../remarks/index.js';
import { Packet, PacketItem } from '../entities/packet.entity.js';
import { askNext } from './conclude.js';

type Failure = {
  code:
    | 'packet.no_approver'
    | 'packet.due_on_day_off'
    | 'packet.due_in_past'
    | 'packet.agency_decides'
    | 'remark.open'
    | 'piece.other_client'
    | 'piece.not_ready_for_client'
    | 'piece.with_client_already'
    | 'piece.signed_already';
};

/** Sends pieces to the client's approvers together: each piece's content is frozen, its sign-off step begins, the approvers get their link. */
export function sendPacket(app: App, viewer: Viewer, clientId: string, body: SendPacketBody): Promise<Result<string, Failure>> {
  return app.write<string, Failure>(async (tx, now) => {
    const book = await loadCalendars(tx, now);
    const client = getDoer(book, clientKey(clientId));
    const dueOn = getDay(body.dueOn);
    if (dueOn < client.todayOn) return fail({ code: 'packet.due_in_past' });
    if (!isWorkingDay(client.calendar, dueOn)) return fail({ code: 'packet.due_on_day_off' });
    const policy = await policyOf(tx, clientId);
    if (!asksClient(policy)) return fail({ code: 'packet.agency_decides' });
    const approverIds = await approversOf(tx, clientId, policy);
    if (approverIds.length === 0) return fail({ code: 'packet.no_approver' });
    const packet = await tx.save(
      tx.create(Packet, {
        clientId,
        title: body.title,
        message: body.message ?? '',
        dueOn: body.dueOn,
        policy,
        approverIds,
        sentAt: now,
        sentBy: viewer.personId,
        closedAt: null,
        chasedAt: null,
      }),
    );
    for (const pieceId of [...body.pieceIds].sort()) {
      const refused = await addToPacket(tx, viewer, packet, pieceId, now);
      if (refused) return fail(refused);
    }
    await replan(tx, body.pieceIds, now);
    await askNext(app, tx, packet, awaited({ policy, approverIds, round: 0 }, [], ['']));
    return ok(packet.id);
  });
}

async function policyOf(tx: Tx, clientId: string): Promise<SignOffPolicy> {
  const [client] = await rowsOf<{ policy: SignOffPolicy }>(tx, 'select policy from clients where id = $1', [clientId]);
  if (!client) throw new Error('the client went away');
  return client.policy;
}

/** The contacts who are asked: those named, in the order of the policy, or all who sign off. */
async function approversOf(tx: Tx, clientId: string, policy: SignOffPolicy): Promise<string[]> {
  const rows = await rowsOf<{ id: string }>(
    tx,
    'select id from contacts where client_id = $1 and can_sign_off and archived_at is null order by position, id',
    [clientId],
  );
  const ids = rows.map((row) => row.id);
  return policy.kind === 'named' ? policy.contactIds.filter((id) => ids.includes(id)) : ids;
}

async function addToPacket(tx: Tx, viewer: Viewer, packet: Packet, pieceId: string, now: InstantText): Promise<Failure | null> {
  const [row] = await rowsOf<{ client_id: string }>(tx, 'select client_id from pieces where id = $1', [pieceId]);
  if (row?.client_id !== packet.clientId) return { code: 'piece.other_client' };
  const piece = await lockPiece(tx, pieceId);
  const refused = await notReady(tx, piece);
  if (refused) return refused;
  if (!openSignOffStep(await stepsOf(tx, pieceId))) await appendSignOff(tx, piece);
  const step = openSignOffStep(await stepsOf(tx, pieceId));
  if (!step) throw new Error('no sign-off step');
  const version = await freezeVersion(tx, piece, viewer.personId, now);
  await tx.insert(PacketItem, { packetId: packet.id, pieceId, versionId: version.id, round: piece.round, outcome: null });
  await untell(tx, stepKey(step));
  step.startedOn ??= await todayOf(tx, step, now);
  await tx.save(step);
  await recordActivity(tx, {
    clientId: piece.clientId,
    thing: 'piece',
    thingId: pieceId,
    verb: 'piece.sent',
    actor: viewer.name,
    detail: { packet: packet.title, version: version.number, round: piece.round },
    at: now,
  });
  return null;
}

/** Why a piece cannot go to the client; null when it can: all but sign-off is done, it is not there already, and something is unsigned. */
async function notReady(tx: Tx, piece: Piece): Promise<Failure | null> {
  const [source] = await loadSources(tx, [piece.id]);
  if (!source) throw new Error('the piece went away');
  if (source.in_packet) return { code: 'piece.with_client_already' };
  if (source.steps.some((step) => step.kind !== 'sign_off' && step.finished_on === null)) return { code: 'piece.not_ready_for_client' };
  if ((await openRemarks(tx, piece.id)) > 0) return { code: 'remark.open' };
  const signOff = signOffOf(source);
  return isAllSigned(signOff) ? { code: 'piece.signed_already' } : null;
}

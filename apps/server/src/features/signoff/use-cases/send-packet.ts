import {
  countWorkingDays,
  dayIn,
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
import { record } from '../../../platform/activity.js';
import type { App } from '../../../platform/app.js';
import { rowsOf, type Tx } from '../../../platform/database/transaction.js';
import { tellOutside } from '../../notices/index.js';
import { clientKey, getDoer, loadCalendars, loadSources, signOffOf, replan } from '../../planning/index.js';
import { appendSignOff, freezeVersion, lockPiece, openSignOffStep, stepsOf, type Piece } from '../../production/index.js';
import { Packet, PacketItem } from '../entities/packet.entity.js';

type Failure = {
  code:
    | 'packet.no_approver'
    | 'packet.due_on_day_off'
    | 'packet.due_in_past'
    | 'piece.other_client'
    | 'piece.not_ready_for_client'
    | 'piece.with_client_already'
    | 'piece.signed_already';
};

interface ApproverRow {
  id: string;
  name: string;
  email: string;
  link_generation: number;
}

/** Sends pieces to the client's approvers together: each piece's content is frozen, its sign-off step begins, the approvers get their link. */
export function sendPacket(app: App, viewer: Viewer, clientId: string, body: SendPacketBody): Promise<Result<string, Failure>> {
  return app.write<string, Failure>(async (tx, now) => {
    const book = await loadCalendars(tx, now);
    const client = getDoer(book, clientKey(clientId));
    const dueOn = getDay(body.dueOn);
    if (dueOn < client.todayOn) return fail({ code: 'packet.due_in_past' });
    if (!isWorkingDay(client.calendar, dueOn)) return fail({ code: 'packet.due_on_day_off' });
    const approvers = await approversOf(tx, clientId);
    if (approvers.length === 0) return fail({ code: 'packet.no_approver' });
    const packet = await tx.save(await makePacket(tx, viewer, clientId, body, approvers, now));
    for (const pieceId of [...body.pieceIds].sort()) {
      const refused = await addToPacket(tx, viewer, packet, pieceId, now);
      if (refused) return fail(refused);
    }
    await replan(tx, body.pieceIds, now);
    const days = countWorkingDays(client.calendar, client.todayOn, dueOn);
    for (const approver of approvers)
      await tellOutside(
        tx,
        approver,
        `For your sign-off: ${packet.title}`,
        [
          `${body.pieceIds.length === 1 ? 'One piece is' : `${body.pieceIds.length} pieces are`} ready for you. Please answer by ${dueOn}${days > 1 ? ` (${days} working days)` : ''}.`,
          ...(packet.message ? [packet.message] : []),
        ],
        { text: 'Look and decide', address: app.links.address('room', approver.id, approver.link_generation) },
      );
    return ok(packet.id);
  });
}

const approversOf = (tx: Tx, clientId: string): Promise<ApproverRow[]> =>
  rowsOf<ApproverRow>(
    tx,
    'select id, name, email, link_generation from contacts where client_id = $1 and can_sign_off and archived_at is null order by position, id',
    [clientId],
  );

async function makePacket(
  tx: Tx,
  viewer: Viewer,
  clientId: string,
  body: SendPacketBody,
  approvers: readonly ApproverRow[],
  now: InstantText,
): Promise<Packet> {
  const [client] = await rowsOf<{ policy: SignOffPolicy }>(tx, 'select policy from clients where id = $1', [clientId]);
  if (!client) throw new Error('the client went away');
  return tx.create(Packet, {
    clientId,
    title: body.title,
    message: body.message ?? '',
    dueOn: body.dueOn,
    policy: client.policy,
    approverIds: approvers.map((approver) => approver.id),
    sentAt: now,
    sentBy: viewer.personId,
    closedAt: null,
  });
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
  const [client] = await rowsOf<{ zone: string }>(tx, 'select zone from clients where id = $1', [piece.clientId]);
  step.startedOn ??= dayIn(now, client?.zone ?? 'UTC');
  await tx.save(step);
  await record(tx, {
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
  const signOff = signOffOf(source);
  return isAllSigned(signOff) ? { code: 'piece.signed_already' } : null;
}

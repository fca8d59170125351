import { chainHead, digestState, fail, ok, type DecisionFact, type InstantText, type Result, type Verdict } from '@zesting/core';
import type { DecidedShape } from '@zesting/contract';
import { record } from '../../../platform/activity.js';
import type { App } from '../../../platform/app.js';
import { rowsOf, type Tx } from '../../../platform/database/transaction.js';
import { tellDoer, tellManagers } from '../../notices/index.js';
import { replan } from '../../planning/index.js';
import { finishStep, lockPiece, openRound, openSignOffStep, stepsOf, Version, type Piece } from '../../production/index.js';
import { allDigests, Packet, PacketItem } from '../entities/packet.entity.js';

export interface DecisionInput {
  readonly packetId: string;
  readonly pieceId: string;
  readonly contactId: string;
  readonly verdict: Verdict;
  readonly remark: string;
  /** the version that was looked at; null when recorded on behalf: the one in the packet */
  readonly versionId: string | null;
  /** who recorded it and how the contact said it, when on behalf */
  readonly onBehalf: { readonly personId: string; readonly name: string; readonly how: string } | null;
}

type Failure = {
  code: 'decision.not_an_approver' | 'decision.not_in_packet' | 'decision.other_version' | 'decision.closed' | 'decision.remark_missing';
};

/**
 * Takes one contact's decision on the version in a packet. It covers every part's digest. Approval by the packet's policy
 * finishes the sign-off step; the first asking for changes finishes it too and opens the next round.
 */
export function decide(app: App, input: DecisionInput): Promise<Result<DecidedShape, Failure>> {
  return app.write<DecidedShape, Failure>(async (tx, now) => {
    if (input.verdict === 'changes' && input.remark.trim() === '') return fail({ code: 'decision.remark_missing' });
    // locked first: two decisions in one packet must not both miss that the other closed it
    const packet = await tx.findOneOrFail(Packet, { where: { id: input.packetId }, lock: { mode: 'pessimistic_write' } });
    if (!packet.approverIds.includes(input.contactId)) return fail({ code: 'decision.not_an_approver' });
    const [inPacket] = await rowsOf(tx, 'select 1 from packet_items where packet_id = $1 and piece_id = $2', [packet.id, input.pieceId]);
    if (!inPacket) return fail({ code: 'decision.not_in_packet' });
    const piece = await lockPiece(tx, input.pieceId);
    const item = await tx.findOneByOrFail(PacketItem, { packetId: packet.id, pieceId: input.pieceId });
    if (input.versionId !== null && input.versionId !== item.versionId) return fail({ code: 'decision.other_version' });
    if (item.outcome !== null) return fail({ code: 'decision.closed' });
    const version = await tx.findOneByOrFail(Version, { id: item.versionId });
    const digests = allDigests(version.digests);
    const actor = await append(tx, packet, item, digests, input, now);
    item.outcome = await outcomeOf(tx, packet, item, digests);
    await tx.save(item);
    if (item.outcome !== null) await settle(app, tx, packet, piece, item, input, actor, now);
    await replan(tx, [piece.id], now);
    return ok({ outcome: item.outcome, round: piece.round });
  });
}

/** Writes the decision as the next link of the client's chain, and the activity line. Returns the contact's name. */
async function append(
  tx: Tx,
  packet: Packet,
  item: PacketItem,
  digests: readonly string[],
  input: DecisionInput,
  now: InstantText,
): Promise<string> {
  const [client] = await rowsOf<{ chain_head: string; next: number }>(
    tx,
    `select chain_head, (select coalesce(max(sequence), 0) + 1 from decisions where client_id = $1) as next from clients where id = $1 for update`,
    [packet.clientId],
  );
  const [contact] = await rowsOf<{ name: string }>(tx, 'select name from contacts where id = $1', [input.contactId]);
  if (!client || !contact) throw new Error('client or contact went away');
  const remark = input.remark.trim();
  const head = chainHead(
    client.chain_head,
    decisionRecord({
      sequence: client.next,
      packetId: packet.id,
      pieceId: item.pieceId,
      versionId: item.versionId,
      contactId: input.contactId,
      verdict: input.verdict,
      digests,
      remark,
      decidedAt: now,
      recordedBy: input.onBehalf?.personId ?? null,
      how: input.onBehalf?.how ?? '',
    }),
  );
  await tx.query(
    `insert into decisions (client_id, sequence, packet_id, piece_id, version_id, contact_id, verdict, digests, remark, decided_at, recorded_by, how, head)
     values ($1, $2, $3, $4, $5, $6, $7, $8, $9, $10, $11, $12, $13)`,
    [
      packet.clientId,
      client.next,
      packet.id,
      item.pieceId,
      item.versionId,
      input.contactId,
      input.verdict,
      digests,
      remark,
      now,
      input.onBehalf?.personId ?? null,
      input.onBehalf?.how ?? '',
      head,
    ],
  );
  await tx.query('update clients set chain_head = $2 where id = $1', [packet.clientId, head]);
  const actor = input.onBehalf ? `${contact.name} (recorded by ${input.onBehalf.name})` : contact.name;
  const verb = input.verdict === 'approve' ? 'piece.approved' : 'piece.changes_asked';
  await record(tx, {
    clientId: packet.clientId,
    thing: 'piece',
    thingId: item.pieceId,
    verb,
    actor,
    detail: { remark, round: item.round },
    at: now,
  });
  return contact.name;
}

export interface DecisionRecord {
  readonly sequence: number;
  readonly packetId: string;
  readonly pieceId: string;
  readonly versionId: string;
  readonly contactId: string;
  readonly verdict: Verdict;
  readonly digests: readonly string[];
  readonly remark: string;
  readonly decidedAt: string;
  readonly recordedBy: string | null;
  readonly how: string;
}

/** What the chain binds of a decision: all that was said, by whom, about what, and when. */
export const decisionRecord = (decision: DecisionRecord) => ({ ...decision });

async function outcomeOf(tx: Tx, packet: Packet, item: PacketItem, digests: readonly string[]): Promise<PacketItem['outcome']> {
  const decisions = await rowsOf<DecisionFact>(
    tx,
    'select contact_id as "contactId", verdict, digests from decisions where piece_id = $1 order by sequence',
    [item.pieceId],
  );
  const states = digests.map((digest) => digestState(packet.policy, packet.approverIds, decisions, digest));
  if (states.includes('changes')) return 'changes';
  return states.every((state) => state === 'approved') ? 'approved' : null;
}

/** What follows when a piece's item in a packet is decided. */
async function settle(
  app: App,
  tx: Tx,
  packet: Packet,
  piece: Piece,
  item: PacketItem,
  input: DecisionInput,
  actor: string,
  now: InstantText,
): Promise<void> {
  const step = openSignOffStep(await stepsOf(tx, piece.id));
  if (step) await finishStep(tx, step, now);
  const path = `/pieces/${piece.id}`;
  if (item.outcome === 'changes') {
    const [first] = await openRound(tx, piece);
    const [client] = await rowsOf<{ rounds_agreed: number }>(tx, 'select rounds_agreed from clients where id = $1', [piece.clientId]);
    const round = `Round ${piece.round} of ${client?.rounds_agreed ?? 2} agreed begins.`;
    await tellManagers(
      app,
      tx,
      piece.clientId,
      `Changes asked: ${piece.title}`,
      `${actor} asks for changes: ${input.remark} ${round}`,
      path,
    );
    if (first?.doerId)
      await tellDoer(app, tx, first.doerId, `Changes asked: ${piece.title}`, `${actor} asks for changes: ${input.remark}`, path);
  } else
    await tellManagers(
      app,
      tx,
      piece.clientId,
      `Approved: ${piece.title}`,
      `${actor} approved “${piece.title}”. It can be placed on the calendar.`,
      path,
    );
  const [open] = await rowsOf(tx, 'select 1 from packet_items where packet_id = $1 and outcome is null limit 1', [packet.id]);
  if (!open) {
    packet.closedAt = now;
    await tx.save(packet);
  }
}

import { IsNull } from 'typeorm';
import { awaited, digestState, fail, ok, placeWords, type InstantText, type Result, type Verdict } from '@zesting/core';
import type { DecidedShape, ThingBody } from '@zesting/contract';
import type { App } from '../../../platform/app.js';
import { rowsOf, type Tx } from '../../../platform/database/transaction.js';
import { replan } from '../../planning/index.js';
import { lockPiece, Version, type Piece } from '../../production/index.js';
import { addRemarks, lookUpPlaces, type Thing } from '../../remarks/index.js';
import { appendDecision, askedBy, decisionsOn } from '../decisions.js';
import { allDigests, Packet, PacketItem } from '../entities/packet.entity.js';
import { askNext, conclude } from './conclude.js';

export interface DecisionInput {
  readonly packetId: string;
  readonly pieceId: string;
  readonly contactId: string;
  readonly verdict: Verdict;
  /** what should change; a place is looked up in the version */
  readonly things: readonly ThingBody[];
  /** the version that was looked at; null when recorded on behalf: the one in the packet */
  readonly versionId: string | null;
  /** who recorded it and how the contact said it, when on behalf */
  readonly onBehalf: { readonly personId: string; readonly name: string; readonly how: string } | null;
}

export type DecideFailure = {
  code:
    | 'decision.not_an_approver'
    | 'decision.not_in_packet'
    | 'decision.other_version'
    | 'decision.closed'
    | 'decision.remark_missing'
    | 'decision.not_your_turn'
    | 'remark.place_unknown';
};

/**
 * Takes one contact's decision on the version in a packet. It covers every part's digest. Approval by the packet's policy
 * finishes the sign-off step; the first asking for changes finishes it too and opens the next round. Where contacts are asked in
 * turn, the next one is asked now.
 */
export function decide(app: App, input: DecisionInput): Promise<Result<DecidedShape, DecideFailure>> {
  return app.write<DecidedShape, DecideFailure>(async (tx, now) => {
    if (input.verdict === 'changes' && input.things.length === 0) return fail({ code: 'decision.remark_missing' });
    const opened = await openItem(tx, input);
    if (!opened.ok) return opened;
    const { packet, item, piece, digests, said, things, remark } = opened.value;
    // a second tap says nothing new: it gets the answer of the first
    if (said) return ok({ outcome: item.outcome, round: piece.round });
    const approvers = await askedBy(tx, packet, item.round);
    const before = awaited(approvers, await decisionsOn(tx, piece.id), digests);
    if ('inTurn' in packet.policy && packet.policy.inTurn && !before.includes(input.contactId))
      return fail({ code: 'decision.not_your_turn' });
    const actor = await appendDecision(
      tx,
      { ...input, remark, clientId: packet.clientId, versionId: item.versionId, round: item.round, digests },
      now,
    );
    const asked = { clientId: packet.clientId, pieceId: piece.id, packetId: packet.id, contactId: input.contactId, round: item.round };
    if (input.verdict === 'changes') await addRemarks(tx, asked, things, now);
    await close(app, tx, { packet, item, piece, digests, actor, remark }, now);
    const after = awaited(approvers, await decisionsOn(tx, piece.id), digests);
    const next = item.outcome === null ? after.filter((id) => !before.includes(id)) : [];
    await askNext(app, tx, packet, next);
    return ok({ outcome: item.outcome, round: piece.round });
  });
}

interface Decided {
  readonly packet: Packet;
  readonly item: PacketItem;
  readonly piece: Piece;
  readonly digests: readonly string[];
  readonly actor: string;
  readonly remark: string;
}

/** Works out what a piece's item in a packet has come to, and lets what follows follow. */
export async function close(app: App, tx: Tx, decided: Decided, now: InstantText): Promise<void> {
  const { packet, item, piece, digests } = decided;
  const decisions = await decisionsOn(tx, piece.id);
  const asked = await askedBy(tx, packet, item.round);
  const states = digests.map((digest) => digestState(asked, decisions, digest));
  item.outcome = states.includes('changes') ? 'changes' : states.every((state) => state === 'approved') ? 'approved' : null;
  await tx.save(item);
  if (item.outcome !== null) await conclude(app, tx, decided, now);
  await replan(tx, [piece.id], now);
}

interface OpenedItem {
  readonly packet: Packet;
  readonly item: PacketItem;
  readonly piece: Piece;
  readonly digests: readonly string[];
  /** this contact's latest word here is already just that */
  readonly said: boolean;
  /** what should change, at its place in the version */
  readonly things: readonly Thing[];
  /** the same in words, a line each: what the record keeps */
  readonly remark: string;
}

/** One thing that should change, as the record keeps it: its place in words before it. */
const thingWords = ({ text, place }: Thing): string => (place ? `${placeWords(place)}: ${text}` : text);

const inOneLine = (text: string): string => text.trim().replace(/\s*\n\s*/g, ' ');

/** The things that somebody asked for in writing: a line each. */
export const thingsIn = (remark: string): ThingBody[] =>
  remark.split('\n').flatMap((line) => (line.trim() === '' ? [] : { text: line.trim() }));

/** Locks packet and piece, and checks that this contact may still decide on this version. */
async function openItem(tx: Tx, input: DecisionInput): Promise<Result<OpenedItem, DecideFailure>> {
  // locked first: two decisions in one packet must not both miss that the other closed it
  const packet = await tx.findOneOrFail(Packet, { where: { id: input.packetId }, lock: { mode: 'pessimistic_write' } });
  const { goneIds = [] } = await askedBy(tx, packet, 0);
  if (!packet.approverIds.includes(input.contactId) || goneIds.includes(input.contactId)) return fail({ code: 'decision.not_an_approver' });
  const [inPacket] = await rowsOf(tx, 'select 1 from packet_items where packet_id = $1 and piece_id = $2', [packet.id, input.pieceId]);
  if (!inPacket) return fail({ code: 'decision.not_in_packet' });
  const piece = await lockPiece(tx, input.pieceId);
  const item = await tx.findOneByOrFail(PacketItem, { packetId: packet.id, pieceId: input.pieceId });
  if (input.versionId !== null && input.versionId !== item.versionId) return fail({ code: 'decision.other_version' });
  const version = await tx.findOneByOrFail(Version, { id: item.versionId });
  const places = await lookUpPlaces(
    tx,
    version.content,
    input.things.map(({ place }) => place ?? null),
  );
  if (!places.ok) return places;
  const things = input.things.map(({ text }, index) => ({ text: inOneLine(text), place: places.value[index] ?? null }));
  const remark = things.map(thingWords).join('\n');
  const said = await isSaid(tx, input, item, remark);
  if (item.outcome !== null && !said) return fail({ code: 'decision.closed' });
  return ok({ packet, item, piece, digests: allDigests(version.digests), said, things, remark });
}

/** Whether the contact's latest word on the version in the packet is the same already. */
async function isSaid(tx: Tx, input: DecisionInput, item: PacketItem, remark: string): Promise<boolean> {
  const [last] = await rowsOf<{ verdict: Verdict; remark: string }>(
    tx,
    'select verdict, remark from decisions where packet_id = $1 and piece_id = $2 and contact_id = $3 and version_id = $4 order by sequence desc limit 1',
    [input.packetId, input.pieceId, input.contactId, item.versionId],
  );
  return last?.verdict === input.verdict && last.remark === remark;
}

/**
 * Who signs off for a client changed: what its open packets wait for is reckoned anew. A piece that waited only for somebody who left is
 * approved by what the others have said already.
 */
export async function reckonOpenPackets(app: App, tx: Tx, clientId: string, now: InstantText): Promise<void> {
  const packets = await tx.find(Packet, {
    where: { clientId, closedAt: IsNull() },
    order: { id: 'ASC' },
    lock: { mode: 'pessimistic_write' },
  });
  for (const packet of packets)
    for (const item of await tx.find(PacketItem, { where: { packetId: packet.id, outcome: IsNull() }, order: { pieceId: 'ASC' } })) {
      const piece = await lockPiece(tx, item.pieceId);
      const version = await tx.findOneByOrFail(Version, { id: item.versionId });
      const digests = allDigests(version.digests);
      await close(app, tx, { packet, item, piece, digests, actor: 'Everybody who still signs off', remark: '' }, now);
    }
}

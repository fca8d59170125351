import { chainHead, PART_SCHEME, type Asked, type DecisionFact, type InstantText, type Verdict } from '@zesting/core';
import { recordActivity } from '../../platform/activity.js';
import { rowsOf, type Tx } from '../../platform/database/transaction.js';
import { decisionFacts, goneFrom, toAsked } from '../planning/index.js';
import type { Packet } from './entities/packet.entity.js';
import { Decision } from './entities/decision.entity.js';

/** What the chain binds of a decision: all that was said, by whom, about what, and when. */
export interface DecisionRecord {
  readonly sequence: number;
  /** null: the agency decided, without a packet */
  readonly packetId: string | null;
  readonly pieceId: string;
  readonly versionId: string;
  /** null: the agency, on standing authority or because no answer came */
  readonly contactId: string | null;
  readonly verdict: Verdict;
  readonly digests: readonly string[];
  readonly remark: string;
  readonly decidedAt: string;
  readonly recordedBy: string | null;
  readonly how: string;
}

/** Just what the chain binds, whatever else is at hand: one more word in it, and no head could be found again. */
export const decisionRecord = ({
  sequence,
  packetId,
  pieceId,
  versionId,
  contactId,
  verdict,
  digests,
  remark,
  decidedAt,
  recordedBy,
  how,
}: DecisionRecord) => ({
  sequence,
  packetId,
  pieceId,
  versionId,
  contactId,
  verdict,
  digests,
  remark,
  decidedAt,
  recordedBy,
  how,
});

export interface NewDecision {
  readonly clientId: string;
  readonly packetId: string | null;
  readonly pieceId: string;
  readonly versionId: string;
  readonly round: number;
  readonly contactId: string | null;
  readonly verdict: Verdict;
  readonly digests: readonly string[];
  readonly remark: string;
  /** who recorded it and how it was given; null when the contact decided in person */
  readonly onBehalf: { readonly personId: string; readonly name: string; readonly how: string } | null;
}

/** How a decision came that nobody recorded: through the room, whose link goes to the contact's address alone. */
export const BY_LINK = 'by the personal link mailed to them';

/** Writes a decision as the next link of the client's chain, and the activity line. Returns who decided. */
export async function appendDecision(tx: Tx, decision: NewDecision, now: InstantText): Promise<string> {
  // two statements: one that waits for the lock sees the decisions as they were before it waited
  const [client] = await rowsOf<{ chain_head: string }>(tx, 'select chain_head from clients where id = $1 for no key update', [
    decision.clientId,
  ]);
  const [last] = await rowsOf<{ sequence: number }>(
    tx,
    'select coalesce(max(sequence), 0) as sequence from decisions where client_id = $1',
    [decision.clientId],
  );
  const [contact] = await rowsOf<{ name: string }>(tx, 'select name from contacts where id = $1', [decision.contactId]);
  if (!client || !last) throw new Error('the client went away');
  const { onBehalf, clientId, round, ...facts } = decision;
  const link = decisionRecord({
    ...facts,
    sequence: last.sequence + 1,
    remark: decision.remark.trim(),
    decidedAt: now,
    recordedBy: onBehalf?.personId ?? null,
    how: onBehalf?.how ?? BY_LINK,
  });
  const head = chainHead(client.chain_head, link);
  await tx.insert(Decision, { ...link, digests: [...link.digests], clientId, head, scheme: PART_SCHEME });
  await tx.query('update clients set chain_head = $2 where id = $1', [clientId, head]);
  const name = contact?.name ?? onBehalf?.name ?? '';
  await recordActivity(tx, {
    clientId,
    thing: 'piece',
    thingId: decision.pieceId,
    verb: decision.verdict === 'approve' ? 'piece.approved' : 'piece.changes_asked',
    actor: contact && onBehalf ? `${name} (recorded by ${onBehalf.name})` : name,
    detail: { remark: link.remark, how: link.how || undefined, round },
    at: now,
  });
  return name;
}

/** All that was decided about a piece, oldest first. */
export async function decisionsOn(tx: Tx, pieceId: string): Promise<DecisionFact[]> {
  const [row] = await rowsOf<{ decisions: DecisionFact[] }>(tx, `select ${decisionFacts('$1')} as decisions`, [pieceId]);
  return row?.decisions ?? [];
}

/** Whom a packet asks in a round: its frozen approvers, and which of them no longer sign off. */
export async function askedBy(tx: Tx, packet: Packet, round: number): Promise<Asked> {
  const [row] = await rowsOf<{ gone_ids: string[] }>(tx, `select ${goneFrom('$1::uuid[]')} as gone_ids`, [packet.approverIds]);
  return toAsked({ policy: packet.policy, approver_ids: packet.approverIds, gone_ids: row?.gone_ids ?? [] }, round);
}

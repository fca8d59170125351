import type { PartDigests } from '../digest/index.js';

import { needs, type SignOffPolicy } from './policy.js';

export * from './policy.js';

export type Verdict = 'approve' | 'changes';

/** What one contact said about named digests. */
export interface DecisionFact {
  /** null: the agency approved, on the client's standing authority or because no answer came in the agreed time */
  readonly contactId: string | null;
  readonly verdict: Verdict;
  readonly digests: readonly string[];
  /** the round of the packet in which it was said; 0 where it was said without a packet */
  readonly round: number;
}

/** Who is asked, by which policy, and in which round. */
export interface Asked {
  readonly policy: SignOffPolicy;
  /** the approvers as the packet froze them, in the order of asking */
  readonly approverIds: readonly string[];
  /** those of them who no longer sign off */
  readonly goneIds?: readonly string[];
  /** the round of the packet that counts: the latest one that was sent */
  readonly round: number;
}

/** How one digest stands: approved, changes asked in this round, or not decided yet. */
export type DigestState = 'approved' | 'changes' | 'open';

/**
 * Reckons one digest. An approver's latest word on it counts, in whatever round it was said, but for changes asked for in an earlier one:
 * those only mean that this approver is asked again, and leave the digest open until they answer. Words of others do not count. Whoever no
 * longer signs off is not waited for; an approval given before stays.
 * @param decisions oldest first
 */
export function digestState(asked: Asked, decisions: readonly DecisionFact[], digest: string): DigestState {
  const words = wordsOn(asked, decisions, digest);
  if (words.changes.some(({ round }) => round >= asked.round)) return 'changes';
  if (words.changes.length > 0) return 'open';
  if (words.byAgency) return 'approved';
  const { from, count } = stillNeeded(asked, words.approved);
  return count > 0 && from.filter((id) => words.approved.has(id)).length >= count ? 'approved' : 'open';
}

interface Words {
  /** approvers whose latest word on the digest is yes */
  readonly approved: ReadonlySet<string>;
  /** approvers still there whose latest word asks for changes, and the round in which they said so */
  readonly changes: readonly { readonly contactId: string; readonly round: number }[];
  /** the agency approved it, and nobody asked for changes since */
  readonly byAgency: boolean;
}

/** Everybody's latest word on a digest. A later approval by the agency, where no answer came, takes the place of what was asked for before. */
function wordsOn({ approverIds, goneIds = [] }: Asked, decisions: readonly DecisionFact[], digest: string): Words {
  const latest = new Map<string, DecisionFact>();
  let byAgency = false;
  for (const decision of decisions) {
    if (!decision.digests.includes(digest)) continue;
    if (decision.contactId === null) {
      byAgency = decision.verdict === 'approve';
      for (const [id, { verdict }] of latest) if (verdict === 'changes') latest.delete(id);
    } else if (approverIds.includes(decision.contactId)) latest.set(decision.contactId, decision);
  }
  const said = [...latest].map(([contactId, { verdict, round }]) => ({ contactId, verdict, round }));
  return {
    approved: new Set(said.filter(({ verdict }) => verdict === 'approve').map(({ contactId }) => contactId)),
    changes: said.filter(({ verdict, contactId }) => verdict === 'changes' && !goneIds.includes(contactId)),
    byAgency,
  };
}

/** Of whom approvals are needed and how many, once those who left without one are no longer waited for. */
function stillNeeded(
  { policy, approverIds, goneIds = [] }: Asked,
  approved: ReadonlySet<string>,
): { from: readonly string[]; count: number } {
  const { from, count } = needs(policy, approverIds);
  const there = from.filter((id) => !goneIds.includes(id) || approved.has(id));
  return { from: there, count: Math.min(count, there.length) };
}

/**
 * The contacts whose word on these digests is awaited now: all who have not approved them while more approvals are needed, or the
 * next of them where they are asked in turn. Whoever asked for changes is asked in any case: in the next round a part that stayed the
 * same is open until they answer.
 * @returns ids in the order of asking; empty once nothing more is needed, or nobody is left who could answer
 */
export function awaited(asked: Asked, decisions: readonly DecisionFact[], digests: readonly string[]): string[] {
  const open = digests.filter((digest) => digestState(asked, decisions, digest) !== 'approved');
  const { policy, approverIds, goneIds = [] } = asked;
  const waits = new Set(
    open.flatMap((digest) => {
      const words = wordsOn(asked, decisions, digest);
      const { from, count } = stillNeeded(asked, words.approved);
      const isShort = from.filter((id) => words.approved.has(id)).length < count && !words.byAgency;
      return isShort ? from.filter((id) => !words.approved.has(id)) : words.changes.map(({ contactId }) => contactId);
    }),
  );
  const inOrder = needs(policy, approverIds).from.filter((id) => waits.has(id) && !goneIds.includes(id));
  return 'inTurn' in policy && policy.inTurn ? inOrder.slice(0, 1) : inOrder;
}

/** How a part of the content as it stands now is signed. *voided*: an earlier state of it was approved, this one is not. */
export type PartState = 'signed' | 'returned' | 'voided' | 'open';

export interface ContentSignOff {
  readonly shared: PartState;
  readonly channels: Readonly<Record<string, PartState>>;
}

export interface SignOffFacts extends Asked {
  /** oldest first */
  readonly decisions: readonly DecisionFact[];
  /** digests of every version sent so far */
  readonly sent: readonly PartDigests[];
}

/** Reckons every part of the content with these digests. */
export function contentSignOff(facts: SignOffFacts, now: PartDigests): ContentSignOff {
  const stateOf = (digest: string): DigestState => digestState(facts, facts.decisions, digest);
  const part = (digest: string, earlier: readonly string[]): PartState => {
    const state = stateOf(digest);
    if (state === 'approved') return 'signed';
    if (state === 'changes') return 'returned';
    return earlier.some((other) => other !== digest && stateOf(other) === 'approved') ? 'voided' : 'open';
  };
  return {
    shared: part(
      now.shared,
      facts.sent.map((digests) => digests.shared),
    ),
    channels: Object.fromEntries(
      Object.entries(now.channels).map(([id, digest]) => [
        id,
        part(
          digest,
          facts.sent.flatMap((digests) => digests.channels[id] ?? []),
        ),
      ]),
    ),
  };
}

/** Whether a placement on that channel may be scheduled: shared part and channel part are both signed. */
export const isSigned = (signOff: ContentSignOff, channelId: string): boolean =>
  signOff.shared === 'signed' && signOff.channels[channelId] === 'signed';

/** Whether the whole content is signed. */
export const isAllSigned = (signOff: ContentSignOff): boolean =>
  signOff.shared === 'signed' && Object.values(signOff.channels).every((state) => state === 'signed');

/** Whether any part was signed before and no longer is. */
export const isVoided = (signOff: ContentSignOff): boolean =>
  signOff.shared === 'voided' || Object.values(signOff.channels).includes('voided');

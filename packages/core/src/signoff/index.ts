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
}

/** How one digest stands: approved, changes asked, or not decided yet. */
export type DigestState = 'approved' | 'changes' | 'open';

/**
 * Reckons one digest under a policy. A contact's latest decision on a digest counts; changes asked by an approver
 * stand against approval until that contact approves the digest.
 * @param decisions oldest first
 */
export function digestState(
  policy: SignOffPolicy,
  approverIds: readonly string[],
  decisions: readonly DecisionFact[],
  digest: string,
): DigestState {
  const latest = latestOn(decisions, digest);
  if ([...latest.values()].includes('changes')) return 'changes';
  if (latest.get(null) === 'approve') return 'approved';
  const { from, count } = needs(policy, approverIds);
  const approved = from.filter((id) => latest.get(id) === 'approve').length;
  return count > 0 && approved >= count ? 'approved' : 'open';
}

/** Everybody's latest word on a digest. */
function latestOn(decisions: readonly DecisionFact[], digest: string): Map<string | null, Verdict> {
  const latest = new Map<string | null, Verdict>();
  for (const decision of decisions) if (decision.digests.includes(digest)) latest.set(decision.contactId, decision.verdict);
  return latest;
}

/**
 * The contacts whose word on these digests is awaited now: all who have not approved them while more approvals are needed, or the
 * next of them where they are asked in turn. Whoever asked for changes is asked in any case: in the next round their word on a part
 * that stayed the same still stands against it.
 * @returns ids in the order of asking; empty once nothing more is needed
 */
export function awaited(
  policy: SignOffPolicy,
  approverIds: readonly string[],
  decisions: readonly DecisionFact[],
  digests: readonly string[],
): string[] {
  const states = digests.map((digest) => digestState(policy, approverIds, decisions, digest));
  if (states.every((state) => state === 'approved')) return [];
  const { from, count } = needs(policy, approverIds);
  const latest = digests.map((digest) => latestOn(decisions, digest));
  const isShort = latest.some((words) => from.filter((id) => words.get(id) === 'approve').length < count);
  const open = from.filter((id) => latest.some((words) => (isShort ? words.get(id) !== 'approve' : words.get(id) === 'changes')));
  return 'inTurn' in policy && policy.inTurn ? open.slice(0, 1) : [...open];
}

/** How a part of the content as it stands now is signed. *voided*: an earlier state of it was approved, this one is not. */
export type PartState = 'signed' | 'returned' | 'voided' | 'open';

export interface ContentSignOff {
  readonly shared: PartState;
  readonly channels: Readonly<Record<string, PartState>>;
}

export interface SignOffFacts {
  readonly policy: SignOffPolicy;
  readonly approverIds: readonly string[];
  /** oldest first */
  readonly decisions: readonly DecisionFact[];
  /** digests of every version sent so far */
  readonly sent: readonly PartDigests[];
}

/** Reckons every part of the content with these digests. */
export function contentSignOff(facts: SignOffFacts, now: PartDigests): ContentSignOff {
  const stateOf = (digest: string): DigestState => digestState(facts.policy, facts.approverIds, facts.decisions, digest);
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

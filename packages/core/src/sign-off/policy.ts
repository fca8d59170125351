/** Whether contacts are asked one after the other, in the order of the list, instead of all at once. */
interface InTurn {
  readonly inTurn?: boolean;
}
/** After so many of the client's working days a person may record "no answer", which counts as approval. Absent: never. */
interface Silence {
  readonly silenceDays?: number;
}

/** Who must approve. The policy is frozen when a packet is sent. */
export type SignOffPolicy =
  | ({ readonly kind: 'any' } & Silence)
  | ({ readonly kind: 'all' } & InTurn & Silence)
  | ({ readonly kind: 'named'; readonly contactIds: readonly string[] } & InTurn & Silence)
  | ({ readonly kind: 'n_of'; readonly count: number } & InTurn & Silence)
  /** a named person decides on the client's standing authority: no sign-off step, nothing goes to the client */
  | { readonly kind: 'agency'; readonly personId: string };

/** Whether pieces go to the client at all. */
export const asksClient = (policy: SignOffPolicy): boolean => policy.kind !== 'agency';

/** The contacts whose approval the policy waits for, in the order of asking, and how many of them must approve. */
export function needs(policy: SignOffPolicy, approverIds: readonly string[]): { from: readonly string[]; count: number } {
  switch (policy.kind) {
    case 'any':
      return { from: approverIds, count: 1 };
    case 'all':
      return { from: approverIds, count: approverIds.length };
    case 'named':
      return { from: policy.contactIds, count: policy.contactIds.length };
    case 'n_of':
      return { from: approverIds, count: policy.count };
    case 'agency':
      return { from: [], count: 0 };
  }
}

export type PolicyProblem =
  'policy.nobody_signs_off' | 'policy.count_too_high' | 'policy.contact_cannot_sign_off' | 'policy.person_unknown';

/**
 * Checks that a policy can ever be met.
 * @param approverIds the contacts who may sign off
 * @param managerIds the persons who may decide for the client
 * @returns the first problem; null when it can be met. A client without approvers may keep its policy until it has some.
 */
export function policyProblem(policy: SignOffPolicy, approverIds: readonly string[], managerIds: readonly string[]): PolicyProblem | null {
  if (policy.kind === 'agency') return managerIds.includes(policy.personId) ? null : 'policy.person_unknown';
  if (policy.kind === 'named') {
    if (policy.contactIds.length === 0) return 'policy.nobody_signs_off';
    return policy.contactIds.every((id) => approverIds.includes(id)) ? null : 'policy.contact_cannot_sign_off';
  }
  return policy.kind === 'n_of' && policy.count > approverIds.length ? 'policy.count_too_high' : null;
}

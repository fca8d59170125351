import type { SignOffPolicy } from '@zesting/core';
import { count } from './format';

/** "Ana", "Ana and Ben", "Ana, Ben and Cho". */
export function namesWords(names: readonly string[], last = 'and'): string {
  if (names.length <= 1) return names[0] ?? 'nobody';
  return `${names.slice(0, -1).join(', ')} ${last} ${names.at(-1) ?? ''}`;
}

interface PolicyNames {
  /** the contacts who sign off, in the order of asking */
  readonly approvers: readonly { readonly id?: string | undefined; readonly name: string }[];
  readonly personName: (personId: string) => string;
}

/** What a sign-off policy means, in plain sentences. */
export function policyWords(policy: SignOffPolicy, { approvers, personName }: PolicyNames): string {
  if (policy.kind === 'agency')
    return `Nothing goes to the client: ${personName(policy.personId)} decides on the client’s standing authority, once the check is passed.`;
  const names = approvers.map((contact) => contact.name);
  if (policy.kind !== 'named' && names.length === 0) return 'Nobody signs off yet: no piece can be sent. Let a contact sign off first.';
  return [whoWords(policy, names, approvers), 'Changes asked by any of them stand against every approval.', silenceWords(policy)].join(' ');
}

type Asked = Exclude<SignOffPolicy, { kind: 'agency' }>;

function whoWords(policy: Asked, names: readonly string[], approvers: PolicyNames['approvers']): string {
  const how = (asked: readonly string[]) =>
    asked.length < 2 || policy.kind === 'any'
      ? ''
      : 'inTurn' in policy && policy.inTurn
        ? ` They are asked one after the other: ${asked.join(', then ')}.`
        : ' All are asked at once.';
  switch (policy.kind) {
    case 'any':
      return names.length === 1
        ? `A piece is signed when ${names[0] ?? ''} approves it.`
        : `A piece is signed as soon as ${namesWords(names, 'or')} approves it. All are asked at once.`;
    case 'all':
      return `A piece is signed when ${names.length === 2 ? `both ${namesWords(names)}` : namesWords(names)} approve${names.length === 1 ? 's' : ''} it.${how(names)}`;
    case 'n_of':
      return `A piece is signed as soon as ${policy.count} of ${namesWords(names)} approve${policy.count === 1 ? 's' : ''} it.${how(names)}`;
    case 'named': {
      const named = policy.contactIds.map((id) => approvers.find((contact) => contact.id === id)?.name ?? 'somebody who left');
      return `A piece is signed when ${namesWords(named)} approve${named.length === 1 ? 's' : ''} it, whatever others say.${how(named)}`;
    }
  }
}

const silenceWords = ({ silenceDays }: Asked): string =>
  silenceDays === undefined
    ? 'Without an answer nothing is signed.'
    : `When no answer has come after ${count(silenceDays, 'working day')} of theirs, a person may record that, and it counts as approval.`;

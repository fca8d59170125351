import type { ClientPageShape } from '@zesting/contract';
import type { SignOffPolicy } from '@zesting/core';
import { useSession } from '../../lib/queries';
import { policyWords } from '../../lib/policy-words';
import { EditedSection } from '../../ui/edited';
import { Field } from '../../ui/field';
import { useClientSection } from './use-client-section';

const KINDS: Record<SignOffPolicy['kind'], string> = {
  any: 'Any one contact',
  all: 'All contacts',
  named: 'Named contacts',
  n_of: 'A number of contacts',
  agency: 'The agency, on standing authority',
};

/** How a piece is signed, with what it means in words. Packets that are out keep the policy they were sent under. */
export function PolicySection({ client }: { client: ClientPageShape }) {
  const edited = useClientSection(
    'policy',
    client,
    ({ policy }) => ({ policy, consent: '' }),
    ({ policy, consent }) => ({ policy: { ...sentPolicy(policy), ...(consent.trim() ? { consent: consent.trim() } : {}) } }),
  );
  const { policy, consent } = edited.draft;
  const { role } = useSession();
  const approvers = client.contacts.filter((contact) => contact.canSignOff);
  const put = (next: SignOffPolicy) => edited.change({ policy: next });
  const personName = (id: string) => client.possibleManagers.find((person) => person.personId === id)?.name ?? 'somebody who left';
  const silence = policy.kind === 'agency' ? undefined : policy.silenceDays;
  const choose = (kind: SignOffPolicy['kind']) => put(startOf(kind, approvers, client, silence));
  return (
    <EditedSection title="Sign-off" note="A packet that is out keeps the policy it was sent under." edited={edited}>
      <p className="rounded-md bg-lake-soft px-3 py-2 mb-4 max-w-[75ch]" role="status">
        {policyWords(policy, { approvers, personName })}
      </p>
      <fieldset className="mb-4">
        <legend className="font-medium mb-1">Who approves</legend>
        {(Object.keys(KINDS) as SignOffPolicy['kind'][]).map((kind) => (
          <label key={kind} className="flex items-center gap-2 min-h-8">
            <input type="radio" name="policy" className="size-4 accent-pine" checked={policy.kind === kind} onChange={() => choose(kind)} />
            {KINDS[kind]}
          </label>
        ))}
      </fieldset>
      {policy.kind === 'n_of' && (
        <Field label="How many" help={`${approvers.length} contacts sign off.`}>
          {(control) => (
            <input
              {...control}
              type="number"
              min={1}
              max={approvers.length}
              className="field max-w-24"
              value={policy.count}
              onChange={(event) => put({ ...policy, count: Math.max(1, Number(event.target.value)) })}
            />
          )}
        </Field>
      )}
      {policy.kind === 'named' && (
        <fieldset className="mb-4">
          <legend className="font-medium mb-1">Which contacts</legend>
          {approvers.map((contact) => (
            <label key={contact.id} className="inline-flex items-center gap-2 min-h-8 mr-5">
              <input
                type="checkbox"
                className="size-4 accent-pine"
                checked={policy.contactIds.includes(contact.id ?? '')}
                onChange={(event) => {
                  const chosen = (id: string | undefined) =>
                    id === contact.id ? event.target.checked : policy.contactIds.includes(id ?? '');
                  put({ ...policy, contactIds: approvers.filter(({ id }) => chosen(id)).flatMap(({ id }) => id ?? []) });
                }}
              />
              {contact.name}
            </label>
          ))}
        </fieldset>
      )}
      {policy.kind === 'agency' && (
        <Field label="Who decides">
          {(control) => (
            <select
              {...control}
              className="field max-w-64"
              value={policy.personId}
              onChange={(event) => put({ kind: 'agency', personId: event.target.value })}
            >
              {client.possibleManagers.map((person) => (
                <option key={person.personId} value={person.personId}>
                  {person.name}
                </option>
              ))}
            </select>
          )}
        </Field>
      )}
      {policy.kind === 'agency' && role === 'manager' && (
        <Field label="How the client agreed" help="Who said so, how and when. It stands in the record. A lead may leave it out.">
          {(control) => (
            <input
              {...control}
              className="field max-w-xl"
              value={consent}
              onChange={(event) => edited.change({ consent: event.target.value })}
            />
          )}
        </Field>
      )}
      {'inTurn' in policy || policy.kind === 'all' || policy.kind === 'named' || policy.kind === 'n_of' ? (
        <label className="flex items-center gap-2 min-h-8">
          <input
            type="checkbox"
            className="size-4 accent-pine"
            checked={policy.inTurn ?? false}
            onChange={(event) => put({ ...policy, inTurn: event.target.checked })}
          />
          One after the other, in the order of the list, instead of all at once
        </label>
      ) : null}
      {policy.kind !== 'agency' && <SilenceField policy={policy} onChange={put} />}
    </EditedSection>
  );
}

type Asked = Exclude<SignOffPolicy, { kind: 'agency' }>;

function SilenceField({ policy, onChange }: { policy: Asked; onChange: (policy: Asked) => void }) {
  const days = policy.silenceDays;
  const { silenceDays: _, ...without } = policy;
  return (
    <div className="flex flex-wrap items-center gap-2 min-h-9 mt-1">
      <label className="flex items-center gap-2">
        <input
          type="checkbox"
          className="size-4 accent-pine"
          checked={days !== undefined}
          onChange={(event) => onChange(event.target.checked ? { ...policy, silenceDays: 5 } : (without as Asked))}
        />
        No answer counts as approval
      </label>
      {days !== undefined && (
        <label className="flex items-center gap-2">
          after
          <input
            type="number"
            min={1}
            max={30}
            className="field w-20"
            value={days}
            onChange={(event) => onChange({ ...policy, silenceDays: Math.min(30, Math.max(1, Number(event.target.value))) })}
          />
          working days of the client
        </label>
      )}
    </div>
  );
}

function startOf(
  kind: SignOffPolicy['kind'],
  approvers: ClientPageShape['contacts'],
  client: ClientPageShape,
  silence: number | undefined,
): SignOffPolicy {
  const silenceDays = silence === undefined ? {} : { silenceDays: silence };
  switch (kind) {
    case 'named':
      return { kind, contactIds: approvers.flatMap((contact) => contact.id ?? []), ...silenceDays };
    case 'n_of':
      return { kind, count: Math.max(1, Math.min(2, approvers.length)), ...silenceDays };
    case 'agency':
      return { kind, personId: client.managers[0]?.personId ?? client.possibleManagers[0]?.personId ?? '' };
    default:
      return { kind, ...silenceDays };
  }
}

const sentPolicy = (policy: SignOffPolicy) => ('contactIds' in policy ? { ...policy, contactIds: [...policy.contactIds] } : policy);

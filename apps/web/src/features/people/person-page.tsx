import { useQuery, useQueryClient, useSuspenseQuery } from '@tanstack/react-query';
import type { EditPersonBody, PersonPageShape } from '@zesting/contract';
import { useParams } from 'react-router';
import { toast } from 'sonner';
import { wholeRoutesQuery } from '../../api/production';
import { personQuery } from '../../api/people';
import { call } from '../../lib/api';
import { useClients, useSession, useTouched, useWrite } from '../../lib/queries';
import { ROLE_WORDS } from '../../lib/words';
import { Button } from '../../ui/button';
import { EditedSection, useEdited } from '../../ui/edited';
import { Field } from '../../ui/field';
import { WeekField, ZoneField, zoneClock } from '../../ui/setup-fields';
import { RegionField } from '../../parts/region-field';
import { ClientCode, Tag } from '../../ui/tags';
import { CoverSection } from './cover-section';
import { DevicesSection } from './devices-section';
import { PresenceTag } from './people-page';
import { RoleField, SkillsField } from './person-fields';
import { RateSection } from './rate-section';
import { RoundUpSection } from './round-up-section';
import { DutiesSection } from './duties-section';
import { StepsSection } from './steps-section';
import { TimeOffSection } from './time-off-section';

/** A person's page: who they are, when they work, what they can do, what is theirs. */
export function PersonPage() {
  const { personId = '' } = useParams();
  const { data: person } = useSuspenseQuery(personQuery(personId));
  const session = useSession();
  const isManager = person.role === 'manager' || person.role === 'lead';
  return (
    <div className="max-w-6xl mx-auto">
      <header className="flex flex-wrap items-center gap-3 mb-4">
        <h1 className="text-2xl leading-tight">{person.name}</h1>
        <Tag>{ROLE_WORDS[person.role]}</Tag>
        <PresenceTag row={person} />
        <p className="text-muted">{zoneClock(person.zone)}</p>
        {person.canEdit && <PersonActions person={person} />}
      </header>
      <div className="grid gap-4 lg:grid-cols-2 items-start">
        <div className="grid gap-4">
          {(!person.active || person.steps.length > 0 || person.hiddenSteps > 0) && <StepsSection person={person} />}
          {session.role === 'lead' && <DutiesSection person={person} />}
          <DetailsSection key={person.id} person={person} />
        </div>
        <div className="grid gap-4">
          <TimeOffSection person={person} />
          {isManager && <CoverSection person={person} />}
          {(session.role === 'lead' || (person.isSelf && person.role === 'freelance')) && <RateSection person={person} />}
          {person.isSelf && <RoundUpSection person={person} />}
          {person.isSelf && <DevicesSection email={person.email} />}
        </div>
      </div>
    </div>
  );
}

function PersonActions({ person }: { person: PersonPageShape }) {
  const session = useSession();
  const act = useWrite((path: string) => call(`/people/${person.id}/${path}`, { method: 'POST' }));
  const takeBack = useWrite(() => call(`/people/${person.id}/invite`, { method: 'DELETE' }));
  return (
    <div className="ml-auto flex flex-wrap gap-2">
      {person.active && (
        <Button
          disabled={act.isPending}
          onClick={() => act.mutate('invite', { onSuccess: () => toast(`A new invitation is on its way to ${person.email}`) })}
        >
          {person.isInvited ? 'Send the invitation again' : 'Send a link for a new password'}
        </Button>
      )}
      {person.active && person.isInvited && (
        <Button
          disabled={takeBack.isPending}
          onClick={() => takeBack.mutate(undefined, { onSuccess: () => toast('The invitation opens nothing any more') })}
        >
          Take the invitation back
        </Button>
      )}
      {person.active && person.id !== session.personId && (
        <Button
          look="danger"
          disabled={act.isPending}
          onClick={() =>
            act.mutate('leave', {
              onSuccess: () =>
                toast(`${person.name} has left. Access ended at once.`, {
                  action: { label: 'Undo', onClick: () => act.mutate('come-back') },
                }),
            })
          }
        >
          Leaves the agency
        </Button>
      )}
      {!person.active && (
        <Button disabled={act.isPending} onClick={() => act.mutate('come-back')}>
          Is here again
        </Button>
      )}
    </div>
  );
}

const RELATIONS = { none: 'not known', own: 'knows or manages', barred: 'must not work for it' } as const;

function DetailsSection({ person }: { person: PersonPageShape }) {
  const queries = useQueryClient();
  const touched = useTouched();
  const { clients } = useClients();
  const { role } = useSession();
  const { data: routes } = useQuery({ ...wholeRoutesQuery, enabled: role === 'lead' || role === 'manager' });
  const pick = (page: PersonPageShape) => ({
    name: page.name,
    email: page.email,
    role: page.role,
    zone: page.zone,
    region: page.region,
    weeklyMinutes: page.weeklyMinutes,
    skills: page.skills,
    mayEditForms: page.mayEditForms,
    clients: page.clients.map(({ clientId, relation }) => ({ clientId, relation })),
  });
  const edited = useEdited(
    `person:${person.id}:details`,
    pick(person),
    person.version,
    async (draft: EditPersonBody, version) => {
      const saved = await call<PersonPageShape>(`/people/${person.id}`, { method: 'PATCH', body: draft, version });
      queries.setQueryData(['person', person.id], saved);
      touched();
      toast('Saved');
    },
    pick,
  );
  const { draft, change } = edited;
  const locked = !person.canEdit;
  const relationOf = (clientId: string) => draft.clients?.find((client) => client.clientId === clientId)?.relation ?? 'none';
  return (
    <EditedSection title="Details" edited={edited} readOnly={locked} note={locked ? 'A lead changes these.' : undefined}>
      <div className="grid sm:grid-cols-2 gap-x-4">
        <Field label="Name" required>
          {(control) => (
            <input
              {...control}
              className="field"
              readOnly={locked}
              value={draft.name ?? ''}
              onChange={(event) => change({ name: event.target.value })}
            />
          )}
        </Field>
        <Field label="E-mail" required>
          {(control) => (
            <input
              {...control}
              type="email"
              className="field"
              readOnly={locked}
              value={draft.email ?? ''}
              onChange={(event) => change({ email: event.target.value })}
            />
          )}
        </Field>
        <RoleField value={draft.role ?? 'staff'} disabled={locked} onChange={(next) => change({ role: next })} />
        <ZoneField value={draft.zone ?? ''} disabled={locked} onChange={(zone) => change({ zone })} />
        <RegionField value={draft.region ?? ''} disabled={locked} onChange={(region) => change({ region })} />
      </div>
      <WeekField
        label="Hours (a short day is a half day, empty is off)"
        value={draft.weeklyMinutes ?? []}
        disabled={locked}
        onChange={(weeklyMinutes) => change({ weeklyMinutes })}
      />
      {draft.role === 'manager' && (
        <label className="flex items-center gap-2 min-h-8 mb-2">
          <input
            type="checkbox"
            className="size-4 accent-pine"
            disabled={locked}
            checked={draft.mayEditForms ?? false}
            onChange={(event) => change({ mayEditForms: event.target.checked })}
          />
          May make and change the intake forms of their clients
        </label>
      )}
      <SkillsField skills={draft.skills ?? {}} known={routes?.skills ?? []} disabled={locked} onChange={(skills) => change({ skills })} />
      <fieldset>
        <legend className="font-medium mb-1">Clients</legend>
        <ul className="grid gap-1">
          {clients.map((client) => (
            <li key={client.id} className="grid grid-cols-[minmax(0,1fr)_13rem] gap-2 items-center max-w-xl">
              <span className="flex items-center gap-2 min-w-0">
                <ClientCode code={client.code} colour={client.colour} />
                <span className="truncate">{client.name}</span>
              </span>
              <select
                className="field"
                aria-label={`${client.name} and ${person.name}`}
                disabled={locked}
                value={relationOf(client.id)}
                onChange={(event) => {
                  const others = (draft.clients ?? []).filter((other) => other.clientId !== client.id);
                  const relation = event.target.value as keyof typeof RELATIONS;
                  change({ clients: relation === 'none' ? others : [...others, { clientId: client.id, relation }] });
                }}
              >
                {Object.entries(RELATIONS).map(([relation, words]) => (
                  <option key={relation} value={relation}>
                    {words}
                  </option>
                ))}
              </select>
            </li>
          ))}
        </ul>
      </fieldset>
    </EditedSection>
  );
}

import { useQuery } from '@tanstack/react-query';
import { NewClientBody, type ClientMadeShape, type ClientRow } from '@zesting/contract';
import { CHANNEL_KINDS, CHANNEL_STOCK } from '@zesting/core';
import { useNavigate } from 'react-router';
import { peopleQuery } from '../../api/people';
import { call } from '../../lib/api';
import { useSession, useWrite } from '../../lib/queries';
import { useBodyForm } from '../../lib/use-body-form';
import { Field } from '../../ui/field';
import { FormDialog } from '../../ui/form-dialog';
import { ColourField, WeekField, ZoneField } from '../../ui/setup-fields';
import { RegionField } from '../../parts/region-field';

/** A colour that no other client has, while there is one. */
const freeColour = (taken: readonly ClientRow[]): number =>
  Array.from({ length: 12 }, (_, step) => (step * 5) % 12).find((step) => !taken.some((row) => row.colour === step)) ?? 0;

/** Capitals of the name as a code: "Kiln Lane Bakehouse" is KLB. */
const codeOf = (name: string): string => {
  const words = name.toUpperCase().match(/[A-Z]+/g) ?? [];
  return (words.length > 1 ? words.map((word) => word[0]).join('') : (words[0] ?? '')).slice(0, 4);
};

/** Takes on a client: what planning needs at once; the rest stands on its page. */
export function NewClientDialog({ taken, onClose }: { taken: readonly ClientRow[]; onClose: () => void }) {
  const { agency } = useSession();
  const navigate = useNavigate();
  const { data: people } = useQuery(peopleQuery);
  const make = useWrite((sent: NewClientBody) => call<ClientMadeShape>('/clients', { method: 'POST', body: sent }), { quiet: true });
  const form = useBodyForm<NewClientBody>(
    NewClientBody,
    {
      code: '',
      name: '',
      colour: freeColour(taken),
      zone: agency.zone,
      region: agency.region,
      weeklyMinutes: [480, 480, 480, 480, 480, 0, 0],
      usualTime: '09:00',
      managerIds: [],
      channelKinds: [],
    },
    {
      send: async (body) => {
        const { clientId } = await make.mutateAsync(body);
        void navigate(`/clients/${clientId}`, { replace: true });
      },
      words: { code: { matches: 'Two to five capital letters.' } },
    },
  );
  const { body, change, errorOf } = form;
  return (
    <FormDialog
      form={form}
      onClose={onClose}
      title="Take on a client"
      description="Contacts, pillars and the brand come next, on its page."
      action="Take on"
    >
      <div className="grid grid-cols-[minmax(0,1fr)_7rem] gap-3">
        <Field label="Name" required error={errorOf('name')}>
          {(control) => (
            <input
              {...control}
              className="field"
              value={body.name}
              onChange={(event) =>
                change({ name: event.target.value, ...(body.code === codeOf(body.name) ? { code: codeOf(event.target.value) } : {}) })
              }
            />
          )}
        </Field>
        <Field label="Code" required error={errorOf('code')}>
          {(control) => (
            <input
              {...control}
              className="field"
              maxLength={5}
              value={body.code}
              onChange={(event) => change({ code: event.target.value.toUpperCase() })}
            />
          )}
        </Field>
      </div>
      <ColourField value={body.colour} onChange={(colour) => change({ colour })} />
      <div className="grid sm:grid-cols-2 gap-3">
        <ZoneField value={body.zone} onChange={(zone) => change({ zone })} />
        <RegionField value={body.region} onChange={(region) => change({ region })} />
      </div>
      <WeekField label="The client’s working hours" value={body.weeklyMinutes} onChange={(weeklyMinutes) => change({ weeklyMinutes })} />
      <fieldset className="mb-3.5">
        <legend className="font-medium mb-1">Channels</legend>
        <div className="grid sm:grid-cols-2 gap-x-3">
          {CHANNEL_KINDS.map((kind) => (
            <Check
              key={kind}
              words={CHANNEL_STOCK[kind].name}
              checked={body.channelKinds?.includes(kind) ?? false}
              onChange={(on) =>
                change({ channelKinds: CHANNEL_KINDS.filter((other) => (other === kind ? on : body.channelKinds?.includes(other))) })
              }
            />
          ))}
        </div>
        <p className="text-muted text-[13px]">Each with usual limits, to be changed on the client’s page.</p>
      </fieldset>
      <fieldset className="mb-3.5">
        <legend className="font-medium mb-1">Account managers</legend>
        {people
          ?.filter((person) => person.role === 'manager' && person.active)
          .map((person) => (
            <Check
              key={person.id}
              words={person.name}
              checked={body.managerIds.includes(person.id)}
              onChange={(on) =>
                change({ managerIds: on ? [...body.managerIds, person.id] : body.managerIds.filter((id) => id !== person.id) })
              }
            />
          ))}
        <p className="text-muted text-[13px]">Without one, the leads look after it.</p>
      </fieldset>
    </FormDialog>
  );
}

function Check({ words, checked, onChange }: { words: string; checked: boolean; onChange: (on: boolean) => void }) {
  return (
    <label className="inline-flex items-center gap-2 min-h-8 mr-5">
      <input type="checkbox" className="size-4 accent-pine" checked={checked} onChange={(event) => onChange(event.target.checked)} />
      {words}
    </label>
  );
}

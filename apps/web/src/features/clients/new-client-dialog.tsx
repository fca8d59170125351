import { useQuery } from '@tanstack/react-query';
import type { ClientMadeShape, ClientRow, NewClientBody, PersonRow } from '@zesting/contract';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import { call, wordsOf } from '../../lib/api';
import { useSession, useWrite } from '../../lib/queries';
import { Button } from '../../ui/button';
import { Dialog } from '../../ui/dialog';
import { Field } from '../../ui/field';
import { ColourField, RegionField, WeekField, ZoneField } from '../../ui/setup-fields';

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
  const { data: people } = useQuery({ queryKey: ['people'], queryFn: () => call<PersonRow[]>('/people') });
  const [body, setBody] = useState<NewClientBody>({
    code: '',
    name: '',
    colour: freeColour(taken),
    zone: agency.zone,
    region: agency.region,
    weeklyMinutes: [480, 480, 480, 480, 480, 0, 0],
    usualTime: '09:00',
    managerIds: [],
  });
  const [error, setError] = useState<string>();
  const change = (part: Partial<NewClientBody>) => setBody({ ...body, ...part });
  const make = useWrite((sent: NewClientBody) => call<ClientMadeShape>('/clients', { method: 'POST', body: sent }), { quiet: true });
  const submit = () => {
    if (body.name.trim() === '') return setError('Give the client’s name.');
    if (!/^[A-Z]{2,5}$/.test(body.code)) return setError('The code is two to five capital letters.');
    make.mutate(body, {
      onSuccess: ({ clientId }) => void navigate(`/clients/${clientId}`),
      onError: (problem) => setError(wordsOf(problem)),
    });
  };
  return (
    <Dialog open onClose={onClose} title="Take on a client" description="Contacts, channels, pillars and sign-off come next, on its page.">
      <div className="grid grid-cols-[minmax(0,1fr)_7rem] gap-3">
        <Field label="Name" required>
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
        <Field label="Code" required>
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
        <legend className="font-medium mb-1">Account managers</legend>
        {people
          ?.filter((person) => person.role === 'manager' && person.active)
          .map((person) => (
            <label key={person.id} className="inline-flex items-center gap-2 min-h-8 mr-5">
              <input
                type="checkbox"
                className="size-4 accent-pine"
                checked={body.managerIds.includes(person.id)}
                onChange={(event) =>
                  change({
                    managerIds: event.target.checked ? [...body.managerIds, person.id] : body.managerIds.filter((id) => id !== person.id),
                  })
                }
              />
              {person.name}
            </label>
          ))}
        <p className="text-muted text-[13px]">Without one, the leads look after it.</p>
      </fieldset>
      {error && (
        <p role="alert" className="text-rhubarb font-medium mb-2">
          {error}
        </p>
      )}
      <div className="flex justify-end gap-2">
        <Button onClick={onClose}>Not yet</Button>
        <Button look="main" disabled={make.isPending} onClick={submit}>
          Take on
        </Button>
      </div>
    </Dialog>
  );
}

import type { NewPersonBody, PersonMadeShape } from '@zesting/contract';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import { toast } from 'sonner';
import { call, wordsOf } from '../../lib/api';
import { useSession, useWrite } from '../../lib/queries';
import { Button } from '../../ui/button';
import { Dialog } from '../../ui/dialog';
import { Field } from '../../ui/field';
import { WeekField, ZoneField } from '../../ui/setup-fields';
import { RegionField } from '../../parts/region-field';
import { RoleField } from './person-fields';

/** Takes somebody on: the invitation goes out by mail; skills and clients stand on the page. */
export function NewPersonDialog({ onClose }: { onClose: () => void }) {
  const { agency } = useSession();
  const navigate = useNavigate();
  const [body, setBody] = useState<NewPersonBody>({
    name: '',
    email: '',
    role: 'staff',
    zone: agency.zone,
    region: agency.region,
    weeklyMinutes: [480, 480, 480, 480, 480, 0, 0],
    skills: {},
  });
  const [error, setError] = useState<string>();
  const change = (part: Partial<NewPersonBody>) => setBody({ ...body, ...part });
  const make = useWrite((sent: NewPersonBody) => call<PersonMadeShape>('/people', { method: 'POST', body: sent }), { quiet: true });
  const submit = () => {
    if (body.name.trim() === '' || !/^\S+@\S+\.\S+$/.test(body.email)) return setError('Give a name and an e-mail address.');
    make.mutate(body, {
      onSuccess: ({ personId }) => {
        toast(`Invitation sent to ${body.email}`);
        void navigate(`/people/${personId}`);
      },
      onError: (problem) => setError(wordsOf(problem)),
    });
  };
  return (
    <Dialog open onClose={onClose} title="Take on a person" description="An invitation goes out by mail: a link to choose a password.">
      <div className="grid sm:grid-cols-2 gap-x-3">
        <Field label="Name" required>
          {(control) => (
            <input {...control} className="field" value={body.name} onChange={(event) => change({ name: event.target.value })} />
          )}
        </Field>
        <Field label="E-mail" required>
          {(control) => (
            <input
              {...control}
              type="email"
              className="field"
              value={body.email}
              onChange={(event) => change({ email: event.target.value })}
            />
          )}
        </Field>
      </div>
      <RoleField value={body.role} onChange={(role) => change({ role })} />
      <div className="grid sm:grid-cols-2 gap-x-3">
        <ZoneField value={body.zone} onChange={(zone) => change({ zone })} />
        <RegionField value={body.region} onChange={(region) => change({ region })} />
      </div>
      <WeekField label="Hours" value={body.weeklyMinutes} onChange={(weeklyMinutes) => change({ weeklyMinutes })} />
      {error && (
        <p role="alert" className="text-rhubarb font-medium mb-2">
          {error}
        </p>
      )}
      <div className="flex justify-end gap-2">
        <Button onClick={onClose}>Not yet</Button>
        <Button look="main" disabled={make.isPending} onClick={submit}>
          Take on and invite
        </Button>
      </div>
    </Dialog>
  );
}

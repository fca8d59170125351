import { NewPersonBody, type PersonMadeShape } from '@zesting/contract';
import { useNavigate } from 'react-router';
import { toast } from 'sonner';
import { call } from '../../lib/api';
import { useSession, useWrite } from '../../lib/queries';
import { useBodyForm } from '../../lib/use-body-form';
import { Field } from '../../ui/field';
import { FormDialog } from '../../ui/form-dialog';
import { WeekField, ZoneField } from '../../ui/setup-fields';
import { RegionField } from '../../parts/region-field';
import { RoleField } from './person-fields';

/** Takes somebody on: the invitation goes out by mail; skills and clients stand on the page. */
export function NewPersonDialog({ onClose }: { onClose: () => void }) {
  const { agency } = useSession();
  const navigate = useNavigate();
  const make = useWrite((sent: NewPersonBody) => call<PersonMadeShape>('/people', { method: 'POST', body: sent }), { quiet: true });
  const form = useBodyForm<NewPersonBody>(
    NewPersonBody,
    {
      name: '',
      email: '',
      role: 'staff',
      zone: agency.zone,
      region: agency.region,
      weeklyMinutes: [480, 480, 480, 480, 480, 0, 0],
      skills: {},
    },
    {
      send: async (body) => {
        const { personId } = await make.mutateAsync(body);
        toast(`Invitation sent to ${body.email}`);
        void navigate(`/people/${personId}`, { replace: true });
      },
    },
  );
  const { body, change, errorOf } = form;
  return (
    <FormDialog
      form={form}
      onClose={onClose}
      title="Take on a person"
      description="An invitation goes out by mail: a link to choose a password."
      action="Take on and invite"
    >
      <div className="grid sm:grid-cols-2 gap-x-3">
        <Field label="Name" required error={errorOf('name')}>
          {(control) => (
            <input {...control} className="field" value={body.name} onChange={(event) => change({ name: event.target.value })} />
          )}
        </Field>
        <Field label="E-mail" required error={errorOf('email')}>
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
    </FormDialog>
  );
}

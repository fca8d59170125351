import { MarkOutBody, type PlacementShape } from '@zesting/contract';
import { dayIn, timeIn } from '@zesting/core';
import { call } from '../lib/api';
import { zoneWords } from '../lib/format';
import { present } from '../lib/now';
import { useSession, useWrite } from '../lib/queries';
import { useBodyForm, type BodyForm } from '../lib/use-body-form';
import { Field } from '../ui/field';
import { DayField } from '../ui/day-field';
import { TimeField } from '../ui/setup-fields';

/** The day and time of an instant by a client's clock, as a form takes them. */
export const clockTimes = (instant: string, zone: string): Pick<MarkOutBody, 'on' | 'at'> => ({
  on: dayIn(instant, zone),
  at: timeIn(instant, zone),
});

/** Where what went out can be seen. */
function AddressField({ form, label, help }: { form: BodyForm<MarkOutBody>; label: string; help: string }) {
  return (
    <Field label={label} help={help} error={form.errorOf('address')}>
      {(control) => (
        <input
          {...control}
          type="url"
          className="field"
          placeholder="https://…"
          value={form.body.address ?? ''}
          onChange={(event) => form.change({ address: event.target.value.trim() || null })}
        />
      )}
    </Field>
  );
}

/** When it really went out, and where it can be seen. */
export function OutFields({ form, placement }: { form: BodyForm<MarkOutBody>; placement: PlacementShape }) {
  const { todayOn } = useSession();
  return (
    <>
      <div className="grid grid-cols-2 gap-3">
        <DayField
          label="It went out on"
          error={form.errorOf('on')}
          todayOn={todayOn}
          value={form.body.on ?? ''}
          onChange={(on) => form.change({ on: on || null })}
        />
        <TimeField
          label="At"
          help={`${zoneWords(placement.zone)} time`}
          value={form.body.at ?? ''}
          onChange={(at) => form.change({ at: at || null })}
        />
      </div>
      <AddressField form={form} label="Where can it be seen?" help="May be left empty, and given later." />
    </>
  );
}

/** The form that marks a placement as out, now unless it says otherwise. */
export function useMarkOut(placement: PlacementShape, onDone: () => void): BodyForm<MarkOutBody> {
  const mark = useWrite((body: MarkOutBody) => call(`/placements/${placement.id}/out`, { method: 'POST', body }), { quiet: true });
  return useBodyForm<MarkOutBody>(
    MarkOutBody,
    { address: null, ...clockTimes(present().toISOString(), placement.zone) },
    {
      send: async (body) => {
        await mark.mutateAsync(body);
        onDone();
      },
    },
  );
}

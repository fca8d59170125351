import { MarkOutBody, type PlacementShape } from '@zesting/contract';
import { dayIn, timeIn } from '@zesting/core';
import { zoneWords } from '../../lib/format';
import { present } from '../../lib/now';
import { useSession } from '../../lib/queries';
import type { BodyForm } from '../../lib/use-body-form';
import { AddressField } from '../../parts/placement-dialog';
import { DayField } from '../../ui/day-field';
import { TimeField } from '../../ui/setup-fields';

/** The day and time of an instant by a client's clock, as a form takes them. */
export const clockTimes = (instant: string, zone: string): Pick<MarkOutBody, 'on' | 'at'> => ({
  on: dayIn(instant, zone),
  at: timeIn(instant, zone),
});

export const nowIn = (zone: string): Pick<MarkOutBody, 'on' | 'at'> => clockTimes(present().toISOString(), zone);

/** When it really went out, and where it can be seen. */
export function OutTimeFields({ form, placement }: { form: BodyForm<MarkOutBody>; placement: PlacementShape }) {
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

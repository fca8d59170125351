import { MarkOutBody, type PlacementShape } from '@zesting/contract';
import { useState } from 'react';
import { call } from '../lib/api';
import { dayWords } from '../lib/format';
import { useWrite } from '../lib/queries';
import { useBodyForm } from '../lib/use-body-form';
import { FormDialog } from '../ui/form-dialog';
import { clockTimes, OutFields } from './out-fields';

/** What can be corrected of what is out: where it is, and when it went. */
export function OutDialog({ placement: now, onClose }: { placement: PlacementShape; onClose: () => void }) {
  const [placement] = useState(now); // as it was when the dialog was opened
  const correct = useWrite(
    (body: MarkOutBody) => call(`/placements/${placement.id}/address`, { method: 'PATCH', body, version: placement.version }),
    { quiet: true },
  );
  const first = clockTimes(placement.outAt ?? '', placement.zone);
  const form = useBodyForm<MarkOutBody>(
    MarkOutBody,
    { address: placement.outAddress, ...first },
    {
      send: async ({ address, on, at }) => {
        const isAnotherTime = on !== first.on || at !== first.at; // seconds are kept where nobody changed it
        await correct.mutateAsync({ address: address ?? null, ...(isAnotherTime ? { on: on ?? null, at: at ?? null } : {}) });
        onClose();
      },
    },
  );
  return (
    <FormDialog
      form={form}
      onClose={onClose}
      title={`Where it is on ${placement.channelName}`}
      description={placement.on ? `Meant for ${dayWords(placement.on)}, ${placement.at ?? ''}. The record keeps what was said before.` : ''}
      action="Save"
      leave="Leave as it was"
    >
      <OutFields form={form} placement={placement} />
    </FormDialog>
  );
}

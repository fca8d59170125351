import { SettleSendingBody, type GoingOutRowShape } from '@zesting/contract';
import { useState } from 'react';
import { toast } from 'sonner';
import { call } from '../../lib/api';
import { instantWords } from '../../lib/format';
import { useWrite } from '../../lib/queries';
import { sendingWords } from '../../lib/sending-words';
import { useBodyForm } from '../../lib/use-body-form';
import { clockTimes, OutFields } from '../../parts/out-fields';
import { FormDialog } from '../../ui/form-dialog';

const CHOICES = [
  [true, 'It is out', 'Somebody sees it there.'],
  [false, 'It is not out', 'Nobody sees it there. It can be sent again, or posted by hand.'],
] as const;

/** What became of what the channel does not say: a person looks there and says it. */
export function SettleDialog({ row: shown, onClose }: { row: GoingOutRowShape; onClose: () => void }) {
  const [row] = useState(shown); // as it was when the dialog was opened
  const settle = useWrite((body: SettleSendingBody) => call(`/placements/${row.id}/settle`, { method: 'POST', body }), { quiet: true });
  const form = useBodyForm<SettleSendingBody>(
    SettleSendingBody,
    { isOut: true, address: null, ...clockTimes(row.sending?.claimedAt ?? row.publishAt, row.zone) },
    {
      send: async ({ isOut, ...rest }) => {
        await settle.mutateAsync(isOut ? { isOut, ...rest } : { isOut });
        toast(isOut ? 'Noted: it is out.' : 'Noted: it is not out.');
        onClose();
      },
    },
  );
  return (
    <FormDialog
      form={form}
      onClose={onClose}
      title={row.pieceTitle}
      description={`${row.channelName}. ${row.sending ? sendingWords(row.sending, instantWords) : ''}`}
      action={form.body.isOut ? 'It is out' : 'It is not out'}
    >
      <fieldset className="mb-3">
        <legend className="font-medium mb-1">What do you see there?</legend>
        {CHOICES.map(([isOut, words, help]) => (
          <label key={words} className="flex items-start gap-2 min-h-8 py-1">
            <input
              type="radio"
              name="settled"
              className="size-4 accent-pine mt-0.5"
              checked={form.body.isOut === isOut}
              onChange={() => form.change({ isOut })}
            />
            <span>
              {words}. <span className="text-muted">{help}</span>
            </span>
          </label>
        ))}
      </fieldset>
      {form.body.isOut && <OutFields form={form} placement={row} />}
    </FormDialog>
  );
}

import { useQuery } from '@tanstack/react-query';
import { SettleSendingBody, type GoingOutRowShape } from '@zesting/contract';
import { ExternalLink } from 'lucide-react';
import { useState } from 'react';
import { toast } from 'sonner';
import { handOutQuery } from '../../api/going-out';
import { call } from '../../lib/api';
import { instantWords } from '../../lib/format';
import { useWrite } from '../../lib/queries';
import { sendingWords } from '../../lib/sending-words';
import { useBodyForm } from '../../lib/use-body-form';
import { clockTimes, OutFields } from '../../parts/out-fields';
import { buttonClass } from '../../ui/button';
import { FormDialog } from '../../ui/form-dialog';

const CHOICES = [
  [true, 'It is out', 'Somebody sees it there.'],
  [false, 'It is not out', 'Nobody sees it there. It can be sent again, or posted by hand.'],
] as const;

/** What became of what the channel does not say: a person looks there and says it. */
export function SettleDialog({ row: shown, onClose }: { row: GoingOutRowShape; onClose: () => void }) {
  const [row] = useState(shown); // as it was when the dialog was opened
  const [chosen, setChosen] = useState(false); // nobody is led to either word
  const { data: handOut } = useQuery(handOutQuery(row.id));
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
      form={{ ...form, busy: form.busy || !chosen }}
      onClose={onClose}
      title={row.pieceTitle}
      description={`${row.channelName}. ${row.sending ? sendingWords(row.sending, instantWords) : ''}`}
      action={!chosen ? 'Say it' : form.body.isOut ? 'It is out' : 'It is not out'}
    >
      {handOut?.postingAddress && (
        <p className="mb-3">
          <a href={handOut.postingAddress} target="_blank" rel="noreferrer" className={buttonClass()}>
            <ExternalLink size={15} aria-hidden /> Look at {row.channelName}
          </a>
        </p>
      )}
      <fieldset className="mb-3">
        <legend className="font-medium mb-1">What do you see there?</legend>
        {CHOICES.map(([isOut, words, help]) => (
          <label key={words} className="flex items-start gap-2 min-h-8 py-1">
            <input
              type="radio"
              name="settled"
              className="size-4 accent-pine mt-0.5"
              checked={chosen && form.body.isOut === isOut}
              onChange={() => {
                setChosen(true);
                form.change({ isOut });
              }}
            />
            <span>
              {words}. <span className="text-muted">{help}</span>
            </span>
          </label>
        ))}
      </fieldset>
      {chosen && form.body.isOut && <OutFields form={form} placement={row} />}
    </FormDialog>
  );
}

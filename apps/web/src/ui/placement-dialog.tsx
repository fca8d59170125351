import type { PlacementShape } from '@zesting/contract';
import { useState } from 'react';
import { call, wordsOf } from '../lib/api';
import { dayWords, zoneWords } from '../lib/format';
import { useMove } from '../lib/placements';
import { useWrite } from '../lib/queries';
import { Button } from './button';
import { Dialog } from './dialog';
import { Field } from './field';
import { PlacementTag } from './placement-tag';

interface PlacementDialogProps {
  readonly placement: PlacementShape;
  readonly title: string;
  readonly earliestOn?: string | null;
  readonly onClose: () => void;
}

/** Date and time of a placement; taking the date away; marking it as out; cancelling it. Reached by keyboard as by pointer. */
export function PlacementDialog({ placement: shown, title, earliestOn, onClose }: PlacementDialogProps) {
  const [placement] = useState(shown); // as it was opened: what others do meanwhile must be noticed, not overwritten
  const [on, setOn] = useState(placement.on ?? '');
  const [at, setAt] = useState(placement.at ?? '');
  const [error, setError] = useState<string>();
  const move = useMove();
  const save = () => {
    if (on === '') setError('Choose a day, or take the date away.');
    else move.go({ placement, on, at: at || null }, { onSuccess: onClose, onError: setError });
  };
  return (
    <Dialog
      open
      onClose={onClose}
      title={title}
      description={`${placement.channelName}. Times are ${zoneWords(placement.zone)} time. Other channels stay where they are.`}
    >
      <p className="mb-3">
        <PlacementTag state={placement.state} />
      </p>
      <div className="grid grid-cols-2 gap-3">
        <Field
          label="Day"
          error={error}
          help={earliestOn && earliestOn > on ? `Its path can meet ${dayWords(earliestOn)} or later` : undefined}
        >
          {(control) => <input {...control} type="date" className="field" value={on} onChange={(event) => setOn(event.target.value)} />}
        </Field>
        <Field label="Time" help="Empty: the usual time">
          {(control) => <input {...control} type="time" className="field" value={at} onChange={(event) => setAt(event.target.value)} />}
        </Field>
      </div>
      <div className="flex flex-wrap justify-end gap-2">
        {placement.on && (
          <Button className="mr-auto" onClick={() => move.go({ placement, on: null }, { onSuccess: onClose, onError: setError })}>
            Take the date away
          </Button>
        )}
        <Button look="main" disabled={move.isPending} onClick={save}>
          {placement.on ? 'Move it there' : 'Place it there'}
        </Button>
      </div>
      {(placement.state === 'scheduled' || placement.state === 'missed') && <MarkOut placement={placement} onClose={onClose} />}
      <CancelPlacement placement={placement} onClose={onClose} />
    </Dialog>
  );
}

function MarkOut({ placement, onClose }: { placement: PlacementShape; onClose: () => void }) {
  const [address, setAddress] = useState('');
  const [error, setError] = useState<string>();
  const mark = useWrite((body: { address: string }) => call(`/placements/${placement.id}/out`, { method: 'POST', body }), { quiet: true });
  return (
    <div className="mt-4 pt-3 border-t border-line">
      <Field label="It is out: where can it be seen?" error={error}>
        {(control) => (
          <input
            {...control}
            type="url"
            className="field"
            placeholder="https://…"
            value={address}
            onChange={(event) => setAddress(event.target.value)}
          />
        )}
      </Field>
      <Button
        disabled={mark.isPending}
        onClick={() =>
          mark.mutate(
            { address },
            { onSuccess: onClose, onError: (problem) => setError(`${wordsOf(problem)} An address begins with https://`) },
          )
        }
      >
        Mark as out
      </Button>
    </div>
  );
}

function CancelPlacement({ placement, onClose }: { placement: PlacementShape; onClose: () => void }) {
  const cancel = useWrite(() => call(`/placements/${placement.id}/cancel`, { method: 'POST' }));
  return (
    <p className="mt-4 pt-3 border-t border-line text-[13px]">
      <button type="button" className="text-rhubarb underline min-h-6" onClick={() => cancel.mutate(undefined, { onSuccess: onClose })}>
        Cancel this placement
      </button>{' '}
      <span className="text-muted">The piece stays on its other channels.</span>
    </p>
  );
}

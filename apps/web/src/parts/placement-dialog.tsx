import type { CalendarEntryShape, ChannelShape, PlacementShape } from '@zesting/contract';
import { useQuery } from '@tanstack/react-query';
import { useState, type ReactNode } from 'react';
import { Link } from 'react-router';
import { embargoQuery } from '../api/embargoes';
import { dayWords, zoneWords } from '../lib/format';
import { usePlacements } from '../lib/placements';
import { useClients, useDaysOff, useSession } from '../lib/queries';
import { outsideWords } from '../lib/words';
import { Button } from '../ui/button';
import { DayField } from '../ui/day-field';
import { Dialog } from '../ui/dialog';
import { Field } from '../ui/field';
import { PlacementTag } from '../ui/placement-tag';
import { TimeField } from '../ui/setup-fields';
import { OutFields, useMarkOut } from './out-fields';

interface PlacementDialogProps {
  readonly placement: PlacementShape;
  readonly title: string;
  readonly earliestOn?: string | null;
  /** other dated placements of the piece that are not out */
  readonly siblings?: number;
  /** what it could be swapped with: other entries of the client that are not out */
  readonly others?: readonly CalendarEntryShape[];
  /** the client's channels, for placing the piece once more */
  readonly channels?: readonly ChannelShape[];
  readonly onClose: () => void;
}

/**
 * All that can be done with a placement, by keyboard as by pointer: date and time, this one or all; swapping; placing once more;
 * marking it as out; cancelling.
 */
export function PlacementDialog({
  placement: shown,
  title,
  earliestOn,
  siblings = 0,
  others = [],
  channels = [],
  onClose,
}: PlacementDialogProps) {
  const [placement] = useState(shown); // as it was opened: what others do meanwhile must be noticed, not overwritten
  const { cancel } = usePlacements();
  const { to } = useClients();
  const isOnItsWay = placement.state === 'sending' || placement.state === 'unsure';
  return (
    <Dialog open onClose={onClose} title={title} description={`${placement.channelName}. Times are ${zoneWords(placement.zone)} time.`}>
      <p className="mb-3">
        <PlacementTag state={placement.state} />
      </p>
      {isOnItsWay ? (
        <p className="mb-3">
          {placement.state === 'sending' ? 'It is on its way to the channel: nothing of it can be changed now.' : 'It may be out or not.'}{' '}
          <Link to={to('/calendar/going-out')} className="text-pine underline">
            Going out
          </Link>
        </p>
      ) : (
        <Dates placement={placement} siblings={siblings} earliestOn={earliestOn ?? null} onClose={onClose} />
      )}
      {(placement.state === 'scheduled' || placement.state === 'missed' || placement.state === 'failed') && (
        <MarkOut placement={placement} onClose={onClose} />
      )}
      {!isOnItsWay && others.length > 0 && <Swap placement={placement} others={others} onClose={onClose} />}
      {channels.length > 0 && <OnceMore placement={placement} channels={channels} onClose={onClose} />}
      {!isOnItsWay && (
        <p className="mt-3 pt-3 border-t border-line text-[13px]">
          <button type="button" className="text-rhubarb underline min-h-6" onClick={() => cancel(placement, { onSuccess: onClose })}>
            Cancel this placement
          </button>{' '}
          <span className="text-muted">The piece stays on its other channels; it can be undone.</span>
        </p>
      )}
    </Dialog>
  );
}

interface PartProps {
  readonly placement: PlacementShape;
  readonly onClose: () => void;
}

function Dates({ placement, siblings, earliestOn, onClose }: PartProps & { siblings: number; earliestOn: string | null }) {
  const [on, setOn] = useState(placement.on ?? '');
  const [at, setAt] = useState(placement.at ?? '');
  const [scope, setScope] = useState<'this' | 'all'>('this');
  const [error, setError] = useState<string>();
  const { move, isPending } = usePlacements();
  const { todayOn } = useSession();
  const off = useDaysOff({ clientId: placement.clientId, placing: true });
  const { data: { rule } = { rule: null } } = useQuery(embargoQuery(placement.pieceId));
  const against = [
    earliestOn && on && earliestOn > on ? `Its path can meet ${dayWords(earliestOn)} or later` : '',
    rule && on ? outsideWords(rule, on) : '',
  ].filter(Boolean);
  const save = () => {
    if (on === '') setError('Choose a day, or take the date away.');
    else move({ placement, on, at: at || null, scope }, { onSuccess: onClose, onError: setError });
  };
  return (
    <form
      noValidate
      onSubmit={(event) => {
        event.preventDefault();
        save();
      }}
    >
      <div className="grid grid-cols-2 gap-3">
        <DayField
          label="Day"
          error={error}
          help={against.length > 0 ? against.join('. ') : undefined}
          todayOn={todayOn}
          off={off}
          marks={earliestOn ? [{ on: earliestOn, words: 'Earliest that its path can meet' }] : []}
          value={on}
          onChange={setOn}
        />
        <TimeField
          label="Time"
          help={`${zoneWords(placement.zone)}; empty: the usual time`}
          optional
          placeholder="usual"
          value={at}
          onChange={setAt}
        />
      </div>
      {siblings > 0 && placement.on && (
        <fieldset className="mb-3">
          <legend className="sr-only">What moves</legend>
          {(
            [
              ['this', 'Only this one'],
              ['all', `All ${siblings + 1} not yet out, by as many days`],
            ] as const
          ).map(([value, words]) => (
            <label key={value} className="flex items-center gap-2 min-h-7">
              <input type="radio" name="scope" className="size-4 accent-pine" checked={scope === value} onChange={() => setScope(value)} />
              {words}
            </label>
          ))}
        </fieldset>
      )}
      <div className="flex flex-wrap justify-end gap-2">
        {placement.on && (
          <Button className="mr-auto" onClick={() => move({ placement, on: null }, { onSuccess: onClose, onError: setError })}>
            Take the date away
          </Button>
        )}
        <Button look="main" type="submit" disabled={isPending}>
          {placement.on ? 'Move it there' : 'Place it there'}
        </Button>
      </div>
    </form>
  );
}

/** A part of the dialog that opens on demand. */
function Fold({ title, children }: { title: string; children: ReactNode }) {
  return (
    <details className="mt-3 pt-2 border-t border-line">
      <summary className="min-h-7 text-pine font-medium">{title}</summary>
      <div className="pt-2">{children}</div>
    </details>
  );
}

function Swap({ placement, others, onClose }: PartProps & { others: readonly CalendarEntryShape[] }) {
  const [withId, setWithId] = useState('');
  const [error, setError] = useState<string>();
  const { swap, isPending } = usePlacements();
  const dated = others.filter((other) => other.on !== null || placement.on !== null);
  return (
    <Fold title="Swap dates with another…">
      <Field label="Swap with" error={error}>
        {(control) => (
          <select {...control} className="field" value={withId} onChange={(event) => setWithId(event.target.value)}>
            <option value="">choose a placement…</option>
            {dated.map((other) => (
              <option key={other.id} value={other.id}>
                {other.on ? `${dayWords(other.on)}, ${other.at ?? ''}` : 'no date'} · {other.pieceTitle} · {other.channelName}
              </option>
            ))}
          </select>
        )}
      </Field>
      <Button disabled={withId === '' || isPending} onClick={() => swap(placement.id, withId, { onSuccess: onClose, onError: setError })}>
        Swap the two
      </Button>
    </Fold>
  );
}

function OnceMore({ placement, channels, onClose }: PartProps & { channels: readonly ChannelShape[] }) {
  const [channelId, setChannelId] = useState(placement.channelId);
  const [on, setOn] = useState('');
  const [at, setAt] = useState('');
  const [error, setError] = useState<string>();
  const { duplicate, isPending } = usePlacements();
  const { todayOn } = useSession();
  const off = useDaysOff({ clientId: placement.clientId, placing: true });
  const place = () => {
    if (on === '') setError('Choose a day.');
    else duplicate(placement.id, { channelId, on, at: at || null }, { onSuccess: onClose, onError: setError });
  };
  return (
    <Fold title="Place it once more…">
      <Field label="Channel">
        {(control) => (
          <select {...control} className="field" value={channelId} onChange={(event) => setChannelId(event.target.value)}>
            {channels.map((channel) => (
              <option key={channel.id} value={channel.id}>
                {channel.name}
              </option>
            ))}
          </select>
        )}
      </Field>
      <div className="grid grid-cols-2 gap-3">
        <DayField label="Day there" error={error} todayOn={todayOn} off={off} value={on} onChange={setOn} />
        <TimeField label="Time there" help="Empty: the usual time" optional placeholder="usual" value={at} onChange={setAt} />
      </div>
      <Button disabled={isPending} onClick={place}>
        Place it once more
      </Button>
    </Fold>
  );
}

function MarkOut({ placement, onClose }: PartProps) {
  const form = useMarkOut(placement, onClose);
  return (
    <form noValidate onSubmit={form.onSubmit} className="mt-4 pt-3 border-t border-line">
      <h3 className="text-base mb-2">It is out</h3>
      <OutFields form={form} placement={placement} />
      {form.wrong && (
        <p role="alert" className="text-rhubarb font-medium mb-2">
          {form.wrong}
        </p>
      )}
      <Button type="submit" disabled={form.busy}>
        Mark as out
      </Button>
    </form>
  );
}

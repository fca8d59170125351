import { useQuery } from '@tanstack/react-query';
import {
  OwnObservanceBody,
  type ClientShape,
  type ObservanceMadeShape,
  type ObservanceShape,
  type TakeObservanceBody,
} from '@zesting/contract';
import { useState } from 'react';
import { toast } from 'sonner';
import { observancesQuery } from '../../api/clients';
import { call, wordsOf } from '../../lib/api';
import { count, dayWords } from '../../lib/format';
import { useSession, useWrite } from '../../lib/queries';
import { useHeld } from '../../lib/use-held';
import { useBodyForm } from '../../lib/use-body-form';
import { Button } from '../../ui/button';
import { Choice } from '../../ui/choice';
import { DayField } from '../../ui/day-field';
import { Dialog } from '../../ui/dialog';
import { FormDialog } from '../../ui/form-dialog';
import { Failed, Loading } from '../../ui/page';
import { Tag } from '../../ui/tags';
import { LinesField, TextField } from '../../ui/text-field';

const SHOWN = [
  ['fitting', 'That fit'],
  ['all', 'All'],
  ['taken', 'On the calendar'],
] as const;
type Shown = (typeof SHOWN)[number][0];

const SOURCES: Record<ObservanceShape['from'], string> = { region: 'of the region', world: 'international', own: 'added' };

/** Days of note, of which a client takes the few that fit: what they have in common with its pillars is said, nothing is taken unasked. */
export function ObservancesDialog({ client, onClose }: { client: ClientShape; onClose: () => void }) {
  const list = useQuery(observancesQuery(client.id));
  const [shown, setShown] = useState<Shown>();
  const [words, setWords] = useState('');
  const [isAdding, setAdding] = useState(false);
  if (isAdding)
    return (
      <AddDialog
        client={client}
        onClose={() => {
          setAdding(false);
          setWords(''); // what was looked for before is not what was added
        }}
      />
    );
  const all = list.data?.observances ?? [];
  const kind = shown ?? (all.some(({ fit, isTaken }) => fit.length > 0 && !isTaken) ? 'fitting' : 'all');
  const looked = words.trim().toLowerCase();
  const kept = all.filter(
    (day) =>
      (looked !== '' || kind === 'all' || (kind === 'taken' ? day.isTaken : day.fit.length > 0 || day.isTaken)) &&
      (kind !== 'taken' || day.isTaken) &&
      [day.name, ...day.subjects].some((text) => text.toLowerCase().includes(looked)),
  );
  return (
    <Dialog
      open
      onClose={onClose}
      title={`Observances for ${client.name}`}
      description="Over the next twelve months; what is taken comes every year."
      wide
    >
      <div className="flex flex-wrap items-center gap-3 mb-3">
        <Choice label="Which observances" value={kind} options={SHOWN} onChange={setShown} />
        <input
          className="field w-56"
          aria-label="Name or subject"
          placeholder="Name or subject"
          value={words}
          onChange={(event) => setWords(event.target.value)}
        />
        <span className="text-muted text-[13px]">
          {kept.length} of {count(all.length, 'day')}
        </span>
        <Button className="ml-auto" onClick={() => setAdding(true)}>
          Add one…
        </Button>
      </div>
      {list.isError && <Failed message={wordsOf(list.error)} onRetry={() => void list.refetch()} />}
      {list.isPending && <Loading />}
      {list.data && !list.data.pillars && (
        <p className="text-rind text-[13px] mb-2">Once the client has pillars, what fits them stands out here.</p>
      )}
      {list.data && kept.length === 0 && <p className="text-muted">None of that kind.</p>}
      <ul className="grid" aria-label="Observances">
        {kept.map((day) => (
          <ObservanceLine key={`${day.on}${day.name}`} client={client} day={day} />
        ))}
      </ul>
    </Dialog>
  );
}

function ObservanceLine({ client, day }: { client: ClientShape; day: ObservanceShape }) {
  const { role } = useSession();
  const take = useWrite((body: TakeObservanceBody) => call(`/clients/${client.id}/observances`, { method: 'PUT', body }));
  const remove = useWrite((id: string) => call(`/observances/${id}`, { method: 'DELETE' }));
  const [isTaken, hold] = useHeld(day.isTaken);
  return (
    <li className="border-t border-line first:border-t-0 py-1 flex flex-wrap items-center gap-x-3">
      <label className="flex items-center gap-2 min-h-8 flex-1 min-w-64">
        <input
          type="checkbox"
          className="size-4 accent-pine"
          checked={isTaken}
          onChange={(event) => {
            hold(event.target.checked);
            take.mutate({ name: day.name, isTaken: event.target.checked }, { onError: () => hold(undefined) });
          }}
        />
        <span className="tabular text-muted w-32 shrink-0">{dayWords(day.on)}</span>
        <span>{day.name}</span>
      </label>
      {day.fit.length > 0 && <Tag tone="pine">fits: {day.fit.join(', ')}</Tag>}
      <span className="text-muted text-[12px] w-24 text-right">{SOURCES[day.from]}</span>
      {day.ownId && (!day.isOfAll || role === 'lead') && (
        <button
          type="button"
          className="text-rhubarb underline text-[13px] min-h-6"
          aria-label={`Remove ${day.name} from the list`}
          disabled={remove.isPending}
          onClick={() => remove.mutate(day.ownId ?? '')}
        >
          remove
        </button>
      )}
    </li>
  );
}

function AddDialog({ client, onClose }: { client: ClientShape; onClose: () => void }) {
  const { role, todayOn } = useSession();
  const add = useWrite((body: OwnObservanceBody) => call<ObservanceMadeShape>('/observances', { method: 'POST', body }), { quiet: true });
  const form = useBodyForm<OwnObservanceBody>(
    OwnObservanceBody,
    { clientId: client.id, name: '', on: '', subjects: [] },
    {
      send: async (body) => {
        await add.mutateAsync(body);
        toast(body.clientId === null ? `${body.name} is on the list of every client` : `${body.name} stands on the calendar, every year`);
        onClose();
      },
      words: { on: { isDay: 'Say on which day it is.' } },
    },
  );
  const { body, change, errorOf } = form;
  return (
    <FormDialog form={form} onClose={onClose} title="Add a day of note" action="Add it">
      <TextField label="Name" required error={errorOf('name')} maxLength={100} value={body.name} onChange={(name) => change({ name })} />
      <DayField
        label="On"
        required
        help="It comes every year on that date."
        value={body.on}
        todayOn={todayOn}
        error={errorOf('on')}
        onChange={(on) => change({ on })}
      />
      <LinesField
        label="What it is about, a word on each line"
        error={errorOf('subjects')}
        rows={3}
        lines={body.subjects}
        onChange={(subjects) => change({ subjects })}
      />
      {role === 'lead' && (
        <label className="flex items-center gap-2 min-h-8 mb-2">
          <input
            type="checkbox"
            className="size-4 accent-pine"
            checked={body.clientId === null}
            onChange={(event) => change({ clientId: event.target.checked ? null : client.id })}
          />
          On the list of every client; each takes it by itself
        </label>
      )}
    </FormDialog>
  );
}

import type { FoundTimeOffShape, PersonPageShape, TimeOffBody } from '@zesting/contract';
import { CalendarPlus } from 'lucide-react';
import { useRef, useState } from 'react';
import { toast } from 'sonner';
import { call, upload, wordsOf } from '../../lib/api';
import { count, dayWords } from '../../lib/format';
import { useDaysOff, useSession, useWrite } from '../../lib/queries';
import { Button } from '../../ui/button';
import { Dialog } from '../../ui/dialog';
import { Field } from '../../ui/field';
import { AwayDialog } from './away-dialog';
import { SpanFields } from '../../ui/span-fields';

const spanWords = (startOn: string, endOn: string, part: number): string =>
  `${dayWords(startOn)}${endOn === startOn ? '' : ` to ${dayWords(endOn)}`}${part < 1 ? ', half days' : ''}`;

/** Absences, by hand and out of a calendar file, and the public holidays ahead. */
export function TimeOffSection({ person }: { person: PersonPageShape }) {
  const mayEdit = person.canEdit || person.isSelf;
  const [found, setFound] = useState<FoundTimeOffShape | null>(null);
  const remove = useWrite((id: string) => call(`/people/${person.id}/time-off/${id}`, { method: 'DELETE' }));
  const add = useWrite((body: TimeOffBody) => call(`/people/${person.id}/time-off`, { method: 'POST', body }));
  const takeAway = (off: PersonPageShape['timeOff'][number]) =>
    remove.mutate(off.id, {
      onSuccess: () =>
        toast('Time off taken away', {
          action: {
            label: 'Undo',
            onClick: () => add.mutate({ startOn: off.startOn, endOn: off.endOn, part: off.part, note: off.note }),
          },
        }),
    });
  return (
    <section aria-label="Time off" className="card p-4">
      <h2 className="text-lg mb-2">Time off</h2>
      {person.timeOff.length === 0 && <p className="text-muted mb-2">None entered. What is due is planned around what stands here.</p>}
      <ul className="mb-3">
        {person.timeOff.map((off) => (
          <li key={off.id} className="flex flex-wrap items-center gap-x-3 min-h-9 border-t border-line first:border-t-0">
            <span className="tabular font-medium">{spanWords(off.startOn, off.endOn, off.part)}</span>
            <span className="text-muted truncate max-w-56">{off.note}</span>
            {off.isImported && <span className="text-muted text-[12px]">from a calendar file</span>}
            {mayEdit && (
              <Button look="quiet" className="ml-auto" disabled={remove.isPending} onClick={() => takeAway(off)}>
                Take away<span className="sr-only"> {spanWords(off.startOn, off.endOn, off.part)}</span>
              </Button>
            )}
          </li>
        ))}
      </ul>
      {mayEdit && <AddTimeOff person={person} onFound={setFound} />}
      {found && <FoundDialog person={person} found={found} onClose={() => setFound(null)} />}
      <details className="mt-3">
        <summary className="text-pine font-medium min-h-6">Public holidays ahead ({person.holidays.length})</summary>
        <ul className="text-[13px] tabular grid gap-0.5 mt-1">
          {person.holidays.map((holiday) => (
            <li key={`${holiday.on}${holiday.name}`} className="flex gap-2">
              <span className="w-32 shrink-0">{dayWords(holiday.on)}</span>
              <span className="text-muted">{holiday.name}</span>
            </li>
          ))}
        </ul>
      </details>
    </section>
  );
}

function AddTimeOff({ person, onFound }: { person: PersonPageShape; onFound: (found: FoundTimeOffShape) => void }) {
  const { todayOn } = useSession();
  const off = useDaysOff({ personId: person.id });
  const empty: TimeOffBody = { startOn: '', endOn: '', part: 1, note: '' };
  const [body, setBody] = useState(empty);
  const [error, setError] = useState<string>();
  const input = useRef<HTMLInputElement>(null);
  const add = useWrite((sent: TimeOffBody) => call(`/people/${person.id}/time-off`, { method: 'POST', body: sent }), { quiet: true });
  const [asked, setAsked] = useState<TimeOffBody | null>(null);
  const ask = () => {
    if (body.startOn === '' || body.endOn === '') return setError('Choose the first and the last day.');
    if (body.endOn < body.startOn) return setError('The last day comes before the first.');
    setError(undefined);
    setAsked(body);
  };
  const submit = () => {
    if (body.startOn === '' || body.endOn === '') return setError('Choose the first and the last day.');
    setError(undefined);
    add.mutate(body, { onSuccess: () => setBody(empty), onError: (problem) => setError(wordsOf(problem)) });
  };
  const read = async (file: File | undefined) => {
    if (!file) return;
    try {
      onFound(await upload<FoundTimeOffShape>(`/people/${person.id}/time-off/read-file`, file));
    } catch (problem) {
      toast.error(`${file.name}: ${wordsOf(problem)}`);
    }
  };
  return (
    <>
      <div className="grid sm:grid-cols-3 gap-x-3">
        <SpanFields span={body} error={error} todayOn={todayOn} off={off} onChange={(span) => setBody({ ...body, ...span })} />
        <Field label="How much">
          {(control) => (
            <select
              {...control}
              className="field"
              value={body.part}
              onChange={(event) => setBody({ ...body, part: Number(event.target.value) })}
            >
              <option value={1}>whole days</option>
              <option value={0.5}>half days</option>
            </select>
          )}
        </Field>
        <div className="sm:col-span-3">
          <Field label="Note">
            {(control) => (
              <input
                {...control}
                className="field"
                maxLength={100}
                value={body.note ?? ''}
                onChange={(event) => setBody({ ...body, note: event.target.value })}
              />
            )}
          </Field>
        </div>
      </div>
      <div className="flex flex-wrap gap-2">
        <Button disabled={add.isPending} onClick={submit}>
          Add time off
        </Button>
        {person.canEdit && <Button onClick={ask}>See what becomes late…</Button>}
        <input
          ref={input}
          type="file"
          accept=".ics,text/calendar"
          className="sr-only"
          tabIndex={-1}
          aria-label="Calendar file"
          onChange={(event) => {
            void read(event.target.files?.[0]);
            event.target.value = '';
          }}
        />
        <Button look="quiet" onClick={() => input.current?.click()}>
          <CalendarPlus size={16} aria-hidden /> Read a calendar file…
        </Button>
      </div>
      {asked && (
        <AwayDialog
          personId={person.id}
          name={person.name}
          off={asked}
          onDone={() => {
            setAsked(null);
            setBody(empty);
          }}
          onClose={() => setAsked(null)}
        />
      )}
    </>
  );
}

/** What a calendar file holds, to be looked at before any of it counts. */
function FoundDialog({ person, found, onClose }: { person: PersonPageShape; found: FoundTimeOffShape; onClose: () => void }) {
  const [left, setLeft] = useState<readonly number[]>([]);
  const take = useWrite((body: { absences: FoundTimeOffShape['absences'] }) =>
    call(`/people/${person.id}/time-off/import`, { method: 'POST', body }),
  );
  const absences = found.absences.filter((_, index) => !left.includes(index));
  return (
    <Dialog
      open
      wide
      onClose={onClose}
      title="Absences in this file"
      description={`${count(found.absences.length, 'absence')} found. ${count(found.leftOut, 'event')} left out: free, cancelled, over, or on days off. What an earlier file brought is replaced.`}
    >
      <ul className="max-h-[50vh] overflow-auto mb-3">
        {found.absences.map((absence, index) => (
          <li key={`${absence.uid}${absence.startOn}`} className="border-t border-line first:border-t-0">
            <label className="flex items-center gap-3 min-h-9">
              <input
                type="checkbox"
                className="size-4 accent-pine"
                checked={!left.includes(index)}
                onChange={(event) => setLeft(event.target.checked ? left.filter((other) => other !== index) : [...left, index])}
              />
              <span className="tabular font-medium whitespace-nowrap">{spanWords(absence.startOn, absence.endOn, absence.part)}</span>
              <span className="text-muted truncate">{absence.note}</span>
            </label>
          </li>
        ))}
      </ul>
      <div className="flex justify-end gap-2">
        <Button onClick={onClose}>Not yet</Button>
        <Button look="main" disabled={take.isPending} onClick={() => take.mutate({ absences }, { onSuccess: onClose })}>
          Take over {count(absences.length, 'absence')}
        </Button>
      </div>
    </Dialog>
  );
}

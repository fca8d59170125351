import type { DatedEntryBody, DatedEntryShape, DatesFileShape, DatesPutShape, DatesReadShape } from '@zesting/contract';
import { DATED_KINDS, type DatedKind, type FigureOrder } from '@zesting/core';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { toast } from 'sonner';
import { routesQuery } from '../../api/production';
import { call, upload, wordsOf } from '../../lib/api';
import { count } from '../../lib/format';
import { useClients, useSession, useWrite } from '../../lib/queries';
import { MARKER_WORDS } from '../../lib/words';
import { ClientField } from '../../parts/client-field';
import { Button } from '../../ui/button';
import { Choice } from '../../ui/choice';
import { DayInput } from '../../ui/day-field';
import { Dialog } from '../../ui/dialog';
import { Field } from '../../ui/field';
import { FileField } from './file-field';

/** An entry as somebody corrects it. */
interface Row extends DatedEntryShape {
  readonly isMarker: boolean;
  readonly isRequest: boolean;
  readonly routeId: string | null;
}

const DOUBTS: Record<NonNullable<DatedEntryShape['doubt']>, string> = {
  no_day: 'No day found: give it one, or leave it out.',
  no_such_day: 'There is no such day.',
  weekday_differs: 'That day is another weekday: which of both is meant?',
  no_title: 'No words beside the day.',
};

/** What has a day and words stands on the calendar unless it is there already; the rest waits for a correction. */
const rowOf = (entry: DatedEntryShape): Row => ({
  ...entry,
  isMarker: entry.on !== null && entry.twin === null && entry.doubt !== 'no_title',
  isRequest: false,
  routeId: null,
});

/** Reads a client's month that was pasted as lines, shows it for correction, and puts it on the calendar and among the requests. */
export function DatesDialog({ onClose }: { onClose: () => void }) {
  const { clients, client } = useClients();
  const [clientId, setClientId] = useState(client?.id ?? clients[0]?.id ?? '');
  const [text, setText] = useState('');
  const [rows, setRows] = useState<readonly Row[] | null>(null);
  const [isAmbiguous, setIsAmbiguous] = useState(false);
  const [order, setOrder] = useState<FigureOrder>('day_first');
  const [failure, setFailure] = useState<string>();
  const [key] = useState(() => crypto.randomUUID());
  const read = useWrite(
    (body: { text: string; order?: FigureOrder }) => call<DatesReadShape>(`/clients/${clientId}/dates/read`, { method: 'POST', body }),
    { quiet: true },
  );
  const put = useWrite(
    (entries: readonly DatedEntryBody[]) =>
      call<DatesPutShape>(`/clients/${clientId}/dates`, { method: 'POST', body: { entries }, idempotencyKey: key }),
    { quiet: true },
  );
  const open = useWrite((file: File) => upload<DatesFileShape>(`/clients/${clientId}/dates/file`, file), { quiet: true });
  /** What a file says stands below what was typed already. */
  const add = async (file: File) => {
    setFailure(undefined);
    try {
      const found = await open.mutateAsync(file);
      setText((before) => [before.trimEnd(), found.text.trim()].filter(Boolean).join('\n'));
    } catch (problem) {
      setFailure(wordsOf(problem));
    }
  };
  const take = async (asked?: FigureOrder) => {
    if (text.trim() === '') return setFailure('Paste the lines first.');
    setFailure(undefined);
    try {
      const found = await read.mutateAsync({ text, ...(asked ? { order: asked } : {}) });
      setRows(found.entries.map(rowOf));
      if (!asked) setIsAmbiguous(found.isAmbiguous);
    } catch (problem) {
      setFailure(wordsOf(problem));
    }
  };
  const chosen = rows?.filter(({ isMarker, isRequest, routeId }) => isMarker || isRequest || routeId !== null) ?? [];
  const send = async () => {
    const wanting = chosen.find(({ on, title }) => on === null || title.trim() === '');
    if (wanting) return setFailure(`Line ${wanting.line} needs a day and words, or leave it out.`);
    try {
      const done = await put.mutateAsync(
        chosen.map(({ on, until, title, kind, isMarker, isRequest, routeId }) => ({
          on: on ?? '',
          until: until ?? on ?? '',
          title: title.trim().slice(0, 100),
          kind,
          isMarker,
          isRequest,
          routeId,
        })),
      );
      toast(
        [
          `${count(done.markers, 'date')} on the calendar`,
          ...(done.requests > 0 ? [count(done.requests, 'request')] : []),
          ...(done.pieces > 0 ? [count(done.pieces, 'planned piece')] : []),
        ].join(', '),
      );
      onClose();
    } catch (problem) {
      setFailure(wordsOf(problem));
    }
  };
  const change = (at: number, part: Partial<Row>) =>
    setRows((before) => before?.map((row, index) => (index === at ? { ...row, ...part } : row)) ?? null);
  return (
    <Dialog
      open
      onClose={onClose}
      title="A client’s month of dates"
      description="One line each, as it came: “Mon 7 Dec live talk”, “12.12. winter sale starts”."
      wide
    >
      {rows === null ? (
        <>
          <ClientField clientId={clientId} onChange={setClientId} />
          <Field label="Lines" required error={failure}>
            {(control) => (
              <textarea
                {...control}
                className="field font-mono text-[13px]"
                rows={12}
                maxLength={50_000}
                value={text}
                onChange={(event) => setText(event.target.value)}
              />
            )}
          </Field>
          <FileField
            label="Or a file"
            help="A calendar (.ics) or a table (CSV, XLSX): what it says stands among the lines then."
            accept=".ics,.csv,.tsv,.txt,.xlsx"
            disabled={open.isPending || clientId === ''}
            onFile={(file) => void add(file)}
          />
          <div className="flex justify-end gap-2">
            <Button onClick={onClose}>Not now</Button>
            <Button look="main" disabled={read.isPending || open.isPending} onClick={() => void take()}>
              Read them
            </Button>
          </div>
        </>
      ) : (
        <>
          {isAmbiguous && (
            <div className="flex flex-wrap items-center gap-3 mb-3 border-l-4 border-lake pl-3">
              <span>In figures such as 3/4, which is the day?</span>
              <Choice
                label="Order of figures"
                value={order}
                options={[
                  ['day_first', 'The first: 3 April'],
                  ['month_first', 'The second: 4 March'],
                ]}
                onChange={(next) => {
                  setOrder(next);
                  void take(next);
                }}
              />
            </div>
          )}
          <ol aria-label="Dates" className="divide-y divide-line mb-3">
            {rows.map((row, at) => (
              <Entry key={row.line} row={row} onChange={(part) => change(at, part)} />
            ))}
          </ol>
          {failure && (
            <p role="alert" className="text-rhubarb font-medium mb-3">
              {failure}
            </p>
          )}
          <div className="flex justify-end gap-2">
            <Button onClick={() => setRows(null)}>Back to the lines</Button>
            <Button look="main" disabled={chosen.length === 0 || put.isPending} onClick={() => void send()}>
              {chosen.length === 0 ? 'Nothing is ticked' : `Put ${count(chosen.length, 'line')}`}
            </Button>
          </div>
        </>
      )}
    </Dialog>
  );
}

function Entry({ row, onChange }: { row: Row; onChange: (part: Partial<Row>) => void }) {
  const { todayOn } = useSession();
  const { data: routes } = useQuery(routesQuery);
  return (
    <li className="py-2">
      <div className="grid gap-2 grid-cols-2 sm:grid-cols-[10.5rem_10.5rem_minmax(0,1fr)_8rem] items-center">
        <DayInput
          label={`Day of line ${row.line}`}
          todayOn={todayOn}
          value={row.on ?? ''}
          onChange={(on) => {
            const isLonger = row.until !== null && row.until !== row.on && row.until >= on;
            onChange({ on: on || null, until: on && isLonger ? row.until : on || null, doubt: null });
          }}
        />
        <DayInput
          label={`Last day of line ${row.line}`}
          todayOn={todayOn}
          min={row.on ?? undefined}
          value={row.until ?? ''}
          onChange={(until) => onChange({ until: until || row.on })}
        />
        <input
          className="field"
          aria-label={`Words of line ${row.line}`}
          maxLength={100}
          value={row.title}
          onChange={(event) => onChange({ title: event.target.value })}
        />
        <select
          className="field"
          aria-label={`Kind of line ${row.line}`}
          value={row.kind}
          onChange={(event) => onChange({ kind: event.target.value as DatedKind })}
        >
          {DATED_KINDS.map((kind) => (
            <option key={kind} value={kind}>
              {MARKER_WORDS[kind]}
            </option>
          ))}
        </select>
      </div>
      <div className="flex flex-wrap items-center gap-x-5 text-[13px] mt-1">
        <label className="flex items-center gap-2 min-h-7">
          <input
            type="checkbox"
            className="size-4 accent-pine"
            checked={row.isMarker}
            onChange={(event) => onChange({ isMarker: event.target.checked })}
          />
          on the calendar
        </label>
        <label className="flex items-center gap-2 min-h-7">
          <input
            type="checkbox"
            className="size-4 accent-pine"
            checked={row.isRequest}
            onChange={(event) => onChange({ isRequest: event.target.checked })}
          />
          as a request
        </label>
        <label className="flex items-center gap-2 min-h-7">
          as a piece
          <select
            className="field w-auto min-h-7 py-0"
            aria-label={`Piece of line ${row.line}`}
            value={row.routeId ?? ''}
            onChange={(event) => onChange({ routeId: event.target.value || null })}
          >
            <option value="">no</option>
            {routes?.map(({ id, name }) => (
              <option key={id} value={id}>
                {name}
              </option>
            ))}
          </select>
        </label>
        {row.doubt && <span className="text-rind font-medium">{DOUBTS[row.doubt]}</span>}
        {row.twin && <span className="text-rind">There is already: {row.twin}</span>}
        <span className="text-muted truncate ml-auto max-w-64" title={row.text}>
          {row.text}
        </span>
      </div>
    </li>
  );
}

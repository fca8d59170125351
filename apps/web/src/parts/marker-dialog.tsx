import { MARKER_KINDS, MarkerBody, type MarkerKind, type MarkerShape } from '@zesting/contract';
import { addDays, daysBetween, USUAL_LEAD, type Day } from '@zesting/core';
import { toast } from 'sonner';
import { call } from '../lib/api';
import { count, dayWords } from '../lib/format';
import { useClients, useSession, useWrite } from '../lib/queries';
import { useBodyForm } from '../lib/use-body-form';
import { MARKER_WORDS } from '../lib/words';
import { Field } from '../ui/field';
import { FormDialog } from '../ui/form-dialog';
import { SpanFields } from '../ui/span-fields';
import { ProductionDay } from './production-day';
import { RunUpList } from './run-up-list';

const NOTES: Partial<Record<MarkerKind, string>> = {
  closure: 'The client does not work on these days: every path is planned around them.',
  blackout: 'Nothing should go out on these days.',
  production_day: 'A day of making, such as a shoot.',
  season_busy: 'Name it by why it is busy: it stands in the year and the month, not on every day.',
  season_quiet: 'Name it by why it is quiet: it stands in the year and the month, not on every day.',
};
/** What may be known of a marker that is edited. */
export type KnownMarker = Pick<MarkerShape, 'id' | 'clientId' | 'kind' | 'name' | 'startOn' | 'endOn' | 'leadDays' | 'version'> &
  Partial<Pick<MarkerShape, 'kindId' | 'kindName'>>;

interface MarkerDialogProps {
  /** what is changed; without it one is put on the calendar */
  readonly marker?: KnownMarker;
  readonly onClose: () => void;
}

const kindOf = (text: string): MarkerKind => MARKER_KINDS.find((kind) => kind === text) ?? 'launch';

/** A marker: what it is, when, how long before it is prepared, and the pieces that go before and after it. */
export function MarkerDialog({ marker, onClose }: MarkerDialogProps) {
  const { clients, client } = useClients();
  const { role, todayOn, agency } = useSession();
  const save = useWrite(
    (body: MarkerBody) =>
      marker
        ? call(`/markers/${marker.id}`, { method: 'PUT', body, version: marker.version ?? 0 })
        : call('/markers', { method: 'POST', body }),
    { quiet: true },
  );
  const first: MarkerBody = marker
    ? {
        clientId: marker.clientId,
        kind: kindOf(marker.kind),
        kindId: marker.kindId ?? null,
        name: marker.name,
        startOn: marker.startOn,
        endOn: marker.endOn,
        leadDays: marker.leadDays,
      }
    : {
        clientId: client?.id ?? clients[0]?.id ?? null,
        kind: 'launch',
        kindId: null,
        name: '',
        startOn: todayOn,
        endOn: todayOn,
        leadDays: USUAL_LEAD['launch'] ?? null,
      };
  const form = useBodyForm<MarkerBody>(MarkerBody, first, {
    send: async (body) => {
      await save.mutateAsync(body);
      toast(marker ? `${body.name} is changed.` : `${body.name} stands on the calendar.`);
      onClose();
    },
  });
  const { body, change, errorOf } = form;
  // a kind that is offered no more stays with what is of it
  const isGone = marker?.kindId && agency.markerKinds.every(({ id }) => id !== marker.kindId);
  const ownKinds = isGone ? [...agency.markerKinds, { id: marker.kindId ?? '', name: marker.kindName ?? '' }] : agency.markerKinds;
  return (
    <FormDialog
      form={form}
      onClose={onClose}
      title={marker ? marker.name : 'Put a marker on the calendar'}
      description="Something that is not content, on one day or several."
      action={marker ? 'Change it' : 'Put it there'}
      {...(marker ? { leave: 'Close' } : {})}
    >
      <Field label="Name" error={errorOf('name')} required>
        {(control) => (
          <input
            {...control}
            className="field"
            maxLength={100}
            value={body.name}
            onChange={(event) => change({ name: event.target.value })}
          />
        )}
      </Field>
      <div className="grid grid-cols-2 gap-3">
        <Field label="Kind" help={NOTES[body.kind]}>
          {(control) => (
            <select
              {...control}
              className="field"
              value={body.kind === 'own' ? (body.kindId ?? '') : body.kind}
              onChange={(event) => {
                const own = ownKinds.find(({ id }) => id === event.target.value);
                const kind = own ? 'own' : kindOf(event.target.value);
                change({ kind, kindId: own?.id ?? null, leadDays: USUAL_LEAD[kind] ?? null });
              }}
            >
              {MARKER_KINDS.filter((kind) => kind !== 'own' && (!marker || kind !== 'closure')).map((kind) => (
                <option key={kind} value={kind}>
                  {MARKER_WORDS[kind]}
                </option>
              ))}
              {ownKinds.map(({ id, name }) => (
                <option key={id} value={id}>
                  {name}
                </option>
              ))}
            </select>
          )}
        </Field>
        <Field label="Whose">
          {(control) => (
            <select
              {...control}
              className="field"
              value={body.clientId ?? ''}
              disabled={marker !== undefined}
              onChange={(event) => change({ clientId: event.target.value || null })}
            >
              {clients.map((choice) => (
                <option key={choice.id} value={choice.id}>
                  {choice.name}
                </option>
              ))}
              {role === 'lead' && body.kind !== 'closure' && <option value="">The agency’s own, on every calendar</option>}
            </select>
          )}
        </Field>
        <SpanFields span={body} todayOn={todayOn} onChange={change} />
        {body.kind !== 'closure' && <LeadField body={body} error={errorOf('leadDays')} onChange={(leadDays) => change({ leadDays })} />}
      </div>
      {marker?.id && marker.clientId !== null && marker.kind === 'production_day' && (
        <ProductionDay
          markerId={marker.id}
          onMove={(on) => change({ startOn: on, endOn: addDays(on as Day, daysBetween(body.startOn as Day, body.endOn as Day)) })}
        />
      )}
      {marker?.id && marker.clientId !== null && marker.kind !== 'production_day' && (
        <RunUpList markerId={marker.id} clientId={marker.clientId} />
      )}
    </FormDialog>
  );
}

interface LeadFieldProps {
  readonly body: MarkerBody;
  readonly error: string | undefined;
  readonly onChange: (leadDays: number | null) => void;
}

/** How long before it a date is prepared. */
function LeadField({ body, error, onChange }: LeadFieldProps) {
  const { leadDays } = body;
  const help =
    leadDays === null || leadDays === undefined
      ? 'Empty: nothing is prepared.'
      : `${count(leadDays, 'day')} before: ${dayWords(addDays(body.startOn as Day, -leadDays))}.`; // a day of the contract's
  return (
    <Field label="Prepare from, days before" help={help} error={error}>
      {(control) => (
        <input
          {...control}
          className="field w-28 tabular"
          inputMode="numeric"
          value={leadDays ?? ''}
          onChange={(event) => {
            const figures = event.target.value.replaceAll(/\D/g, '').slice(0, 3);
            onChange(figures === '' ? null : Number(figures));
          }}
        />
      )}
    </Field>
  );
}

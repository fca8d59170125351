import { useQuery } from '@tanstack/react-query';
import { DutyBody, type ClientShape, type DutyMadeShape, type DutyShape, type RouteShape } from '@zesting/contract';
import { toast } from 'sonner';
import { peopleQuery } from '../../api/people';
import { routesQuery } from '../../api/production';
import { call } from '../../lib/api';
import { useClients, useSession, useWrite } from '../../lib/queries';
import { useBodyForm } from '../../lib/use-body-form';
import { Choice } from '../../ui/choice';
import { DayField } from '../../ui/day-field';
import { Field } from '../../ui/field';
import { FieldGroup } from '../../ui/field-group';
import { FormDialog } from '../../ui/form-dialog';
import { ChoiceField, OptionField } from '../../ui/option-field';
import { PatternFields } from '../../ui/pattern-fields';
import { NumberField } from '../../ui/setup-fields';
import { LinesField, TextField } from '../../ui/text-field';
import { TickList } from '../../ui/tick-list';

interface DutyDialogProps {
  /** what is changed; without it something is added */
  readonly duty: DutyShape | undefined;
  /** the client chosen in the band */
  readonly client: ClientShape | undefined;
  readonly onClose: () => void;
}

const FIELDS = [
  'clientId',
  'title',
  'remark',
  'checklist',
  'rule',
  'fromOn',
  'untilOn',
  'leadDays',
  'leadId',
  'secondId',
  'minutes',
  'piece',
] as const;
const bodyOf = (duty: DutyBody): DutyBody => Object.fromEntries(FIELDS.map((field) => [field, duty[field]])) as unknown as DutyBody; // all of its fields

const WEEKLY = 'FREQ=WEEKLY;BYDAY=FR';

/** A duty: what, how often, who, and what has to be known each time. */
export function DutyDialog({ duty, client: chosen, onClose }: DutyDialogProps) {
  const { clients, clientOf } = useClients();
  const { personId, todayOn } = useSession();
  const { data: people = [] } = useQuery(peopleQuery);
  const { data: routes = [] } = useQuery(routesQuery);
  const save = useWrite(
    (body: DutyBody) =>
      duty
        ? call(`/duties/${duty.id}`, { method: 'PUT', body, version: duty.version })
        : call<DutyMadeShape>('/duties', { method: 'POST', body }),
    { quiet: true },
  );
  const form = useBodyForm<DutyBody>(
    DutyBody,
    duty
      ? bodyOf(duty)
      : {
          clientId: chosen?.id ?? null,
          title: '',
          remark: '',
          checklist: [],
          rule: WEEKLY,
          fromOn: todayOn,
          untilOn: null,
          leadDays: 0,
          leadId: personId,
          secondId: null,
          minutes: 30,
          piece: null,
        },
    {
      send: async (body) => {
        await save.mutateAsync(bodyOf(body));
        toast(duty ? 'The duty is changed from today on.' : `“${body.title.trim()}” stands on the desk each time it is due.`);
        onClose();
      },
      words: { title: { isNotBlank: 'Say what is to be done.' }, fromOn: { isDay: 'Say from which day on.' } },
    },
  );
  const { body, change, errorOf } = form;
  const client = clientOf(body.clientId ?? '');
  const active = people.filter(({ id, active }) => active || id === body.leadId || id === body.secondId);
  const makes = (on: boolean) =>
    change(
      on
        ? {
            piece: { routeId: routes[0]?.id ?? '', channelIds: client?.channels[0] ? [client.channels[0].id] : [], pillarId: null },
            leadDays: body.leadDays || 14,
          }
        : { piece: null },
    );
  return (
    <FormDialog
      form={form}
      onClose={onClose}
      title={duty ? 'Change the duty' : 'Add a duty'}
      description={duty ? 'What was before today stays as it was.' : 'Work that is no step of a piece, or a piece that comes again.'}
      action={duty ? 'Change it' : 'Add it'}
    >
      <TextField
        label="What"
        required
        error={errorOf('title')}
        maxLength={120}
        value={body.title}
        onChange={(title) => change({ title })}
      />
      <Field label="For" error={errorOf('clientId')}>
        {(control) => (
          <select
            {...control}
            className="field"
            disabled={duty !== undefined}
            value={body.clientId ?? ''}
            onChange={(event) => change({ clientId: event.target.value || null, piece: null })}
          >
            <option value="">The agency itself</option>
            {clients.map(({ id, name }) => (
              <option key={id} value={id}>
                {name}
              </option>
            ))}
          </select>
        )}
      </Field>
      <div className="mb-2">
        <Choice
          label="How often"
          value={body.rule === null ? 'once' : 'again'}
          options={[
            ['again', 'Comes again'],
            ['once', 'Once'],
          ]}
          onChange={(often) => change({ rule: often === 'once' ? null : WEEKLY })}
        />
      </div>
      {body.rule !== null && <PatternFields rule={body.rule} error={errorOf('rule')} onChange={(rule) => change({ rule })} />}
      <div className="grid sm:grid-cols-2 gap-x-3">
        <DayField
          label={body.rule === null ? 'On' : 'From'}
          required
          value={body.fromOn}
          todayOn={todayOn}
          error={errorOf('fromOn')}
          onChange={(fromOn) => change({ fromOn })}
        />
        {body.rule !== null && (
          <DayField
            label="Until"
            help="Empty: until it is changed."
            value={body.untilOn ?? ''}
            todayOn={todayOn}
            min={todayOn}
            error={errorOf('untilOn')}
            onChange={(on) => change({ untilOn: on || null })}
          />
        )}
        <ChoiceField
          label="Lead person"
          value={body.leadId}
          options={active}
          error={errorOf('leadId')}
          onChange={(leadId) => change({ leadId })}
        />
        <OptionField
          label="Second person"
          none="Nobody"
          value={body.secondId}
          options={active.filter(({ id }) => id !== body.leadId)}
          error={errorOf('secondId')}
          onChange={(secondId) => change({ secondId })}
        />
      </div>
      <FieldGroup label="What it takes">
        {() => (
          <div className="flex flex-wrap gap-x-4 gap-y-2">
            {body.piece === null && (
              <NumberField label="Each time" unit="minutes" most={2400} value={body.minutes} onChange={(minutes) => change({ minutes })} />
            )}
            <NumberField
              label={body.piece ? 'Piece is made' : 'Can be begun'}
              unit="days before"
              most={180}
              value={body.leadDays}
              onChange={(leadDays) => change({ leadDays })}
            />
          </div>
        )}
      </FieldGroup>
      {client && (
        <label className="flex items-center gap-2 min-h-8 mb-2">
          <input
            type="checkbox"
            className="size-4 accent-pine"
            checked={body.piece !== null}
            onChange={(event) => makes(event.target.checked)}
          />
          Makes a piece each time
        </label>
      )}
      {body.piece && client && (
        <PieceOfDuty
          piece={body.piece}
          client={client}
          routes={routes}
          error={errorOf('piece')}
          onChange={(part) => body.piece && change({ piece: { ...body.piece, ...part } })}
        />
      )}
      <TextField
        label="Standing remark"
        help="Stands beside it every time."
        error={errorOf('remark')}
        maxLength={2000}
        rows={2}
        value={body.remark}
        onChange={(remark) => change({ remark })}
      />
      <LinesField
        label="Checklist"
        help="One line for each thing to tick; 30 at most."
        error={errorOf('checklist')}
        rows={3}
        lines={body.checklist}
        onChange={(checklist) => change({ checklist })}
      />
    </FormDialog>
  );
}

interface PieceOfDutyProps {
  readonly piece: NonNullable<DutyBody['piece']>;
  readonly client: ClientShape;
  readonly routes: readonly RouteShape[];
  readonly error: string | undefined;
  readonly onChange: (part: Partial<NonNullable<DutyBody['piece']>>) => void;
}

/** How the piece of each time is made, and where it goes. */
function PieceOfDuty({ piece, client, routes, error, onChange }: PieceOfDutyProps) {
  const route = routes.find(({ id }) => id === piece.routeId);
  return (
    <div className="card bg-paper p-3 mb-3">
      <Field label="Route" required error={error} {...(route ? { help: route.steps.join(', then ') } : {})}>
        {(control) => (
          <select {...control} className="field" value={piece.routeId} onChange={(event) => onChange({ routeId: event.target.value })}>
            {routes.map(({ id, name }) => (
              <option key={id} value={id}>
                {name}
              </option>
            ))}
          </select>
        )}
      </Field>
      <OptionField
        label="Pillar"
        none="None"
        value={piece.pillarId}
        options={client.pillars}
        onChange={(pillarId) => onChange({ pillarId })}
      />
      <TickList
        label="Goes out on"
        options={client.channels}
        chosen={piece.channelIds}
        onChange={(channelIds) => onChange({ channelIds })}
      />
    </div>
  );
}

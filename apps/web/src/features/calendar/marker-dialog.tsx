import { MarkerBody, type MarkerKind } from '@zesting/contract';
import { toast } from 'sonner';
import { call } from '../../lib/api';
import { useClients, useSession, useWrite } from '../../lib/queries';
import { useBodyForm } from '../../lib/use-body-form';
import { MARKER_WORDS } from '../../lib/words';
import { Field } from '../../ui/field';
import { FormDialog } from '../../ui/form-dialog';
import { SpanFields } from '../../ui/span-fields';

const KINDS: readonly MarkerKind[] = ['launch', 'offer', 'event', 'production_day', 'blackout', 'closure'];
const NOTES: Partial<Record<MarkerKind, string>> = {
  closure: 'The client does not work on these days: every path is planned around them.',
  blackout: 'Nothing should go out on these days.',
  production_day: 'A day of making, such as a shoot.',
};

/** A marker put on the calendar by hand. */
export function MarkerDialog({ onClose }: { onClose: () => void }) {
  const { clients, client } = useClients();
  const { role, todayOn } = useSession();
  const add = useWrite((wanted: MarkerBody) => call('/markers', { method: 'POST', body: wanted }), { quiet: true });
  const form = useBodyForm<MarkerBody>(
    MarkerBody,
    { clientId: client?.id ?? clients[0]?.id ?? null, kind: 'launch', name: '', startOn: todayOn, endOn: todayOn },
    {
      send: async (body) => {
        await add.mutateAsync(body);
        toast(`${body.name} stands on the calendar.`);
        onClose();
      },
    },
  );
  const { body, change, errorOf } = form;
  return (
    <FormDialog
      form={form}
      onClose={onClose}
      title="Put a marker on the calendar"
      description="Something that is not content, on one day or several."
      action="Put it there"
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
              value={body.kind}
              onChange={(event) => change({ kind: KINDS.find((kind) => kind === event.target.value) ?? 'launch' })}
            >
              {KINDS.map((kind) => (
                <option key={kind} value={kind}>
                  {MARKER_WORDS[kind]}
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
      </div>
    </FormDialog>
  );
}

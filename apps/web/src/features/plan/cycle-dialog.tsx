import { ThemeCycleBody } from '@zesting/contract';
import { nextMonth } from '@zesting/core';
import { toast } from 'sonner';
import { call } from '../../lib/api';
import { monthWords } from '../../lib/format';
import { useWrite } from '../../lib/queries';
import { useBodyForm } from '../../lib/use-body-form';
import { Field } from '../../ui/field';
import { FormDialog } from '../../ui/form-dialog';

interface CycleDialogProps {
  readonly clientId: string;
  readonly month: string;
  readonly cycle: ThemeCycleBody | null;
  readonly onClose: () => void;
}

/** The themes that follow one another month by month, one to a line, with the months that they fall on. */
export function CycleDialog({ clientId, month, cycle, onClose }: CycleDialogProps) {
  const set = useWrite((body: ThemeCycleBody) => call(`/clients/${clientId}/theme-cycle`, { method: 'PUT', body }), { quiet: true });
  const form = useBodyForm<ThemeCycleBody>(
    ThemeCycleBody,
    { names: cycle?.names ?? [], fromMonth: cycle?.fromMonth ?? `${month.slice(0, 4)}-01` },
    {
      send: async ({ names, fromMonth }) => {
        const said = names.map((name) => name.trim()).filter(Boolean);
        await set.mutateAsync({ names: said, fromMonth });
        toast(said.length > 0 ? `${said.length} themes follow one another` : 'There is no cycle any more');
        onClose();
      },
    },
  );
  const { names, fromMonth } = form.body;
  const said = names.filter((name) => name.trim() !== '');
  return (
    <FormDialog
      form={form}
      onClose={onClose}
      title="Themes that come again"
      description="They follow one another month by month, and begin anew after the last. A month with a theme of its own keeps it."
      action="Set the cycle"
    >
      <Field label="Themes" help="One to a line, at most 24. None: there is no cycle." error={form.errorOf('names')}>
        {(control) => (
          <textarea
            {...control}
            className="field"
            rows={6}
            value={names.join('\n')}
            onChange={(event) => form.change({ names: event.target.value.split('\n') })}
          />
        )}
      </Field>
      <Field label="The first is that of">
        {(control) => (
          <select {...control} className="field" value={fromMonth} onChange={(event) => form.change({ fromMonth: event.target.value })}>
            {[...new Set([fromMonth, ...Array.from({ length: 24 }, (_, index) => nextMonth(`${month.slice(0, 4)}-01`, index - 12))])]
              .sort()
              .map((choice) => (
                <option key={choice} value={choice}>
                  {monthWords(choice)}
                </option>
              ))}
          </select>
        )}
      </Field>
      {said.length > 0 && (
        <p className="text-muted text-[13px] mb-3">
          {said.map((name, index) => `${monthWords(nextMonth(fromMonth, index))}: ${name.trim()}`).join(' · ')} · then{' '}
          {monthWords(nextMonth(fromMonth, said.length))} begins anew.
        </p>
      )}
    </FormDialog>
  );
}

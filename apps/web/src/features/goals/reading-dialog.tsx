import { GoalReadingBody, type GoalShape } from '@zesting/contract';
import { addDays, type Day } from '@zesting/core';
import { call } from '../../lib/api';
import { dayWords } from '../../lib/format';
import { useWrite } from '../../lib/queries';
import { useBodyForm } from '../../lib/use-body-form';
import { DayField } from '../../ui/day-field';
import { FormDialog } from '../../ui/form-dialog';
import { FigureField } from './figure-field';
import { figure } from './goal-words';

interface ReadingDialogProps {
  readonly goal: GoalShape;
  readonly todayOn: string;
  readonly onClose: () => void;
}

/** What the measure of a goal was on a day; what was read earlier can be taken away. */
export function ReadingDialog({ goal, todayOn, onClose }: ReadingDialogProps) {
  const put = useWrite((body: GoalReadingBody) => call(`/goals/${goal.id}/reading`, { method: 'PUT', body }), { quiet: true });
  const remove = useWrite((on: string) => call(`/goals/${goal.id}/reading`, { method: 'PUT', body: { on, value: null } }));
  const form = useBodyForm<GoalReadingBody>(
    GoalReadingBody,
    { on: todayOn, value: goal.pace.value ?? goal.startValue },
    {
      send: async (body) => {
        await put.mutateAsync(body);
        onClose();
      },
    },
  );
  const first = addDays(goal.startOn as Day, 1); // a day of the contract's
  return (
    <FormDialog form={form} onClose={onClose} title={goal.name} description={`What it was, in ${goal.unit || 'figures'}.`} action="Keep it">
      <div className="grid sm:grid-cols-2 gap-x-3">
        <FigureField
          label="Reading"
          value={form.body.value ?? NaN}
          error={form.errorOf('value')}
          onChange={(value) => form.change({ value })}
        />
        <DayField
          label="On"
          required
          value={form.body.on}
          todayOn={todayOn}
          min={first}
          max={todayOn}
          error={form.errorOf('on')}
          onChange={(on) => form.change({ on })}
        />
      </div>
      {goal.readings.length > 0 && (
        <ul className="max-h-40 overflow-y-auto mb-3 text-[13px] tabular" aria-label="Read earlier" tabIndex={0}>
          {[...goal.readings].reverse().map(({ on, value }) => (
            <li key={on} className="flex items-center gap-3 min-h-7">
              <span className="w-32">{dayWords(on)}</span>
              <span className="w-24 text-right">{figure(value)}</span>
              <button
                type="button"
                className="text-pine underline min-h-6"
                aria-label={`Take away the reading of ${dayWords(on)}`}
                disabled={remove.isPending}
                onClick={() => remove.mutate(on)}
              >
                take away
              </button>
            </li>
          ))}
        </ul>
      )}
    </FormDialog>
  );
}

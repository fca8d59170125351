import { PlanNumbersBody, type RhythmShape } from '@zesting/contract';
import { toast } from 'sonner';
import { call } from '../../lib/api';
import { useWrite } from '../../lib/queries';
import { useBodyForm } from '../../lib/use-body-form';
import { Button } from '../../ui/button';

/** How many pieces shall be out a week and a month; empty: no number. */
export function NumbersFields({ clientId, numbers }: { clientId: string; numbers: Pick<RhythmShape, 'perWeek' | 'perMonth'> }) {
  const save = useWrite((body: PlanNumbersBody) => call(`/clients/${clientId}/plan/numbers`, { method: 'PUT', body }), { quiet: true });
  const { perWeek, perMonth } = numbers;
  const form = useBodyForm<PlanNumbersBody>(
    PlanNumbersBody,
    { perWeek, perMonth },
    {
      send: async (body) => {
        await save.mutateAsync(body);
        toast('Kept');
      },
    },
  );
  const { body, change, errorOf } = form;
  const isChanged = body.perWeek !== perWeek || body.perMonth !== perMonth;
  const field = (name: 'perWeek' | 'perMonth', words: string) => (
    <label className="inline-flex items-center gap-2">
      <input
        type="number"
        min={1}
        className="field tabular w-20"
        aria-invalid={errorOf(name) !== undefined}
        value={body[name] ?? ''}
        onChange={(event) => change({ [name]: event.target.value === '' ? null : Number(event.target.value) })}
      />
      {words}
    </label>
  );
  return (
    <form
      noValidate
      onSubmit={form.onSubmit}
      aria-label="Numbers"
      className="card px-4 py-2.5 mb-4 max-w-5xl flex flex-wrap items-center gap-x-4 gap-y-2"
    >
      <span className="font-medium">At least</span>
      {field('perWeek', 'pieces a week')}
      {field('perMonth', 'pieces a month')}
      {isChanged && (
        <Button look="main" type="submit" disabled={form.busy}>
          Keep
        </Button>
      )}
      {(errorOf('perWeek') ?? errorOf('perMonth') ?? form.wrong) && (
        <p role="alert" className="text-rhubarb font-medium text-[13px] basis-full">
          {errorOf('perWeek') ?? errorOf('perMonth') ?? form.wrong}
        </p>
      )}
    </form>
  );
}

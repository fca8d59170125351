import type { DeclineRequestBody } from '@zesting/contract';
import type { BodyForm } from '../../lib/use-body-form';
import { Field } from '../../ui/field';

/** Why something is declined, as those who asked read it. */
export function ReasonField({ label, form }: { label: string; form: BodyForm<DeclineRequestBody> }) {
  return (
    <Field label={label} error={form.errorOf('reason')} required>
      {(control) => (
        <textarea
          {...control}
          className="field"
          rows={4}
          value={form.body.reason}
          onChange={(event) => form.change({ reason: event.target.value })}
        />
      )}
    </Field>
  );
}

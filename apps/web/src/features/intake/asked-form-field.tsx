import type { AskableFormShape } from '@zesting/contract';
import { Field } from '../../ui/field';

interface AskedFormProps {
  readonly forms: readonly AskableFormShape[] | undefined;
  /** the one that is asked by */
  readonly form: AskableFormShape | undefined;
  readonly onChange: (formId: string) => void;
}

/** By which of a client's forms something is taken down. */
export function AskedFormField({ forms, form, onChange }: AskedFormProps) {
  return (
    <Field label="Form">
      {(control) => (
        <select {...control} className="field" value={form?.formId ?? ''} onChange={(event) => onChange(event.target.value)}>
          {forms?.map(({ formId, title }) => (
            <option key={formId} value={formId}>
              {title}
            </option>
          ))}
        </select>
      )}
    </Field>
  );
}

import { Field } from './field';

interface OptionFieldProps {
  readonly label: string;
  /** null: none of them */
  readonly value: string | null;
  readonly options: readonly { readonly id: string; readonly name: string }[];
  /** what stands for none of them */
  readonly none: string;
  readonly error?: string | undefined;
  readonly onChange: (id: string | null) => void;
}

/** One of some things that have a name, or none of them. */
export function OptionField({ label, value, options, none, error, onChange }: OptionFieldProps) {
  return (
    <Field label={label} error={error}>
      {(control) => (
        <select {...control} className="field" value={value ?? ''} onChange={(event) => onChange(event.target.value || null)}>
          <option value="">{none}</option>
          {options.map(({ id, name }) => (
            <option key={id} value={id}>
              {name}
            </option>
          ))}
        </select>
      )}
    </Field>
  );
}

/** One of some things that have a name: always one of them. */
export function ChoiceField({
  label,
  value,
  options,
  error,
  disabled = false,
  onChange,
}: Omit<OptionFieldProps, 'none' | 'value' | 'onChange'> & {
  readonly value: string;
  readonly disabled?: boolean;
  readonly onChange: (id: string) => void;
}) {
  return (
    <Field label={label} required error={error}>
      {(control) => (
        <select {...control} className="field" disabled={disabled} value={value} onChange={(event) => onChange(event.target.value)}>
          {options.map(({ id, name }) => (
            <option key={id} value={id}>
              {name}
            </option>
          ))}
        </select>
      )}
    </Field>
  );
}

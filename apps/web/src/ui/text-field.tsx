import { useState } from 'react';
import { Field } from './field';

interface TextFieldProps {
  readonly label: string;
  readonly value: string;
  readonly onChange: (value: string) => void;
  readonly error?: string | undefined;
  readonly help?: string;
  readonly required?: boolean;
  readonly maxLength?: number;
  /** more than one: text of several lines */
  readonly rows?: number;
}

/** A line of text, or several. */
export function TextField({ label, value, onChange, error, help, required = false, maxLength, rows = 1 }: TextFieldProps) {
  return (
    <Field label={label} required={required} error={error} {...(help ? { help } : {})}>
      {(control) => {
        const shared = { ...control, className: 'field', maxLength, value };
        return rows > 1 ? (
          <textarea {...shared} rows={rows} onChange={(event) => onChange(event.target.value)} />
        ) : (
          <input {...shared} onChange={(event) => onChange(event.target.value)} />
        );
      }}
    </Field>
  );
}

interface LinkFieldProps {
  readonly value: string | null;
  readonly onChange: (value: string | null) => void;
  readonly error?: string | undefined;
}

/** An address elsewhere; null: none. */
export function LinkField({ value, onChange, error }: LinkFieldProps) {
  return (
    <Field label="Link" error={error}>
      {(control) => (
        <input
          {...control}
          className="field"
          inputMode="url"
          maxLength={2000}
          placeholder="https://"
          value={value ?? ''}
          onChange={(event) => onChange(event.target.value || null)}
        />
      )}
    </Field>
  );
}

interface LinesFieldProps extends Omit<TextFieldProps, 'value' | 'onChange' | 'maxLength'> {
  readonly lines: readonly string[];
  readonly onChange: (lines: string[]) => void;
}

/** A list, typed or pasted line by line; empty lines are none of it. */
export function LinesField({ lines, onChange, rows = 4, ...rest }: LinesFieldProps) {
  const [text, setText] = useState(lines.join('\n'));
  return (
    <TextField
      {...rest}
      rows={rows}
      value={text}
      onChange={(next) => {
        setText(next);
        onChange(
          next
            .split('\n')
            .map((line) => line.trim())
            .filter(Boolean),
        );
      }}
    />
  );
}

import { useState } from 'react';
import { Field } from '../../ui/field';

interface FigureFieldProps {
  readonly label: string;
  readonly value: number;
  readonly error: string | undefined;
  /** NaN where it is no figure, which the contract refuses */
  readonly onChange: (value: number) => void;
}

/** Reads a figure as people type it: "1,250", "1 250", "3.5". */
export const readFigure = (text: string): number => (text.trim() === '' ? NaN : Number(text.replace(/[\s,_]/g, '').replace('−', '-')));

/** A figure, with or without decimals. */
export function FigureField({ label, value, error, onChange }: FigureFieldProps) {
  const [text, setText] = useState(Number.isNaN(value) ? '' : String(value));
  return (
    <Field label={label} required error={error && 'Type a figure, with at most two decimals.'}>
      {(control) => (
        <input
          {...control}
          className="field tabular"
          inputMode="decimal"
          value={text}
          onChange={(event) => {
            setText(event.target.value);
            onChange(readFigure(event.target.value));
          }}
        />
      )}
    </Field>
  );
}

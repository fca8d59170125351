import { useId, type ReactNode } from 'react';
import { FieldNotes, type FieldProps } from './field';

type GroupProps = Omit<FieldProps, 'children' | 'warning'> & {
  /** gets what ties the controls to the help and the error */
  readonly children: (describedBy: string | undefined) => ReactNode;
};

/** Several controls that answer one question, with its help and its error. */
export function FieldGroup({ label, help, error, required = false, children }: GroupProps) {
  const id = useId();
  const notes = [help ? `${id}-help` : '', error ? `${id}-error` : ''].filter(Boolean).join(' ');
  return (
    <fieldset className="mb-3.5 min-w-0" aria-describedby={notes || undefined}>
      <FieldNotes id={id} label={label} help={help} error={error} required={required} isGroup>
        {children(notes || undefined)}
      </FieldNotes>
    </fieldset>
  );
}

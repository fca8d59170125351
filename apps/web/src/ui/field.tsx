import { useId, type ReactNode } from 'react';

interface FieldProps {
  readonly label: string;
  readonly help?: ReactNode;
  readonly error?: string | undefined;
  /** what may stay, but should be looked at */
  readonly warning?: string | undefined;
  readonly required?: boolean;
  /** gets what ties the control to its label, help and error */
  readonly children: (control: {
    id: string;
    'aria-describedby': string | undefined;
    'aria-invalid': boolean;
    'aria-required': boolean;
  }) => ReactNode;
}

/** A labelled control with its help and its error. */
export function Field({ label, help, error, warning, required = false, children }: FieldProps) {
  const id = useId();
  const notes = [help ? `${id}-help` : '', error ? `${id}-error` : '', warning ? `${id}-warning` : ''].filter(Boolean).join(' ');
  return (
    <div className="mb-3.5">
      <label htmlFor={id} className="block font-medium mb-1">
        {label}
        {required && <span className="text-muted font-normal"> (needed)</span>}
      </label>
      {children({ id, 'aria-describedby': notes || undefined, 'aria-invalid': error !== undefined, 'aria-required': required })}
      {help && (
        <div id={`${id}-help`} className="text-muted text-[13px] mt-1">
          {help}
        </div>
      )}
      {warning && (
        <p id={`${id}-warning`} role="status" className="text-rind font-medium text-[13px] mt-1">
          {warning}
        </p>
      )}
      {error && (
        <p id={`${id}-error`} className="text-rhubarb font-medium text-[13px] mt-1">
          {error}
        </p>
      )}
    </div>
  );
}

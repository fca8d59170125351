import { useId, type ReactNode } from 'react';
import { useLanguage } from '../language/language';

/** What ties a control to its label, help and error. */
export interface Control {
  readonly id: string;
  readonly 'aria-describedby': string | undefined;
  readonly 'aria-invalid': boolean;
  readonly 'aria-required': boolean;
}

export interface FieldProps {
  readonly label: string;
  readonly help?: ReactNode;
  readonly error?: string | undefined;
  /** what may stay, but should be looked at */
  readonly warning?: string | undefined;
  readonly required?: boolean;
  readonly children: (control: Control) => ReactNode;
}

/** A labelled control with its help and its error. */
export function Field({ label, help, error, warning, required = false, children }: FieldProps) {
  const id = useId();
  const notes = [help ? `${id}-help` : '', error ? `${id}-error` : '', warning ? `${id}-warning` : ''].filter(Boolean).join(' ');
  return (
    <div className="mb-3.5">
      <FieldNotes id={id} label={label} help={help} error={error} warning={warning} required={required}>
        {children({ id, 'aria-describedby': notes || undefined, 'aria-invalid': error !== undefined, 'aria-required': required })}
      </FieldNotes>
    </div>
  );
}

interface NotesProps extends Omit<FieldProps, 'children'> {
  readonly id: string;
  readonly isGroup?: boolean;
  readonly children: ReactNode;
}

/** The label above and the notes below. */
export function FieldNotes({ id, label, help, error, warning, required = false, isGroup = false, children }: NotesProps) {
  const { t } = useLanguage();
  const name = (
    <>
      {label}
      {required && <span className="text-muted font-normal"> ({t('needed')})</span>}
    </>
  );
  return (
    <>
      {isGroup ? (
        <legend className="block font-medium mb-1">{name}</legend>
      ) : (
        <label htmlFor={id} className="block font-medium mb-1">
          {name}
        </label>
      )}
      {children}
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
    </>
  );
}

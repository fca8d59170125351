import type { FormEvent, ReactNode } from 'react';
import { Button } from './button';
import { Dialog } from './dialog';

interface FormDialogProps {
  readonly title: string;
  readonly description?: string;
  /** what the button says that sends it */
  readonly action: string;
  readonly look?: 'main' | 'danger';
  /** what the button says that does not */
  readonly leave?: string;
  /** another button, apart from these */
  readonly beside?: ReactNode;
  /** what stands beside the form and is not sent with it */
  readonly aside?: ReactNode;
  /** whether that comes before the form, since it is done first */
  readonly asideFirst?: boolean;
  /** whether the form itself needs the room */
  readonly wide?: boolean;
  readonly form: {
    readonly onSubmit: (event: FormEvent<HTMLFormElement>) => void;
    readonly wrong: string | undefined;
    readonly busy: boolean;
  };
  readonly onClose: () => void;
  readonly children: ReactNode;
}

/** A dialog that is filled in and sent: its fields, what is wrong with the whole, and the two ways out. */
export function FormDialog({
  title,
  description,
  action,
  look = 'main',
  leave = 'Not yet',
  beside,
  aside,
  asideFirst = false,
  wide = false,
  form,
  onClose,
  children,
}: FormDialogProps) {
  const sent = (
    <form
      noValidate
      onSubmit={(event) => {
        event.stopPropagation(); // a dialog opened from within another's form sends itself alone
        form.onSubmit(event);
      }}
    >
      {children}
      {form.wrong && (
        <p role="alert" className="text-rhubarb font-medium mb-2">
          {form.wrong}
        </p>
      )}
      <div className="flex flex-wrap justify-end gap-2">
        {beside && <span className="mr-auto">{beside}</span>}
        <Button onClick={onClose}>{leave}</Button>
        <Button look={look} type="submit" disabled={form.busy}>
          {action}
        </Button>
      </div>
    </form>
  );
  return (
    <Dialog open onClose={onClose} title={title} wide={wide || aside !== undefined} {...(description ? { description } : {})}>
      {aside === undefined ? (
        sent
      ) : (
        <div className="grid gap-x-8 gap-y-4 md:grid-cols-2 items-start">
          {!asideFirst && sent}
          <div className="min-w-0">{aside}</div>
          {asideFirst && sent}
        </div>
      )}
    </Dialog>
  );
}

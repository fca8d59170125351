import { Field } from '../../ui/field';

interface FileProps {
  readonly label: string;
  readonly help?: string;
  readonly error?: string | undefined;
  /** endings, with commas between them */
  readonly accept: string;
  readonly disabled: boolean;
  readonly onFile: (file: File) => void;
}

/** One file that is read at once. The same file, changed meanwhile, counts as chosen anew. */
export function FileField({ label, help, error, accept, disabled, onFile }: FileProps) {
  return (
    <Field label={label} {...(help ? { help } : {})} error={error}>
      {(control) => (
        <input
          {...control}
          type="file"
          accept={accept}
          className="field py-1"
          disabled={disabled}
          onClick={(event) => (event.currentTarget.value = '')}
          onChange={(event) => {
            const [file] = event.target.files ?? [];
            if (file) onFile(file);
          }}
        />
      )}
    </Field>
  );
}

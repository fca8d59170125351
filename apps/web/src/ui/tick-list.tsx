import { FieldGroup } from './field-group';

interface TickListProps {
  readonly label: string;
  readonly help?: string;
  readonly error?: string | undefined;
  readonly options: readonly { readonly id: string; readonly name: string }[];
  readonly chosen: readonly string[];
  readonly onChange: (chosen: string[]) => void;
  /** one below the other, not side by side */
  readonly isColumn?: boolean;
  /** what is said where there are none; without it nothing is shown then */
  readonly empty?: string;
}

/** Some of several things, each ticked or not. */
export function TickList({ label, help, error, options, chosen, onChange, isColumn = false, empty }: TickListProps) {
  if (options.length === 0 && !empty) return null;
  return (
    <FieldGroup label={label} error={error} {...(help ? { help } : {})}>
      {() => (
        <div className={isColumn ? 'grid' : 'flex flex-wrap gap-x-4'}>
          {options.length === 0 && <p className="text-muted">{empty}</p>}
          {options.map(({ id, name }) => (
            <label key={id} className="inline-flex items-center gap-2 min-h-8">
              <input
                type="checkbox"
                className="size-4 accent-pine"
                checked={chosen.includes(id)}
                onChange={(event) => onChange(event.target.checked ? [...chosen, id] : chosen.filter((other) => other !== id))}
              />
              {name}
            </label>
          ))}
        </div>
      )}
    </FieldGroup>
  );
}

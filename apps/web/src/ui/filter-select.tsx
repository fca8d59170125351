import { useId } from 'react';

interface FilterSelectProps {
  readonly words: string;
  /** what is chosen; null: anything */
  readonly value: string | null;
  readonly options: readonly { readonly id: string; readonly name: string }[];
  /** what a choice is called that is not among the options, so that it can be taken off */
  readonly unknown?: string;
  /** what stands for none of them */
  readonly none?: string;
  readonly onChange: (id: string | null) => void;
}

/** One thing that a list is narrowed to; nothing where there is nothing to choose. */
export function FilterSelect({ words, value, options, unknown = 'of another client', none = 'any', onChange }: FilterSelectProps) {
  const id = useId();
  const shown = value !== null && options.every(({ id }) => id !== value) ? [...options, { id: value, name: unknown }] : options;
  if (shown.length === 0) return null;
  return (
    <span className="inline-flex items-center gap-1.5">
      <label htmlFor={id} className="text-muted">
        {words}
      </label>
      <select
        id={id}
        className={`field w-auto max-w-32 text-[13px] ${value === null ? '' : 'border-pine font-medium'}`}
        value={value ?? ''}
        onChange={(event) => onChange(event.target.value || null)}
      >
        <option value="">{none}</option>
        {shown.map((option) => (
          <option key={option.id} value={option.id}>
            {option.name}
          </option>
        ))}
      </select>
    </span>
  );
}

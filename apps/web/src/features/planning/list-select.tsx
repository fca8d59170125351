import type { SelectHTMLAttributes } from 'react';

/** One of the agency's list; what is not on it any more stays until something else is chosen. */
export function ListSelect({
  control,
  value,
  list,
  onChange,
}: {
  control: SelectHTMLAttributes<HTMLSelectElement>;
  value: string;
  list: readonly string[];
  onChange: (value: string) => void;
}) {
  return (
    <select {...control} className="field" value={value} onChange={(event) => onChange(event.target.value)}>
      {!list.includes(value) && <option value={value}>{value || 'Choose'}</option>}
      {list.map((name) => (
        <option key={name} value={name}>
          {name}
        </option>
      ))}
    </select>
  );
}

import { useQuery } from '@tanstack/react-query';
import { regionsQuery } from '../api/agency';
import { Field } from '../ui/field';
import type { ChoiceProps } from '../ui/setup-fields';

/** A region: whose public holidays count. */
export function RegionField({ value, onChange, disabled }: ChoiceProps) {
  const { data: regions } = useQuery(regionsQuery);
  return (
    <Field label="Region" help="Its public holidays are no working days.">
      {(control) => (
        <select {...control} className="field" disabled={disabled} value={value} onChange={(event) => onChange(event.target.value)}>
          {!regions?.some((region) => region.code === value) && <option value={value}>{value}</option>}
          {regions?.map((region) => (
            <option key={region.code} value={region.code}>
              {region.name}
            </option>
          ))}
        </select>
      )}
    </Field>
  );
}

import { readTimeOfDay } from '@zesting/core';
import { minutesWords, zoneWords } from '../lib/format';
import { present } from '../lib/now';
import { useTyped } from './day-field';
import { Field } from './field';
import { clientColour } from './tags';

const ZONES = Intl.supportedValuesOf('timeZone');
const WEEKDAYS = ['Mon', 'Tue', 'Wed', 'Thu', 'Fri', 'Sat', 'Sun'];
const WEEKDAY_NAMES = ['Monday', 'Tuesday', 'Wednesday', 'Thursday', 'Friday', 'Saturday', 'Sunday'];

export interface ChoiceProps {
  readonly value: string;
  readonly onChange: (value: string) => void;
  readonly disabled?: boolean | undefined;
}

/** A time zone by its IANA name. */
export function ZoneField({ value, onChange, disabled }: ChoiceProps) {
  return (
    <Field label="Time zone">
      {(control) => (
        <select {...control} className="field" disabled={disabled} value={value} onChange={(event) => onChange(event.target.value)}>
          {!ZONES.includes(value) && <option value={value}>{value}</option>}
          {ZONES.map((zone) => (
            <option key={zone} value={zone}>
              {zone.replaceAll('_', ' ')}
            </option>
          ))}
        </select>
      )}
    </Field>
  );
}

/** Hours on Monday to Sunday; quarters of an hour, empty for none. */
export function WeekField({
  label,
  value,
  onChange,
  disabled,
}: {
  label: string;
  value: readonly number[];
  onChange: (minutes: number[]) => void;
  disabled?: boolean | undefined;
}) {
  const total = value.reduce((sum, minutes) => sum + minutes, 0);
  return (
    <fieldset className="mb-3.5">
      <legend className="font-medium mb-1">{label}</legend>
      <div className="grid grid-cols-7 gap-1.5 max-w-xl">
        {WEEKDAYS.map((name, index) => (
          <label key={name} className="text-[13px] text-muted">
            {name}
            <input
              type="number"
              min={0}
              max={24}
              step={0.25}
              className="field tabular px-1"
              aria-label={`Hours on ${WEEKDAY_NAMES[index] ?? ''}`}
              disabled={disabled}
              value={(value[index] ?? 0) === 0 ? '' : (value[index] ?? 0) / 60}
              placeholder="–"
              onChange={(event) => {
                const minutes = Math.round(Math.min(24, Math.max(0, Number(event.target.value) || 0)) * 60);
                onChange(value.map((other, at) => (at === index ? minutes : other)));
              }}
            />
          </label>
        ))}
      </div>
      <p className="text-muted text-[13px] mt-1">{total === 0 ? 'No hours at all' : `${minutesWords(total)} a week`}</p>
    </fieldset>
  );
}

interface NumberProps {
  readonly label: string;
  readonly unit: string;
  readonly least?: number;
  readonly most: number;
  readonly value: number;
  readonly disabled?: boolean;
  readonly onChange: (value: number) => void;
}

/** A whole number between two bounds. */
export function NumberField({ label, unit, least = 0, most, value, disabled, onChange }: NumberProps) {
  return (
    <Field label={label} help={unit}>
      {(control) => (
        <input
          {...control}
          type="number"
          min={least}
          max={most}
          step={1}
          className="field tabular w-24"
          disabled={disabled}
          value={value}
          onChange={(event) => onChange(Math.min(most, Math.max(least, Math.round(Number(event.target.value) || 0))))}
        />
      )}
    </Field>
  );
}

/** A time of day, typed as people do (9, 930, 9.30 pm) and shown as HH:MM. `optional`: it may be left empty. */
export function TimeField({
  label,
  help,
  value,
  disabled,
  optional = false,
  placeholder,
  onChange,
}: ChoiceProps & { label: string; help?: string | undefined; optional?: boolean; placeholder?: string }) {
  const typed = useTyped(value, readTimeOfDay, (time) => (optional || time !== '') && onChange(time));
  return (
    <Field label={label} help={help}>
      {(control) => (
        <input
          {...control}
          {...typed}
          type="text"
          autoComplete="off"
          className="field tabular w-24"
          placeholder={placeholder ?? '09:00'}
          disabled={disabled}
        />
      )}
    </Field>
  );
}

/** The twelve colours of clients, chosen as swatches. */
export function ColourField({ value, onChange }: { value: number; onChange: (step: number) => void }) {
  return (
    <fieldset className="mb-3.5">
      <legend className="font-medium mb-1">Colour</legend>
      <div className="grid grid-cols-6 w-fit gap-1.5">
        {Array.from({ length: 12 }, (_, step) => (
          <label key={step} className="relative size-8">
            <input
              type="radio"
              name="colour"
              aria-label={`Colour ${step + 1}`}
              className="peer absolute inset-0 size-8 opacity-0 cursor-pointer"
              checked={value === step}
              onChange={() => onChange(step)}
            />
            <span
              aria-hidden
              className="block size-8 rounded-md border-4 border-card outline-1 outline-line peer-checked:outline-2 peer-checked:outline-ink peer-focus-visible:outline-lake peer-focus-visible:outline-2"
              style={{ background: clientColour(step) }}
            />
          </label>
        ))}
      </div>
    </fieldset>
  );
}

/** "Auckland, 09:12 now": what the clock says in a zone. */
export const zoneClock = (zone: string): string =>
  `${zoneWords(zone)}, ${new Intl.DateTimeFormat('en-GB', { timeZone: zone, hour: '2-digit', minute: '2-digit' }).format(present())} now`;

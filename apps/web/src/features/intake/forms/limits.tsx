import { FILE_KINDS, type FormField } from '@zesting/core';
import { Field } from '../../../ui/field';
import { FILE_KIND_WORDS } from './words';

/** A number that may be left out. */
function Limit({ label, value, onChange }: { label: string; value: number | undefined; onChange: (value: number | undefined) => void }) {
  return (
    <Field label={label}>
      {(control) => (
        <input
          {...control}
          className="field tabular"
          inputMode="decimal"
          value={value ?? ''}
          onChange={(event) => {
            const text = event.target.value.trim();
            if (text === '') onChange(undefined);
            else if (Number.isFinite(Number(text))) onChange(Number(text));
          }}
        />
      )}
    </Field>
  );
}

/** What an answer may hold, by the kind of question. */
export function Limits({ field, onChange }: { field: FormField; onChange: (part: Partial<FormField>) => void }) {
  const put = (part: { [Key in keyof FormField]?: FormField[Key] | undefined }) => onChange(part as Partial<FormField>);
  const least = (label: string) => <Limit label={label} value={field.min} onChange={(min) => put({ min })} />;
  const most = (label: string) => <Limit label={label} value={field.max} onChange={(max) => put({ max })} />;
  switch (field.kind) {
    case 'short':
    case 'long':
      return (
        <div className="grid gap-x-3 grid-cols-2 sm:grid-cols-3">
          {least('Fewest characters')}
          {most('Most characters')}
          <Preset field={field} put={put} />
        </div>
      );
    case 'number':
    case 'money':
      return (
        <div className="grid gap-x-3 grid-cols-2 sm:grid-cols-4 items-end">
          {least('Least')}
          {most('Most')}
          <Field label={field.kind === 'money' ? 'Currency' : 'Unit'}>
            {(control) => (
              <input
                {...control}
                className="field"
                maxLength={20}
                value={field.unit ?? ''}
                onChange={(event) => put({ unit: event.target.value || undefined })}
              />
            )}
          </Field>
          {field.kind === 'number' && (
            <label className="flex items-center gap-2 min-h-9 mb-3.5">
              <input
                type="checkbox"
                className="size-4 accent-pine"
                checked={field.whole ?? false}
                onChange={(event) => put({ whole: event.target.checked || undefined })}
              />
              Whole numbers
            </label>
          )}
        </div>
      );
    case 'day':
    case 'span':
      return (
        <div className="flex flex-wrap gap-x-5">
          <Today
            label="Not before today"
            checked={field.notBefore === 'today'}
            onChange={(on) => put({ notBefore: on ? 'today' : undefined })}
          />
          <Today
            label="Not after today"
            checked={field.notAfter === 'today'}
            onChange={(on) => put({ notAfter: on ? 'today' : undefined })}
          />
        </div>
      );
    case 'several_of':
      return (
        <div className="grid gap-x-3 grid-cols-2">
          {least('Choose at least')}
          {most('Choose at most')}
        </div>
      );
    case 'one_of':
      return <Preset field={field} put={put} />;
    case 'channel':
      return (
        <Today label="More than one may be chosen" checked={field.several ?? false} onChange={(on) => put({ several: on || undefined })} />
      );
    case 'files':
      return <FileLimits field={field} put={put} />;
    default:
      return null;
  }
}

type Put = (part: { [Key in keyof FormField]?: FormField[Key] | undefined }) => void;

const Today = ({ label, checked, onChange }: { label: string; checked: boolean; onChange: (on: boolean) => void }) => (
  <label className="flex items-center gap-2 min-h-8 mb-2">
    <input type="checkbox" className="size-4 accent-pine" checked={checked} onChange={(event) => onChange(event.target.checked)} />
    {label}
  </label>
);

function Preset({ field, put }: { field: FormField; put: Put }) {
  const value = typeof field.preset === 'string' ? field.preset : '';
  return (
    <Field label="Holds at first">
      {(control) =>
        field.kind === 'one_of' ? (
          <select {...control} className="field" value={value} onChange={(event) => put({ preset: event.target.value || undefined })}>
            <option value="">Nothing</option>
            {field.options?.map((option) => (
              <option key={option.value} value={option.value}>
                {option.label ?? option.value}
              </option>
            ))}
          </select>
        ) : (
          <input {...control} className="field" value={value} onChange={(event) => put({ preset: event.target.value || undefined })} />
        )
      }
    </Field>
  );
}

function FileLimits({ field, put }: { field: FormField; put: Put }) {
  const kinds = field.fileKinds ?? [];
  return (
    <>
      <fieldset className="mb-2">
        <legend className="font-medium">Kinds</legend>
        <div className="flex flex-wrap gap-x-5">
          {FILE_KINDS.map((kind) => (
            <Today
              key={kind}
              label={FILE_KIND_WORDS[kind]}
              checked={kinds.length === 0 || kinds.includes(kind)}
              onChange={(on) => {
                const now = kinds.length === 0 ? [...FILE_KINDS] : [...kinds];
                const next = FILE_KINDS.filter((other) => (other === kind ? on : now.includes(other)));
                put({ fileKinds: next.length === 0 || next.length === FILE_KINDS.length ? undefined : next });
              }}
            />
          ))}
        </div>
      </fieldset>
      <div className="grid gap-x-3 grid-cols-2">
        <Limit label="At most so many (10)" value={field.max} onChange={(max) => put({ max })} />
        <Limit label="Each at most, in MB (2000)" value={field.megabytes} onChange={(megabytes) => put({ megabytes })} />
      </div>
    </>
  );
}

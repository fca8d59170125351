import {
  BRIEF_FACTS,
  FILE_KINDS,
  isAgencyOnly,
  isField,
  type Condition,
  type FieldKind,
  type FormField,
  type FormItem,
  type FoundFault,
  type Serves,
} from '@zesting/core';
import { Field } from '../../../ui/field';
import { ConditionEditor, firstTest } from './condition-editor';
import { OptionsEditor } from './options-editor';
import { faultWords, FILE_KIND_WORDS, KIND_WORDS, SERVES_WORDS } from './words';

interface FieldsProps {
  readonly item: FormItem;
  readonly items: readonly FormItem[];
  readonly faults: readonly FoundFault[];
  readonly onChange: (part: Partial<FormItem>, of?: string) => void;
}

/** What is set of one item. */
export function QuestionFields({ item, items, faults, onChange }: FieldsProps) {
  const own = faults.filter((fault) => fault.key === item.key);
  const others = items.filter((other) => other.key !== item.key);
  return (
    <>
      {own.length > 0 && (
        <ul role="alert" className="text-rhubarb font-medium mb-3">
          {own.map((fault, at) => (
            <li key={at}>{faultWords(fault, items)}</li>
          ))}
        </ul>
      )}
      <Field label={item.kind === 'text' ? 'Words' : item.kind === 'section' ? 'Heading' : 'Question'} required>
        {(control) =>
          item.kind === 'text' ? (
            <textarea
              {...control}
              className="field"
              rows={3}
              maxLength={5000}
              value={item.label}
              onChange={(event) => onChange({ label: event.target.value }, 'label')}
            />
          ) : (
            <input
              {...control}
              className="field"
              maxLength={500}
              value={item.label}
              onChange={(event) => onChange({ label: event.target.value }, 'label')}
            />
          )
        }
      </Field>
      {item.kind !== 'text' && (
        <Field label="Help below it">
          {(control) => (
            <input
              {...control}
              className="field"
              maxLength={2000}
              value={item.help ?? ''}
              onChange={(event) => onChange({ help: event.target.value || undefined } as Partial<FormItem>, 'help')}
            />
          )}
        </Field>
      )}
      {isField(item) && (
        <OfField field={item} items={items} others={others} onChange={onChange as (part: Partial<FormField>, of?: string) => void} />
      )}
      <Conditional
        legend="Shown"
        always="Always shown"
        sometimes="Shown only where"
        condition={item.shownIf}
        items={others}
        onChange={(shownIf) => onChange({ shownIf } as Partial<FormItem>)}
      />
    </>
  );
}

interface OfFieldProps {
  readonly field: FormField;
  readonly items: readonly FormItem[];
  readonly others: readonly FormItem[];
  readonly onChange: (part: Partial<FormField>, of?: string) => void;
}

/** Kinds that an answer of the other could be given in too: a question changes between them without losing its words. */
const ALIKE: readonly (readonly FieldKind[])[] = [
  ['short', 'long', 'link', 'email', 'phone', 'number', 'money', 'day', 'span', 'yes_no', 'files', 'channel', 'format', 'pillar'],
  ['one_of', 'several_of'],
];

function OfField({ field, items, others, onChange }: OfFieldProps) {
  const isOwnChoice = field.kind === 'one_of' || field.kind === 'several_of';
  return (
    <>
      <div className="grid gap-x-3 sm:grid-cols-2">
        <Field label="Kind of answer">
          {(control) => (
            <select
              {...control}
              className="field"
              value={field.kind}
              onChange={(event) => onChange(ofKind(field, event.target.value as FieldKind))}
            >
              {ALIKE.flat().map((kind) => (
                <option key={kind} value={kind}>
                  {KIND_WORDS[kind]}
                </option>
              ))}
            </select>
          )}
        </Field>
        <Field label="Tells the makers" help="By this the brief knows what is answered.">
          {(control) => (
            <select
              {...control}
              className="field"
              value={field.serves ?? ''}
              onChange={(event) => onChange({ serves: (event.target.value || undefined) as Serves | undefined } as Partial<FormField>)}
            >
              <option value="">Nothing of its own</option>
              {(['title', 'wish_date', ...BRIEF_FACTS] as const).map((serves) => (
                <option key={serves} value={serves}>
                  {SERVES_WORDS[serves]}
                </option>
              ))}
            </select>
          )}
        </Field>
      </div>
      {isOwnChoice && <OptionsEditor field={field} items={items} onChange={onChange} />}
      <Limits field={field} onChange={onChange} />
      <label className="flex items-center gap-2 min-h-8 mb-2">
        <input
          type="checkbox"
          className="size-4 accent-pine"
          checked={isAgencyOnly(field)}
          onChange={(event) => onChange({ agencyOnly: event.target.checked })}
        />
        For the agency only: hidden from freelancers
      </label>
      <Conditional
        legend="Needed"
        never="May be left empty"
        always="Always needed"
        sometimes="Needed only where"
        condition={field.needed}
        items={others}
        onChange={(needed) => onChange({ needed } as Partial<FormField>)}
      />
    </>
  );
}

/** A question of another kind: what only the kind before knows goes. */
function ofKind(field: FormField, kind: FieldKind): Partial<FormField> {
  const isOwnChoice = kind === 'one_of' || kind === 'several_of';
  const gone = {
    min: undefined,
    max: undefined,
    preset: undefined,
    whole: undefined,
    unit: undefined,
    notBefore: undefined,
    notAfter: undefined,
  };
  return {
    ...gone,
    kind,
    several: undefined,
    fileKinds: undefined,
    megabytes: undefined,
    options: isOwnChoice ? (field.options?.length ? field.options : [{ value: 'First' }, { value: 'Second' }]) : undefined,
    parent: isOwnChoice ? field.parent : undefined,
    ...(field.serves === 'title' && kind !== 'short' ? { serves: undefined } : {}),
    ...(field.serves === 'wish_date' && kind !== 'day' ? { serves: undefined } : {}),
  } as Partial<FormField>;
}

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

function Limits({ field, onChange }: { field: FormField; onChange: OfFieldProps['onChange'] }) {
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

interface ConditionalProps {
  readonly legend: string;
  readonly never?: string;
  readonly always: string;
  readonly sometimes: string;
  /** true is always, false or nothing never; without `never` nothing is always */
  readonly condition: boolean | Condition | undefined;
  readonly items: readonly FormItem[];
  readonly onChange: (condition: true | Condition | undefined) => void;
}

/** Never, always, or where a condition holds. */
function Conditional({ legend, never, always, sometimes, condition, items, onChange }: ConditionalProps) {
  const isConditional = typeof condition === 'object';
  const test = firstTest(items);
  const choices = [
    ...(never ? [{ words: never, on: !isConditional && condition !== true, put: () => onChange(undefined) }] : []),
    { words: always, on: !isConditional && (never ? condition === true : true), put: () => onChange(never ? true : undefined) },
    ...(test ? [{ words: sometimes, on: isConditional, put: () => onChange(test) }] : []),
  ];
  return (
    <fieldset className="mb-3">
      <legend className="sr-only">{legend}</legend>
      <div className="flex flex-wrap gap-x-5">
        {choices.map(({ words, on, put }) => (
          <label key={words} className="flex items-center gap-2 min-h-8">
            <input type="radio" className="size-4 accent-pine" checked={on} onChange={put} />
            {words}
          </label>
        ))}
      </div>
      {isConditional && (
        <ConditionEditor label={`${legend} where`} condition={condition} items={items} onChange={(next) => onChange(next)} />
      )}
    </fieldset>
  );
}

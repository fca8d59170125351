import {
  BRIEF_FACTS,
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
import { Limits } from './limits';
import { faultWords, KIND_WORDS, SERVES_WORDS } from './words';

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

import { isChoice, isField, testsOf, type AnswerTest, type Condition, type FormField, type FormItem, type TestName } from '@zesting/core';
import { Plus, Trash2 } from 'lucide-react';
import { Button, IconButton } from '../../../ui/button';
import { TEST_WORDS } from './words';

interface EditorProps {
  readonly label: string;
  readonly condition: Condition;
  readonly items: readonly FormItem[];
  readonly onChange: (condition: Condition | undefined) => void;
}

type Group = Exclude<Condition, AnswerTest>;
const partsOf = (group: Group): readonly Condition[] => ('all' in group ? group.all : group.any);
const withParts = (group: Group, parts: readonly Condition[]): Group => ('all' in group ? { all: parts } : { any: parts });
const isGroup = (condition: Condition): condition is Group => 'all' in condition || 'any' in condition;

/** A test to begin with: of the first choice there is, else whether the first question is answered. */
export function firstTest(items: readonly FormItem[]): AnswerTest | undefined {
  const fields = items.filter(isField);
  const choice = fields.find((field) => field.kind === 'yes_no' || (isChoice(field) && (field.options?.length ?? 0) > 0));
  const field = choice ?? fields[0];
  return field && testFor(field, choice ? undefined : 'answered');
}

function testFor(field: FormField, is?: TestName): AnswerTest {
  const tests = testsOf(field);
  const name = is && tests.includes(is) ? is : (tests.find((test) => test !== 'answered' && test !== 'not_answered') ?? 'answered');
  if (name === 'answered' || name === 'not_answered') return { field: field.key, is: name };
  const value = field.kind === 'yes_no' ? 'yes' : (field.options?.[0]?.value ?? '');
  return { field: field.key, is: name, value };
}

/** Tests joined by and, or or, to several levels; one test alone stands without a frame. */
export function ConditionEditor({ label, condition, items, onChange }: EditorProps) {
  const fields = items.filter(isField);
  const group = isGroup(condition) ? condition : null;
  const add = (inner: boolean) => {
    const test = firstTest(items);
    if (!test) return;
    const part: Condition = inner ? { any: [test] } : test;
    onChange(group ? withParts(group, [...partsOf(group), part]) : { all: [condition, part] });
  };
  if (fields.length === 0) return <p className="text-muted">There is no other question to ask about.</p>;
  return (
    <div role="group" aria-label={label}>
      {group ? (
        <Parts group={group} items={items} depth={1} onChange={onChange} />
      ) : (
        <TestRow test={condition as AnswerTest} fields={fields} onChange={onChange} onRemove={() => onChange(undefined)} />
      )}
      <div className="flex flex-wrap gap-1 mt-1">
        <Button look="quiet" onClick={() => add(false)}>
          <Plus size={14} aria-hidden /> Another condition
        </Button>
        <Button look="quiet" onClick={() => add(true)}>
          <Plus size={14} aria-hidden /> A group of conditions
        </Button>
      </div>
    </div>
  );
}

interface PartsProps {
  readonly group: Group;
  readonly items: readonly FormItem[];
  readonly depth: number;
  readonly onChange: (condition: Condition | undefined) => void;
}

function Parts({ group, items, depth, onChange }: PartsProps) {
  const fields = items.filter(isField);
  const parts = partsOf(group);
  const put = (next: readonly Condition[]) => {
    const [only] = next;
    if (next.length === 0) onChange(undefined);
    else onChange(next.length === 1 && depth === 1 && only ? only : withParts(group, next));
  };
  const replace = (at: number, part: Condition | undefined) =>
    put(part === undefined ? parts.filter((_, index) => index !== at) : parts.map((old, index) => (index === at ? part : old)));
  return (
    <div className={depth > 1 ? 'border-l-2 border-line-strong pl-2 my-1' : ''}>
      <label className="flex items-center gap-2 mb-1 text-[13px]">
        Where
        <select
          className="field w-auto min-h-8"
          aria-label="How the conditions are joined"
          value={'all' in group ? 'all' : 'any'}
          onChange={(event) => onChange(event.target.value === 'all' ? { all: parts } : { any: parts })}
        >
          <option value="all">all of these hold</option>
          <option value="any">any of these holds</option>
        </select>
      </label>
      <ul className="grid gap-1">
        {parts.map((part, at) => (
          <li key={at}>
            {isGroup(part) ? (
              <>
                <Parts group={part} items={items} depth={depth + 1} onChange={(next) => replace(at, next)} />
                <Button
                  look="quiet"
                  className="ml-2"
                  onClick={() => {
                    const test = firstTest(items);
                    if (test) replace(at, withParts(part, [...partsOf(part), test]));
                  }}
                >
                  <Plus size={14} aria-hidden /> Another in this group
                </Button>
              </>
            ) : (
              <TestRow test={part} fields={fields} onChange={(next) => replace(at, next)} onRemove={() => replace(at, undefined)} />
            )}
          </li>
        ))}
      </ul>
    </div>
  );
}

interface TestRowProps {
  readonly test: AnswerTest;
  readonly fields: readonly FormField[];
  readonly onChange: (test: AnswerTest) => void;
  readonly onRemove: () => void;
}

function TestRow({ test, fields, onChange, onRemove }: TestRowProps) {
  const field = fields.find(({ key }) => key === test.field);
  return (
    <div className="flex flex-wrap items-center gap-1.5">
      <select
        className="field w-auto min-w-32 max-w-64 flex-1 min-h-8"
        aria-label="Question"
        value={test.field}
        onChange={(event) => {
          const next = fields.find(({ key }) => key === event.target.value);
          if (next) onChange(testFor(next, test.is));
        }}
      >
        {!field && <option value={test.field}>{test.field} (not there)</option>}
        {fields.map(({ key, label }) => (
          <option key={key} value={key}>
            {label || key}
          </option>
        ))}
      </select>
      <select
        className="field w-auto min-h-8"
        aria-label="Test"
        value={test.is}
        onChange={(event) => field && onChange(keptValue(testFor(field, event.target.value as TestName), test))}
      >
        {(field ? testsOf(field) : [test.is]).map((name) => (
          <option key={name} value={name}>
            {TEST_WORDS[name]}
          </option>
        ))}
      </select>
      {test.is !== 'answered' && test.is !== 'not_answered' && <ValueInput test={test} field={field} onChange={onChange} />}
      <IconButton label="Take this condition out" onClick={onRemove}>
        <Trash2 size={15} aria-hidden />
      </IconButton>
    </div>
  );
}

const keptValue = (next: AnswerTest, before: AnswerTest): AnswerTest =>
  next.value !== undefined && before.value !== undefined ? { ...next, value: before.value } : next;

function ValueInput({ test, field, onChange }: { test: AnswerTest; field: FormField | undefined; onChange: (test: AnswerTest) => void }) {
  const put = (value: string) => onChange({ ...test, value });
  const options =
    field?.kind === 'yes_no'
      ? [
          { value: 'yes', label: 'yes' },
          { value: 'no', label: 'no' },
        ]
      : field && isChoice(field)
        ? (field.options ?? [])
        : null;
  if (!options || options.length === 0)
    return (
      <input
        className="field w-auto min-w-28 max-w-48 flex-1 min-h-8"
        aria-label="Value"
        placeholder={field?.kind === 'day' ? '2027-03-16' : ''}
        value={test.value ?? ''}
        onChange={(event) => put(event.target.value)}
      />
    );
  return (
    <select
      className="field w-auto min-w-28 max-w-48 flex-1 min-h-8"
      aria-label="Value"
      value={test.value ?? ''}
      onChange={(event) => put(event.target.value)}
    >
      {!options.some(({ value }) => value === test.value) && <option value={test.value ?? ''}>{test.value || 'Choose…'}</option>}
      {options.map(({ value, label }) => (
        <option key={value} value={value}>
          {label ?? value}
        </option>
      ))}
    </select>
  );
}

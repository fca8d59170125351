import { isField, type FieldOption, type FormField, type FormItem } from '@zesting/core';
import { ArrowDown, ArrowUp, Plus, Trash2 } from 'lucide-react';
import { Button, IconButton } from '../../../ui/button';
import { Field } from '../../../ui/field';
import { moved } from './items';

interface OptionsProps {
  readonly field: FormField;
  readonly items: readonly FormItem[];
  readonly onChange: (part: Partial<FormField>, of?: string) => void;
}

/** What can be chosen, and under which choice of another question each is offered. */
export function OptionsEditor({ field, items, onChange }: OptionsProps) {
  const options = field.options ?? [];
  const parents = items.filter(isField).filter(({ key, kind }) => key !== field.key && (kind === 'one_of' || kind === 'several_of'));
  const parent = parents.find(({ key }) => key === field.parent);
  const put = (next: readonly FieldOption[], of?: string) => onChange({ options: next }, of);
  const change = (at: number, part: Partial<FieldOption>, of?: string) =>
    put(
      options.map((option, index) => (index === at ? { ...option, ...part } : option)),
      of,
    );
  return (
    <div className="mb-3.5">
      <p className="font-medium mb-1">Choices</p>
      <ol className="grid gap-1" aria-label="Choices">
        {options.map((option, at) => (
          <li key={at}>
            <div className="flex items-center gap-1">
              <input
                className="field min-h-8"
                aria-label={`Choice ${at + 1}`}
                maxLength={200}
                value={option.value}
                onChange={(event) => change(at, { value: event.target.value }, `option:${at}`)}
              />
              <IconButton label={`Move choice ${at + 1} up`} disabled={at === 0} onClick={() => put(moved(options, at, at - 1))}>
                <ArrowUp size={14} aria-hidden />
              </IconButton>
              <IconButton
                label={`Move choice ${at + 1} down`}
                disabled={at === options.length - 1}
                onClick={() => put(moved(options, at, at + 1))}
              >
                <ArrowDown size={14} aria-hidden />
              </IconButton>
              <IconButton label={`Take out choice ${at + 1}`} onClick={() => put(options.filter((_, index) => index !== at))}>
                <Trash2 size={14} aria-hidden />
              </IconButton>
            </div>
            {parent && <Under option={option} parent={parent} onChange={(under) => change(at, { under })} />}
          </li>
        ))}
      </ol>
      <Button look="quiet" className="mt-1" disabled={options.length >= 100} onClick={() => put([...options, { value: '' }])}>
        <Plus size={14} aria-hidden /> Another choice
      </Button>
      {parents.length > 0 && (
        <Field label="The choices depend on">
          {(control) => (
            <select
              {...control}
              className="field"
              value={field.parent ?? ''}
              onChange={(event) => {
                const chosen = parents.find(({ key }) => key === event.target.value);
                const all = chosen?.options?.map(({ value }) => value);
                onChange({
                  parent: chosen?.key,
                  options: options.map(({ under: _, ...option }) => (all ? { ...option, under: all } : option)),
                } as Partial<FormField>);
              }}
            >
              <option value="">Nothing: all are always offered</option>
              {parents.map(({ key, label }) => (
                <option key={key} value={key}>
                  {label}
                </option>
              ))}
            </select>
          )}
        </Field>
      )}
    </div>
  );
}

/** The parent's choices under which one is offered. */
function Under({ option, parent, onChange }: { option: FieldOption; parent: FormField; onChange: (under: readonly string[]) => void }) {
  const values = parent.options?.map(({ value }) => value) ?? [];
  const under = option.under ?? values;
  return (
    <fieldset className="flex flex-wrap gap-x-4 pl-2 text-[13px]">
      <legend className="sr-only">{`“${option.value}” is offered under`}</legend>
      <span className="text-muted self-center">offered under</span>
      {values.map((value) => (
        <label key={value} className="flex items-center gap-1.5 min-h-7">
          <input
            type="checkbox"
            className="size-3.5 accent-pine"
            checked={under.includes(value)}
            onChange={(event) => onChange(values.filter((other) => (other === value ? event.target.checked : under.includes(other))))}
          />
          {value}
        </label>
      ))}
    </fieldset>
  );
}

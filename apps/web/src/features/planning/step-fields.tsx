import type { RouteStepBody } from '@zesting/contract';
import { isByClient, type RouteProblem, type RouteStep } from '@zesting/core';
import { useState } from 'react';
import { Button } from '../../ui/button';
import { Field } from '../../ui/field';
import { ListSelect } from './list-select';
import { PROBLEM_WORDS, STEP_DOES } from './route-words';

/** Where the fields of a step are found. */
export const stepFieldsId = (key: string): string => `route-step-${key}`;

interface StepFieldsProps {
  readonly step: RouteStepBody;
  readonly put: (part: Partial<RouteStepBody>) => void;
  readonly steps: readonly RouteStepBody[];
  readonly skills: readonly string[];
  readonly problem: RouteProblem['code'] | undefined;
}

/** One step of a route: what it does, who can, how long, what it waits for. */
export function StepFields({ step, put, steps, skills, problem }: StepFieldsProps) {
  const asksClient = isByClient(step.kind);
  const [isListed, setListed] = useState(false);
  const hasList = isListed || (step.checklist ?? []).length > 0;
  return (
    <div id={stepFieldsId(step.key)}>
      <div className="grid gap-x-3 grid-cols-2 lg:grid-cols-[minmax(0,1.3fr)_9.5rem_minmax(0,1fr)_5.5rem_6rem]">
        <Field label="Step" error={problem && PROBLEM_WORDS[problem]}>
          {(control) => (
            <input {...control} className="field" value={step.title} onChange={(event) => put({ title: event.target.value })} />
          )}
        </Field>
        <Field label="What it does">
          {(control) => (
            <select
              {...control}
              className="field"
              value={step.kind}
              onChange={(event) => put({ kind: event.target.value as RouteStep['kind'] })}
            >
              {Object.entries(STEP_DOES).map(([kind, words]) => (
                <option key={kind} value={kind}>
                  {words}
                </option>
              ))}
            </select>
          )}
        </Field>
        <Field label="Skill">
          {(control) =>
            asksClient ? (
              <input {...control} className="field" disabled value="the client" />
            ) : (
              <ListSelect control={control} value={step.skill} list={skills} onChange={(skill) => put({ skill })} />
            )
          }
        </Field>
        <NumberField label="Span, days" value={step.spanDays} onChange={(spanDays) => put({ spanDays })} />
        <NumberField
          label="Effort, h"
          disabled={asksClient}
          value={step.effortMinutes / 60}
          step={0.25}
          onChange={(hours) => put({ effortMinutes: Math.round(hours * 60) })}
        />
      </div>
      <div className="flex flex-wrap items-center gap-x-5 gap-y-1">
        <fieldset className="flex flex-wrap items-center gap-x-3">
          <legend className="float-left mr-3 text-muted min-h-8 leading-8">Waits for</legend>
          {steps
            .filter((other) => other.key !== step.key)
            .map((other) => (
              <Check
                key={other.key}
                words={other.title || 'unnamed'}
                checked={step.after.includes(other.key)}
                onChange={(on) => put({ after: on ? [...step.after, other.key] : step.after.filter((key) => key !== other.key) })}
              />
            ))}
        </fieldset>
      </div>
      <div className="flex flex-wrap items-center gap-x-5">
        <Check words="may start the same day" checked={step.sameDay ?? false} onChange={(sameDay) => put({ sameDay })} />
        <Check words="may be left out" checked={step.optional ?? false} onChange={(optional) => put({ optional })} />
        <Check
          words="done again when changes are asked"
          checked={step.reworkSpanDays !== undefined}
          onChange={(on) => {
            if (on) put({ reworkSpanDays: 1, reworkEffortMinutes: Math.round(step.effortMinutes / 3) });
            else put({ reworkSpanDays: undefined, reworkEffortMinutes: undefined });
          }}
        />
        {step.reworkSpanDays !== undefined && (
          <span className="inline-flex items-center gap-2 text-[13px] text-muted">
            in
            <input
              type="number"
              min={1}
              max={60}
              aria-label={`Days of ${step.title} when done again`}
              className="field w-16"
              value={step.reworkSpanDays}
              onChange={(event) => put({ reworkSpanDays: Number(event.target.value) })}
            />
            days,
            <input
              type="number"
              min={0}
              step={0.25}
              aria-label={`Hours of ${step.title} when done again`}
              className="field w-18"
              disabled={asksClient}
              value={(step.reworkEffortMinutes ?? step.effortMinutes) / 60}
              onChange={(event) => put({ reworkEffortMinutes: Math.round(Number(event.target.value) * 60) })}
            />
            h
          </span>
        )}
      </div>
      {!asksClient && !hasList && (
        <Button look="quiet" className="-ml-3" onClick={() => setListed(true)}>
          Checklist…
        </Button>
      )}
      {!asksClient && hasList && (
        <div className="mt-2">
          <Field
            label={`Checklist of ${step.title || 'the step'}`}
            help="A line for each thing to look at: all are ticked before it is handed in. Pieces that begin from now on have it; those under way once they are taken along."
          >
            {(control) => (
              <textarea
                {...control}
                className="field"
                rows={Math.max(2, (step.checklist ?? []).length + 1)}
                value={(step.checklist ?? []).join('\n')}
                onChange={(event) => put({ checklist: event.target.value === '' ? undefined : event.target.value.split('\n') })}
              />
            )}
          </Field>
        </div>
      )}
    </div>
  );
}

function NumberField({
  label,
  value,
  step = 1,
  disabled = false,
  onChange,
}: {
  label: string;
  value: number;
  step?: number;
  disabled?: boolean;
  onChange: (value: number) => void;
}) {
  return (
    <Field label={label}>
      {(control) => (
        <input
          {...control}
          type="number"
          min={0}
          step={step}
          className="field tabular"
          disabled={disabled}
          value={value}
          onChange={(event) => onChange(Number(event.target.value))}
        />
      )}
    </Field>
  );
}

function Check({ words, checked, onChange }: { words: string; checked: boolean; onChange: (on: boolean) => void }) {
  return (
    <label className="inline-flex items-center gap-2 min-h-8">
      <input type="checkbox" className="size-4 accent-pine" checked={checked} onChange={(event) => onChange(event.target.checked)} />
      {words}
    </label>
  );
}

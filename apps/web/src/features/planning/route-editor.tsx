import type { EditRouteBody, RouteMadeShape, RoutePageShape, RouteStepBody, RoutesPageShape } from '@zesting/contract';
import { isByClient, routeProblems, type RouteProblem, type RouteStep } from '@zesting/core';
import { useState, type SelectHTMLAttributes } from 'react';
import { toast } from 'sonner';
import { call } from '../../lib/api';
import { useTouched } from '../../lib/queries';
import { Button } from '../../ui/button';
import { EditedSection, useEdited } from '../../ui/edited';
import { Field } from '../../ui/field';
import { ListEditor } from '../../ui/list-editor';

const PROBLEM_WORDS: Record<RouteProblem['code'], string> = {
  'route.empty': 'A route needs a step.',
  'route.title_missing': 'Give this step a name.',
  'route.title_twice': 'Another step has this name.',
  'route.span_wrong': 'Spans are 1 to 60 whole days.',
  'route.effort_wrong': 'Efforts are 0 to 200 hours.',
  'route.predecessor_unknown': 'It waits for a step that is gone.',
  'route.circular': 'Steps wait for each other in a ring.',
  'route.nothing_made': 'One step at least must make something.',
  'route.sign_off_not_last': 'Nothing but sign-off may wait for the client’s sign-off.',
};
const KINDS: Record<RouteStep['kind'], string> = {
  make: 'makes',
  check: 'checks',
  deliver: 'client brings something',
  sign_off: 'client signs off',
};

/** A key that no step has: stored with pieces, so it never changes with the title. */
function freeKey(steps: readonly RouteStep[]): string {
  for (let number = steps.length + 1; ; number++) if (!steps.some((step) => step.key === `step-${number}`)) return `step-${number}`;
}

const draftOf = (route: RoutePageShape | null, page: RoutesPageShape): EditRouteBody => ({
  name: route?.name ?? '',
  formatName: route?.formatName ?? page.formats[0] ?? '',
  roundsAllowed: route?.roundsAllowed ?? null,
  steps: (route?.steps ?? FIRST_STEPS).map((step) => ({ ...step, after: [...step.after], checklist: [...(step.checklist ?? [])] })),
});

const FIRST_STEPS: readonly RouteStep[] = [
  {
    key: 'make',
    title: 'Make',
    kind: 'make',
    skill: '',
    spanDays: 2,
    effortMinutes: 240,
    after: [],
    reworkSpanDays: 1,
    reworkEffortMinutes: 60,
  },
  { key: 'check', title: 'Check', kind: 'check', skill: 'check', spanDays: 1, effortMinutes: 30, after: ['make'], reworkSpanDays: 1 },
  {
    key: 'sign-off',
    title: 'Client sign-off',
    kind: 'sign_off',
    skill: 'sign_off',
    spanDays: 2,
    effortMinutes: 0,
    after: ['check'],
    reworkSpanDays: 1,
  },
];

/** A route with its steps: what each waits for, how long it takes, and whether it is done again when changes are asked. */
export function RouteEditor({
  route,
  page,
  onMade,
}: {
  route: RoutePageShape | null;
  page: RoutesPageShape;
  onMade: (id: string) => void;
}) {
  const touched = useTouched();
  const edited = useEdited<EditRouteBody, RoutePageShape>(
    `route:${route?.id ?? 'new'}`,
    draftOf(route, page),
    route?.version ?? 0,
    async (draft, version) => {
      if (route) await call(`/routes/${route.id}`, { method: 'PATCH', body: draft, version });
      else onMade((await call<RouteMadeShape>('/routes', { method: 'POST', body: draft })).routeId);
      touched();
      toast('Saved');
    },
    (theirs) => draftOf(theirs, page),
  );
  const { draft, change } = edited;
  const problems = routeProblems(draft.steps);
  const whole = problems.find((problem) => problem.key === null);
  return (
    <EditedSection
      title={route ? route.name : 'New route'}
      edited={edited}
      readOnly={!page.canEdit}
      note={page.canEdit ? undefined : 'A lead changes routes.'}
    >
      <fieldset disabled={!page.canEdit}>
        <div className="grid gap-x-3 sm:grid-cols-[minmax(0,1.2fr)_minmax(0,1fr)_10rem]">
          <Field label="Name" required>
            {(control) => (
              <input {...control} className="field" value={draft.name} onChange={(event) => change({ name: event.target.value })} />
            )}
          </Field>
          <Field label="Format" required>
            {(control) => (
              <ListSelect
                control={control}
                value={draft.formatName}
                list={page.formats}
                onChange={(formatName) => change({ formatName })}
              />
            )}
          </Field>
          <Field label="Rounds allowed">
            {(control) => (
              <input
                {...control}
                type="number"
                min={1}
                max={9}
                className="field"
                placeholder="the client’s"
                value={draft.roundsAllowed ?? ''}
                onChange={(event) => change({ roundsAllowed: event.target.value === '' ? null : Number(event.target.value) })}
              />
            )}
          </Field>
        </div>
        {whole && <p className="text-rhubarb font-medium mb-2">{PROBLEM_WORDS[whole.code]}</p>}
        <ListEditor<RouteStepBody>
          label="Steps"
          ordered
          items={draft.steps}
          onChange={(steps) =>
            change({
              steps: steps.map((step) => ({ ...step, after: step.after.filter((key) => steps.some((other) => other.key === key)) })),
            })
          }
          nameOf={(step) => step.title}
          make={() => ({
            key: freeKey(draft.steps),
            title: '',
            kind: 'make',
            skill: '',
            spanDays: 1,
            effortMinutes: 60,
            after: draft.steps.slice(-1).map((step) => step.key),
          })}
          addWords="Add a step"
          empty="No step yet."
        >
          {(step, put) => (
            <StepFields
              step={step}
              put={put}
              steps={draft.steps}
              skills={page.skills}
              problem={problems.find((problem) => problem.key === step.key)?.code}
            />
          )}
        </ListEditor>
      </fieldset>
    </EditedSection>
  );
}

/** One of the agency's list; what is not on it any more stays until something else is chosen. */
function ListSelect({
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

interface StepFieldsProps {
  readonly step: RouteStepBody;
  readonly put: (part: Partial<RouteStepBody>) => void;
  readonly steps: readonly RouteStepBody[];
  readonly skills: readonly string[];
  readonly problem: RouteProblem['code'] | undefined;
}

function StepFields({ step, put, steps, skills, problem }: StepFieldsProps) {
  const asksClient = isByClient(step.kind);
  const [isListed, setListed] = useState(false);
  const hasList = isListed || (step.checklist ?? []).length > 0;
  return (
    <>
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
              {Object.entries(KINDS).map(([kind, words]) => (
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
            help="A line for each thing to look at: all are ticked before it is handed in. Pieces that begin from now on have it."
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
    </>
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

import type { EditRouteBody, RouteMadeShape, RoutePageShape, RouteStepBody, RoutesPageShape } from '@zesting/contract';
import { routeProblems } from '@zesting/core';
import { toast } from 'sonner';
import { call } from '../../lib/api';
import { useTouched } from '../../lib/queries';
import { EditedSection, useEdited } from '../../ui/edited';
import { Field } from '../../ui/field';
import { ListEditor } from '../../ui/list-editor';
import { ListSelect } from './list-select';
import { draftOf, freeKey } from './route-drafts';
import { RoutePicture } from './route-picture';
import { PROBLEM_WORDS } from './route-words';
import { StepFields } from './step-fields';

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
      <fieldset disabled={!page.canEdit} className="min-w-0">
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
        <RoutePicture steps={draft.steps} />
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

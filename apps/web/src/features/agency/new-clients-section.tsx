import { useSuspenseQuery } from '@tanstack/react-query';
import type { AgencySettingsShape, DefaultPolicyBody } from '@zesting/contract';
import { FORM_STOCK } from '@zesting/core';
import { Link } from 'react-router';

import { routesQuery } from '../../api/production';
import { EditedSection } from '../../ui/edited';
import { Field } from '../../ui/field';
import { ListEditor } from '../../ui/list-editor';
import { NumberField } from '../../ui/setup-fields';
import { useAgencySection } from './use-agency-section';

/** What a client begins with when it is taken on; each has its own afterwards. */
export function NewClientsSection({ agency }: { agency: AgencySettingsShape }) {
  return (
    <div className="grid gap-4 lg:grid-cols-2 items-start">
      <PolicyCard agency={agency} />
      <FormCard agency={agency} />
    </div>
  );
}

const KINDS: Record<DefaultPolicyBody['kind'], string> = { any: 'Any one contact approves', all: 'All contacts approve' };

function PolicyCard({ agency }: { agency: AgencySettingsShape }) {
  const { edited, locked } = useAgencySection(
    'default-policy',
    agency,
    ({ defaultPolicy }) => ({ defaultPolicy }),
    (body) => body,
  );
  const { kind, silenceDays } = edited.draft.defaultPolicy;
  const put = (defaultPolicy: DefaultPolicyBody) => edited.change({ defaultPolicy });
  return (
    <EditedSection title="Sign-off" note="How a new client signs, until its page says otherwise." edited={edited} readOnly={locked}>
      <fieldset disabled={locked} className="mb-3">
        <legend className="sr-only">Who approves</legend>
        {(Object.keys(KINDS) as DefaultPolicyBody['kind'][]).map((choice) => (
          <label key={choice} className="flex items-center gap-2 min-h-8">
            <input
              type="radio"
              name="default-policy"
              className="size-4 accent-pine"
              checked={kind === choice}
              onChange={() => put({ kind: choice, ...(silenceDays === undefined ? {} : { silenceDays }) })}
            />
            {KINDS[choice]}
          </label>
        ))}
      </fieldset>
      <label className="flex items-center gap-2 min-h-8">
        <input
          type="checkbox"
          className="size-4 accent-pine"
          disabled={locked}
          checked={silenceDays !== undefined}
          onChange={(event) => put({ kind, ...(event.target.checked ? { silenceDays: 5 } : {}) })}
        />
        No answer may be recorded as approval
      </label>
      {silenceDays !== undefined && (
        <NumberField
          label="After"
          unit="of the client’s working days; a person records it, nothing approves by itself"
          least={1}
          most={30}
          value={silenceDays}
          disabled={locked}
          onChange={(days) => put({ kind, silenceDays: days })}
        />
      )}
    </EditedSection>
  );
}

interface Question {
  readonly id: string;
  readonly needed: boolean;
}
const questionOf = (key: string) => FORM_STOCK.fields.find((field) => field.key === key);

function FormCard({ agency }: { agency: AgencySettingsShape }) {
  const { data: routes } = useSuspenseQuery(routesQuery);
  const { edited, locked } = useAgencySection(
    'default-form',
    agency,
    ({ defaultForm: form }) => ({
      title: form?.title ?? FORM_STOCK.title,
      intro: form?.intro ?? FORM_STOCK.intro,
      routeId: form?.routeId ?? '',
      questions: (form?.asked ?? FORM_STOCK.fields.map((field) => field.key)).map((id): Question => ({
        id,
        needed: form ? form.needed.includes(id) : (questionOf(id)?.required ?? false),
      })),
    }),
    ({ title, intro, routeId, questions }) => ({
      defaultForm: {
        title,
        intro,
        routeId,
        asked: questions.map((question) => question.id),
        needed: questions.filter((question) => question.needed).map((question) => question.id),
      },
    }),
  );
  const { draft, change } = edited;
  if (routes.length === 0)
    return (
      <section aria-label="Form" className="card p-4">
        <h2 className="text-lg mb-1">Form</h2>
        <p className="text-muted">
          A request takes a route, and there is none yet.{' '}
          <Link to="/agency?part=lists" className="text-pine underline">
            Take the starting stock
          </Link>{' '}
          or{' '}
          <Link to="/routes" className="text-pine underline">
            make one
          </Link>
          .
        </p>
      </section>
    );
  return (
    <EditedSection
      title="Form"
      note={
        agency.defaultForm
          ? 'A new client gets it with its own link; those that were given out stay as they are.'
          : 'There is none yet: save this one, and every new client gets it with its own link.'
      }
      edited={agency.defaultForm ? edited : { ...edited, isDirty: true }}
      readOnly={locked}
    >
      <fieldset disabled={locked}>
        <Field label="Title" required>
          {(control) => (
            <input
              {...control}
              className="field"
              maxLength={100}
              value={draft.title}
              onChange={(event) => change({ title: event.target.value })}
            />
          )}
        </Field>
        <Field label="Words above the questions">
          {(control) => (
            <textarea
              {...control}
              className="field"
              rows={2}
              value={draft.intro}
              onChange={(event) => change({ intro: event.target.value })}
            />
          )}
        </Field>
        <Field label="Route" help="The earliest date that the form tells is reckoned by it; you choose anew when you accept.">
          {(control) => (
            <select {...control} className="field" value={draft.routeId} onChange={(event) => change({ routeId: event.target.value })}>
              {!routes.some((route) => route.id === draft.routeId) && <option value={draft.routeId}>Choose a route</option>}
              {routes.map((route) => (
                <option key={route.id} value={route.id}>
                  {route.name} ({route.formatName})
                </option>
              ))}
            </select>
          )}
        </Field>
        <p className="font-medium mb-1">Questions</p>
        <ListEditor<Question>
          label="Questions"
          ordered
          dense
          items={draft.questions}
          archived={FORM_STOCK.fields.map((field) => ({ id: field.key, needed: false }))}
          archivedWords="Not asked"
          onChange={(questions) => change({ questions })}
          nameOf={({ id }) => questionOf(id)?.label ?? id}
          empty="Nothing is asked."
        >
          {({ id, needed }, put) => (
            <div className="flex items-center gap-3">
              <span className="flex-1 min-w-0">
                {questionOf(id)?.label ?? id}
                {questionOf(id)?.agencyOnly && <span className="text-muted text-[13px]"> (hidden from freelancers)</span>}
              </span>
              <label className="flex items-center gap-1.5 min-h-8 text-[13px]">
                <input
                  type="checkbox"
                  className="size-4 accent-pine"
                  aria-label={`${questionOf(id)?.label ?? id}: needed`}
                  checked={needed}
                  onChange={(event) => put({ needed: event.target.checked })}
                />
                needed
              </label>
            </div>
          )}
        </ListEditor>
      </fieldset>
    </EditedSection>
  );
}

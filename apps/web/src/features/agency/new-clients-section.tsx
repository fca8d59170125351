import { useInfiniteQuery } from '@tanstack/react-query';
import type { AgencySettingsShape, DefaultPolicyBody } from '@zesting/contract';
import { Link } from 'react-router';
import { formsQuery } from '../../api/forms';
import { EditedSection } from '../../ui/edited';
import { Field } from '../../ui/field';
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

/** The form that a new client gets a link to. */
function FormCard({ agency }: { agency: AgencySettingsShape }) {
  const { data } = useInfiniteQuery(formsQuery(''));
  const { edited, locked } = useAgencySection(
    'default-form',
    agency,
    ({ defaultFormId }) => ({ defaultFormId }),
    (body) => body,
  );
  const forms = data?.pages.flatMap((page) => page.items).filter((form) => form.publishedVersion !== null) ?? [];
  const { defaultFormId } = edited.draft;
  return (
    <EditedSection
      title="Form"
      note="A new client gets a link of its own to it; what clients have already stays."
      edited={edited}
      readOnly={locked}
    >
      <Field label="A new client is asked by">
        {(control) => (
          <select
            {...control}
            className="field"
            disabled={locked}
            value={defaultFormId ?? ''}
            onChange={(event) => edited.change({ defaultFormId: event.target.value || null })}
          >
            <option value="">No form: it is given one by hand</option>
            {forms.map(({ id, title }) => (
              <option key={id} value={id}>
                {title}
              </option>
            ))}
          </select>
        )}
      </Field>
      <Link to={defaultFormId ? `/forms/${defaultFormId}` : '/forms'} className="text-pine underline inline-flex items-center min-h-8">
        {defaultFormId ? 'See what it asks' : 'Make a form'}
      </Link>
    </EditedSection>
  );
}

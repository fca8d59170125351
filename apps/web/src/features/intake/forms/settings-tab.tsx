import { useQuery } from '@tanstack/react-query';
import type { FormShape } from '@zesting/contract';
import { FORM_LANGUAGES, getDay, type FormLanguage } from '@zesting/core';
import { routesQuery } from '../../../api/production';
import { call } from '../../../lib/api';
import { useClients, useSession, useWrite } from '../../../lib/queries';
import { DayField } from '../../../ui/day-field';
import { Field } from '../../../ui/field';
import { NumberField } from '../../../ui/setup-fields';
import { ClientCode } from '../../../ui/tags';
import type { FormDraft } from './use-form-draft';
import { LANGUAGE_WORDS } from './words';

/** What a form says around its questions, when it is open, and for whom it is. */
export function SettingsTab({ form, draft }: { form: FormShape; draft: FormDraft }) {
  const { todayOn } = useSession();
  const { data: routes } = useQuery(routesQuery);
  const { content, change } = draft;
  const day = (text: string) => (text === '' ? null : getDay(text));
  return (
    <>
      <fieldset disabled={!form.canEdit}>
        <Field label="Title" required>
          {(control) => (
            <input
              {...control}
              className="field"
              maxLength={100}
              value={content.title}
              onChange={(event) => change({ title: event.target.value }, 'title')}
            />
          )}
        </Field>
        <WordsField label="Words above the questions" value={content.intro} onChange={(intro) => change({ intro }, 'intro')} />
        <WordsField
          label="Words of thanks"
          help="Said once it is sent, before the number of the request."
          value={content.thanks}
          onChange={(thanks) => change({ thanks }, 'thanks')}
        />
        <div className="grid gap-x-3 sm:grid-cols-2">
          <Field label="Route" required help="What a request takes unless a rule says otherwise; the earliest day is reckoned by it.">
            {(control) => (
              <select
                {...control}
                className="field"
                value={content.routeId ?? ''}
                onChange={(event) => change({ routeId: event.target.value || null })}
              >
                {!routes?.some(({ id }) => id === content.routeId) && <option value={content.routeId ?? ''}>Choose a route</option>}
                {routes?.map(({ id, name, formatName }) => (
                  <option key={id} value={id}>
                    {name} ({formatName})
                  </option>
                ))}
              </select>
            )}
          </Field>
          <Field label="Language of the built-in words" help="What you write yourself stays as you write it.">
            {(control) => (
              <select
                {...control}
                className="field"
                value={content.language}
                onChange={(event) => change({ language: event.target.value as FormLanguage })}
              >
                {FORM_LANGUAGES.map((language) => (
                  <option key={language} value={language}>
                    {LANGUAGE_WORDS[language]}
                  </option>
                ))}
              </select>
            )}
          </Field>
          <DayField
            label="Opens on"
            help="Empty: open at once. By the client’s day."
            todayOn={todayOn}
            value={content.opensOn ?? ''}
            disabled={!form.canEdit}
            onChange={(on) => change({ opensOn: day(on) })}
          />
          <DayField
            label="Last day"
            help="Empty: open until you close it."
            todayOn={todayOn}
            value={content.closesOn ?? ''}
            disabled={!form.canEdit}
            onChange={(on) => change({ closesOn: day(on) })}
          />
          <NumberField
            label="Notice"
            unit="of the client’s working days; less is said, not refused"
            least={0}
            most={260}
            value={content.noticeDays}
            disabled={!form.canEdit}
            onChange={(noticeDays) => change({ noticeDays }, 'notice')}
          />
          <NumberField
            label="Answer promised within"
            unit="of our working days; 0 promises nothing"
            least={0}
            most={60}
            value={content.answerDays}
            disabled={!form.canEdit}
            onChange={(answerDays) => change({ answerDays }, 'answer')}
          />
        </div>
      </fieldset>
      <FormClients form={form} />
    </>
  );
}

interface WordsProps {
  readonly label: string;
  readonly help?: string;
  readonly value: string;
  readonly onChange: (words: string) => void;
}

/** Words that the page of the form says, a few lines of them. */
function WordsField({ label, help, value, onChange }: WordsProps) {
  return (
    <Field label={label} help={help}>
      {(control) => (
        <textarea
          {...control}
          className="field"
          rows={2}
          maxLength={2000}
          value={value}
          onChange={(event) => onChange(event.target.value)}
        />
      )}
    </Field>
  );
}

/** Which clients the form is for. Each has its own links to it; their colour and name stand on its page. */
function FormClients({ form }: { form: FormShape }) {
  const { clients } = useClients();
  const put = useWrite((clientIds: string[]) => call(`/forms/${form.id}/clients`, { method: 'PUT', body: { clientIds } }));
  return (
    <fieldset disabled={!form.canEdit || put.isPending} className="mt-2">
      <legend className="font-medium">For the clients</legend>
      <p className="text-muted text-[13px] mb-1">
        Whoever is ticked can be given a link. Rules name pillars and channels only where the form is for one client.
      </p>
      <div className="grid sm:grid-cols-2 gap-x-4">
        {clients.map(({ id, code, name, colour }) => (
          <label key={id} className="flex items-center gap-2 min-h-8 min-w-0">
            <input
              type="checkbox"
              className="size-4 accent-pine shrink-0"
              checked={form.clientIds.includes(id)}
              onChange={(event) =>
                put.mutate(event.target.checked ? [...form.clientIds, id] : form.clientIds.filter((other) => other !== id))
              }
            />
            <ClientCode code={code} colour={colour} />
            <span className="truncate">{name}</span>
          </label>
        ))}
      </div>
    </fieldset>
  );
}

import type { AgencySettingsShape } from '@zesting/contract';
import { toast } from 'sonner';
import { ApiProblem, call, wordsOf } from '../../lib/api';
import { instantWords } from '../../lib/format';
import { useWrite } from '../../lib/queries';
import { weekdayName } from '../../lib/rhythm-words';
import { RHYTHM_WORDS } from '../../lib/words';
import { Button } from '../../ui/button';
import { EditedSection } from '../../ui/edited';
import { Field } from '../../ui/field';
import { TimeField } from '../../ui/setup-fields';
import { Tag } from '../../ui/tags';
import { useAgencySection } from './use-agency-section';

/** Whom mail comes from, when nothing is sent, and what a new person's messages begin with. */
export function MessagesSection({ agency }: { agency: AgencySettingsShape }) {
  return (
    <div className="grid gap-4">
      <Sender agency={agency} />
      <Hours agency={agency} />
    </div>
  );
}

function Sender({ agency }: { agency: AgencySettingsShape }) {
  const { edited, locked } = useAgencySection(
    'sender',
    agency,
    ({ mailFrom }) => ({ name: mailFrom?.name ?? '', address: mailFrom?.address ?? '' }),
    ({ name, address }) => ({ mailFrom: name.trim() || address.trim() ? { name: name.trim(), address: address.trim() } : null }),
  );
  const { draft, change } = edited;
  const tryIt = useWrite(() => call('/agency/trial-mail', { method: 'POST' }), { quiet: true });
  const reason = tryIt.error instanceof ApiProblem ? tryIt.error.body['reason'] : undefined;
  return (
    <EditedSection
      title="Whom mail comes from"
      note="Left empty, it comes from the address that the installation names. The mail server must let this address send."
      edited={edited}
      readOnly={locked}
    >
      <div className="grid sm:grid-cols-2 gap-x-4">
        <Field label="Name">
          {(control) => (
            <input
              {...control}
              className="field"
              readOnly={locked}
              placeholder={agency.name}
              value={draft.name}
              onChange={(event) => change({ name: event.target.value })}
            />
          )}
        </Field>
        <Field label="Address">
          {(control) => (
            <input
              {...control}
              type="email"
              className="field"
              readOnly={locked}
              value={draft.address}
              onChange={(event) => change({ address: event.target.value })}
            />
          )}
        </Field>
      </div>
      <div className="flex flex-wrap items-center gap-3 min-h-8">
        {agency.mailProvedAt ? (
          <Tag tone="pine">The mail server took a trial mail {instantWords(agency.mailProvedAt)}</Tag>
        ) : (
          <Tag tone="rind">Not tried yet</Tag>
        )}
        {!locked && (
          <Button
            disabled={edited.isDirty || tryIt.isPending}
            onClick={() => tryIt.mutate(undefined, { onSuccess: () => toast('Sent to your own address') })}
          >
            Send me a trial mail
          </Button>
        )}
        {edited.isDirty && <span className="text-muted text-[13px]">Save first, then try.</span>}
      </div>
      {tryIt.error && (
        <p role="alert" className="text-rhubarb font-medium mt-2">
          {wordsOf(tryIt.error)}
          {typeof reason === 'string' && ` It said: ${reason}`}
        </p>
      )}
    </EditedSection>
  );
}

function Hours({ agency }: { agency: AgencySettingsShape }) {
  const { edited, locked } = useAgencySection(
    'hours',
    agency,
    ({ quietFrom, quietTo, roundUp, roundUpAt, checkWeekday }) => ({ quietFrom, quietTo, roundUp, roundUpAt, checkWeekday }),
    (body) => body,
  );
  const { draft, change } = edited;
  return (
    <EditedSection title="When messages go out" edited={edited} readOnly={locked}>
      <fieldset className="mb-2">
        <legend className="font-medium mb-1">Quiet hours</legend>
        <div className="flex flex-wrap gap-x-4">
          <TimeField label="From" value={draft.quietFrom} disabled={locked} onChange={(quietFrom) => change({ quietFrom })} />
          <TimeField label="To" value={draft.quietTo} disabled={locked} onChange={(quietTo) => change({ quietTo })} />
        </div>
        <p className="text-muted text-[13px] max-w-[70ch]">
          {draft.quietFrom === draft.quietTo
            ? 'None: messages go out at any hour.'
            : 'By the clock of whoever is written to. What comes up meanwhile goes out when they end; contacts and makers are reminded after them. A daily round-up keeps its own time.'}
        </p>
      </fieldset>
      <fieldset>
        <legend className="font-medium mb-1">A new person’s messages come</legend>
        {(Object.keys(RHYTHM_WORDS) as (keyof typeof RHYTHM_WORDS)[]).map((key) => (
          <label key={key} className="flex items-center gap-2 min-h-8">
            <input
              type="radio"
              name="first-round-up"
              className="size-4 accent-pine"
              disabled={locked}
              checked={draft.roundUp === key}
              onChange={() => change({ roundUp: key })}
            />
            {RHYTHM_WORDS[key]}
          </label>
        ))}
        {draft.roundUp === 'daily' && (
          <TimeField label="At" value={draft.roundUpAt} disabled={locked} onChange={(roundUpAt) => change({ roundUpAt })} />
        )}
        <p className="text-muted text-[13px]">Everybody changes it on their own page.</p>
      </fieldset>
      <div className="mt-3.5">
        <Field
          label="The coming week is looked through on"
          help="Managers are then told what goes out in the next seven days and is not ready, or nobody has looked at. Where nobody works that day, the working day before."
        >
          {(control) => (
            <select
              {...control}
              className="field max-w-64"
              disabled={locked}
              value={draft.checkWeekday ?? ''}
              onChange={({ target }) => change({ checkWeekday: target.value === '' ? null : Number(target.value) })}
            >
              <option value="">No day: nobody is reminded</option>
              {[1, 2, 3, 4, 5, 6, 7].map((weekday) => (
                <option key={weekday} value={weekday}>
                  {weekdayName(weekday)}
                </option>
              ))}
            </select>
          )}
        </Field>
      </div>
    </EditedSection>
  );
}

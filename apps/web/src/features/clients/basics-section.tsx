import type { ClientPageShape, ClosureBody } from '@zesting/contract';
import { COPY_LANGUAGES, type CopyLanguage } from '@zesting/core';
import { dayWords } from '../../lib/format';
import { EditedSection } from '../../ui/edited';
import { Link } from 'react-router';
import { useSession } from '../../lib/queries';
import { Field } from '../../ui/field';
import { SpanFields } from '../../ui/span-fields';
import { ListEditor } from '../../ui/list-editor';
import { TimeField, ColourField, WeekField, ZoneField } from '../../ui/setup-fields';
import { RegionField } from '../../parts/region-field';
import { useClientSection } from './use-client-section';

const names = new Intl.DisplayNames('en-GB', { type: 'language' });
const languageName = (language: CopyLanguage): string => names.of(language) ?? language;

/** Name, colour, clock, managers, rounds, feed. The code stays: it stands on files and links. */
export function BasicsSection({ client }: { client: ClientPageShape }) {
  const edited = useClientSection(
    'basics',
    client,
    ({ name, colour, zone, region, usualTime, language, roundsAgreed, feedPencilled, managers }) => ({
      name,
      colour,
      zone,
      region,
      usualTime,
      language,
      roundsAgreed,
      feedPencilled,
      managers,
    }),
    ({ managers, ...body }) => ({ ...body, managerIds: managers.map((manager) => manager.personId) }),
  );
  const { draft, change } = edited;
  const managers = client.possibleManagers.filter(({ role }) => role === 'manager');
  return (
    <EditedSection title="Basics" edited={edited}>
      <div className="grid gap-x-6 md:grid-cols-2 max-w-4xl">
        <div>
          <Field label="Name" required>
            {(control) => (
              <input {...control} className="field" value={draft.name} onChange={(event) => change({ name: event.target.value })} />
            )}
          </Field>
          <p className="mb-3.5">
            <span className="font-medium">Code {client.code}</span>
            <span className="text-muted"> stays for good: it stands on files and links.</span>
          </p>
          <ColourField value={draft.colour} onChange={(colour) => change({ colour })} />
          <fieldset className="mb-3.5">
            <legend className="font-medium mb-1">Account managers</legend>
            {managers.map((person) => (
              <label key={person.personId} className="inline-flex items-center gap-2 min-h-8 mr-5">
                <input
                  type="checkbox"
                  className="size-4 accent-pine"
                  checked={draft.managers.some(({ personId }) => personId === person.personId)}
                  onChange={(event) =>
                    change({
                      managers: event.target.checked
                        ? [...draft.managers, { personId: person.personId, name: person.name }]
                        : draft.managers.filter(({ personId }) => personId !== person.personId),
                    })
                  }
                />
                {person.name}
                {managers.some((other) => other !== person && other.name === person.name) && (
                  <span className="text-muted">{person.email}</span>
                )}
              </label>
            ))}
          </fieldset>
        </div>
        <div>
          <ZoneField value={draft.zone} onChange={(zone) => change({ zone })} />
          <RegionField value={draft.region} onChange={(region) => change({ region })} />
          <Field label="Language of its copy" help="What was said before is found in it.">
            {(control) => (
              <select
                {...control}
                className="field"
                value={draft.language}
                onChange={(event) =>
                  change({ language: COPY_LANGUAGES.find((language) => language === event.target.value) ?? draft.language })
                }
              >
                {COPY_LANGUAGES.map((language) => (
                  <option key={language} value={language}>
                    {languageName(language)}
                  </option>
                ))}
              </select>
            )}
          </Field>
          <div className="grid grid-cols-2 gap-3">
            <TimeField label="Usual publish time" value={draft.usualTime} onChange={(usualTime) => change({ usualTime })} />
            <Field label="Rounds agreed">
              {(control) => (
                <input
                  {...control}
                  type="number"
                  min={1}
                  max={9}
                  className="field"
                  value={draft.roundsAgreed}
                  onChange={(event) => change({ roundsAgreed: Number(event.target.value) })}
                />
              )}
            </Field>
          </div>
          <label className="flex items-center gap-2 min-h-8">
            <input
              type="checkbox"
              className="size-4 accent-pine"
              checked={draft.feedPencilled}
              onChange={(event) => change({ feedPencilled: event.target.checked })}
            />
            Pencilled placements are in the client’s calendar feed
          </label>
        </div>
      </div>
    </EditedSection>
  );
}

/** When the client answers: hours, closures, and the public holidays of its region. */
export function DaysSection({ client }: { client: ClientPageShape }) {
  const { todayOn } = useSession();
  const edited = useClientSection(
    'week',
    client,
    ({ weeklyMinutes, closures }) => ({ weeklyMinutes, closures }),
    (body) => body,
  );
  const { draft, change } = edited;
  return (
    <EditedSection
      title="Days and closures"
      note="No answer is due, and no sign-off is planned, on a day on which the client does not work."
      edited={edited}
    >
      <div className="grid gap-x-8 gap-y-4 md:grid-cols-[minmax(0,1fr)_18rem]">
        <div>
          <WeekField label="Working hours" value={draft.weeklyMinutes} onChange={(weeklyMinutes) => change({ weeklyMinutes })} />
          <h3 className="text-base mb-2">Closures</h3>
          <ListEditor<ClosureBody>
            label="Closures"
            items={draft.closures}
            onChange={(closures) => change({ closures })}
            nameOf={(closure) => closure.name}
            make={() => ({ startOn: '', endOn: '', name: '' })}
            addWords="Add a closure"
            empty="None: stocktaking, works holidays and the like stand here."
          >
            {(closure, put) => (
              <div className="grid sm:grid-cols-[minmax(0,1fr)_11.5rem_11.5rem] gap-x-3">
                <Field label="What for">
                  {(control) => (
                    <input {...control} className="field" value={closure.name} onChange={(event) => put({ name: event.target.value })} />
                  )}
                </Field>
                <SpanFields span={closure} todayOn={todayOn} onChange={put} />
              </div>
            )}
          </ListEditor>
        </div>
        <div className="grid content-start gap-4">
          <Holidays holidays={client.holidays} />
          <div>
            <h3 className="text-base mb-1">Observances on the calendar</h3>
            <p className="text-[13px] text-muted">{client.observances.length === 0 ? 'None.' : client.observances.join(' · ')}</p>
            <Link to={`/plan/year?client=${client.code}&open=observances`} className="text-pine underline text-[13px]">
              Choose them
            </Link>
          </div>
        </div>
      </div>
    </EditedSection>
  );
}

/** The public holidays ahead, as they come from the region. */
export function Holidays({ holidays }: { holidays: readonly { on: string; name: string }[] }) {
  return (
    <div>
      <h3 className="text-base mb-1">Public holidays ahead</h3>
      {holidays.length === 0 && <p className="text-muted">None is known for this region.</p>}
      <ul className="text-[13px] tabular grid gap-0.5">
        {holidays.map((holiday) => (
          <li key={`${holiday.on}${holiday.name}`} className="flex gap-2">
            <span className="w-32 shrink-0">{dayWords(holiday.on)}</span>
            <span className="text-muted">{holiday.name}</span>
          </li>
        ))}
      </ul>
    </div>
  );
}

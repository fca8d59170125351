import type { AgencySettingsShape } from '@zesting/contract';
import { EditedSection } from '../../ui/edited';
import { Field } from '../../ui/field';
import { NumberField, TimeField, WeekField, ZoneField } from '../../ui/setup-fields';
import { RegionField } from '../../parts/region-field';
import { useAgencySection } from './use-agency-section';

const names = new Intl.DisplayNames('en-GB', { type: 'currency' });
const CURRENCIES = Intl.supportedValuesOf('currency').map((code) => [code, names.of(code) ?? code] as const);

/** Where and when the agency works, and what its words mean. */
export function WorkSection({ agency }: { agency: AgencySettingsShape }) {
  const { edited, locked } = useAgencySection(
    'work',
    agency,
    ({ name, zone, region, weeklyMinutes, cutOff, tightDays, currency, noticeDays, launchNoticeDays, sessionDays, keepsPlaces }) => ({
      name,
      zone,
      region,
      weeklyMinutes,
      cutOff,
      tightDays,
      currency,
      noticeDays,
      launchNoticeDays,
      sessionDays,
      keepsPlaces,
    }),
    (body) => body,
  );
  const { draft, change } = edited;
  return (
    <EditedSection title="Work" edited={edited} readOnly={locked}>
      <div className="grid sm:grid-cols-2 gap-x-4">
        <Field label="Name" required help="As clients read it">
          {(control) => (
            <input
              {...control}
              className="field"
              readOnly={locked}
              value={draft.name}
              onChange={(event) => change({ name: event.target.value })}
            />
          )}
        </Field>
        <ZoneField value={draft.zone} disabled={locked} onChange={(zone) => change({ zone })} />
        <RegionField value={draft.region} disabled={locked} onChange={(region) => change({ region })} />
        <TimeField
          label="Cut-off"
          help="Work that arrives later in its doer’s day begins on their next"
          disabled={locked}
          value={draft.cutOff}
          onChange={(cutOff) => change({ cutOff })}
        />
      </div>
      <Field label="Currency" help="Of fees and rates. Amounts that are agreed stay the figures they are.">
        {(control) => (
          <select
            {...control}
            className="field max-w-80"
            disabled={locked}
            value={draft.currency}
            onChange={(event) => change({ currency: event.target.value })}
          >
            {CURRENCIES.map(([code, name]) => (
              <option key={code} value={code}>
                {code}, {name}
              </option>
            ))}
          </select>
        )}
      </Field>
      <WeekField
        label="Hours of work that nobody has yet"
        value={draft.weeklyMinutes}
        disabled={locked}
        onChange={(weeklyMinutes) => change({ weeklyMinutes })}
      />
      <div className="grid sm:grid-cols-2 gap-x-4">
        <NumberField
          label="Tight"
          unit="A piece is tight with so many working days of slack, or fewer"
          most={20}
          value={draft.tightDays}
          disabled={locked}
          onChange={(tightDays) => change({ tightDays })}
        />
        <NumberField
          label="Notice for anything"
          unit="Days ahead that clients should ask; less is said when you judge a request"
          most={365}
          value={draft.noticeDays}
          disabled={locked}
          onChange={(noticeDays) => change({ noticeDays })}
        />
        <NumberField
          label="Notice for a launch"
          unit="The same for what is wished for within a week of a launch"
          most={365}
          value={draft.launchNoticeDays}
          disabled={locked}
          onChange={(launchNoticeDays) => change({ launchNoticeDays })}
        />
        <NumberField
          label="Days until one must sign in again"
          unit="Counted from signing in; who is signed in keeps what was set then"
          least={1}
          most={90}
          value={draft.sessionDays}
          disabled={locked}
          onChange={(sessionDays) => change({ sessionDays })}
        />
      </div>
      <label className="flex items-start gap-2 max-w-[60ch]">
        <input
          type="checkbox"
          className="size-4 mt-0.5 accent-pine"
          disabled={locked}
          checked={draft.keepsPlaces}
          onChange={(event) => change({ keepsPlaces: event.target.checked })}
        />
        <span>
          Pictures keep where and when they were taken
          <span className="block text-muted text-[13px]">
            Otherwise it is taken out as they come in, since the files go on to clients and channels. Pictures that are here already stay as
            they are.
          </span>
        </span>
      </label>
    </EditedSection>
  );
}

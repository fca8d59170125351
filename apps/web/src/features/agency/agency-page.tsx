import { useQueryClient, useSuspenseQuery } from '@tanstack/react-query';
import type { AgencySettingsShape, EditAgencyBody } from '@zesting/contract';
import { toast } from 'sonner';
import { call } from '../../lib/api';
import { sessionQuery, useSession, useTouched } from '../../lib/queries';
import { EditedSection, useEdited } from '../../ui/edited';
import { Field } from '../../ui/field';
import { PageHead } from '../../ui/page';
import { RegionField, WeekField, ZoneField } from '../../ui/setup-fields';

const pick = ({ version: _, ...settings }: AgencySettingsShape): EditAgencyBody => settings;

/** What the agency sets for all of its work. */
export function AgencyPage() {
  const { role } = useSession();
  const queries = useQueryClient();
  const touched = useTouched();
  const { data: agency } = useSuspenseQuery({ queryKey: ['agency'], queryFn: () => call<AgencySettingsShape>('/agency') });
  const edited = useEdited(
    'agency',
    pick(agency),
    agency.version,
    async (body: EditAgencyBody, version) => {
      queries.setQueryData(['agency'], await call<AgencySettingsShape>('/agency', { method: 'PATCH', body, version }));
      touched();
      void queries.invalidateQueries({ queryKey: sessionQuery.queryKey }); // it carries the agency's name
      toast('Saved');
    },
    pick,
  );
  const { draft, change } = edited;
  const locked = role !== 'lead';
  return (
    <div className="max-w-3xl mx-auto">
      <PageHead title="Agency" />
      <EditedSection title="Settings" edited={edited} readOnly={locked} note={locked ? 'A lead changes these.' : undefined}>
        <div className="grid sm:grid-cols-2 gap-x-4">
          <Field label="Name" required help="As clients read it">
            {(control) => (
              <input
                {...control}
                className="field"
                readOnly={locked}
                value={draft.name ?? ''}
                onChange={(event) => change({ name: event.target.value })}
              />
            )}
          </Field>
          <ZoneField value={draft.zone ?? ''} disabled={locked} onChange={(zone) => change({ zone })} />
          <RegionField value={draft.region ?? ''} disabled={locked} onChange={(region) => change({ region })} />
          <Field label="Cut-off" help="Work that arrives later in its doer’s day begins on their next">
            {(control) => (
              <input
                {...control}
                type="time"
                className="field w-32"
                readOnly={locked}
                value={draft.cutOff ?? ''}
                onChange={(event) => event.target.value && change({ cutOff: event.target.value })}
              />
            )}
          </Field>
        </div>
        <WeekField
          label="Hours of work that nobody has yet"
          value={draft.weeklyMinutes ?? []}
          disabled={locked}
          onChange={(weeklyMinutes) => change({ weeklyMinutes })}
        />
        <div className="grid sm:grid-cols-2 gap-x-4">
          <NumberField
            label="Tight"
            unit="A piece is tight with so many working days of slack, or fewer"
            most={20}
            value={draft.tightDays ?? 0}
            locked={locked}
            onChange={(tightDays) => change({ tightDays })}
          />
          <NumberField
            label="Days until one must sign in again"
            unit="Counted from signing in; who is signed in keeps what was set then"
            least={1}
            most={90}
            value={draft.sessionDays ?? 1}
            locked={locked}
            onChange={(sessionDays) => change({ sessionDays })}
          />
        </div>
        <label className="flex items-start gap-2 max-w-[60ch]">
          <input
            type="checkbox"
            className="size-4 mt-0.5 accent-pine"
            disabled={locked}
            checked={draft.keepsPlaces ?? false}
            onChange={(event) => change({ keepsPlaces: event.target.checked })}
          />
          <span>
            Pictures keep where and when they were taken
            <span className="block text-muted text-[13px]">
              Otherwise it is taken out as they come in, since the files go on to clients and channels. Pictures that are here already stay
              as they are.
            </span>
          </span>
        </label>
      </EditedSection>
    </div>
  );
}

interface NumberProps {
  readonly label: string;
  readonly unit: string;
  readonly least?: number;
  readonly most: number;
  readonly value: number;
  readonly locked: boolean;
  readonly onChange: (value: number) => void;
}

/** A whole number between two bounds. */
function NumberField({ label, unit, least = 0, most, value, locked, onChange }: NumberProps) {
  return (
    <Field label={label} help={unit}>
      {(control) => (
        <input
          {...control}
          type="number"
          min={least}
          max={most}
          step={1}
          className="field tabular w-24"
          readOnly={locked}
          value={value}
          onChange={(event) => onChange(Math.min(most, Math.max(least, Math.round(Number(event.target.value) || 0))))}
        />
      )}
    </Field>
  );
}

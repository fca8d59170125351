import { useQuery } from '@tanstack/react-query';
import type { ClientPageShape } from '@zesting/contract';
import { routesQuery } from '../../api/production';
import { EditedSection } from '../../ui/edited';
import { Field } from '../../ui/field';
import { useClientSection } from './use-client-section';

/** What is typed as a number of at most so much; anything else is no figure. Nothing is not agreed. */
const toCount = (text: string, most: number): number | null => {
  const figures = text.replace(/\D/g, '');
  return figures === '' ? null : Math.min(most, Number(figures));
};

/** What the client's retainer includes in a month, by hours, by pieces of a format, or both. */
export function AllowanceSection({ client }: { client: ClientPageShape }) {
  const { data: routes } = useQuery(routesQuery);
  const edited = useClientSection(
    'allowance',
    client,
    ({ allowance }) => ({ allowance }),
    (body) => body,
  );
  const { hours, formats: lines } = edited.draft.allowance;
  const put = (part: Partial<ClientPageShape['allowance']>) => edited.change({ allowance: { ...edited.draft.allowance, ...part } });
  const made = new Map(routes?.map(({ formatId, formatName }) => [formatId, formatName]));
  // what is agreed stays to be seen, also of a format that no route makes any more
  const formats = [...new Set([...made.keys(), ...lines.map(({ formatId }) => formatId)])];
  return (
    <EditedSection
      title="What a month includes"
      note="A request is judged by what is left of it, and contacts see what is left when they ask. An empty field is not agreed, and not counted."
      edited={edited}
    >
      <div className="max-w-md">
        <Field label="Hours of work a month">
          {(control) => (
            <input
              {...control}
              className="field w-28 tabular"
              inputMode="numeric"
              value={hours ?? ''}
              onChange={(event) => put({ hours: toCount(event.target.value, 10_000) })}
            />
          )}
        </Field>
        <fieldset>
          <legend className="font-medium mb-1">Pieces a month</legend>
          {formats.map((id) => {
            const line = lines.find(({ formatId }) => formatId === id);
            return (
              <label key={id} className="flex items-center gap-3 py-1 border-t border-line first-of-type:border-t-0">
                <span className="flex-1 min-w-0 truncate">{made.get(id) ?? 'A format that no route makes'}</span>
                <input
                  className="field w-28 tabular min-h-8"
                  inputMode="numeric"
                  value={line?.pieces ?? ''}
                  onChange={(event) => {
                    const pieces = toCount(event.target.value, 1_000);
                    const others = lines.filter(({ formatId }) => formatId !== id);
                    put({ formats: pieces === null ? others : [...others, { formatId: id, pieces }] });
                  }}
                />
              </label>
            );
          })}
        </fieldset>
      </div>
    </EditedSection>
  );
}

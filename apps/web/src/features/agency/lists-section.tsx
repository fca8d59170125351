import type { AgencySettingsShape, ListEntryBody, ListEntryShape, StockShape } from '@zesting/contract';
import { Link } from 'react-router';
import { toast } from 'sonner';
import { call } from '../../lib/api';
import { count } from '../../lib/format';
import { useSession, useWrite } from '../../lib/queries';
import { Button } from '../../ui/button';
import { EditedSection } from '../../ui/edited';
import { ListEditor } from '../../ui/list-editor';
import { useAgencySection } from './use-agency-section';

const LISTS = {
  formats: {
    title: 'Formats',
    note: 'What kinds of piece you make, in the order in which they are offered. A route makes one of them.',
    add: 'Add a format',
    empty: 'No format yet. A route needs one.',
    uses: (number: number) => count(number, 'route'),
  },
  skills: {
    title: 'Skills',
    note: 'What a step asks for and people can do. A new name is taken over by routes, people and steps.',
    add: 'Add a skill',
    empty: 'No skill yet. A step asks for one.',
    uses: (number: number) => count(number, 'use'),
  },
  markerKinds: {
    title: 'Kinds of markers',
    note: 'What else stands on your calendars beside launches, offers, events and the like: a fair, an audit, a delivery.',
    add: 'Add a kind',
    empty: 'None of your own. The usual kinds are always there.',
    uses: (number: number) => count(number, 'marker'),
  },
} as const;

/** The agency's own lists. */
export function ListsSection({ agency }: { agency: AgencySettingsShape }) {
  return (
    <>
      <StockCard />
      <p className="mb-4">
        <Link to="/agency/writing" className="text-pine underline">
          What each format is written by
        </Link>{' '}
        <span className="text-muted">Subject lines, titles, scripts, and the outline that copy begins from.</span>
      </p>
      <div className="grid gap-4 lg:grid-cols-2 items-start">
        <ListCard list="formats" agency={agency} />
        <ListCard list="skills" agency={agency} />
        <ListCard list="markerKinds" agency={agency} />
      </div>
    </>
  );
}

/** What was added of the starting stock, in words. */
export function stockWords({ formats, routes, skills, form }: StockShape): string {
  const parts = [
    formats.length > 0 && count(formats.length, 'format'),
    routes.length > 0 && count(routes.length, 'route'),
    skills.length > 0 && count(skills.length, 'skill'),
    form && 'a form for new clients',
  ].filter(Boolean);
  return parts.length === 0 ? 'You have all of it already' : `Added: ${parts.join(', ')}`;
}

function StockCard() {
  const { role } = useSession();
  const take = useWrite(() => call<StockShape>('/agency/stock', { method: 'POST' }));
  if (role !== 'lead') return null;
  return (
    <section aria-label="Starting stock" className="card p-4 mb-4 flex flex-wrap items-center gap-x-6 gap-y-2">
      <p className="max-w-[70ch]">
        <span className="font-medium">Starting stock.</span>{' '}
        <span className="text-muted">
          The usual formats with a route for each, the skills that they ask for, and a form for new clients. What you have stays as it is.
        </span>
      </p>
      <Button
        className="ml-auto"
        disabled={take.isPending}
        onClick={() => take.mutate(undefined, { onSuccess: (added) => toast(stockWords(added)) })}
      >
        Add what is missing
      </Button>
    </section>
  );
}

type Entry = ListEntryBody & { readonly uses?: number };

function ListCard({ list, agency }: { list: keyof typeof LISTS; agency: AgencySettingsShape }) {
  const words = LISTS[list];
  const { edited, locked } = useAgencySection<{ items: Entry[] }>(
    list,
    agency,
    (settings) => ({ items: settings[list].map((entry: ListEntryShape) => ({ ...entry })) }),
    ({ items }) => ({ [list]: items.map(({ id, name }) => ({ ...(id ? { id } : {}), name: name.trim() })) }),
  );
  return (
    <EditedSection title={words.title} note={words.note} edited={edited} readOnly={locked}>
      <fieldset disabled={locked}>
        <ListEditor<Entry>
          label={words.title}
          ordered
          dense
          items={edited.draft.items}
          archived={agency.archived[list]}
          onChange={(items) => edited.change({ items })}
          nameOf={(entry) => entry.name}
          make={() => ({ name: '' })}
          addWords={words.add}
          empty={words.empty}
        >
          {(entry, put) => (
            <div className="flex items-center gap-3">
              <input
                className="field"
                aria-label={`Name of ${entry.name || 'the new entry'}`}
                maxLength={40}
                value={entry.name}
                onChange={(event) => put({ name: event.target.value })}
              />
              <span className="text-muted text-[13px] whitespace-nowrap w-16">
                {entry.uses === undefined ? 'new' : entry.uses === 0 ? 'unused' : words.uses(entry.uses)}
              </span>
            </div>
          )}
        </ListEditor>
      </fieldset>
    </EditedSection>
  );
}

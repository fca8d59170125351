import { useQuery } from '@tanstack/react-query';
import type { CalendarShape } from '@zesting/contract';
import { campaignsQuery } from '../../api/campaigns';
import { routesQuery } from '../../api/production';
import { count } from '../../lib/format';
import { useClients, useSession } from '../../lib/queries';
import { useSearch } from '../../lib/use-search';
import { STAGE_WORDS } from '../../lib/words';
import { formatsOf } from '../../lib/formats-of';
import { Button } from '../../ui/button';
import { FilterSelect } from '../../ui/filter-select';
import { FILTERS, type Filter, type FilterName } from './view';

interface CalendarFilterProps {
  readonly filter: Filter;
  /** the days that are seen: campaigns of others are not offered */
  readonly from: string;
  readonly to: string;
  readonly calendar: CalendarShape;
}

interface Options {
  readonly name: FilterName;
  readonly words: string;
  readonly options: readonly { readonly id: string; readonly name: string }[];
}

/** What is shown of the calendar alone, and how many that leaves out. Pillars and channels are a client's. */
export function CalendarFilter({ filter, from, to, calendar }: CalendarFilterProps) {
  const { client, query } = useClients();
  const { role } = useSession();
  const { put } = useSearch();
  const isManager = role === 'lead' || role === 'manager';
  const { data: routes = [] } = useQuery({ ...routesQuery, enabled: isManager });
  const { data: campaigns } = useQuery({ ...campaignsQuery(`from=${from}&to=${to}&${query}`), enabled: isManager });
  const formats = formatsOf(routes);
  const all: readonly Options[] = [
    { name: 'pillar', words: 'Pillar', options: client?.pillars ?? [] },
    { name: 'channel', words: 'Channel', options: client?.channels ?? [] },
    { name: 'format', words: 'Format', options: formats },
    { name: 'campaign', words: 'Campaign', options: campaigns?.campaigns ?? [] },
    {
      name: 'theme',
      words: 'Theme',
      options: client
        ? [
            { id: 'on', name: 'speaks to it' },
            { id: 'off', name: 'off it' },
          ]
        : [],
    },
    { name: 'stage', words: 'Stage', options: Object.entries(STAGE_WORDS).map(([id, name]) => ({ id, name })) },
  ];
  const isOn = FILTERS.some((name) => filter[name] !== null);
  return (
    <div role="group" aria-label="Filter" className="flex flex-wrap items-center gap-x-3 gap-y-1 mb-2 text-[13px] no-print">
      {all.map(({ name, words, options }) => (
        <FilterSelect
          key={name}
          words={words}
          value={filter[name]}
          options={options}
          unknown={name === 'campaign' ? 'of other days' : 'of another client'}
          onChange={(value) => put({ [name]: value, placement: null })}
        />
      ))}
      {isOn && (
        <>
          <span role="status" className="text-rind">
            {calendar.filtered === 0 ? 'nothing' : count(calendar.filtered, 'placement')} on these days{' '}
            {calendar.filtered > 1 ? 'are' : 'is'} left out
          </span>
          <Button look="quiet" onClick={() => put(Object.fromEntries(FILTERS.map((name) => [name, null])))}>
            Show all
          </Button>
        </>
      )}
    </div>
  );
}

import { useQuery } from '@tanstack/react-query';
import { addDays, DANGERS, firstOfMonth, getDay, isId, lastOfMonth, mondayOf, nextMonth, PIECE_STAGES, type Day } from '@zesting/core';
import { campaignsQuery } from '../../api/campaigns';
import { peopleQuery } from '../../api/people';
import { routesQuery } from '../../api/production';
import { count } from '../../lib/format';
import { useClients, useSession } from '../../lib/queries';
import { useSearch } from '../../lib/use-search';
import { DANGER_WORDS, STAGE_WORDS } from '../../lib/words';
import { formatsOf } from '../../lib/formats-of';
import { Button } from '../../ui/button';
import { FilterSelect } from '../../ui/filter-select';

/** What the address can narrow the work to, and the name that each has for the server. */
const NAMES = {
  with: 'doer',
  stage: 'stage',
  danger: 'danger',
  format: 'formatId',
  pillar: 'pillarId',
  channel: 'channelId',
  campaign: 'campaignId',
  lead: 'leadId',
} as const;
type FilterName = keyof typeof NAMES | 'aim';
const ALL = [...Object.keys(NAMES), 'aim'] as readonly FilterName[];

const AIMS = { week: 'this week', next_week: 'next week', month: 'this month', next_month: 'next month' } as const;
type AimPeriod = keyof typeof AIMS;

/** The days of a period that is told from today. */
export function aimDays(period: AimPeriod, todayOn: Day): { readonly from: Day; readonly to: Day } {
  const monday = mondayOf(todayOn);
  const month = todayOn.slice(0, 7);
  if (period === 'week') return { from: monday, to: addDays(monday, 6) };
  if (period === 'next_week') return { from: addDays(monday, 7), to: addDays(monday, 13) };
  const of = period === 'month' ? month : nextMonth(month, 1);
  return { from: firstOfMonth(of), to: lastOfMonth(of) };
}

const isKnown = (name: FilterName, value: string): boolean => {
  if (name === 'aim') return value in AIMS;
  if (name === 'stage') return PIECE_STAGES.some((stage) => stage === value);
  if (name === 'danger') return DANGERS.some((danger) => danger === value);
  return isId(value) || (name === 'with' && value === 'nobody');
};

/** What the address narrows the work to; what it asks that is not known is not heard. */
export function usePieceFilter() {
  const { search } = useSearch();
  const { todayOn } = useSession();
  const of = (name: FilterName): string | null => {
    const value = search.get(name);
    return value !== null && isKnown(name, value) ? value : null;
  };
  const query = new URLSearchParams();
  for (const [name, asked] of Object.entries(NAMES)) {
    const value = of(name as FilterName);
    if (value !== null) query.set(asked, value);
  }
  const aim = of('aim');
  if (aim !== null) for (const [name, on] of Object.entries(aimDays(aim as AimPeriod, getDay(todayOn)))) query.set(name, on);
  return { of, query: query.toString(), isNarrowed: ALL.some((name) => of(name) !== null) };
}

type PieceFilter = ReturnType<typeof usePieceFilter>;

/** What the work is narrowed to, the same for every way of looking at it, and how much that leaves out. */
export function PieceFilterRow({ filter, leftOut }: { filter: PieceFilter; leftOut: number | null }) {
  const { client, query } = useClients();
  const { role, todayOn } = useSession();
  const { put } = useSearch();
  const isManager = role === 'lead' || role === 'manager';
  const { data: routes = [] } = useQuery({ ...routesQuery, enabled: isManager });
  const { data: people = [] } = useQuery({ ...peopleQuery, enabled: isManager });
  const today = getDay(todayOn);
  const days = `from=${addDays(today, -60)}&to=${addDays(today, 180)}`;
  const { data: campaigns } = useQuery({ ...campaignsQuery(`${days}&${query}`), enabled: isManager });
  const formats = formatsOf(routes);
  const doers = people.filter((person) => person.active || person.id === filter.of('with'));
  const all: readonly (readonly [FilterName, string, readonly { id: string; name: string }[], string?])[] = [
    ['with', 'With', isManager ? [{ id: 'nobody', name: 'nobody' }, ...doers] : []],
    [
      'stage',
      'Stage',
      PIECE_STAGES.filter((stage) => stage !== 'published' && stage !== 'shelved').map((id) => ({ id, name: STAGE_WORDS[id] })),
      'another',
    ],
    ['danger', 'Danger', DANGERS.map((id) => ({ id, name: DANGER_WORDS[id] }))],
    ['aim', 'Aim', Object.entries(AIMS).map(([id, name]) => ({ id, name }))],
    ['format', 'Format', formats, 'another'],
    ['pillar', 'Pillar', client?.pillars ?? []],
    ['channel', 'Channel', client?.channels ?? []],
    ['campaign', 'Campaign', campaigns?.campaigns ?? [], 'of other days'],
    ['lead', 'Answers for it', isManager ? doers.filter(({ role: of }) => of !== 'freelance') : [], 'another'],
  ];
  return (
    <div role="group" aria-label="Filter" className="flex flex-wrap items-center gap-x-3 gap-y-1 mb-3 text-[13px] no-print">
      {all.map(([name, words, options, unknown]) => (
        <FilterSelect
          key={name}
          words={words}
          value={filter.of(name)}
          options={options}
          {...(unknown ? { unknown } : {})}
          onChange={(value) => put({ [name]: value }, { replace: true })}
        />
      ))}
      {filter.isNarrowed && (
        <>
          {leftOut !== null && (
            <span role="status" className="text-rind">
              {leftOut === 0 ? 'nothing is left out' : `${count(leftOut, 'open piece')} left out`}
            </span>
          )}
          <Button look="quiet" onClick={() => put(Object.fromEntries(ALL.map((name) => [name, null])), { replace: true })}>
            Show all
          </Button>
        </>
      )}
    </div>
  );
}

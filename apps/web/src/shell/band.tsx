import { useQuery, useQueryClient } from '@tanstack/react-query';
import type { SessionShape, StationShape, StationsShape } from '@zesting/contract';
import { ChevronDown, LogOut, Settings2, User } from 'lucide-react';
import { NavLink, useNavigate } from 'react-router';
import { sessionQuery } from '../api/agency';
import { runwayQuery } from '../api/plan';
import { stationsQuery } from '../api/production';
import { FEATURES } from '../features';
import { useActiveSeen } from '../lib/use-active-seen';
import { useSearch } from '../lib/use-search';
import { forgetKept } from '../lib/kept';
import { call } from '../lib/api';
import { useClients } from '../lib/queries';
import { Menu, MenuItem } from '../ui/menu';
import { ClientCode } from '../ui/tags';
import { FindAndHelp } from './keys';
import { Mark } from './mark';

const STATIONS: readonly { key: keyof StationsShape; path: string; name: string; waits: string }[] = [
  { key: 'requests', path: '/requests', name: 'Requests', waits: 'to decide' },
  { key: 'production', path: '/production', name: 'Production', waits: 'in the making' },
  { key: 'signOff', path: '/sign-off', name: 'Sign-off', waits: 'with clients' },
  { key: 'calendar', path: '/calendar', name: 'Calendar', waits: 'approved, to be placed' },
];

/** The dark band: mark, client switch, stations in the order of the work, the person. */
export function Band({ session }: { session: SessionShape }) {
  const manages = session.role === 'lead' || session.role === 'manager';
  const { to } = useClients();
  return (
    <header className="band bg-band text-band-ink flex flex-wrap items-stretch gap-x-1 px-4">
      <NavLink
        to={to('/')}
        end
        className="flex items-center gap-2 pr-3 py-2.5 no-underline font-display text-lg font-semibold"
        aria-label="Zesting: your desk"
      >
        <Mark />
        <span aria-hidden>Zesting</span>
      </NavLink>
      {session.role !== 'freelance' && <ClientSwitch />}
      {manages && <Stations />}
      {session.role === 'staff' && <ReadingRooms />}
      <div className="ml-auto flex items-center">
        <FindAndHelp />
        {manages && <SetupMenu />}
        <PersonMenu session={session} />
      </div>
    </header>
  );
}

function ClientSwitch() {
  const { clients, client } = useClients();
  const { put } = useSearch();
  const choose = (code: string | null) => put({ client: code });
  return (
    <div className="flex items-center pr-3">
      <Menu
        label={`Client: ${client ? client.name : 'all my clients'}`}
        className="flex items-center gap-2 rounded-md border border-band-muted/50 px-2.5 min-h-8 hover:bg-white/10"
        trigger={
          <>
            <span className="max-w-44 truncate">{client ? client.name : 'All my clients'}</span>
            <ChevronDown size={15} aria-hidden />
          </>
        }
      >
        <MenuItem onSelect={() => choose(null)}>All my clients</MenuItem>
        {clients.map((choice) => (
          <MenuItem key={choice.id} onSelect={() => choose(choice.code)}>
            <ClientCode code={choice.code} colour={choice.colour} />
            <span className="truncate max-w-60">{choice.name}</span>
          </MenuItem>
        ))}
      </Menu>
    </div>
  );
}

function Stations() {
  const { query, to } = useClients();
  const { data } = useQuery(stationsQuery(query));
  const nav = useActiveSeen(data !== undefined);
  return (
    <nav ref={nav} aria-label="Stations" className="relative flex items-stretch overflow-x-auto">
      <PlanStation />
      {STATIONS.map(({ key, path, name, waits }) => (
        <NavLink
          key={key}
          to={to(path)}
          className={({ isActive }) => `flex flex-col justify-center px-3.5 no-underline ${isActive ? 'bg-white/10' : 'hover:bg-white/5'}`}
        >
          <span className="flex items-center gap-2 font-medium whitespace-nowrap">
            {name}
            <Waiting station={data?.[key]} waits={waits} />
          </span>
          <Age station={data?.[key]} />
        </NavLink>
      ))}
    </nav>
  );
}

/** The first station counts what the coming two weeks want and nothing stands in. */
function PlanStation() {
  const { query, to } = useClients();
  const { data } = useQuery(runwayQuery(query));
  const holes = data?.rows.reduce((sum, row) => sum + row.holes, 0) ?? 0;
  return (
    <NavLink
      to={to('/plan')}
      className={({ isActive }) => `flex flex-col justify-center px-3.5 no-underline ${isActive ? 'bg-white/10' : 'hover:bg-white/5'}`}
    >
      <span className="flex items-center gap-2 font-medium whitespace-nowrap">
        Plan
        <Waiting station={{ count: holes }} waits="open slots within two weeks" />
      </span>
      <span className="h-[3px] mt-1" />
    </NavLink>
  );
}

/** Where a staff creator may look beyond the own steps. */
function ReadingRooms() {
  const { to } = useClients();
  return (
    <nav aria-label="Stations" className="flex items-stretch">
      {STATIONS.filter(({ key }) => key === 'production' || key === 'calendar').map(({ key, path, name }) => (
        <NavLink
          key={key}
          to={to(path)}
          className={({ isActive }) =>
            `flex items-center min-h-9 px-3.5 no-underline font-medium ${isActive ? 'bg-white/10' : 'hover:bg-white/5'}`
          }
        >
          {name}
        </NavLink>
      ))}
    </nav>
  );
}

function Waiting({ station, waits }: { station: Pick<StationShape, 'count'> | undefined; waits: string }) {
  if (!station || station.count === 0) return null;
  return (
    <span className="tabular rounded-md bg-zest text-[#14281f] px-1.5 text-[12px] leading-5 font-semibold">
      {station.count}
      <span className="sr-only"> {waits}</span>
    </span>
  );
}

/** The thin line under a station: how old the oldest thing is against its limit. Full and notched when past it. */
function Age({ station }: { station: StationShape | undefined }) {
  if (!station || station.oldestDays === null) return <span className="h-[3px] mt-1" />;
  const share = Math.min(1, station.oldestDays / station.limitDays);
  const over = station.oldestDays > station.limitDays;
  const words = `The oldest has waited ${station.oldestDays} of ${station.limitDays} days`;
  return (
    <span className="block h-[3px] mt-1 bg-white/15 rounded-sm" title={words}>
      <span
        className="block h-full rounded-sm"
        style={{
          width: `${Math.max(6, share * 100)}%`,
          background: over ? 'repeating-linear-gradient(90deg,#f096a8 0 5px,transparent 5px 7px)' : 'var(--zest)',
        }}
      />
    </span>
  );
}

const SETUP = FEATURES.flatMap((feature) => feature.setup ?? []).sort((a, b) => a.order - b.order);

/** Where what the work rests on is set up. */
function SetupMenu() {
  const navigate = useNavigate();
  const { to } = useClients();
  return (
    <Menu
      label="Setup"
      className="flex items-center gap-2 rounded-md px-2.5 min-h-8 hover:bg-white/10"
      trigger={
        <>
          <Settings2 size={16} aria-hidden />
          <span className="hidden xl:inline">Setup</span>
        </>
      }
    >
      {SETUP.map(({ path, name }) => (
        <MenuItem key={path} onSelect={() => void navigate(to(path))}>
          {name}
        </MenuItem>
      ))}
    </Menu>
  );
}

function PersonMenu({ session }: { session: SessionShape }) {
  const queries = useQueryClient();
  const navigate = useNavigate();
  const { to } = useClients();
  const signOut = async () => {
    await call('/session', { method: 'DELETE' });
    forgetKept();
    queries.removeQueries({ predicate: (query) => query.queryKey[0] !== 'session' });
    await navigate('/');
    queries.setQueryData(sessionQuery.queryKey, null);
  };
  return (
    <Menu
      label={`${session.name}, your menu`}
      className="flex items-center gap-2 rounded-md px-2.5 min-h-8 hover:bg-white/10"
      trigger={
        <>
          <span className="truncate max-w-40">{session.name}</span>
          <ChevronDown size={15} aria-hidden />
        </>
      }
    >
      <MenuItem onSelect={() => void navigate(to(`/people/${session.personId}`))}>
        <User size={16} aria-hidden /> Your page
      </MenuItem>
      <MenuItem onSelect={() => void signOut()}>
        <LogOut size={16} aria-hidden /> Sign out
      </MenuItem>
    </Menu>
  );
}

import { NavLink } from 'react-router';
import { useClients } from '../lib/queries';

const PARTS = [
  ['/plan/year', 'Year'],
  ['/plan', 'Month'],
  ['/plan/rhythm', 'Rhythm'],
  ['/plan/pillars', 'Pillars'],
  ['/plan/ideas', 'Ideas'],
  ['/plan/questions', 'Questions'],
  ['/plan/campaigns', 'Campaigns'],
  ['/plan/goals', 'Goals'],
  ['/plan/duties', 'Duties'],
] as const;

/** The parts of the station, in the order in which a plan is made. */
export function PlanNav() {
  const { to } = useClients();
  return (
    <nav aria-label="Plan" className="flex max-w-full overflow-x-auto rounded-md border border-line-strong self-center">
      {PARTS.map(([path, name]) => (
        <NavLink
          key={path}
          end
          to={to(path)}
          className={({ isActive }) =>
            `px-3 min-h-[30px] inline-flex items-center font-medium no-underline border-r border-line-strong last:border-r-0 ${isActive ? 'bg-pine text-on-pine' : 'bg-card hover:bg-sunk'}`
          }
        >
          {name}
        </NavLink>
      ))}
    </nav>
  );
}

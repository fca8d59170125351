import { NavLink, useLocation } from 'react-router';

const PARTS = [
  ['/production', 'Table'],
  ['/production/line', 'Line'],
  ['/production/load', 'Load'],
] as const;

/** The ways of looking at the same work. What is asked for stays in the address from one to the other. */
export function ProductionNav() {
  const { search } = useLocation();
  const kept = new URLSearchParams(search);
  for (const name of ['open', 'order', 'shown', 'who', 'day']) kept.delete(name);
  return (
    <nav aria-label="Production" className="flex max-w-full overflow-x-auto rounded-md border border-line-strong self-center">
      {PARTS.map(([path, name]) => (
        <NavLink
          key={path}
          end
          to={`${path}${kept.size > 0 ? `?${kept}` : ''}`}
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

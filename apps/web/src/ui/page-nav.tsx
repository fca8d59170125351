import { NavLink } from 'react-router';
import { useActiveSeen } from '../lib/use-active-seen';

interface PageNavProps {
  readonly label: string;
  /** `holds`: pages below its address are its own */
  readonly parts: readonly { readonly to: string; readonly name: string; readonly holds?: boolean }[];
}

/** The pages of a station, side by side. */
export function PageNav({ label, parts }: PageNavProps) {
  const nav = useActiveSeen();
  return (
    <nav ref={nav} aria-label={label} className="relative flex max-w-full overflow-x-auto rounded-md border border-line-strong self-center">
      {parts.map(({ to, name, holds = false }) => (
        <NavLink
          key={name}
          end={!holds}
          to={to}
          className={({ isActive }) =>
            `px-3 min-h-[30px] inline-flex items-center font-medium whitespace-nowrap no-underline border-r border-line-strong last:border-r-0 ${isActive ? 'bg-pine text-on-pine' : 'bg-card hover:bg-sunk'}`
          }
        >
          {name}
        </NavLink>
      ))}
    </nav>
  );
}

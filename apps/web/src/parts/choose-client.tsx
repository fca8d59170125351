import { Link, useLocation } from 'react-router';
import { useClients } from '../lib/queries';
import { Empty } from '../ui/page';
import { ClientCode } from '../ui/tags';

/** Where something is planned for one client at a time: whose. */
export function ChooseClient({ what }: { what: string }) {
  const { clients } = useClients();
  const { pathname } = useLocation();
  if (clients.length === 0)
    return (
      <Empty title="There is no client yet">
        <Link to="/clients" className="text-pine underline">
          Take one on
        </Link>
      </Empty>
    );
  return (
    <section aria-label={what} className="card p-4 max-w-xl">
      <h2 className="text-base mb-2">{what}</h2>
      <ul>
        {clients.map((client) => (
          <li key={client.id}>
            <Link
              to={`${pathname}?client=${client.code}`}
              className="flex items-center gap-3 min-h-9 px-2 -mx-2 rounded-md no-underline hover:bg-sunk"
            >
              <ClientCode code={client.code} colour={client.colour} />
              {client.name}
            </Link>
          </li>
        ))}
      </ul>
    </section>
  );
}

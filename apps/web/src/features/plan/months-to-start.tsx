import { useQuery } from '@tanstack/react-query';
import { Link } from 'react-router';
import { monthsToStartQuery } from '../../api/plan';
import { monthWords } from '../../lib/format';
import { useClients } from '../../lib/queries';
import { ClientCode, Tag } from '../../ui/tags';

/** Months that should be under way and that nobody has begun to plan; nothing where all are. */
export function MonthsToStart() {
  const { clientOf } = useClients();
  const { data } = useQuery(monthsToStartQuery(''));
  if (!data || data.months.length === 0) return null;
  return (
    <section aria-label="Months to start" className="card p-4">
      <h2 className="text-base">Months to start</h2>
      <p className="text-muted text-[13px] mb-2">What begins within thirty days should be under way.</p>
      <ul>
        {data.months.map(({ clientId, month, name, hasBegun }) => {
          const client = clientOf(clientId);
          return (
            <li key={name}>
              <Link
                to={`/plan?client=${client?.code ?? ''}&month=${month}&open=start`}
                className="flex items-center gap-3 min-h-9 px-2 -mx-2 rounded-md no-underline hover:bg-sunk"
              >
                <span className="w-16 shrink-0">
                  <ClientCode code={client?.code ?? ''} colour={client?.colour ?? 0} />
                </span>
                <span className="flex-1">{monthWords(month)}</span>
                {hasBegun && <Tag tone="rind">has begun</Tag>}
              </Link>
            </li>
          );
        })}
      </ul>
    </section>
  );
}

import { useQuery } from '@tanstack/react-query';
import { mixQuery } from '../../api/clients';
import { count, monthWords } from '../../lib/format';

/** The mix of a client's month: what each pillar has of what is placed, against the share that it should have. */
export function MixPanel({ clientId, month, lastOn }: { clientId: string; month: string; lastOn: string }) {
  const { data } = useQuery(mixQuery(clientId, month, lastOn));
  if (!data || data.rows.length === 0) return null;
  return (
    <section aria-label={`The mix of ${monthWords(month)}`}>
      <h2 className="text-[13px] font-sans font-semibold tracking-normal mb-1">
        Mix of {monthWords(month)} <span className="text-muted font-normal">{count(data.total, 'piece')} placed</span>
      </h2>
      <ul className="grid gap-1.5">
        {data.rows.map((row) => (
          <li key={row.pillarId ?? 'none'} className="text-[12px]">
            <p className="flex items-baseline gap-2">
              <span className="truncate flex-1" title={row.name}>
                {row.name}
              </span>
              <span className="tabular whitespace-nowrap">
                {row.actual} %{row.share > 0 && <span className="text-muted"> of {row.share}</span>}
              </span>
            </p>
            <span className="relative block h-2 rounded-sm bg-sunk overflow-hidden" aria-hidden>
              <span className="absolute inset-y-0 left-0 bg-pine" style={{ width: `${row.actual}%` }} />
              {row.share > 0 && <span className="absolute inset-y-0 w-0.5 bg-ink" style={{ left: `calc(${row.share}% - 1px)` }} />}
            </span>
            {row.owed !== 0 && (
              <p className={row.owed > 0 ? 'text-rind' : 'text-muted'}>
                {row.owed > 0 ? `${row.owed} more for its share` : `${-row.owed} more than its share`}
              </p>
            )}
          </li>
        ))}
      </ul>
    </section>
  );
}

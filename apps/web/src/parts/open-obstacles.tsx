import { useSuspenseQuery } from '@tanstack/react-query';
import type { ObstacleRow } from '@zesting/contract';
import { useState } from 'react';
import { Link } from 'react-router';
import { openObstaclesQuery } from '../api/obstacles';
import { ageWords, whoseWords } from '../lib/obstacle-words';
import { useClients, useSession } from '../lib/queries';
import { Button, buttonClass } from '../ui/button';
import { ClientCode, Tag } from '../ui/tags';

const FIRST = 4;

/** What stands in the way in the viewer's reach: what waits for them, then the oldest. Nothing where there is none. */
export function OpenObstacles() {
  const { query } = useClients();
  const { data } = useSuspenseQuery(openObstaclesQuery(query));
  const [isOpen, setOpen] = useState(false);
  if (data.total === 0) return null;
  const mine = data.rows.filter(({ isMine }) => isMine).length;
  const rows = isOpen ? data.rows : data.rows.slice(0, Math.max(FIRST, mine));
  const left = data.total - rows.length;
  return (
    <section aria-labelledby="obstacles" className="card overflow-hidden mb-4">
      <h2 id="obstacles" className="flex items-center gap-2 px-4 pt-2.5 pb-1 text-[13px] font-sans tracking-normal">
        <Tag tone="rind">In the way</Tag>
        <span className="text-muted font-normal tabular">{data.total}</span>
        {mine > 0 && mine < data.total && <span className="text-muted font-normal">{mine} of them for you</span>}
      </h2>
      <ul>
        {rows.map((row) => (
          <Line key={row.id} row={row} />
        ))}
      </ul>
      {left > 0 && !isOpen && (
        <Button look="quiet" className="mx-1 mb-1" onClick={() => setOpen(true)}>
          Show {data.rows.length - rows.length} more in the way
        </Button>
      )}
      {left > 0 && isOpen && <p className="text-muted px-4 pb-2">{left} more: choose a client above to see them.</p>}
    </section>
  );
}

function Line({ row }: { row: ObstacleRow }) {
  const { clientOf, to } = useClients();
  const { todayOn } = useSession();
  const client = clientOf(row.clientId);
  return (
    <li className="px-4 py-1.5 border-t border-line first:border-t-0 flex flex-wrap items-center gap-x-3 gap-y-1 hover:bg-sunk">
      <div className="flex-1 min-w-0 basis-60">
        <p className="flex flex-wrap items-center gap-x-2">
          <ClientCode code={client?.code ?? ''} colour={client?.colour ?? 0} name={client?.name ?? ''} />
          <span className="font-medium break-words">{row.words}</span>
          {row.isMine && <Tag tone="rhubarb">waits for you</Tag>}
        </p>
        <p className="text-muted text-[13px]">
          {row.stepTitle === null ? 'All of' : `${row.stepTitle} of`} “{row.pieceTitle}” waits for {whoseWords(row, row.isMine)},{' '}
          {ageWords(row, todayOn)}
        </p>
      </div>
      <Link
        to={to(`/pieces/${row.pieceId}?open=obstacle-settle-${row.id}`)}
        aria-label={`It is gone: ${row.words}`}
        className={buttonClass('plain', 'text-[13px]')}
      >
        It is gone…
      </Link>
    </li>
  );
}

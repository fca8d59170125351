import { useQuery } from '@tanstack/react-query';
import type { ClientShape } from '@zesting/contract';
import { Link } from 'react-router';
import { stockQuery } from '../../api/evergreen';
import { againWords } from '../../lib/again-words';
import { useClients, useSession } from '../../lib/queries';

/** What lasts of a client's pieces, by channel, those that rested longest first: slots of the rhythm may ask for it. */
export function StockSection({ client, asksForIt }: { client: ClientShape; asksForIt: boolean }) {
  const { data } = useQuery(stockQuery(client.id));
  const { todayOn } = useSession();
  const { to } = useClients();
  if (!data || (data.rows.length === 0 && !asksForIt)) return null;
  return (
    <section aria-labelledby="stock" className="card mt-4 max-w-5xl overflow-hidden">
      <h2 id="stock" className="text-base px-4 pt-3">
        Evergreen stock
      </h2>
      <p className="text-muted text-[13px] px-4 pb-2">
        {asksForIt
          ? 'What lasts goes out again where the rhythm asks for it, once it has rested.'
          : 'What lasts fills gaps that nothing new fills. A line of the rhythm can ask for it.'}
      </p>
      {data.rows.length === 0 ? (
        <p className="px-4 pb-3">Nothing is in it yet: say of a piece that was out that it lasts, on its page.</p>
      ) : (
        <ul>
          {data.rows.map((row) => (
            <li
              key={row.placementId}
              className="border-t border-line px-4 py-2 grid gap-x-4 sm:grid-cols-[minmax(0,1fr)_10rem_minmax(0,22rem)] text-[13px]"
            >
              <Link to={to(`/pieces/${row.pieceId}`)} className="font-medium no-underline hover:underline break-words">
                {row.title}
              </Link>
              <span className="text-muted truncate">{row.channelName}</span>
              <span className="tabular">{againWords(row, todayOn)}</span>
            </li>
          ))}
        </ul>
      )}
    </section>
  );
}

import { useQuery } from '@tanstack/react-query';
import { Link } from 'react-router';
import { goingOutSoonQuery } from '../api/going-out';
import { useClients } from '../lib/queries';
import { Tag } from '../ui/tags';

/** What goes out today and within three days and is not ready for it: said while there is time. Nothing where all is in order. */
export function GoesOutSoon() {
  const { query, to } = useClients();
  const { data: soon } = useQuery(goingOutSoonQuery(query));
  if (!soon || soon.unready + soon.unchecked + soon.unaddressed === 0) return null;
  const { count, unready, unchecked, unaddressed } = soon;
  const path = unready > 0 ? '?shown=unready' : unchecked > 0 ? '?shown=unchecked' : '';
  const beside = [
    unchecked > 0 ? `${unchecked} of them nobody has looked at` : '',
    unaddressed > 0 ? `${unaddressed} out without an address` : '',
  ].filter(Boolean);
  return (
    <Link
      to={to(`/calendar/going-out${path}`)}
      className="card flex flex-wrap items-center gap-x-3 gap-y-1 px-4 py-2.5 mb-4 no-underline hover:bg-sunk"
    >
      {unready > 0 && <Tag tone="rhubarb">{unready}</Tag>}
      <span className="font-medium">
        {unready > 0
          ? `Not ready, of ${count} that ${count === 1 ? 'goes' : 'go'} out within three days`
          : count > 0
            ? `${count} ${count === 1 ? 'goes' : 'go'} out within three days, ${unchecked > 0 ? 'ready' : 'ready and looked at'}`
            : 'Nothing goes out within three days'}
      </span>
      <span className="text-muted">{beside.join(', ')}</span>
      <span className="ml-auto text-pine font-medium">Going out</span>
    </Link>
  );
}

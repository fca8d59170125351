import { useInfiniteQuery } from '@tanstack/react-query';
import { Link } from 'react-router';
import { treeQuery } from '../api/spin-offs';
import { useClients } from '../lib/queries';
import { Tag } from '../ui/tags';

/** How many pieces are behind what they were made from; nothing where none is. */
export function BehindSources() {
  const { query, to } = useClients();
  const { data } = useInfiniteQuery(treeQuery(query, 'behind=yes'));
  const stale = data?.pages[0]?.stale ?? 0;
  if (stale === 0) return null;
  return (
    <Link
      to={to('/production/sources?shown=behind')}
      className="card flex flex-wrap items-center gap-x-3 gap-y-1 px-4 py-2.5 mb-4 no-underline hover:bg-sunk"
    >
      <Tag tone="rind">{stale}</Tag>
      <span className="font-medium">
        {stale === 1 ? 'spin-off is' : 'spin-offs are'} behind what {stale === 1 ? 'it was' : 'they were'} made from
      </span>
      <span className="ml-auto text-pine font-medium">Sources</span>
    </Link>
  );
}

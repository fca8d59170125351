import { useInfiniteQuery } from '@tanstack/react-query';
import { treeQuery } from '../api/spin-offs';
import { useClients } from '../lib/queries';
import { NoticeLine } from '../ui/notice-line';

/** How many pieces are behind what they were made from; nothing where none is. */
export function BehindSources() {
  const { query, to } = useClients();
  const { data } = useInfiniteQuery(treeQuery(query, 'behind=yes'));
  const stale = data?.pages[0]?.stale ?? 0;
  if (stale === 0) return null;
  return (
    <NoticeLine to={to('/production/sources?shown=behind')} tone="rind" number={stale} place="Sources">
      {stale === 1 ? 'spin-off is' : 'spin-offs are'} behind what {stale === 1 ? 'it was' : 'they were'} made from
    </NoticeLine>
  );
}

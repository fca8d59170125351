import { useInfiniteQuery } from '@tanstack/react-query';
import type { ActivityPage } from '@zesting/contract';
import { call, wordsOf } from '../../lib/api';
import { ActivityList } from '../../ui/activity';
import { Button } from '../../ui/button';
import { Failed, Loading } from '../../ui/page';

/** Everything that was done for the client, newest first. */
export function ActivitySection({ clientId }: { clientId: string }) {
  const pages = useInfiniteQuery({
    queryKey: ['client', clientId, 'activity'],
    queryFn: ({ pageParam }) => call<ActivityPage>(`/clients/${clientId}/activity${pageParam ? `?before=${pageParam}` : ''}`),
    initialPageParam: null as string | null,
    getNextPageParam: (last) => last.nextBefore,
  });
  if (pages.isError) return <Failed message={wordsOf(pages.error)} onRetry={() => void pages.refetch()} />;
  if (!pages.data) return <Loading />;
  const items = pages.data.pages.flatMap((page) => page.items);
  return (
    <section aria-label="Activity" className="card p-4">
      <h2 className="text-lg mb-2">Activity</h2>
      {items.length === 0 ? <p className="text-muted">Nothing was done yet.</p> : <ActivityList items={items} />}
      {pages.hasNextPage && (
        <Button className="mt-3" disabled={pages.isFetchingNextPage} onClick={() => void pages.fetchNextPage()}>
          Show earlier
        </Button>
      )}
    </section>
  );
}

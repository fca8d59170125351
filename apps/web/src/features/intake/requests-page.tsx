import { useInfiniteQuery } from '@tanstack/react-query';
import type { RequestRow } from '@zesting/contract';
import { Link, useParams } from 'react-router';
import { requestsQuery } from '../../api/requests';
import { wordsOf } from '../../lib/api';
import { dayWords, instantWords } from '../../lib/format';
import { useClients } from '../../lib/queries';
import { Button } from '../../ui/button';
import { Empty, Failed, Loading, PageHead } from '../../ui/page';
import { ClientCode, Tag } from '../../ui/tags';
import { RequestPane } from './request-pane';

/** Requests: the list with unread first, the chosen one beside it. */
export function RequestsPage() {
  const { requestId } = useParams();
  const { query } = useClients();
  const list = useInfiniteQuery(requestsQuery(query));
  if (list.isError) return <Failed message={wordsOf(list.error)} onRetry={() => void list.refetch()} />;
  if (!list.data) return <Loading />;
  const rows = list.data.pages.flatMap((page) => page.items);
  const chosen = requestId ?? rows[0]?.id;
  return (
    <>
      <PageHead title="Requests" note={`${rows.filter((row) => row.state === 'new').length} to decide`} />
      {rows.length === 0 ? (
        <Empty title="No request has come in yet">
          Hand out a form’s link, and what clients ask for arrives here.{' '}
          <Link to="/links" className="text-pine underline">
            Show the links
          </Link>
        </Empty>
      ) : (
        <div className="grid gap-4 grid-cols-[minmax(0,1fr)] md:grid-cols-[minmax(280px,360px)_minmax(0,1fr)] items-start">
          <nav aria-label="Requests" className="card overflow-hidden">
            <ul>
              {rows.map((row) => (
                <RequestLine key={row.id} row={row} isChosen={row.id === chosen} />
              ))}
            </ul>
            {list.hasNextPage && (
              <Button look="quiet" className="w-full" onClick={() => void list.fetchNextPage()}>
                Show older ones
              </Button>
            )}
          </nav>
          {chosen && <RequestPane key={chosen} requestId={chosen} marksRead={requestId !== undefined} />}
        </div>
      )}
    </>
  );
}

function RequestLine({ row, isChosen }: { row: RequestRow; isChosen: boolean }) {
  const { clientOf, to } = useClients();
  const client = clientOf(row.clientId);
  const isUnread = !row.isRead && row.state === 'new';
  return (
    <li className="border-t border-line first:border-t-0">
      <Link
        to={to(`/requests/${row.id}`)}
        aria-current={isChosen ? 'true' : undefined}
        className={`block px-4 py-2.5 no-underline border-l-4 ${isChosen ? 'bg-sunk border-pine' : 'border-transparent hover:bg-sunk'}`}
      >
        <span className="flex items-center gap-2">
          <ClientCode code={client?.code ?? ''} colour={client?.colour ?? 0} />
          <span className={`truncate ${isUnread ? 'font-semibold' : 'font-medium'}`}>{row.title}</span>
          {isUnread && (
            <span className="ml-auto">
              <Tag tone="pine">New</Tag>
            </span>
          )}
          {row.state !== 'new' && (
            <span className="ml-auto text-muted text-[12px]">{row.state === 'accepted' ? 'Accepted' : 'Declined'}</span>
          )}
        </span>
        <span className="flex justify-between gap-3 text-muted text-[13px]">
          <span className="truncate">
            {row.requesterName}, {instantWords(row.receivedAt)}
          </span>
          {row.wishOn && <span className="whitespace-nowrap tabular">for {dayWords(row.wishOn)}</span>}
        </span>
      </Link>
    </li>
  );
}

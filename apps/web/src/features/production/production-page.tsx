import { useInfiniteQuery } from '@tanstack/react-query';
import type { PiecePage as Page, PieceRow } from '@zesting/contract';
import { Link } from 'react-router';
import { call, wordsOf } from '../../lib/api';
import { dayWords, signed } from '../../lib/format';
import { useClients } from '../../lib/queries';
import { STAGE_WORDS } from '../../lib/words';
import { Button } from '../../ui/button';
import { Empty, Failed, Loading, PageHead } from '../../ui/page';
import { Table, type Column } from '../../ui/table';
import { ClientCode, DangerTag } from '../../ui/tags';
import { Wheel } from '../../ui/wheel';

/** Every piece as a row: how far it is, who has it, and whether it makes its date. */
export function ProductionPage() {
  const { query, to } = useClients();
  const columns = useColumns();
  const pieces = useInfiniteQuery({
    queryKey: ['pieces', query],
    queryFn: ({ pageParam }) => call<Page>(`/pieces?${query}${pageParam ? `&cursor=${pageParam}` : ''}`),
    initialPageParam: '',
    getNextPageParam: (page) => page.nextCursor ?? undefined,
  });
  if (pieces.isError) return <Failed message={wordsOf(pieces.error)} onRetry={() => void pieces.refetch()} />;
  if (!pieces.data) return <Loading />;
  const rows = pieces.data.pages.flatMap((page) => page.items);
  return (
    <>
      <PageHead title="Production" note={`${rows.filter((row) => row.list !== null).length} open, ${rows.length} shown`} />
      {rows.length === 0 ? (
        <Empty title="No piece yet">
          A request that you accept becomes a piece.{' '}
          <Link to={to('/requests')} className="text-pine underline">
            Go to the requests
          </Link>
        </Empty>
      ) : (
        <div className="card">
          <Table
            label="Pieces"
            columns={columns}
            rows={rows}
            keyOf={(row) => row.id}
            onEnd={() => pieces.hasNextPage && !pieces.isFetchingNextPage && void pieces.fetchNextPage()}
          />
          {pieces.hasNextPage && (
            <Button look="quiet" className="w-full" onClick={() => void pieces.fetchNextPage()}>
              Show older ones
            </Button>
          )}
        </div>
      )}
    </>
  );
}

/** What is said of each piece, in the order of the question "how far is it, and does it make its date". */
function useColumns(): Column<PieceRow>[] {
  const { clientOf, to } = useClients();
  return [
    { key: 'progress', spoken: 'Progress', width: 3, cell: (row) => <Wheel segments={row.wheel} size={20} /> },
    {
      key: 'client',
      head: 'Client',
      width: 6,
      cell: ({ clientId }) => {
        const client = clientOf(clientId);
        return <ClientCode code={client?.code ?? ''} colour={client?.colour ?? 0} name={client?.name ?? ''} />;
      },
    },
    {
      key: 'piece',
      head: 'Piece',
      cell: ({ id, title }) => (
        <Link to={to(`/pieces/${id}`)} className="font-medium block truncate no-underline hover:underline" title={title}>
          {title}
        </Link>
      ),
    },
    { key: 'format', head: 'Format', width: 8.5, cell: ({ formatName }) => <span title={formatName}>{formatName}</span> },
    { key: 'stage', head: 'Stage', width: 8.5, cell: ({ stage }) => STAGE_WORDS[stage] },
    {
      key: 'step',
      head: 'At hand',
      width: 11,
      cell: ({ currentStep, round }) => (
        <span title={currentStep ?? undefined}>
          {currentStep ?? <span className="text-muted">–</span>}
          {round > 1 && <span className="text-muted"> · round {round}</span>}
        </span>
      ),
    },
    {
      key: 'doer',
      head: 'With',
      width: 10,
      cell: ({ currentStep, currentDoer }) =>
        currentStep && <span title={currentDoer ?? undefined}>{currentDoer ?? <span className="text-rind font-medium">nobody</span>}</span>,
    },
    {
      key: 'aim',
      head: 'Aim',
      width: 8.5,
      cell: ({ aimOn, stage }) => (
        <span className="tabular">
          {aimOn ? dayWords(aimOn) : <span className="text-muted">{stage === 'published' ? 'out' : 'no date'}</span>}
        </span>
      ),
    },
    {
      key: 'slack',
      head: 'Slack',
      width: 4.5,
      align: 'right',
      cell: ({ slackDays }) => <span className="tabular">{slackDays === null ? '' : signed(slackDays)}</span>,
    },
    {
      key: 'danger',
      spoken: 'Danger',
      width: 8,
      align: 'right',
      cell: ({ danger }) => <DangerTag danger={danger === 'fine' ? null : danger} />,
    },
  ];
}

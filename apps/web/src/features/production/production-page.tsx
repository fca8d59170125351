import { useInfiniteQuery } from '@tanstack/react-query';
import type { PiecePage as Page, PieceRow } from '@zesting/contract';
import { Link } from 'react-router';
import { call, wordsOf } from '../../lib/api';
import { dayWords, signed } from '../../lib/format';
import { useClients } from '../../lib/queries';
import { STAGE_WORDS } from '../../lib/words';
import { Button } from '../../ui/button';
import { Empty, Failed, Loading, PageHead } from '../../ui/page';
import { ClientCode, DangerTag } from '../../ui/tags';
import { Wheel } from '../../ui/wheel';

const HEADS = ['', 'Client', 'Piece', 'Format', 'Stage', 'At hand', 'With', 'Aim', 'Slack', ''];

/** Every piece as a row: how far it is, who has it, and whether it makes its date. */
export function ProductionPage() {
  const { query, to } = useClients();
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
        <div className="card overflow-x-auto">
          <table className="w-full text-[13px]">
            <thead>
              <tr className="text-left text-muted">
                {HEADS.map((head, index) => (
                  <th key={index} scope="col" className={`font-medium px-3 py-2 whitespace-nowrap ${head === 'Slack' ? 'text-right' : ''}`}>
                    {head || <span className="sr-only">{index === 0 ? 'Progress' : 'Danger'}</span>}
                  </th>
                ))}
              </tr>
            </thead>
            <tbody>
              {rows.map((row) => (
                <Row key={row.id} row={row} />
              ))}
            </tbody>
          </table>
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

function Row({ row }: { row: PieceRow }) {
  const { clientOf, to } = useClients();
  const client = clientOf(row.clientId);
  return (
    <tr className="border-t border-line hover:bg-sunk">
      <td className="px-3 py-1">
        <Wheel segments={row.wheel} size={20} />
      </td>
      <td className="px-3">
        <ClientCode code={client?.code ?? ''} colour={client?.colour ?? 0} name={client?.name ?? ''} />
      </td>
      <td className="px-3 max-w-80">
        <Link to={to(`/pieces/${row.id}`)} className="font-medium block truncate no-underline hover:underline" title={row.title}>
          {row.title}
        </Link>
      </td>
      <td className="px-3 whitespace-nowrap">{row.formatName}</td>
      <td className="px-3 whitespace-nowrap">{STAGE_WORDS[row.stage]}</td>
      <td className="px-3 whitespace-nowrap">
        {row.currentStep ?? <span className="text-muted">–</span>}
        {row.round > 1 && <span className="text-muted"> · round {row.round}</span>}
      </td>
      <td className="px-3 whitespace-nowrap">
        {row.currentStep ? (row.currentDoer ?? <span className="text-rind font-medium">nobody</span>) : ''}
      </td>
      <td className="px-3 whitespace-nowrap tabular">
        {row.aimOn ? dayWords(row.aimOn) : <span className="text-muted">{row.stage === 'published' ? 'out' : 'no date'}</span>}
      </td>
      <td className="px-3 text-right tabular">{row.slackDays === null ? '' : signed(row.slackDays)}</td>
      <td className="px-3 text-right">
        <DangerTag danger={row.danger === 'fine' ? null : row.danger} />
      </td>
    </tr>
  );
}

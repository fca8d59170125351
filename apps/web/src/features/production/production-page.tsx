import { useInfiniteQuery } from '@tanstack/react-query';
import type { PieceRow } from '@zesting/contract';
import { PIECE_ORDERS, PIECES_SHOWN, type PiecesShown } from '@zesting/core';
import { Link } from 'react-router';
import { piecesQuery } from '../../api/production';
import { wordsOf } from '../../lib/api';
import { count, dayWords, signed } from '../../lib/format';
import { useClients, useSession } from '../../lib/queries';
import { useOpened } from '../../lib/use-opened';
import { useSearch } from '../../lib/use-search';
import { STAGE_WORDS } from '../../lib/words';
import { BeginPieceDialog } from '../../parts/begin-piece-dialog';
import { Button } from '../../ui/button';
import { Choice } from '../../ui/choice';
import { SavedViews } from '../../parts/saved-views';
import { Empty, Failed, Loading, PageHead } from '../../ui/page';
import { Table, type Column } from '../../ui/table';
import { ClientCode, DangerTag } from '../../ui/tags';
import { Wheel } from '../../ui/wheel';
import { PieceFilterRow, usePieceFilter } from './piece-filter';
import { ProductionNav } from '../../parts/production-nav';

const SHOWN_WORDS: readonly (readonly [PiecesShown, string])[] = [
  ['open', 'Open'],
  ['done', 'Done'],
  ['all', 'All'],
];
const NOTHING: Record<PiecesShown, string> = { open: 'Nothing is open', done: 'Nothing is done yet', all: 'No piece yet' };

/** What the address asks for: what is shown, in which order, and what it is narrowed to. */
function useAsked() {
  const { search, put } = useSearch();
  const filter = usePieceFilter();
  const shown = PIECES_SHOWN.find((known) => known === search.get('shown')) ?? 'open';
  // what is open stands by its days, as everywhere; what is done is looked for from its end
  const usual = shown === 'open' ? 'aim' : 'newest';
  const order = PIECE_ORDERS.find((known) => known === search.get('order')) ?? usual;
  /** Takes over what differs from what is shown unasked; the rest of the address stays. */
  const ask = (changes: Record<string, string>) => {
    const said = Object.entries(changes).map(([name, value]) => [name, ['', 'open', usual].includes(value) ? null : value] as const);
    put(Object.fromEntries(said), { replace: true });
  };
  const narrowed = shown === 'open' ? filter.query : '';
  const query = `${new URLSearchParams({ shown, order })}${narrowed ? `&${narrowed}` : ''}`;
  return { shown, order, query, ask, filter, isNarrowed: shown === 'open' && filter.isNarrowed };
}

/** Pieces as rows: how far each is, who has it, and whether it makes its date. What is done is hidden until it is asked for. */
export function ProductionPage() {
  const { query, to } = useClients();
  const asked = useAsked();
  const columns = useColumns();
  const { role } = useSession();
  const canBegin = role === 'lead' || role === 'manager';
  const { opened, open, close } = useOpened();
  const pieces = useInfiniteQuery(piecesQuery(query, asked.query));
  if (pieces.isError) return <Failed message={wordsOf(pieces.error)} onRetry={() => void pieces.refetch()} />;
  if (!pieces.data) return <Loading />;
  const rows = pieces.data.pages.flatMap((page) => page.items);
  const total = pieces.data.pages[0]?.total ?? null;
  const note = total === null ? `${rows.length}${pieces.hasNextPage ? ' so far' : ''}` : count(total, 'piece');
  return (
    <>
      <PageHead nav={canBegin && <ProductionNav />} title="Production" note={note}>
        {canBegin && (
          <Button look="main" onClick={() => open('begin')}>
            Begin a piece
          </Button>
        )}
        <Choice label="What is shown" value={asked.shown} options={SHOWN_WORDS} onChange={(shown) => asked.ask({ shown, order: '' })} />
        <SavedViews page="production" />
      </PageHead>
      {asked.shown === 'open' && <PieceFilterRow filter={asked.filter} leftOut={pieces.data.pages[0]?.leftOut ?? null} />}
      {canBegin && opened === 'begin' && <BeginPieceDialog onClose={close} />}
      {rows.length === 0 ? (
        <Empty title={asked.isNarrowed ? 'No piece is like that' : NOTHING[asked.shown]}>
          {!asked.isNarrowed && (
            <>
              A request that you accept becomes a piece.{' '}
              <Link to={to('/requests')} className="text-pine underline">
                Go to the requests
              </Link>
            </>
          )}
        </Empty>
      ) : (
        <div className="card">
          <Table
            label="Pieces"
            columns={columns}
            rows={rows}
            keyOf={(row) => row.id}
            {...(asked.shown === 'open'
              ? {
                  order: asked.order,
                  onOrder: (order: string) => asked.ask({ order: order !== asked.order ? order : order === 'aim' ? 'newest' : '' }),
                }
              : {})}
            onEnd={() => pieces.hasNextPage && !pieces.isFetchingNextPage && void pieces.fetchNextPage()}
          />
          {pieces.hasNextPage && (
            <Button look="quiet" className="w-full" onClick={() => void pieces.fetchNextPage()}>
              Show more
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
      width: 12.5,
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
      order: 'aim',
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
      order: 'slack',
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

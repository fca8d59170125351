import { useInfiniteQuery } from '@tanstack/react-query';
import type { TreeSourceShape } from '@zesting/contract';
import { Split } from 'lucide-react';
import { Link } from 'react-router';
import { treeQuery } from '../../api/spin-offs';
import { wordsOf } from '../../lib/api';
import { coverageWords, missingWords } from '../../lib/coverage-words';
import { dayWords } from '../../lib/format';
import { useClients } from '../../lib/queries';
import { useOpened } from '../../lib/use-opened';
import { useSearch } from '../../lib/use-search';
import { STAGE_WORDS } from '../../lib/words';
import { ProductionNav } from '../../parts/production-nav';
import { MakeSpinOffsDialog } from '../../parts/spin-offs/make-dialog';
import { SpinOffLine } from '../../parts/spin-offs/spin-off-line';
import { Button } from '../../ui/button';
import { Choice } from '../../ui/choice';
import { Empty, Failed, Loading, PageHead } from '../../ui/page';
import { ClientCode, DangerTag, Tag } from '../../ui/tags';

/** One entry per source, with what was made from it below: where each stands, and what is behind. */
export function SourcesPage() {
  const { query } = useClients();
  const { search, put } = useSearch();
  const { opened, open, close } = useOpened();
  const isBehind = search.get('shown') === 'behind';
  const tree = useInfiniteQuery(treeQuery(query, isBehind ? 'behind=yes' : ''));
  const [first] = tree.data?.pages ?? [];
  const sources = (tree.data?.pages ?? []).flatMap((page) => page.sources);
  const spread = sources.find(({ pieceId }) => opened === `spin-offs-${pieceId}`);
  return (
    <>
      <PageHead nav={<ProductionNav />} title="Production" note="Sources, and what is made from them" />
      <div className="flex flex-wrap items-center gap-3 mb-3">
        <Choice
          label="Which sources"
          value={isBehind ? 'behind' : 'all'}
          options={[
            ['all', 'All'],
            ['behind', `Behind${first && first.stale > 0 ? ` (${first.stale})` : ''}`],
          ]}
          onChange={(shown) => put({ shown: shown === 'behind' ? 'behind' : null }, { replace: true })}
        />
      </div>
      {tree.isError && <Failed message={wordsOf(tree.error)} onRetry={() => void tree.refetch()} />}
      {tree.isPending && <Loading />}
      {first && sources.length === 0 && (
        <Empty title={isBehind ? 'Nothing is behind its source' : 'Nothing was made from another piece yet'}>
          {isBehind
            ? 'What a source says now is what everything made from it says, or somebody looked and kept it.'
            : 'Keep a spread on a client’s page and put it to use: pieces of its kind stand here, ready to become many.'}
        </Empty>
      )}
      <ul className="grid gap-3">
        {sources.map((source) => (
          <Source key={source.pieceId} source={source} onMake={() => open(`spin-offs-${source.pieceId}`)} />
        ))}
      </ul>
      {tree.hasNextPage && (
        <Button look="quiet" className="w-full mt-2" onClick={() => void tree.fetchNextPage()}>
          Show more
        </Button>
      )}
      {spread && <MakeSpinOffsDialog piece={{ ...spread, id: spread.pieceId }} onClose={close} />}
    </>
  );
}

function Source({ source, onMake }: { source: TreeSourceShape; onMake: () => void }) {
  const { clientOf, to } = useClients();
  const client = clientOf(source.clientId);
  const { coverage, outputs } = source;
  const isWhole = coverage.chosen > 0 && coverage.missing.length === 0;
  return (
    <li className="card px-4 py-3">
      <div className="flex flex-wrap items-center gap-x-3 gap-y-1">
        {client && <ClientCode code={client.code} colour={client.colour} name={client.name} />}
        <h2 className="text-base min-w-0">
          <Link to={to(`/pieces/${source.pieceId}`)} className="break-words no-underline hover:underline min-h-6 inline-flex items-center">
            {source.title}
          </Link>
        </h2>
        <span className="text-muted text-[13px]">
          {source.formatName} · {STAGE_WORDS[source.stage].toLowerCase()} · {source.aimOn ? dayWords(source.aimOn) : 'no date'}
        </span>
        <DangerTag danger={source.danger === 'fine' ? null : source.danger} />
        <span className="ml-auto flex flex-wrap items-center gap-2">
          {coverage.chosen > 0 && <Tag tone={isWhole ? 'pine' : 'calm'}>{coverageWords(coverage)}</Tag>}
          <Button look="quiet" aria-label={`Make spin-offs… of ${source.title}`} onClick={onMake}>
            <Split size={15} aria-hidden /> Make spin-offs…
          </Button>
        </span>
      </div>
      {coverage.missing.length > 0 && <p className="text-muted text-[13px]">{missingWords(coverage)}</p>}
      {outputs.length > 0 && (
        <ul className="mt-1 ml-1.5 border-l-2 border-line-strong" aria-label={`Made from ${source.title}`}>
          {outputs.map((row) => (
            <li
              key={row.pieceId}
              className="pl-4 relative before:absolute before:left-0 before:top-4 before:w-2.5 before:border-t-2 before:border-line-strong"
            >
              <SpinOffLine row={row} isWide />
            </li>
          ))}
        </ul>
      )}
    </li>
  );
}

import { useInfiniteQuery, useQuery } from '@tanstack/react-query';
import { addDays, getDay, isId } from '@zesting/core';
import { CopyPlus } from 'lucide-react';
import { useDeferredValue } from 'react';
import { libraryQuery } from '../../api/library';
import { pieceQuery, routesQuery } from '../../api/production';
import { wordsOf } from '../../lib/api';
import { useClients, useSession } from '../../lib/queries';
import { useOpened } from '../../lib/use-opened';
import { useSearch } from '../../lib/use-search';
import { formatsOf } from '../../lib/formats-of';
import { BeginPieceDialog } from '../../parts/begin-piece-dialog';
import { LibraryNav } from './library-nav';
import { FoundPiece } from '../../parts/library/found-piece';
import { ProductionNav } from '../../parts/production-nav';
import { Button } from '../../ui/button';
import { FilterSelect } from '../../ui/filter-select';
import { Empty, Failed, Loading, PageHead } from '../../ui/page';

/** How far back is looked, in days. */
const WITHIN = [
  { id: '30', name: '30 days' },
  { id: '90', name: '90 days' },
  { id: '365', name: 'a year' },
];

/** What the address asks for; what is not known in it is not heard. */
function useAsked() {
  const { search } = useSearch();
  const { client } = useClients();
  const { todayOn } = useSession();
  const idOf = (name: string): string | null => {
    const value = search.get(name);
    return value !== null && isId(value) ? value : null;
  };
  const within = WITHIN.find(({ id }) => id === search.get('within'))?.id ?? null;
  const of = { format: idOf('format'), pillar: idOf('pillar'), channel: idOf('channel'), within };
  const words = search.get('words') ?? '';
  const later = useDeferredValue(words);
  const query = new URLSearchParams({ words: later });
  if (client) query.set('clientId', client.id);
  for (const name of ['format', 'pillar', 'channel'] as const) if (of[name] !== null) query.set(`${name}Id`, of[name]);
  if (within !== null) {
    query.set('from', addDays(getDay(todayOn), -Number(within)));
    query.set('to', todayOn);
  }
  return { words, of, query: query.toString() };
}

/** Pieces, past and present, by what they say: looked at, and used again. */
export function LibraryPage() {
  const { words, of, query } = useAsked();
  const { put } = useSearch();
  const { client } = useClients();
  const { role } = useSession();
  const { opened, open, close } = useOpened();
  const isManager = role === 'lead' || role === 'manager';
  const { data: routes = [] } = useQuery({ ...routesQuery, enabled: isManager });
  const found = useInfiniteQuery(libraryQuery(query));
  const pieces = (found.data?.pages ?? []).flatMap((page) => page.pieces);
  const formats = formatsOf(routes);
  const again = /^again-(.+)$/.exec(opened ?? '')?.[1];
  const filters = [
    ['format', 'Format', formats],
    ['pillar', 'Pillar', client?.pillars ?? []],
    ['channel', 'Channel', client?.channels ?? []],
    ['within', 'Published within', WITHIN],
  ] as const;
  return (
    <>
      <PageHead nav={<ProductionNav />} title="Production" note="The library: what was made before, by its words" />
      <div role="group" aria-label="What is looked for" className="flex flex-wrap items-center gap-x-3 gap-y-2 mb-3 text-[13px]">
        <LibraryNav />
        <input
          type="search"
          aria-label="Words that it says"
          placeholder="Words, “in a row”, -without"
          className="field w-80 max-w-full text-[14px]"
          maxLength={200}
          value={words}
          onChange={(event) => put({ words: event.target.value || null }, { replace: true })}
        />
        {filters.map(([name, label, options]) => (
          <FilterSelect
            key={name}
            words={label}
            value={of[name]}
            options={options}
            onChange={(value) => put({ [name]: value }, { replace: true })}
          />
        ))}
      </div>
      {found.isError && <Failed message={wordsOf(found.error)} onRetry={() => void found.refetch()} />}
      {found.isPending && <Loading />}
      {found.data && pieces.length === 0 && (
        <Empty title={words === '' ? 'No piece is like that' : 'No piece says that'}>
          Words are found in titles, copy, tags, notes and the names of files, whatever their ending.
        </Empty>
      )}
      {pieces.length > 0 && (
        <ul className="card px-4 max-w-5xl">
          {pieces.map((piece) => (
            <FoundPiece key={piece.pieceId} piece={piece}>
              {isManager && (
                <Button look="quiet" aria-label={`Use it again: ${piece.title}`} onClick={() => open(`again-${piece.pieceId}`)}>
                  <CopyPlus size={15} aria-hidden /> Use it again
                </Button>
              )}
            </FoundPiece>
          ))}
        </ul>
      )}
      {found.hasNextPage && (
        <Button look="quiet" className="mt-2" onClick={() => void found.fetchNextPage()}>
          Show more
        </Button>
      )}
      {again && isManager && <Again pieceId={again} onClose={close} />}
    </>
  );
}

/** Begins another piece from one that was found. */
function Again({ pieceId, onClose }: { pieceId: string; onClose: () => void }) {
  const { data: piece } = useQuery(pieceQuery(pieceId));
  return piece ? <BeginPieceDialog from={piece} onClose={onClose} /> : null;
}

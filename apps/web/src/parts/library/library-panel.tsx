import { useInfiniteQuery } from '@tanstack/react-query';
import type { PieceShape } from '@zesting/contract';
import { useDeferredValue, useState } from 'react';
import { libraryQuery } from '../../api/library';
import { wordsOf } from '../../lib/api';
import { useSession } from '../../lib/queries';
import { tagWords } from '../../lib/tags';
import { CopyButton } from '../../ui/copy-button';
import { Field } from '../../ui/field';
import { Failed, Loading } from '../../ui/page';
import { FoundPiece } from './found-piece';

/** What the client’s other pieces say, looked for beside the one that is being written. */
export function LibraryPanel({ piece }: { piece: Pick<PieceShape, 'id' | 'clientId'> }) {
  const { role } = useSession();
  const [isOpen, setOpen] = useState(false);
  if (role === 'freelance') return null; // sees no other piece
  return (
    <section aria-labelledby="library" className="card p-4">
      <details open={isOpen} onToggle={(event) => setOpen(event.currentTarget.open)}>
        <summary className="min-h-6">
          <h2 id="library" className="text-lg inline">
            From what was made before
          </h2>
        </summary>
        {isOpen && <Search piece={piece} />}
      </details>
    </section>
  );
}

function Search({ piece }: { piece: Pick<PieceShape, 'id' | 'clientId'> }) {
  const [words, setWords] = useState('');
  const asked = new URLSearchParams({ clientId: piece.clientId, words: useDeferredValue(words) });
  const found = useInfiniteQuery(libraryQuery(asked.toString()));
  const pieces = (found.data?.pages[0]?.pieces ?? []).filter(({ pieceId }) => pieceId !== piece.id).slice(0, 8);
  return (
    <>
      <div className="mt-2">
        <Field label="Words that it says">
          {(control) => (
            <input
              {...control}
              type="search"
              className="field"
              maxLength={200}
              value={words}
              onChange={(event) => setWords(event.target.value)}
            />
          )}
        </Field>
      </div>
      {found.isError && <Failed message={wordsOf(found.error)} onRetry={() => void found.refetch()} />}
      {found.isPending && <Loading />}
      {found.data && pieces.length === 0 && <p className="text-muted">No other piece of this client says that.</p>}
      <ul>
        {pieces.map((one) => (
          <FoundPiece key={one.pieceId} piece={one} isBeside>
            {one.copy !== '' && <CopyButton name={`text of ${one.title}`} text={one.copy} />}
            {one.tags.length > 0 && <CopyButton name={`tags of ${one.title}`} text={tagWords(one.tags)} />}
          </FoundPiece>
        ))}
      </ul>
    </>
  );
}

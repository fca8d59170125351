import { useQuery } from '@tanstack/react-query';
import type { OfferedKeptFileShape, PieceShape, UploadShape } from '@zesting/contract';
import { FolderHeart } from 'lucide-react';
import { useDeferredValue, useState } from 'react';
import { toast } from 'sonner';
import { keptFilesForQuery, takeKeptFile } from '../../api/kept-files';
import { wordsOf } from '../../lib/api';
import { count } from '../../lib/format';
import { goesOut, KEPT_WORDS, renewWords } from '../../lib/kept-file-words';
import { useSession, useWrite } from '../../lib/queries';
import { KeptPicture } from '../../parts/kept-picture';
import { Button } from '../../ui/button';
import { Dialog } from '../../ui/dialog';
import { Empty, Failed, Loading } from '../../ui/page';
import { Tag } from '../../ui/tags';

interface KeptFileChoiceProps {
  readonly piece: Pick<PieceShape, 'id'>;
  /** takes a file into the content, with the alternative text that it begins with */
  readonly onTake: (file: UploadShape, alt: string) => void;
}

/** A button by which kept files of the client are taken into the piece. */
export function KeptFileChoice({ piece, onTake }: KeptFileChoiceProps) {
  const [isOpen, setOpen] = useState(false);
  return (
    <>
      <Button onClick={() => setOpen(true)}>
        <FolderHeart size={16} aria-hidden /> From the library
      </Button>
      {isOpen && (
        <Dialog
          open
          wide
          title="From the library"
          description="Files that are kept for this client. What is taken in lies with the piece from then on, as it is now."
          onClose={() => setOpen(false)}
        >
          <Files
            piece={piece}
            onTake={(file, alt) => {
              onTake(file, alt);
              setOpen(false);
            }}
            onDone={() => setOpen(false)}
          />
        </Dialog>
      )}
    </>
  );
}

function Files({ piece, onTake, onDone }: KeptFileChoiceProps & { readonly onDone: () => void }) {
  const [words, setWords] = useState('');
  const { todayOn } = useSession();
  const found = useQuery(keptFilesForQuery(piece.id, useDeferredValue(words)));
  const take = useWrite(({ file, into }: { file: OfferedKeptFileShape; into: 'content' | 'material' }) =>
    takeKeptFile(piece.id, file.id, into),
  );
  const into = (file: OfferedKeptFileShape, where: 'content' | 'material') =>
    take.mutate(
      { file, into: where },
      {
        onSuccess: (taken) => {
          if (where === 'content') return onTake(taken, file.about);
          toast(`${file.title} lies with the material.`);
          onDone();
        },
      },
    );
  const files = found.data?.files ?? [];
  return (
    <>
      <input
        type="search"
        aria-label="Words of its title or of what can be seen"
        placeholder="Words of its title or what can be seen"
        className="field max-w-80 mb-3"
        maxLength={200}
        value={words}
        onChange={(event) => setWords(event.target.value)}
      />
      {found.isError && <Failed message={wordsOf(found.error)} onRetry={() => void found.refetch()} />}
      {found.isPending && <Loading />}
      {found.data && files.length === 0 && (
        <Empty title={words === '' ? 'No file is kept for this client yet' : 'No file is like that'}>
          {words === '' && 'Whoever manages the client keeps files in the library, under Production.'}
        </Empty>
      )}
      <ul aria-label="Kept files" className="grid gap-x-5 sm:grid-cols-2">
        {files.map((file) => {
          const renew = renewWords(file.renewBy, todayOn);
          return (
            <li key={file.id} className="flex gap-3 items-start py-2.5 border-t border-line">
              <KeptPicture
                file={file}
                src={`/api/pieces/${piece.id}/kept-files/${file.id}/picture`}
                className="size-20 object-cover rounded-md shrink-0"
              />
              <div className="min-w-0 flex-1">
                <p className="font-medium break-words">{file.title}</p>
                <p className="text-muted text-[13px]">
                  {KEPT_WORDS[file.kind].one}, {file.used === 0 ? 'in no piece yet' : `in ${count(file.used, 'piece')}`}
                </p>
                {renew && renew.tone !== 'calm' && <Tag tone={renew.tone}>{renew.words}</Tag>}
                <p className="flex flex-wrap gap-1 mt-1 -ml-2">
                  {goesOut(file.mime) && (
                    <Button
                      look="quiet"
                      disabled={take.isPending}
                      aria-label={`Into the content: ${file.title}`}
                      onClick={() => into(file, 'content')}
                    >
                      Into the content
                    </Button>
                  )}
                  <Button
                    look="quiet"
                    disabled={take.isPending}
                    aria-label={`Into the material: ${file.title}`}
                    onClick={() => into(file, 'material')}
                  >
                    Into the material
                  </Button>
                </p>
              </div>
            </li>
          );
        })}
      </ul>
      {found.data && found.data.hidden > 0 && <p className="text-muted">There are more: look for them by their words.</p>}
    </>
  );
}

import { useQuery } from '@tanstack/react-query';
import type { GoingOutRowShape, HandOutShape } from '@zesting/contract';
import { Download, ExternalLink } from 'lucide-react';
import { useState } from 'react';
import { handOutQuery } from '../../api/going-out';
import { wordsOf } from '../../lib/api';
import { count, dayWords, zoneWords } from '../../lib/format';
import { buttonClass } from '../../ui/button';
import { CopyButton } from '../../ui/copy-button';
import { Findings } from '../../ui/findings';
import { FormDialog } from '../../ui/form-dialog';
import { Failed, Loading } from '../../ui/page';
import { Thumbnail } from '../../ui/thumbnail';
import { OutFields, useMarkOut } from '../../parts/out-fields';

/** Posting by hand: each part copied with one press, its pictures, the place to post it, and the word that it is out. */
export function PostDialog({ row: shown, onClose }: { row: GoingOutRowShape; onClose: () => void }) {
  const [row] = useState(shown); // as it was when the dialog was opened
  const handOut = useQuery(handOutQuery(row.id));
  const form = useMarkOut(row, onClose);
  const isUnsigned = handOut.data?.findings.some(({ code }) => code === 'not_signed') ?? false;
  return (
    <FormDialog
      form={{ ...form, busy: form.busy || isUnsigned }}
      onClose={onClose}
      title={row.pieceTitle}
      description={`${row.channelName}, ${dayWords(row.on ?? '')} at ${row.at ?? ''} ${zoneWords(row.zone)} time`}
      action="Mark as out"
      asideFirst
      aside={
        handOut.data ? (
          <Parts placementId={row.id} handOut={handOut.data} channelName={row.channelName} />
        ) : handOut.isError ? (
          <Failed message={wordsOf(handOut.error)} onRetry={() => void handOut.refetch()} />
        ) : (
          <Loading />
        )
      }
    >
      {handOut.data && handOut.data.findings.length > 0 && (
        <div className="rounded-md bg-sunk px-3 py-2 mb-3">
          <Findings label="What speaks against it" findings={handOut.data.findings} />
        </div>
      )}
      {isUnsigned && <p className="mb-3">What the client has not signed cannot be marked as out.</p>}
      <OutFields form={form} placement={row} />
    </FormDialog>
  );
}

function Parts({ placementId, handOut, channelName }: { placementId: string; handOut: HandOutShape; channelName: string }) {
  const parts = [
    ['Text', handOut.text],
    ['Tags', handOut.tags],
    ['First comment', handOut.firstComment],
    ['Link', handOut.link],
  ] as const;
  return (
    <>
      {handOut.postingAddress ? (
        <p className="mb-3">
          <a href={handOut.postingAddress} target="_blank" rel="noreferrer" className={buttonClass('main')}>
            <ExternalLink size={15} aria-hidden /> Open {channelName}
          </a>
        </p>
      ) : (
        <p className="text-muted text-[13px] mb-3">
          Where {channelName} is posted by hand stands in the client’s channels, once somebody says it.
        </p>
      )}
      {parts
        .filter(([, text]) => text !== '')
        .map(([name, text]) => (
          <div key={name} className="mb-2.5">
            <div className="flex items-center justify-between gap-2">
              <h3 className="text-[13px] font-semibold">{name}</h3>
              <CopyButton name={name} text={text} />
            </div>
            <p
              className="whitespace-pre-wrap break-words rounded-md bg-sunk px-2.5 py-1.5 text-[13px] max-h-40 overflow-auto"
              tabIndex={0}
              aria-label={name}
              role="region"
            >
              {text}
            </p>
          </div>
        ))}
      {handOut.media.length > 0 && (
        <>
          <h3 className="text-[13px] font-semibold mb-1">{count(handOut.media.length, 'picture or clip', 'pictures and clips')}</h3>
          <ul className="grid gap-1.5">
            {handOut.media.map((medium, index) => (
              <li key={`${medium.assetId}-${index}`} className="flex items-center gap-2.5 min-w-0">
                <Thumbnail pictureId={medium.mime.startsWith('image/') ? medium.assetId : null} />
                <span className="min-w-0 flex-1 truncate text-[13px]" title={medium.alt || medium.name}>
                  {medium.alt || medium.name}
                </span>
                {medium.alt && <CopyButton name={`Alternative text ${index + 1}`} text={medium.alt} />}
                <a
                  href={`/api/placements/${placementId}/files/${index + 1}`}
                  download
                  className={buttonClass('quiet')}
                  aria-label={`Download ${handOut.fileNames[index] ?? medium.name}`}
                >
                  <Download size={15} aria-hidden />
                </a>
              </li>
            ))}
          </ul>
        </>
      )}
    </>
  );
}

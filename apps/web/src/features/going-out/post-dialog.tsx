import { useQuery } from '@tanstack/react-query';
import type { GoingOutRowShape, HandOutShape } from '@zesting/contract';
import { ExternalLink } from 'lucide-react';
import { useState } from 'react';
import { handOutQuery } from '../../api/going-out';
import { wordsOf } from '../../lib/api';
import { dayWords, zoneWords } from '../../lib/format';
import { buttonClass } from '../../ui/button';
import { Findings } from '../../ui/findings';
import { FormDialog } from '../../ui/form-dialog';
import { Failed, Loading } from '../../ui/page';
import { OutFields, useMarkOut } from '../../parts/out-fields';
import { Parts } from './hand-out-parts';

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
          <>
            <Way handOut={handOut.data} channelName={row.channelName} />
            <Parts placementId={row.id} handOut={handOut.data} />
          </>
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

/** Where it is posted. */
function Way({ handOut, channelName }: { handOut: HandOutShape; channelName: string }) {
  return handOut.postingAddress ? (
    <p className="mb-3">
      <a href={handOut.postingAddress} target="_blank" rel="noreferrer" className={buttonClass('main')}>
        <ExternalLink size={15} aria-hidden /> Open {channelName}
      </a>
    </p>
  ) : (
    <p className="text-muted text-[13px] mb-3">
      Where {channelName} is posted by hand stands in the client’s channels, once somebody says it.
    </p>
  );
}

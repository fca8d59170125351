import { useQuery } from '@tanstack/react-query';
import type { GoingOutRowShape } from '@zesting/contract';
import { isReady } from '@zesting/core';
import { useState } from 'react';
import { toast } from 'sonner';
import { handOutQuery } from '../../api/going-out';
import { call, wordsOf } from '../../lib/api';
import { dayWords, zoneWords } from '../../lib/format';
import { useWrite } from '../../lib/queries';
import { Button } from '../../ui/button';
import { Dialog } from '../../ui/dialog';
import { Findings } from '../../ui/findings';
import { Failed, Loading } from '../../ui/page';
import { Parts } from './hand-out-parts';

/** What goes out by itself, as it will be sent; sent now, if somebody wants that, whatever its time. */
export function SendDialog({ row: shown, onClose }: { row: GoingOutRowShape; onClose: () => void }) {
  const [row] = useState(shown); // as it was when the dialog was opened
  const [wrong, setWrong] = useState<string>();
  const handOut = useQuery(handOutQuery(row.id));
  const send = useWrite(() => call(`/placements/${row.id}/send`, { method: 'POST' }), { quiet: true });
  const isAhead = row.state === 'scheduled';
  // that its time came is no reason against sending it now
  const against = handOut.data?.findings.filter(({ code }) => code !== 'time_passed') ?? [];
  const put = () =>
    send.mutate(undefined, {
      onSuccess: () => {
        toast('It is being sent.');
        onClose();
      },
      onError: (error) => setWrong(wordsOf(error)),
    });
  return (
    <Dialog
      open
      onClose={onClose}
      title={row.pieceTitle}
      description={`${row.channelName}, ${isAhead ? 'by itself on' : 'was meant for'} ${dayWords(row.on ?? '')} at ${row.at ?? ''} ${zoneWords(row.zone)} time`}
    >
      {handOut.isPending && <Loading />}
      {handOut.isError && <Failed message={wordsOf(handOut.error)} onRetry={() => void handOut.refetch()} />}
      {handOut.data && (
        <>
          {against.length > 0 && (
            <div className="rounded-md bg-sunk px-3 py-2 mb-3">
              <Findings label="What speaks against it" findings={against} />
            </div>
          )}
          <Parts placementId={row.id} handOut={handOut.data} />
          {wrong && (
            <p role="alert" className="text-rhubarb font-medium mb-2">
              {wrong}
            </p>
          )}
          <div className="flex flex-wrap justify-end gap-2 mt-3">
            <Button onClick={onClose}>{isAhead ? 'Leave it for its time' : 'Not yet'}</Button>
            <Button look="main" disabled={send.isPending || !isReady(against)} onClick={put}>
              {isAhead ? 'Send it now already' : 'Send it now'}
            </Button>
          </div>
        </>
      )}
    </Dialog>
  );
}

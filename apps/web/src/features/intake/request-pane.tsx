import { useQuery } from '@tanstack/react-query';
import type { ChangeLinkBody, RequestShape } from '@zesting/contract';
import { useEffect } from 'react';
import { Link } from 'react-router';
import { toast } from 'sonner';
import { requestQuery } from '../../api/requests';
import { call, wordsOf } from '../../lib/api';
import { dayWords, instantWords } from '../../lib/format';
import { useClients, useWrite } from '../../lib/queries';
import { useOpened } from '../../lib/use-opened';
import { STAGE_WORDS } from '../../lib/words';
import { ActivityPages } from '../../parts/activity';
import { Answers } from '../../ui/answers';
import { Button, buttonClass } from '../../ui/button';
import { Failed, Loading } from '../../ui/page';
import { Tag } from '../../ui/tags';
import { AcceptDialog } from './accept-dialog';
import { DeclineDialog } from './decline-dialog';

/** One request: what was answered, its files, and the decision. Opening it by choice marks it as read. */
export function RequestPane({ requestId, marksRead }: { requestId: string; marksRead: boolean }) {
  const { clientOf, to } = useClients();
  const { opened, open, close } = useOpened();
  const request = useQuery(requestQuery(requestId));
  const { mutate: markRead } = useWrite((id: string) => call(`/requests/${id}/read`, { method: 'POST' }), { quiet: true });
  const reopen = useWrite(() => call(`/requests/${requestId}/reopen`, { method: 'POST' }));
  const isUnread = marksRead && request.data?.isRead === false;
  useEffect(() => {
    if (isUnread) markRead(requestId);
  }, [isUnread, markRead, requestId]);
  if (request.isError) return <Failed message={wordsOf(request.error)} onRetry={() => void request.refetch()} />;
  if (!request.data) return <Loading />;
  const shown = request.data;
  const client = clientOf(shown.clientId);
  return (
    <article className="card p-5 min-w-0" aria-label={shown.title}>
      <header className="flex flex-wrap items-start gap-3 mb-4">
        <div className="min-w-0 flex-1 basis-72">
          <h2 className="text-xl break-words">{shown.title}</h2>
          <p className="text-muted">
            {shown.requesterName} ({shown.requesterEmail}) of {client?.name}, {instantWords(shown.receivedAt)}, by “{shown.formTitle}”
          </p>
        </div>
        {shown.state === 'new' ? (
          <div className="flex gap-2">
            <Button onClick={() => open('decline')}>Decline…</Button>
            <Button look="main" onClick={() => open('accept')}>
              Accept…
            </Button>
          </div>
        ) : (
          <Tag tone={shown.state === 'accepted' ? 'pine' : 'calm'}>{shown.state === 'accepted' ? 'Accepted' : 'Declined'}</Tag>
        )}
        {shown.state === 'declined' && (
          <Button disabled={reopen.isPending} onClick={() => reopen.mutate(undefined)}>
            Take it up again
          </Button>
        )}
        {shown.state === 'accepted' && (
          <div className="flex gap-2">
            <Button onClick={() => open('accept')}>One more piece…</Button>
            {shown.pieces.length === 1 && (
              <Link to={to(`/pieces/${shown.pieces[0]?.id}`)} className={buttonClass('plain')}>
                Open the piece
              </Link>
            )}
          </div>
        )}
      </header>
      {shown.pieces.length > 1 && <Pieces pieces={shown.pieces} />}
      {shown.declineReason && <p className="mb-4 border-l-4 border-line-strong pl-3">Declined: {shown.declineReason}</p>}
      {shown.wishOn && (
        <p className="mb-3">
          Wished for <strong>{dayWords(shown.wishOn)}</strong>.
        </p>
      )}
      <Answers items={shown.items} answers={shown.answers} files={shown.files} />
      <ReceiptLink request={shown} />
      <details className="mt-4 pt-3 border-t border-line">
        <summary className="text-pine min-h-7">Activity</summary>
        <div className="mt-2">
          <ActivityPages path={`/requests/${shown.id}/activity`} />
        </div>
      </details>
      {shown.state !== 'declined' && opened === 'accept' && <AcceptDialog request={shown} onClose={close} />}
      {shown.state === 'new' && opened === 'decline' && <DeclineDialog request={shown} onClose={close} />}
    </article>
  );
}

/** What came of the request, where that is more than one piece. */
function Pieces({ pieces }: { pieces: RequestShape['pieces'] }) {
  const { to } = useClients();
  return (
    <ul aria-label="Pieces of this request" className="mb-4 rounded-md border border-line">
      {pieces.map((piece) => (
        <li key={piece.id} className="border-t border-line first:border-t-0">
          <Link to={to(`/pieces/${piece.id}`)} className="flex items-center gap-3 px-3 min-h-9 no-underline hover:bg-sunk">
            <span className="text-muted tabular text-[13px]">{piece.number}</span>
            <span className="flex-1 min-w-0 truncate font-medium">{piece.title}</span>
            <Tag>{STAGE_WORDS[piece.stage]}</Tag>
          </Link>
        </li>
      ))}
    </ul>
  );
}

/** The link by which the sender follows their request: it goes to them alone, by mail. */
function ReceiptLink({ request }: { request: RequestShape }) {
  const change = useWrite((how: ChangeLinkBody['change']) =>
    call(`/clients/${request.clientId}/links`, {
      method: 'POST',
      body: { kind: 'receipt', id: request.id, change: how } satisfies ChangeLinkBody,
    }),
  );
  return (
    <details className="mt-4 pt-3 border-t border-line">
      <summary className="text-pine min-h-7">The sender’s link</summary>
      <p className="text-muted my-2 max-w-[65ch]">
        By it {request.requesterName} sees how this request stands. A new one goes to {request.requesterEmail}; either way the one sent
        before opens nothing any more.
      </p>
      <div className="flex flex-wrap gap-2">
        <Button
          disabled={change.isPending}
          onClick={() => change.mutate('renew', { onSuccess: () => toast(`A new link is on its way to ${request.requesterEmail}`) })}
        >
          Send a new one
        </Button>
        <Button disabled={change.isPending} onClick={() => change.mutate('close', { onSuccess: () => toast('The link is closed') })}>
          Close it
        </Button>
      </div>
    </details>
  );
}

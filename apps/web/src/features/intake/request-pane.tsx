import { useQuery } from '@tanstack/react-query';
import type { ChangeLinkBody, RequestShape } from '@zesting/contract';
import { isOpenRequest, type RequestWay } from '@zesting/core';
import { useEffect, useState } from 'react';
import { Link } from 'react-router';
import { toast } from 'sonner';
import { peopleQuery } from '../../api/people';
import { requestQuery } from '../../api/requests';
import { call, wordsOf } from '../../lib/api';
import { dayWords, instantWords } from '../../lib/format';
import { useClients, useWrite } from '../../lib/queries';
import { useOpened } from '../../lib/use-opened';
import { REQUEST_STATE_WORDS, STAGE_WORDS } from '../../lib/words';
import { ActivityPages } from '../../parts/activity';
import { Answers } from '../../ui/answers';
import { Button, buttonClass } from '../../ui/button';
import { Failed, Loading } from '../../ui/page';
import { Tag } from '../../ui/tags';
import { Thread } from '../../ui/thread';
import { AcceptDialog } from './accept-dialog';
import { AskBackDialog } from './ask-back-dialog';
import { DeclineDialog } from './decline-dialog';
import { IdeaDialog } from './idea-dialog';
import { VerdictCard } from './verdict-card';

const WAY_WORDS: Record<RequestWay, string> = {
  form: 'by',
  mail: 'by mail',
  telephone: 'by telephone',
  dates: 'out of a pasted month',
  table: 'in a table, by',
};

/** One request: what was answered, its files, and the decision. Opening it by choice marks it as read. */
export function RequestPane({ requestId, marksRead }: { requestId: string; marksRead: boolean }) {
  const { clientOf, to } = useClients();
  const { opened, open, close } = useOpened();
  const request = useQuery(requestQuery(requestId));
  const { mutate: markRead } = useWrite((id: string) => call(`/requests/${id}/read`, { method: 'POST' }), { quiet: true });
  const reopen = useWrite(() => call(`/requests/${requestId}/reopen`, { method: 'POST' }));
  const [question, setQuestion] = useState('');
  const merge = useWrite((intoId: string) => call(`/requests/${requestId}/merge`, { method: 'POST', body: { intoId } }));
  const attach = useWrite((pieceId: string) => call(`/requests/${requestId}/attach`, { method: 'POST', body: { pieceId } }));
  const isUnread = marksRead && request.data?.isRead === false;
  useEffect(() => {
    if (isUnread) markRead(requestId);
  }, [isUnread, markRead, requestId]);
  if (request.isError) return <Failed message={wordsOf(request.error)} onRetry={() => void request.refetch()} />;
  if (!request.data) return <Loading />;
  const shown = request.data;
  const client = clientOf(shown.clientId);
  const isOpen = isOpenRequest(shown.state);
  const ask = (words: string) => {
    setQuestion(words);
    open('ask-back');
  };
  return (
    <article className="card p-5 min-w-0" aria-label={shown.title}>
      <header className="flex flex-wrap items-start gap-3 mb-4">
        <div className="min-w-0 flex-1 basis-72">
          <h2 className="text-xl break-words">{shown.title}</h2>
          <p className="text-muted">
            {shown.requesterName} ({shown.requesterEmail ?? 'no e-mail'}) of {client?.name}, {instantWords(shown.receivedAt)},{' '}
            {WAY_WORDS[shown.way]} {shown.formTitle !== null && `“${shown.formTitle}”`}
          </p>
        </div>
        {isOpen ? (
          <div className="flex flex-wrap gap-2">
            {shown.requesterEmail !== null && <Button onClick={() => ask('')}>Ask back…</Button>}
            <Button onClick={() => open('idea')}>For later…</Button>
            <Button onClick={() => open('decline')}>Decline…</Button>
            <Button look="main" onClick={() => open('accept')}>
              Accept…
            </Button>
          </div>
        ) : (
          <Tag tone={shown.state === 'accepted' ? 'pine' : shown.state === 'idea' ? 'lake' : 'calm'}>
            {REQUEST_STATE_WORDS[shown.state]}
          </Tag>
        )}
        {canTakeUpAgain(shown) && (
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
      {shown.state === 'asked_back' && (
        <p className="mb-3 border-l-4 border-lake pl-3">It is {shown.requesterName}’s turn: a question is waiting for an answer.</p>
      )}
      {shown.mergedInto && (
        <p className="mb-3">
          Merged with{' '}
          <Link to={to(`/requests/${shown.mergedInto.id}`)} className="text-pine underline">
            {shown.mergedInto.title}
          </Link>
          , request {shown.mergedInto.number}.
        </p>
      )}
      {isOpen && (
        <VerdictCard
          request={shown}
          onAsk={ask}
          onMerge={(id) =>
            merge.mutate(id, { onSuccess: () => toast('Merged', { action: { label: 'Undo', onClick: () => reopen.mutate(undefined) } }) })
          }
          onAttach={(id) => attach.mutate(id)}
        />
      )}
      {shown.pieces.length > 1 && <Pieces pieces={shown.pieces} />}
      {shown.declineReason && <p className="mb-4 border-l-4 border-line-strong pl-3">Declined: {shown.declineReason}</p>}
      {shown.wishOn && (
        <p className="mb-3">
          Wished for <strong>{dayWords(shown.wishOn)}</strong>.
        </p>
      )}
      <Owner request={shown} />
      <Answers items={shown.items} answers={shown.answers} files={shown.files} />
      <Thread messages={shown.messages} />
      {shown.requesterEmail !== null && <ReceiptLink request={shown} />}
      <details className="mt-4 pt-3 border-t border-line">
        <summary className="text-pine min-h-7">Activity</summary>
        <div className="mt-2">
          <ActivityPages path={`/requests/${shown.id}/activity`} />
        </div>
      </details>
      {(isOpen || shown.state === 'accepted') && opened === 'accept' && <AcceptDialog request={shown} onClose={close} />}
      {isOpen && opened === 'decline' && <DeclineDialog request={shown} onClose={close} />}
      {isOpen && opened === 'idea' && <IdeaDialog request={shown} onClose={close} />}
      {isOpen && opened === 'ask-back' && <AskBackDialog request={shown} question={question} onClose={close} />}
    </article>
  );
}

/** Decided, but not by its requester; accepted, while nothing was made of what was begun for it, as far as the stage tells. */
const canTakeUpAgain = ({ state, pieces }: RequestShape): boolean =>
  state === 'accepted'
    ? pieces.every(({ isMade, stage }) => !isMade || stage === 'planned' || stage === 'shelved')
    : !isOpenRequest(state) && state !== 'withdrawn';

/** Who answers for it at the agency. */
function Owner({ request }: { request: RequestShape }) {
  const { data: people } = useQuery(peopleQuery);
  const put = useWrite((ownerId: string) => call(`/requests/${request.id}/owner`, { method: 'PUT', body: { ownerId } }));
  const managers =
    people?.filter(({ active, role, id }) => (active && (role === 'lead' || role === 'manager')) || id === request.ownerId) ?? [];
  return (
    <p className="mb-3">
      <label className="inline-flex items-center gap-2">
        Answered for by
        <select
          className="field w-auto min-h-8"
          value={request.ownerId ?? ''}
          disabled={put.isPending}
          onChange={(event) => put.mutate(event.target.value)}
        >
          {request.ownerId === null && <option value="">nobody yet</option>}
          {managers.map(({ id, name }) => (
            <option key={id} value={id}>
              {name}
            </option>
          ))}
        </select>
      </label>
    </p>
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

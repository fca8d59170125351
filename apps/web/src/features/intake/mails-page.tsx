import { useInfiniteQuery, useQuery } from '@tanstack/react-query';
import type { MailRow, TakenDownShape } from '@zesting/contract';
import { Paperclip } from 'lucide-react';
import { Link, useNavigate } from 'react-router';
import { toast } from 'sonner';
import { addressesQuery, mailsQuery } from '../../api/mails';
import { call, wordsOf } from '../../lib/api';
import { instantWords } from '../../lib/format';
import { useClients, useWrite } from '../../lib/queries';
import { useSearch } from '../../lib/use-search';
import { Button } from '../../ui/button';
import { Choice } from '../../ui/choice';
import { Empty, Failed, Loading, PageHead } from '../../ui/page';
import { ClientCode } from '../../ui/tags';

const STATES = [
  ['waiting', 'Waiting'],
  ['left', 'Left'],
  ['automatic', 'By machines'],
] as const satisfies readonly (readonly [MailRow['state'], string])[];

const NOTES: Record<MailRow['state'], string> = {
  waiting: 'From people who may not ask, or are not known: say what each is.',
  left: 'What somebody said is no request.',
  automatic: 'Answers by themselves, reports and mass mail: kept, and never answered.',
};

const EMPTY: Record<MailRow['state'], string> = {
  waiting: 'No mail waits',
  left: 'No mail was left',
  automatic: 'No machine has written',
};

const REASONS: Record<NonNullable<MailRow['reason']>, string> = {
  unknown_sender: 'No contact of this client has this address.',
  may_not_ask: 'This contact may not ask.',
  other_sender: 'It answers a request of somebody else.',
  too_many: 'More answers came to this request than are taken by themselves.',
};

/** Mail to clients’ request addresses that did not become a request by itself. */
export function MailsPage() {
  const { query } = useClients();
  const { search, put } = useSearch();
  const asked = search.get('state');
  const state = asked === 'left' || asked === 'automatic' ? asked : 'waiting';
  const list = useInfiniteQuery(mailsQuery(state, query));
  if (list.isError) return <Failed message={wordsOf(list.error)} onRetry={() => void list.refetch()} />;
  const rows = list.data?.pages.flatMap((page) => page.items);
  return (
    <>
      <PageHead title="Mail set aside" note={NOTES[state]}>
        <Choice
          label="Which mail"
          value={state}
          options={STATES}
          onChange={(next) => put({ state: next === 'waiting' ? null : next }, { replace: true })}
        />
      </PageHead>
      {!rows ? (
        <Loading />
      ) : rows.length === 0 ? (
        <Empty title={EMPTY[state]}>{state === 'waiting' && <Addresses />}</Empty>
      ) : (
        <ul className="grid gap-3 max-w-4xl">
          {rows.map((mail) => (
            <MailCard key={mail.id} mail={mail} />
          ))}
        </ul>
      )}
      {list.hasNextPage && (
        <Button look="quiet" className="mt-3" onClick={() => void list.fetchNextPage()}>
          Show older ones
        </Button>
      )}
    </>
  );
}

function MailCard({ mail }: { mail: MailRow }) {
  const { clientOf, to } = useClients();
  const navigate = useNavigate();
  const client = clientOf(mail.clientId);
  const take = useWrite((asContact: boolean) => call<TakenDownShape>(`/mails/${mail.id}/take`, { method: 'POST', body: { asContact } }));
  const put = useWrite((change: 'leave' | 'wait') => call(`/mails/${mail.id}/${change}`, { method: 'POST' }));
  const isBusy = take.isPending || put.isPending;
  const leave = () =>
    put.mutate('leave', { onSuccess: () => toast('Left', { action: { label: 'Undo', onClick: () => put.mutate('wait') } }) });
  const open = ({ requestId }: TakenDownShape) =>
    toast(mail.answers === null ? 'It is a request now' : 'It is put to the request', {
      action: { label: 'Open it', onClick: () => void navigate(to(`/requests/${requestId}`)) },
    });
  const subject = mail.subject || 'Without a subject';
  return (
    <li>
      <article className="card p-4" aria-label={subject}>
        <header className="flex flex-wrap items-center gap-x-3 gap-y-1">
          <ClientCode code={client?.code ?? ''} colour={client?.colour ?? 0} />
          <h2 className="text-base font-semibold break-words min-w-0">{subject}</h2>
          <span className="ml-auto text-muted text-[13px]">{instantWords(mail.receivedAt)}</span>
        </header>
        <p className="text-muted break-words">
          {mail.fromName} ({mail.fromEmail}) to {client?.name}
        </p>
        {mail.reason !== null && mail.state === 'waiting' && (
          <p className="mt-2 border-l-4 border-rind pl-3">
            {REASONS[mail.reason]}{' '}
            {mail.reason === 'unknown_sender' && (
              <Link to={`/clients/${mail.clientId}?part=contacts`} className="text-pine underline">
                Contacts of {client?.name}
              </Link>
            )}
          </p>
        )}
        {mail.text !== '' && <p className="mt-2 whitespace-pre-wrap break-words max-w-[75ch] line-clamp-6">{mail.text}</p>}
        {mail.files.length > 0 && (
          <p className="mt-2 flex items-start gap-1.5 text-muted break-words">
            <Paperclip size={15} aria-hidden className="mt-1 shrink-0" />
            <span className="min-w-0">{mail.files.join(', ')}</span>
          </p>
        )}
        <div className="mt-3 flex flex-wrap items-center gap-2">
          <Button look="main" disabled={isBusy} onClick={() => take.mutate(false, { onSuccess: open })}>
            {mail.answers === null ? 'Take it as a request' : `Put it to “${mail.answers}”`}
          </Button>
          {(mail.reason === 'unknown_sender' || mail.reason === 'other_sender') && (
            <Button disabled={isBusy} onClick={() => take.mutate(true, { onSuccess: open })}>
              …and let them ask from now on
            </Button>
          )}
          {mail.state === 'waiting' && (
            <Button disabled={isBusy} onClick={leave}>
              It is no request
            </Button>
          )}
          {mail.state === 'left' && (
            <Button disabled={isBusy} onClick={() => put.mutate('wait')}>
              Let it wait again
            </Button>
          )}
          <a href={`/api/mails/${mail.id}/source`} className="text-pine underline inline-flex items-center min-h-8 ml-auto" download>
            The whole mail
          </a>
        </div>
      </article>
    </li>
  );
}

/** Where clients’ people write to. */
function Addresses() {
  const { clients, client } = useClients();
  const { data: addresses } = useQuery(addressesQuery);
  if (!addresses || clients.length === 0) return null;
  if (addresses.length === 0) return <>No mail is taken in here.</>;
  const shown = addresses.filter(({ clientId }) => client === undefined || client.id === clientId);
  return (
    <>
      Mail from contacts who may ask becomes a request by itself. They write to:
      <ul className="mt-2">
        {shown.map(({ clientId, address }) => (
          <li key={clientId}>
            {clients.find(({ id }) => id === clientId)?.name}: <span className="select-all">{address}</span>
          </li>
        ))}
      </ul>
    </>
  );
}

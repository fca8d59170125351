import { useSuspenseQuery } from '@tanstack/react-query';
import type { PacketShape } from '@zesting/contract';
import { Link } from 'react-router';
import { toast } from 'sonner';
import { packetsQuery } from '../../api/production';
import { call } from '../../lib/api';
import { count, dayWords, instantWords } from '../../lib/format';
import { namesWords } from '../../lib/policy-words';
import { useClients, useSession, useWrite } from '../../lib/queries';
import { useOpened } from '../../lib/use-opened';
import { Button } from '../../ui/button';
import { ChaseDialog } from '../../parts/chase-dialog';
import { Empty, PageHead } from '../../ui/page';
import { ClientCode, Tag } from '../../ui/tags';
import { Thumbnail } from '../../ui/thumbnail';
import { ComposePacket } from './compose-packet';
import { RecordDecisionDialog } from './record-decision-dialog';

/** Packets out with whose turn it is and how long; what can be sent now. */
export function SignOffPage() {
  const { query, clients, client } = useClients();
  const { data } = useSuspenseQuery(packetsQuery(query));
  return (
    <>
      <PageHead title="Sign-off" note={`${count(data.open.length, 'packet')} with ${client ? client.name : 'clients'}`} />
      <div className="grid gap-4 lg:grid-cols-2 items-start">
        <div className="grid gap-3">
          <h2 className="text-lg">Ready to be sent</h2>
          {(client ? [client] : clients).map((shown) => (
            <ComposePacket key={shown.id} client={shown} />
          ))}
        </div>
        <div className="grid gap-3">
          <h2 className="text-lg">With the client</h2>
          {data.open.length === 0 && <Empty title="Nothing is with a client">Send what is ready, and its answer is awaited here.</Empty>}
          {data.open.map((packet) => (
            <PacketCard key={packet.id} packet={packet} />
          ))}
          {data.closed.length > 0 && (
            <details>
              <summary className="text-pine min-h-8 font-medium">Answered lately ({data.closed.length})</summary>
              <div className="grid gap-3 mt-2">
                {data.closed.map((packet) => (
                  <PacketCard key={packet.id} packet={packet} />
                ))}
              </div>
            </details>
          )}
        </div>
      </div>
    </>
  );
}

/** How long the client has had it, what was done about it, and whose turn it is. */
function turnWords(packet: PacketShape): string {
  const names = (ids: readonly string[]) =>
    namesWords(packet.approvers.filter((contact) => ids.includes(contact.id)).map((contact) => contact.name));
  if (packet.closedAt) return `Answered ${instantWords(packet.closedAt)} · asked: ${names(packet.approvers.map((contact) => contact.id))}`;
  const waits = packet.waitedDays === 0 ? 'Sent today' : `${count(packet.waitedDays, 'working day')} with the client`;
  return [
    `${waits}${packet.isPastDue ? `, due ${dayWords(packet.dueOn)}` : ''}`,
    `waits for ${names(packet.awaitedIds)}`,
    ...(packet.remindedAt ? [`reminded ${instantWords(packet.remindedAt)}`] : []),
    ...(packet.chasedAt ? [`chased ${instantWords(packet.chasedAt)}`] : []),
  ].join(' · ');
}

function PacketCard({ packet }: { packet: PacketShape }) {
  const { clientOf, to } = useClients();
  const { opened, open, close } = useOpened();
  const client = clientOf(packet.clientId);
  return (
    <article className="card p-4" aria-label={packet.title}>
      <header className="flex flex-wrap items-center gap-2 mb-1">
        <ClientCode code={client?.code ?? ''} colour={client?.colour ?? 0} />
        <h3 className="text-base font-sans font-semibold tracking-normal">{packet.title}</h3>
        <span className="ml-auto">
          {packet.closedAt ? (
            <Tag>Closed</Tag>
          ) : packet.isPastDue ? (
            <Tag tone="rhubarb">Past due</Tag>
          ) : (
            <Tag tone="lake">Due {dayWords(packet.dueOn)}</Tag>
          )}
        </span>
      </header>
      <p className="text-muted text-[13px] mb-2">{turnWords(packet)}</p>
      <ul>
        {packet.items.map((item) => (
          <li key={item.pieceId} className="flex items-center gap-3 py-1.5 border-t border-line">
            <Thumbnail pictureId={item.pictureId} size={48} />
            <Link to={to(`/pieces/${item.pieceId}`)} className="font-medium truncate no-underline hover:underline">
              {item.title}
            </Link>
            {item.round > 1 && <span className="text-muted text-[13px]">round {item.round}</span>}
            <span className="ml-auto">
              {item.outcome === null ? (
                <Tag tone="lake">Waiting</Tag>
              ) : (
                <Tag tone={item.outcome === 'approved' ? 'pine' : 'rind'}>{item.outcome === 'approved' ? 'Approved' : 'Changes asked'}</Tag>
              )}
            </span>
          </li>
        ))}
      </ul>
      {!packet.closedAt && (
        <div className="flex flex-wrap gap-x-2 mt-2 no-print">
          <Button onClick={() => open(`chase-${packet.id}`)}>Chase…</Button>
          <Button look="quiet" onClick={() => open(`record-${packet.id}`)}>
            Record an answer given by telephone…
          </Button>
          <NoAnswer packet={packet} />
        </div>
      )}
      {!packet.closedAt && opened === `record-${packet.id}` && <RecordDecisionDialog packet={packet} onClose={close} />}
      {!packet.closedAt && opened === `chase-${packet.id}` && <ChaseDialog path={`/packets/${packet.id}`} onClose={close} />}
    </article>
  );
}

/** Where it is agreed that silence counts, recording it once its time has come. */
function NoAnswer({ packet }: { packet: PacketShape }) {
  const { todayOn } = useSession();
  const record = useWrite(() => call(`/packets/${packet.id}/no-answer`, { method: 'POST' }));
  if (packet.silenceFromOn === null) return null;
  if (packet.silenceFromOn > todayOn)
    return (
      <p className="text-muted text-[13px] self-center">
        Without an answer it can be recorded as approved from {dayWords(packet.silenceFromOn)}.
      </p>
    );
  return (
    <Button
      disabled={record.isPending}
      onClick={() => record.mutate(undefined, { onSuccess: () => toast('Recorded: no answer, approved as agreed') })}
    >
      Record “no answer”
    </Button>
  );
}

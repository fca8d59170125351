import { useSuspenseQuery } from '@tanstack/react-query';
import type { PacketShape, PacketsShape } from '@zesting/contract';
import { useState } from 'react';
import { Link } from 'react-router';
import { call } from '../../lib/api';
import { count, dayWords } from '../../lib/format';
import { useClients } from '../../lib/queries';
import { Button } from '../../ui/button';
import { Empty, PageHead } from '../../ui/page';
import { ClientCode, Tag } from '../../ui/tags';
import { ComposePacket } from './compose-packet';
import { RecordDecisionDialog } from './record-decision-dialog';

/** Packets out with whose turn it is and how long; what can be sent now. */
export function SignOffPage() {
  const { query, clients, client } = useClients();
  const { data } = useSuspenseQuery({
    queryKey: ['packets', query],
    queryFn: () => call<PacketsShape>(`/packets?${query}`),
    refetchInterval: 30_000,
  });
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

function PacketCard({ packet }: { packet: PacketShape }) {
  const { clientOf, to } = useClients();
  const [recording, setRecording] = useState(false);
  const client = clientOf(packet.clientId);
  const waits = packet.waitedDays === 0 ? 'Sent today' : `${count(packet.waitedDays, 'working day')} with the client`;
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
      <p className="text-muted text-[13px] mb-2">
        {packet.closedAt ? 'Answered' : waits}
        {packet.isPastDue && `, due ${dayWords(packet.dueOn)}`} · asked: {packet.approvers.map((contact) => contact.name).join(', ')}
      </p>
      <ul>
        {packet.items.map((item) => (
          <li key={item.pieceId} className="flex items-center gap-2 py-1 border-t border-line">
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
        <Button look="quiet" className="-ml-3 mt-1" onClick={() => setRecording(true)}>
          Record an answer given by telephone…
        </Button>
      )}
      {recording && <RecordDecisionDialog packet={packet} onClose={() => setRecording(false)} />}
    </article>
  );
}

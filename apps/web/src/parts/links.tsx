import { useQuery, useQueryClient, useSuspenseQuery } from '@tanstack/react-query';
import type { ChangeLinkBody, ClientLinksShape } from '@zesting/contract';
import { useState, type ReactNode } from 'react';
import { toast } from 'sonner';
import { linksQuery } from '../api/clients';
import { addressesQuery } from '../api/mails';
import { call } from '../lib/api';
import { useWrite } from '../lib/queries';
import { Button } from '../ui/button';
import { CopyButton } from '../ui/copy-button';
import { Dialog } from '../ui/dialog';
import { Tag } from '../ui/tags';

const EFFECT: Record<ChangeLinkBody['kind'], Record<ChangeLinkBody['change'], string>> = {
  form: {
    renew: 'The link that was given out opens nothing any more, and there is a new one to hand out.',
    close: 'Nobody can ask through this form any more until the link is renewed.',
  },
  room: {
    renew: 'The link that they have opens nothing any more; a new one goes to them by mail.',
    close: 'They can look at nothing and decide nothing any more until the link is renewed.',
  },
  feed: {
    renew: 'Calendar programs that follow the feed stop; there is a new address to hand out.',
    close: 'Calendar programs that follow the feed stop until it is renewed.',
  },
  receipt: { renew: '', close: '' },
};

interface Asked extends ChangeLinkBody {
  readonly name: string;
}

/** A form's link by its title, and where it was handed out. */
const nameOf = ({ title, label }: ClientLinksShape['forms'][number]): string => (label === title ? title : `${title}, ${label}`);

/** The links of a client to hand out, and the contacts' rooms, whose links go by mail only. Each can be renewed and closed. */
export function ClientLinks({ clientId, roomOf }: { clientId: string; roomOf: (contactId: string) => ReactNode }) {
  const { data: links } = useSuspenseQuery(linksQuery(clientId));
  const [asked, setAsked] = useState<Asked>();
  if (!links) return <p className="text-muted">The links are with the client’s own managers: who covers for them does not hand any out.</p>;
  return (
    <>
      {links.forms.length === 0 && <NoForm clientId={clientId} />}
      <dl className="grid gap-y-2 gap-x-4 grid-cols-[minmax(9rem,auto)_minmax(0,1fr)_auto] items-center">
        {links.forms.map((form) => (
          <LinkRow
            key={form.linkId}
            name={`Form: ${nameOf(form)}`}
            address={form.address}
            onChange={(change) => setAsked({ kind: 'form', id: form.linkId, change, name: `Form: ${nameOf(form)}` })}
          />
        ))}
        <ByMail clientId={clientId} />
        <LinkRow
          name="Calendar feed"
          address={links.feed}
          onChange={(change) => setAsked({ kind: 'feed', change, name: 'Calendar feed' })}
        />
        {links.rooms.map((room) => (
          <Row
            key={room.contactId}
            name={`Room of ${room.name}`}
            isOpen={room.isOpen}
            onChange={(change) => setAsked({ kind: 'room', id: room.contactId, change, name: `Room of ${room.name}` })}
          >
            <span className="text-muted">goes to {room.email} by mail</span> {roomOf(room.contactId)}
          </Row>
        ))}
      </dl>
      {asked && <ChangeDialog clientId={clientId} asked={asked} onClose={() => setAsked(undefined)} />}
    </>
  );
}

/** The address that contacts who may ask write to. */
function ByMail({ clientId }: { clientId: string }) {
  const { data } = useQuery(addressesQuery);
  const address = data?.find((one) => one.clientId === clientId)?.address;
  if (address === undefined) return null;
  return (
    <>
      <dt className="font-medium">Requests by mail</dt>
      <dd className="min-w-0 min-h-8 flex items-center">
        <a href={`mailto:${address}`} className="text-pine underline truncate">
          {address}
        </a>
      </dd>
      <dd className="flex justify-end">
        <CopyButton name="Requests by mail" text={address} />
      </dd>
    </>
  );
}

/** A client that cannot ask yet. */
function NoForm({ clientId }: { clientId: string }) {
  const queries = useQueryClient();
  const give = useWrite(() => call<ClientLinksShape>(`/clients/${clientId}/form`, { method: 'POST' }));
  return (
    <p className="flex flex-wrap items-center gap-3 mb-2">
      <span className="text-muted">No form yet: this client cannot ask through Zesting.</span>
      <Button
        disabled={give.isPending}
        onClick={() => give.mutate(undefined, { onSuccess: (made) => queries.setQueryData(['links', clientId], made) })}
      >
        Give it the usual form
      </Button>
    </p>
  );
}

function ChangeDialog({ clientId, asked, onClose }: { clientId: string; asked: Asked; onClose: () => void }) {
  const queries = useQueryClient();
  const { name, ...body } = asked;
  const write = useWrite((sent: ChangeLinkBody) => call<ClientLinksShape>(`/clients/${clientId}/links`, { method: 'POST', body: sent }));
  const words = asked.change === 'renew' ? 'Renew the link' : 'Close the link';
  const go = () =>
    write.mutate(body, {
      onSuccess: (links) => {
        queries.setQueryData(['links', clientId], links);
        toast(`${name}: ${asked.change === 'renew' ? 'renewed' : 'closed'}`);
        onClose();
      },
    });
  return (
    <Dialog open onClose={onClose} title={`${words}: ${name}?`} description={EFFECT[asked.kind][asked.change]}>
      <div className="flex justify-end gap-2">
        <Button onClick={onClose}>Leave it</Button>
        <Button look="danger" disabled={write.isPending} onClick={go}>
          {words}
        </Button>
      </div>
    </Dialog>
  );
}

interface RowProps {
  readonly name: string;
  readonly isOpen: boolean;
  readonly onChange: (change: ChangeLinkBody['change']) => void;
  readonly children: ReactNode;
  readonly extra?: ReactNode;
}

function Row({ name, isOpen, onChange, children, extra }: RowProps) {
  return (
    <>
      <dt className="font-medium">{name}</dt>
      <dd className="flex flex-wrap items-center gap-x-3 min-w-0 min-h-8">{isOpen ? children : <Tag tone="rind">Closed</Tag>}</dd>
      <dd className="flex justify-end gap-1">
        {isOpen && extra}
        <Button look="quiet" onClick={() => onChange('renew')} aria-label={`Renew: ${name}`}>
          Renew…
        </Button>
        {isOpen && (
          <Button look="quiet" onClick={() => onChange('close')} aria-label={`Close: ${name}`}>
            Close…
          </Button>
        )}
      </dd>
    </>
  );
}

function LinkRow({ name, address, onChange }: { name: string; address: string | null; onChange: RowProps['onChange'] }) {
  return (
    <Row name={name} isOpen={address !== null} onChange={onChange} extra={<CopyButton name={name} text={address ?? ''} />}>
      <a href={address ?? ''} aria-label={`${name}: ${address}`} className="text-pine underline truncate leading-8">
        {address}
      </a>
    </Row>
  );
}

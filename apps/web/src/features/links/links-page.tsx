import { useSuspenseQuery } from '@tanstack/react-query';
import type { ClientLinksShape, ClientShape } from '@zesting/contract';
import { Copy } from 'lucide-react';
import { toast } from 'sonner';
import { call } from '../../lib/api';
import { useClients } from '../../lib/queries';
import { Button } from '../../ui/button';
import { PageHead } from '../../ui/page';
import { ClientCode } from '../../ui/tags';

/** The links to hand out: forms, rooms and feeds of each client. */
export function LinksPage() {
  const { clients, client } = useClients();
  return (
    <>
      <PageHead title="Links to hand out" note="Whoever has a link can use it; none of them needs a password." />
      <div className="grid gap-4">
        {(client ? [client] : clients).map((shown) => (
          <ClientLinks key={shown.id} client={shown} />
        ))}
      </div>
    </>
  );
}

function ClientLinks({ client }: { client: ClientShape }) {
  const { data: links } = useSuspenseQuery({
    queryKey: ['links', client.id],
    queryFn: () => call<ClientLinksShape>(`/clients/${client.id}/links`),
  });
  return (
    <section className="card p-4" aria-label={client.name}>
      <h2 className="flex items-center gap-3 text-lg mb-3">
        <ClientCode code={client.code} colour={client.colour} />
        {client.name}
      </h2>
      <dl className="grid gap-y-2 gap-x-4 grid-cols-[minmax(9rem,auto)_minmax(0,1fr)_auto] items-center">
        {links.forms.map((form) => (
          <LinkRow key={form.address} name={`Form: ${form.title}`} address={form.address} />
        ))}
        {links.rooms.map((room) => (
          <LinkRow key={room.contactId} name={`Room of ${room.name}`} address={room.address} />
        ))}
        <LinkRow name="Calendar feed" address={links.feed} />
      </dl>
    </section>
  );
}

function LinkRow({ name, address }: { name: string; address: string }) {
  const copy = async () => {
    await navigator.clipboard.writeText(address);
    toast(`${name}: copied`);
  };
  return (
    <>
      <dt className="font-medium">{name}</dt>
      <dd className="truncate">
        <a href={address} className="text-pine underline">
          {address}
        </a>
      </dd>
      <dd>
        <Button look="quiet" onClick={() => void copy()} aria-label={`Copy: ${name}`}>
          <Copy size={15} aria-hidden /> Copy
        </Button>
      </dd>
    </>
  );
}

import { useSuspenseQuery } from '@tanstack/react-query';
import type { ClientLinksShape } from '@zesting/contract';
import { Copy } from 'lucide-react';
import { toast } from 'sonner';
import { call } from '../lib/api';
import { Button } from './button';

/** The links of a client to hand out: forms, the contacts' rooms, the calendar feed. */
export function ClientLinks({ clientId }: { clientId: string }) {
  const { data: links } = useSuspenseQuery({
    queryKey: ['links', clientId],
    queryFn: () => call<ClientLinksShape>(`/clients/${clientId}/links`),
  });
  return (
    <dl className="grid gap-y-2 gap-x-4 grid-cols-[minmax(9rem,auto)_minmax(0,1fr)_auto] items-center">
      {links.forms.map((form) => (
        <LinkRow key={form.address} name={`Form: ${form.title}`} address={form.address} />
      ))}
      {links.rooms.map((room) => (
        <LinkRow key={room.contactId} name={`Room of ${room.name}`} address={room.address} />
      ))}
      <LinkRow name="Calendar feed" address={links.feed} />
    </dl>
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

import { Link } from 'react-router';
import { useClients } from '../../lib/queries';
import { RoomLink } from '../clients/links-section';
import { ClientLinks } from '../../parts/links';
import { Empty, PageHead } from '../../ui/page';
import { ClientCode } from '../../ui/tags';

/** The links to hand out: forms, rooms and feeds of each client. */
export function LinksPage() {
  const { clients, client } = useClients();
  return (
    <>
      <PageHead
        title="Links to hand out"
        note="Whoever has a link can use it; none of them needs a password. The contacts’ own go to them by mail."
      />
      {clients.length === 0 && (
        <Empty title="No client yet">
          <Link to="/clients" className="text-pine underline">
            Take one on
          </Link>
          , and its links stand here.
        </Empty>
      )}
      <div className="grid gap-4">
        {(client ? [client] : clients).map((shown) => (
          <section key={shown.id} className="card p-4" aria-label={shown.name}>
            <h2 className="flex items-center gap-3 text-lg mb-3">
              <ClientCode code={shown.code} colour={shown.colour} />
              {shown.name}
            </h2>
            <ClientLinks clientId={shown.id} roomOf={(contactId) => <RoomLink clientId={shown.id} contactId={contactId} />} />
          </section>
        ))}
      </div>
    </>
  );
}

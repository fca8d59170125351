import { Link } from 'react-router';
import { ClientLinks } from '../../parts/links';

/** The client's links, to be copied and handed out. */
export function LinksSection({ clientId }: { clientId: string }) {
  return (
    <section aria-label="Links" className="card p-4">
      <h2 className="text-lg mb-1">Links</h2>
      <p className="text-muted mb-3">
        Whoever has a link can use it; none of them needs a password. Renewing or closing one ends what was given out.
      </p>
      <ClientLinks clientId={clientId} roomOf={(contactId) => <RoomLink clientId={clientId} contactId={contactId} />} />
    </section>
  );
}

/** Leads to a contact's room as they see it. */
export function RoomLink({ clientId, contactId }: { clientId: string; contactId: string }) {
  return (
    <Link to={`/clients/${clientId}/room/${contactId}`} className="text-pine underline inline-flex items-center min-h-8">
      See their room
    </Link>
  );
}

import { ClientLinks } from '../../ui/links';

/** The client's links, to be copied and handed out. */
export function LinksSection({ clientId }: { clientId: string }) {
  return (
    <section aria-label="Links" className="card p-4">
      <h2 className="text-lg mb-1">Links</h2>
      <p className="text-muted mb-3">Whoever has a link can use it; none of them needs a password.</p>
      <ClientLinks clientId={clientId} />
    </section>
  );
}

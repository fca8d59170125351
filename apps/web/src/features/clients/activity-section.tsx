import { ActivityPages } from '../../parts/activity';

/** Everything that was done for the client, newest first. */
export function ActivitySection({ clientId }: { clientId: string }) {
  return (
    <section aria-label="Activity" className="card p-4">
      <h2 className="text-lg mb-2">Activity</h2>
      <ActivityPages path={`/clients/${clientId}/activity`} />
    </section>
  );
}

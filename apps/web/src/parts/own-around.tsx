import { useQuery } from '@tanstack/react-query';
import { Link } from 'react-router';
import { followUpsQuery } from '../api/follow-ups';
import { useClients, useSession } from '../lib/queries';
import { Tag } from '../ui/tags';
import { AroundRow, aroundKey } from './around-row';

/** What the viewer puts into channels and does once it is out, due by today; how much comes within seven days is said. Nothing where nothing is due. */
export function OwnAround() {
  const { client, to } = useClients();
  const { role } = useSession();
  const { data } = useQuery({ ...followUpsQuery('mine=yes'), enabled: role !== 'freelance' }); // pieces by their steps alone
  const todayOf = (clientId: string) => data?.todays.find((one) => one.clientId === clientId)?.todayOn ?? '';
  const open = (data?.open ?? []).filter(({ clientId }) => !client || clientId === client.id);
  const rows = open.filter(({ clientId, dueOn }) => dueOn <= todayOf(clientId));
  if (rows.length === 0) return null;
  return (
    <section aria-labelledby="own-around" className="card overflow-hidden mb-4">
      <h2 id="own-around" className="flex items-center gap-2 px-4 pt-2.5 pb-1 text-[13px] font-sans tracking-normal">
        <Tag tone="pine">Around what goes out</Tag>
        <span className="text-muted font-normal tabular">{rows.length}</span>
        {open.length > rows.length && (
          <Link to={to('/calendar/going-out')} className="ml-auto font-normal">
            {open.length - rows.length} more within seven days
          </Link>
        )}
      </h2>
      <ul>
        {rows.map((row) => (
          <AroundRow key={aroundKey(row)} row={row} todayOn={todayOf(row.clientId)} isOwn />
        ))}
      </ul>
    </section>
  );
}

import type { FollowUpsShape } from '@zesting/contract';
import { count } from '../../lib/format';
import { AroundRow, aroundKey } from '../../parts/around-row';

/** What is done by hand around what goes out: due by each client's own today, and over the next seven days; what was settled today below it. */
export function FollowUps({ followUps }: { followUps: FollowUpsShape }) {
  const todayOf = (clientId: string) => followUps.todays.find((one) => one.clientId === clientId)?.todayOn ?? '';
  return (
    <>
      {followUps.open.map((row) => (
        <AroundRow key={aroundKey(row)} row={row} todayOn={todayOf(row.clientId)} />
      ))}
      {followUps.hidden > 0 && <li className="text-muted px-4 py-2">{followUps.hidden} more: choose a client above to see them.</li>}
      {followUps.settled.length > 0 && (
        <li className="border-t border-line first:border-t-0">
          <details>
            <summary className="px-4 py-2 min-h-8 text-pine font-medium">
              {count(followUps.settled.length, 'settled', 'settled')} today
            </summary>
            <ul>
              {followUps.settled.map((row) => (
                <AroundRow key={aroundKey(row)} row={row} todayOn={todayOf(row.clientId)} />
              ))}
            </ul>
          </details>
        </li>
      )}
    </>
  );
}

import { useQuery } from '@tanstack/react-query';
import type { FollowUpsShape, GoingOutSoonShape } from '@zesting/contract';
import { followUpsQuery } from '../api/follow-ups';
import { goingOutSoonQuery } from '../api/going-out';
import { useClients } from '../lib/queries';
import { NoticeLine } from '../ui/notice-line';

/** What needs somebody soon, the most pressing first; `shown` is how the list is asked for it. */
function needsOf({ count, unready, unchecked, unaddressed }: GoingOutSoonShape, due: number) {
  const of = `of ${count} that ${count === 1 ? 'goes' : 'go'} out within three days`;
  return [
    { number: unready, words: 'not ready', of, shown: 'unready' },
    { number: unchecked, words: 'ready, but nobody has looked', of, shown: 'unchecked' },
    { number: due, words: 'to be done around what goes out', of: '', shown: null },
    { number: unaddressed, words: 'out without an address', of: '', shown: null },
  ].filter(({ number }) => number > 0);
}

/** How many are due by each client's own today. */
const dueIn = ({ open, todays }: FollowUpsShape): number =>
  open.filter(({ clientId, dueOn }) => todays.some((one) => one.clientId === clientId && dueOn <= one.todayOn)).length;

/** What goes out today and within three days and is not ready for it: said while there is time. Nothing where all is in order. */
export function GoesOutSoon() {
  const { query, to } = useClients();
  const { data: soon } = useQuery(goingOutSoonQuery(query));
  const { data: followUps } = useQuery(followUpsQuery(query));
  const [first, ...rest] = soon ? needsOf(soon, followUps ? dueIn(followUps) : 0) : [];
  if (!soon || !first) return null;
  return (
    <NoticeLine
      to={to(`/calendar/going-out${first.shown ? `?shown=${first.shown}` : ''}`)}
      tone={soon.unready > 0 ? 'rhubarb' : 'calm'}
      number={first.number}
      more={rest.map(({ number, words }) => `${number} ${words}`).join(', ')}
      place="Going out"
    >
      {first.words} {first.of}
    </NoticeLine>
  );
}

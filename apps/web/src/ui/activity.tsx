import { useInfiniteQuery } from '@tanstack/react-query';
import type { ActivityPage, ActivityShape } from '@zesting/contract';
import { call, wordsOf } from '../lib/api';
import { instantWords } from '../lib/format';
import { fieldWords, valueWords } from '../lib/value-words';
import { Button } from './button';
import { Failed, Loading } from './page';

const VERBS: Record<string, string> = {
  'piece.created': 'made the piece',
  'piece.edited': 'changed the piece',
  'piece.content_edited': 'edited the content',
  'piece.sent': 'sent it to the client',
  'piece.approved': 'approved it',
  'piece.changes_asked': 'asked for changes',
  'step.assigned': 'assigned a step',
  'step.begun': 'began',
  'step.remaining_said': 'said how much work is left in',
  'step.handed_in': 'handed in',
  'step.passed': 'passed',
  'step.handed_back': 'handed back',
  'placement.added': 'added a channel',
  'placement.moved': 'moved it',
  'placement.out': 'marked it as out',
  'placement.cancelled': 'cancelled a placement',
  'placement.restored': 'brought a placement back',
  'placement.swapped': 'swapped dates',
  'placement.duplicated': 'placed it once more',
  'marker.added': 'put on the calendar',
  'marker.removed': 'took off the calendar',
  'piece.commented': 'wrote to the team',
  'brief.added_to': 'added to the brief',
  'note.edited': 'changed what they wrote',
  'note.removed': 'took back what was written',
  'placement.pencilled': 'pencilled it',
  'form.given': 'gave the client a form',
  'remark.settled': 'settled a remark',
  'remark.answered': 'answered a remark',
  'remark.open': 'took a remark up again',
  'request.reopened': 'took the request up again',
  'request.received': 'asked for it',
  'request.accepted': 'accepted the request',
  'request.declined': 'declined the request',
  'client.made': 'took on the client',
  'client.edited': 'changed the client',
  'client.link_renewed': 'renewed a link',
  'client.link_closed': 'closed a link',
  'client.mail_failed': 'could not deliver a mail',
  'client.archived': 'archived the client',
  'client.restored': 'restored the client',
};

/** Lines of the record: who did what when, with old and new values where something changed. */
export function ActivityList({ items }: { items: readonly ActivityShape[] }) {
  return (
    <ul className="grid gap-1.5 text-[13px]">
      {items.map((entry, index) => (
        <li key={index} className="break-words">
          <span className="text-muted tabular">{instantWords(entry.at)}</span> {entry.actor}{' '}
          {VERBS[entry.verb] ?? entry.verb.replace(/[._]/g, ' ')}
          <Detail detail={entry.detail} />
        </li>
      ))}
    </ul>
  );
}

/** The whole record of a thing, newest first, page by page. `path` is where the API keeps it. */
export function ActivityPages({ path }: { path: string }) {
  const pages = useInfiniteQuery({
    queryKey: ['activity', path],
    queryFn: ({ pageParam }) => call<ActivityPage>(`${path}${pageParam ? `?before=${pageParam}` : ''}`),
    initialPageParam: null as string | null,
    getNextPageParam: (last) => last.nextBefore,
  });
  if (pages.isError) return <Failed message={wordsOf(pages.error)} onRetry={() => void pages.refetch()} />;
  if (!pages.data) return <Loading />;
  const items = pages.data.pages.flatMap((page) => page.items);
  return (
    <>
      {items.length === 0 ? <p className="text-muted">Nothing was done yet.</p> : <ActivityList items={items} />}
      {pages.hasNextPage && (
        <Button className="mt-3" disabled={pages.isFetchingNextPage} onClick={() => void pages.fetchNextPage()}>
          Show earlier
        </Button>
      )}
    </>
  );
}

const isChange = (value: unknown): value is { from: unknown; to: unknown } =>
  typeof value === 'object' && value !== null && 'from' in value && 'to' in value;

function Detail({ detail }: { detail: Readonly<Record<string, unknown>> }) {
  const { from, to, ...facts } = detail;
  const moved = from !== undefined && to !== undefined ? { when: { from, to } } : { to };
  const entries = Object.entries({ ...facts, ...moved }).filter(
    ([key, value]) => value !== undefined && value !== null && !/Id$/.test(key) && key !== 'parts',
  );
  const said = entries.filter(([, value]) => !isChange(value)).map(([, value]) => valueWords(value));
  const changes = entries.filter((entry): entry is [string, { from: unknown; to: unknown }] => isChange(entry[1]));
  return (
    <>
      {said.length > 0 && `: ${said.join(', ')}`}
      {changes.map(([key, change]) => (
        <span key={key} className="block pl-4 text-muted">
          {key === 'when' ? '' : `${fieldWords(key)}: `}
          <del className="no-underline">{valueWords(change.from)}</del> →{' '}
          <ins className="no-underline text-ink">{valueWords(change.to)}</ins>
        </span>
      ))}
    </>
  );
}

import { useInfiniteQuery } from '@tanstack/react-query';
import type { ActivityShape } from '@zesting/contract';
import { activityQuery } from '../api/production';
import { wordsOf } from '../lib/api';
import { instantWords } from '../lib/format';
import { verbWords } from '../lib/verbs';
import { fieldWords, valueWords } from '../lib/value-words';
import { Button } from '../ui/button';
import { Failed, Loading } from '../ui/page';

/** Lines of the record: who did what when, with old and new values where something changed. */
export function ActivityList({ items }: { items: readonly ActivityShape[] }) {
  return (
    <ul className="grid gap-1.5 text-[13px]">
      {items.map((entry, index) => (
        <li key={index} className="break-words">
          <span className="text-muted tabular">{instantWords(entry.at)}</span> {entry.actor} {verbWords(entry.verb)}
          <Detail detail={entry.detail} />
        </li>
      ))}
    </ul>
  );
}

/** The whole record of a thing, newest first, page by page. `path` is where the API keeps it. */
export function ActivityPages({ path }: { path: string }) {
  const pages = useInfiniteQuery(activityQuery(path));
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

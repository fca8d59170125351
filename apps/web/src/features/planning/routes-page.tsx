import { useSuspenseQuery } from '@tanstack/react-query';
import type { RoutePageShape } from '@zesting/contract';
import { stepsInOrder } from '@zesting/core';
import { toast } from 'sonner';
import { wholeRoutesQuery } from '../../api/production';
import { call } from '../../lib/api';
import { useSearch } from '../../lib/use-search';
import { count, minutesWords } from '../../lib/format';
import { useWrite } from '../../lib/queries';
import { Button } from '../../ui/button';
import { Empty, PageHead } from '../../ui/page';
import { Tag } from '../../ui/tags';
import { UnderWay } from './under-way';
import { RouteEditor } from './route-editor';

/** The routes that pieces take: steps, roles, spans, rework. One is edited at a time, beside the list. */
export function RoutesPage() {
  const { data } = useSuspenseQuery(wholeRoutesQuery);
  const { search, put } = useSearch();
  const chosen = search.get('route');
  const choose = (id: string) => put({ route: id });
  const [here, archived] = [data.routes.filter((route) => !route.archivedAt), data.routes.filter((route) => route.archivedAt)];
  const shown = chosen === 'new' ? null : (data.routes.find((route) => route.id === chosen) ?? here[0]);
  return (
    <>
      <PageHead
        title="Routes"
        note="The steps that a kind of piece takes. Pieces under way keep the steps they began with until they are taken along."
      >
        {data.canEdit && (
          <Button look="main" onClick={() => choose('new')}>
            New route
          </Button>
        )}
      </PageHead>
      <div className="grid gap-4 lg:grid-cols-[22rem_minmax(0,1fr)] items-start">
        <nav aria-label="Routes" className="grid gap-2">
          {here.map((route) => (
            <RouteCard key={route.id} route={route} isChosen={route.id === shown?.id} onChoose={() => choose(route.id)} />
          ))}
          {archived.length > 0 && (
            <details>
              <summary className="text-pine font-medium min-h-8">Archived ({archived.length})</summary>
              <div className="grid gap-2 mt-1">
                {archived.map((route) => (
                  <RouteCard key={route.id} route={route} isChosen={route.id === shown?.id} onChoose={() => choose(route.id)} />
                ))}
              </div>
            </details>
          )}
        </nav>
        {shown === undefined ? (
          <Empty title="No route yet">A piece needs one: its steps from making to sign-off.</Empty>
        ) : (
          <div className="grid grid-cols-[minmax(0,1fr)] gap-3 min-w-0">
            {shown && data.canEdit && <ArchiveRoute route={shown} />}
            {shown && data.canEdit && <UnderWay key={`under way ${shown.id}`} route={shown} />}
            <RouteEditor key={shown?.id ?? 'new'} route={shown} page={data} onMade={choose} />
          </div>
        )}
      </div>
    </>
  );
}

function RouteCard({ route, isChosen, onChoose }: { route: RoutePageShape; isChosen: boolean; onChoose: () => void }) {
  const days = stepsInOrder(route.steps).reduce((sum, step) => sum + step.spanDays, 0);
  const minutes = route.steps.reduce((sum, step) => sum + step.effortMinutes, 0);
  return (
    <button
      type="button"
      aria-current={isChosen ? 'true' : undefined}
      onClick={onChoose}
      className={`card p-3 text-left hover:bg-sunk ${isChosen ? 'border-pine border-l-4' : ''}`}
    >
      <span className="flex items-center gap-2 font-semibold">
        {route.name}
        {route.archivedAt && <Tag tone="rind">Archived</Tag>}
      </span>
      <span className="block text-muted text-[13px]">
        {route.formatName} · {count(route.steps.length, 'step')} · {minutesWords(minutes)} over at most {count(days, 'day')}
      </span>
      <span className="block text-muted text-[13px]">
        {route.openPieces === 0 ? 'No open piece' : count(route.openPieces, 'open piece')}
      </span>
    </button>
  );
}

function ArchiveRoute({ route }: { route: RoutePageShape }) {
  const archive = useWrite((archived: boolean) => call(`/routes/${route.id}/archive`, { method: 'POST', body: { archived } }));
  return (
    <div className="flex justify-end">
      <Button
        look="quiet"
        disabled={archive.isPending}
        onClick={() =>
          archive.mutate(!route.archivedAt, {
            onSuccess: () =>
              toast(route.archivedAt ? `${route.name} can be taken again` : `${route.name} is archived: no new piece takes it`, {
                action: { label: 'Undo', onClick: () => archive.mutate(Boolean(route.archivedAt)) },
              }),
          })
        }
      >
        {route.archivedAt ? 'Restore this route' : 'Archive this route'}
      </Button>
    </div>
  );
}

import { useQuery } from '@tanstack/react-query';
import { SavedViewBody, type SavedViewMadeShape, type SavedViewShape, type ViewPage } from '@zesting/contract';
import { Bookmark } from 'lucide-react';
import { useState } from 'react';
import { Link, useLocation } from 'react-router';
import { toast } from 'sonner';
import { viewsQuery } from '../api/views';
import { call, wordsOf } from '../lib/api';
import { useWrite } from '../lib/queries';
import { useBodyForm } from '../lib/use-body-form';
import { Button } from '../ui/button';
import { Dialog } from '../ui/dialog';
import { Field } from '../ui/field';
import { Failed, Loading } from '../ui/page';

/** What of an address is of one moment, and kept by no view. */
const OF_THE_MOMENT = ['open', 'placement', 'week', 'month', 'after', 'from', 'who', 'day'];

/** The part of an address that a view keeps: the same choices wherever they stand, without what is of one moment. */
export function keptQuery(search: string): string {
  const kept = new URLSearchParams(search);
  for (const name of OF_THE_MOMENT) kept.delete(name);
  kept.sort();
  return kept.toString();
}

/** Ways of looking at a page that were kept under a name: one's own and shared ones, and a way to keep this one. */
export function SavedViews({ page }: { page: ViewPage }) {
  const [isOpen, setOpen] = useState(false);
  return (
    <>
      <Button onClick={() => setOpen(true)} aria-label="Views" title="Views">
        <Bookmark size={15} aria-hidden />
      </Button>
      {isOpen && <ViewsDialog page={page} onClose={() => setOpen(false)} />}
    </>
  );
}

function ViewsDialog({ page, onClose }: { page: ViewPage; onClose: () => void }) {
  const views = useQuery(viewsQuery(page));
  const { search } = useLocation();
  const here = keptQuery(search);
  return (
    <Dialog open onClose={onClose} title="Views" description="Filters, colours and the client, as the page shows them, under a name.">
      {views.isError ? (
        <Failed message={wordsOf(views.error)} onRetry={() => void views.refetch()} />
      ) : !views.data ? (
        <Loading />
      ) : (
        <ul className="mb-4" aria-label="Views">
          {views.data.views.length === 0 && <li className="text-muted">None is kept yet.</li>}
          {views.data.views.map((view) => (
            <ViewLine key={view.id} view={view} isHere={keptQuery(view.query) === here} onChosen={onClose} />
          ))}
        </ul>
      )}
      <KeepForm page={page} query={here} />
    </Dialog>
  );
}

function ViewLine({ view, isHere, onChosen }: { view: SavedViewShape; isHere: boolean; onChosen: () => void }) {
  const { pathname } = useLocation();
  const drop = useWrite(() => call(`/views/${view.id}`, { method: 'DELETE' }));
  return (
    <li className="border-t border-line first:border-t-0 py-1 flex items-center gap-3 min-h-9">
      <Link
        to={`${pathname}?${view.query}`}
        className="flex-1 font-medium no-underline hover:underline break-words"
        aria-current={isHere ? 'page' : undefined}
        onClick={onChosen}
      >
        {view.name}
      </Link>
      {isHere && <span className="text-muted text-[13px]">this one</span>}
      {view.isShared && <span className="text-muted text-[13px]">{view.isOwn ? 'shared' : `by ${view.by}`}</span>}
      {view.isOwn && (
        <Button look="quiet" aria-label={`Let go of ${view.name}`} disabled={drop.isPending} onClick={() => drop.mutate()}>
          Let go
        </Button>
      )}
    </li>
  );
}

function KeepForm({ page, query }: { page: ViewPage; query: string }) {
  const keep = useWrite((body: SavedViewBody) => call<SavedViewMadeShape>('/views', { method: 'POST', body }), { quiet: true });
  const form = useBodyForm<SavedViewBody>(
    SavedViewBody,
    { page, name: '', query, isShared: false },
    {
      send: async (body) => {
        await keep.mutateAsync({ ...body, query });
        toast(`“${body.name.trim()}” is kept.`);
        form.reset();
      },
      words: { name: { isNotBlank: 'Give it a name.' } },
    },
  );
  return (
    <form noValidate onSubmit={form.onSubmit} className="border-t border-line-strong pt-3">
      <Field label="Keep this view as" error={form.errorOf('name')}>
        {(control) => (
          <input
            {...control}
            className="field"
            maxLength={60}
            value={form.body.name}
            onChange={(event) => form.change({ name: event.target.value })}
          />
        )}
      </Field>
      <label className="flex items-center gap-2 min-h-8 mb-2">
        <input
          type="checkbox"
          className="size-4 accent-pine"
          checked={form.body.isShared}
          onChange={(event) => form.change({ isShared: event.target.checked })}
        />
        Everybody of the agency sees it
      </label>
      {form.wrong && (
        <p role="alert" className="text-rhubarb font-medium mb-2">
          {form.wrong}
        </p>
      )}
      <Button look="main" type="submit" disabled={form.busy}>
        Keep it
      </Button>
    </form>
  );
}

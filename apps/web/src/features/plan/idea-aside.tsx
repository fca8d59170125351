import { useInfiniteQuery, useQuery } from '@tanstack/react-query';
import type { IdeaPageShape } from '@zesting/contract';
import { useState } from 'react';
import { toast } from 'sonner';
import { coveredQuery, ideasQuery } from '../../api/plan';
import { call } from '../../lib/api';
import { useWrite } from '../../lib/queries';
import { AskedAboutSection } from '../../parts/asked-about';
import { Talk } from '../../parts/team-notes';
import { Button } from '../../ui/button';
import { LinkedText } from '../../ui/linked-text';
import { CoveredList } from './covered-list';
import { IdeaFiles } from './idea-files';
import { Part } from './part';

/** What belongs to an idea beside its fields: files, what those who know said, what was combined into it, the team's talk. */
export function IdeaAside({ idea }: { idea: IdeaPageShape }) {
  return (
    <div className="grid gap-4 md:border-l md:border-line md:pl-6">
      <Part title="Files">
        <IdeaFiles ideaId={idea.id} files={idea.attached} canRemove />
      </Part>
      {idea.clientId !== null && (
        <Part title="From who knows">
          <AskedAboutSection
            clientId={idea.clientId}
            about={{ of: { ideaId: idea.id }, title: idea.title }}
            canAsk={idea.state === 'open'}
          />
        </Part>
      )}
      <Combined idea={idea} />
      <Part title="Team talk">
        <Talk of={{ kind: 'idea', id: idea.id, canAttach: true }} />
      </Part>
    </div>
  );
}

/** What was combined into an idea, and a way to combine more. */
function Combined({ idea }: { idea: IdeaPageShape }) {
  const [isOpen, setOpen] = useState(false);
  const covered = useQuery(coveredQuery(idea.id));
  const takeOut = useWrite((id: string) => call(`/ideas/${id}/state`, { method: 'POST', body: { state: 'open' } }));
  return (
    <Part title="Made of">
      {idea.combined.length === 0 && covered.data?.length === 0 && <p className="text-muted text-[13px]">This one alone.</p>}
      {covered.data && covered.data.length > 0 && (
        <div className="text-[13px]">
          <p>Something like it is there already:</p>
          <CoveredList covered={covered.data} />
        </div>
      )}
      <ul>
        {idea.combined.map((part) => (
          <li key={part.id} className="border-t border-line first:border-t-0 py-1.5 text-[13px]">
            <p className="font-medium">{part.title}</p>
            {part.note && (
              <p className="whitespace-pre-wrap break-words">
                <LinkedText text={part.note} />
              </p>
            )}
            {part.link && (
              <p className="break-all">
                <LinkedText text={part.link} />
              </p>
            )}
            <button
              type="button"
              className="text-pine underline min-h-6"
              aria-label={`Take it out again: ${part.title}`}
              disabled={takeOut.isPending}
              onClick={() => takeOut.mutate(part.id)}
            >
              Take it out again
            </button>
          </li>
        ))}
      </ul>
      {idea.state === 'open' && !isOpen && (
        <Button look="quiet" className="-ml-3" onClick={() => setOpen(true)}>
          Combine with another…
        </Button>
      )}
      {isOpen && <CombineWith idea={idea} onDone={() => setOpen(false)} />}
    </Part>
  );
}

function CombineWith({ idea, onDone }: { idea: IdeaPageShape; onDone: () => void }) {
  const [chosen, setChosen] = useState('');
  const list = useInfiniteQuery(ideasQuery(idea.clientId === null ? '' : `clientId=${idea.clientId}`, 'open'));
  const combine = useWrite((ideaIds: string[]) => call(`/ideas/${idea.id}/combine`, { method: 'POST', body: { ideaIds } }));
  // what is for a client already cannot become a part of what is for none
  const others = (list.data?.pages.flatMap((page) => page.ideas) ?? []).filter(
    ({ id, clientId }) => id !== idea.id && (clientId === null || clientId === idea.clientId),
  );
  return (
    <div className="flex flex-wrap gap-2 mt-1">
      <select
        className="field flex-1 min-w-40"
        aria-label="Another idea"
        value={chosen}
        onChange={(event) => setChosen(event.target.value)}
      >
        <option value="">Which idea becomes a part of it</option>
        {others.map(({ id, title }) => (
          <option key={id} value={id}>
            {title}
          </option>
        ))}
      </select>
      <Button
        look="main"
        disabled={chosen === '' || combine.isPending}
        onClick={() =>
          combine.mutate([chosen], {
            onSuccess: () => {
              toast(`“${others.find(({ id }) => id === chosen)?.title}” is a part of it now`);
              onDone();
            },
          })
        }
      >
        Combine
      </Button>
      {list.hasNextPage && (
        <Button look="quiet" disabled={list.isFetchingNextPage} onClick={() => void list.fetchNextPage()}>
          More of the shelf
        </Button>
      )}
    </div>
  );
}

import { useQuery } from '@tanstack/react-query';
import type { ClientShape } from '@zesting/contract';
import { Link } from 'react-router';
import { toast } from 'sonner';
import { topicsQuery } from '../../api/topics';
import { call } from '../../lib/api';
import { useClients, useWrite } from '../../lib/queries';
import { Tag } from '../../ui/tags';

/** The subjects that were put into a month, and what there is of each; nothing where none was. */
export function SubjectsOfMonth({ client, month }: { client: ClientShape; month: string }) {
  const { data: all } = useQuery(topicsQuery(client.id));
  const { to } = useClients();
  const catchIdea = useWrite(({ id }: { id: string; name: string }) =>
    call(`/topics/${id}/idea`, { method: 'POST', body: { treatment: null } }),
  );
  const subjects = all?.topics.filter(({ months }) => months.includes(month)) ?? [];
  if (!all || subjects.length === 0) return null;
  return (
    <section aria-label="Subjects" className="card p-3">
      <h2 className="text-base mb-1">Subjects put here</h2>
      <ul className="grid gap-0.5 text-[13px]">
        {subjects.map(({ id, name }) => {
          const here = all.uses.filter((use) => use.topicId === id && use.month === month);
          const waiting = all.uses.filter((use) => use.topicId === id && use.month === null);
          const [first] = [...here, ...waiting];
          return (
            <li key={id} className="flex items-center gap-2 min-h-7">
              <span className="flex-1 truncate" title={name}>
                {name}
              </span>
              {here.length > 0 ? (
                <Tag tone="pine">planned</Tag>
              ) : first ? (
                <Link
                  to={to(first.kind === 'idea' ? `/plan/ideas?idea=${first.id}` : `/pieces/${first.id}`)}
                  className="text-pine underline"
                  title={first.title}
                >
                  {first.kind === 'idea' ? 'has an idea' : 'has no date'}
                  <span className="sr-only">: {first.title}</span>
                </Link>
              ) : (
                <button
                  type="button"
                  className="text-pine underline min-h-6"
                  aria-label={`Catch an idea: ${name}`}
                  disabled={catchIdea.isPending}
                  onClick={() => catchIdea.mutate({ id, name }, { onSuccess: () => toast(`On the idea shelf: ${name}`) })}
                >
                  Catch an idea
                </button>
              )}
            </li>
          );
        })}
      </ul>
      <Link to={to('/plan/pillars?rows=months')} className="text-pine underline text-[13px]">
        All subjects
      </Link>
    </section>
  );
}

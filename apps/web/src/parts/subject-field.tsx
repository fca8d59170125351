import { useQuery } from '@tanstack/react-query';
import type { ClientShape } from '@zesting/contract';
import { topicsQuery } from '../api/topics';
import { call } from '../lib/api';
import { useWrite } from '../lib/queries';

interface SubjectFieldProps {
  readonly client: ClientShape;
  readonly of: { readonly kind: 'idea' | 'piece'; readonly id: string };
}

/** What a piece or an idea is about, and how it treats it; kept as soon as it is chosen. Nothing where the client has no topics. */
export function SubjectField({ client, of }: SubjectFieldProps) {
  const { data: all } = useQuery(topicsQuery(client.id));
  const save = useWrite((body: { topicId: string | null; treatment: string | null }) =>
    call(`/${of.kind === 'idea' ? 'ideas' : 'pieces'}/${of.id}/subject`, { method: 'PUT', body }),
  );
  if (!all || all.topics.length === 0) return null;
  const use = all.uses.find(({ id }) => id === of.id);
  const chosen = save.isPending ? save.variables : { topicId: use?.topicId ?? null, treatment: use?.treatment ?? null };
  return (
    <div className="flex flex-wrap items-center gap-2 text-[13px]">
      <label className="inline-flex items-center gap-2">
        <span className="text-muted">About</span>
        <select
          className="field w-auto max-w-64 text-[13px]"
          value={chosen.topicId ?? ''}
          onChange={(event) => save.mutate({ topicId: event.target.value || null, treatment: chosen.treatment || null })}
        >
          <option value="">nothing in particular</option>
          {client.pillars.map((pillar) => (
            <optgroup key={pillar.id} label={pillar.name}>
              {all.topics
                .filter(({ pillarId }) => pillarId === pillar.id)
                .map(({ id, name, parentId }) => (
                  <option key={id} value={id}>
                    {parentId === null ? name : `– ${name}`}
                  </option>
                ))}
            </optgroup>
          ))}
        </select>
      </label>
      {chosen.topicId !== null && all.treatments.length > 0 && (
        <label className="inline-flex items-center gap-2">
          <span className="text-muted">treated as</span>
          <select
            className="field w-auto text-[13px]"
            value={chosen.treatment ?? ''}
            onChange={(event) => save.mutate({ topicId: chosen.topicId, treatment: event.target.value || null })}
          >
            <option value="">in no way in particular</option>
            {all.treatments.map((name) => (
              <option key={name} value={name}>
                {name}
              </option>
            ))}
          </select>
        </label>
      )}
    </div>
  );
}

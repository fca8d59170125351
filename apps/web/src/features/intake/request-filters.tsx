import { useInfiniteQuery, useQuery } from '@tanstack/react-query';
import type { RequestCountShape } from '@zesting/contract';
import { isId, STANDS, type Stands } from '@zesting/core';
import { formsQuery } from '../../api/forms';
import { peopleQuery } from '../../api/people';
import { useClients, useSession } from '../../lib/queries';
import { useSearch } from '../../lib/use-search';
import { Choice } from '../../ui/choice';
import { ClientCode } from '../../ui/tags';

const SHOWN = [
  ['open', 'To decide'],
  ['ideas', 'Ideas'],
  ['all', 'All'],
] as const;

const STANDS_WORDS: Record<Stands, string> = {
  not_by_then: 'Not by that day',
  later: 'Later than wished',
  ask: 'Something missing',
  answer_late: 'Answer promised sooner',
};

/** What the address asks for, beside the client. */
export function useAsked() {
  const { search, put } = useSearch();
  const { personId } = useSession();
  const [shown] = SHOWN.find(([name]) => name === search.get('shown')) ?? ['all' as const];
  const stands = STANDS.find((word) => word === search.get('stands'));
  const whose = search.get('whose');
  const ownerId = whose === 'mine' ? personId : whose && isId(whose) ? whose : null;
  const byDanger = search.get('order') === 'danger';
  const formId = search.get('form');
  const query = new URLSearchParams({
    ...(shown === 'all' ? {} : { shown }),
    ...(stands && shown !== 'ideas' ? { stands } : {}),
    ...(shown === 'open' && byDanger ? { order: 'danger' } : {}),
    ...(ownerId ? { ownerId } : {}),
    ...(formId && isId(formId) ? { formId } : {}),
  }).toString();
  const ask = (changes: Record<string, string | null>) => put(changes, { replace: true });
  return { shown, stands, whose, byDanger, formId, query, ask, isNarrowed: query !== '' } as const;
}

/** What of the requests is shown, and in which order. */
export function RequestFilters({ asked, counts }: { asked: ReturnType<typeof useAsked>; counts: readonly RequestCountShape[] }) {
  return (
    <div className="flex flex-wrap items-center gap-2 mb-3">
      <ClientCounts counts={counts} />
      <span className="flex-1" />
      <FormChoice value={asked.formId} onChange={(form) => asked.ask({ form })} />
      {asked.shown !== 'ideas' && (
        <select
          className="field w-auto max-w-48 min-h-8"
          aria-label="What stands in the way"
          value={asked.stands ?? ''}
          onChange={(event) => asked.ask({ stands: event.target.value || null })}
        >
          <option value="">Any standing</option>
          {STANDS.map((word) => (
            <option key={word} value={word}>
              {STANDS_WORDS[word]}
            </option>
          ))}
        </select>
      )}
      <WhoseChoice value={asked.whose} onChange={(whose) => asked.ask({ whose })} />
      <Choice
        label="What is shown"
        value={asked.shown}
        options={SHOWN}
        onChange={(shown) => asked.ask({ shown: shown === 'all' ? null : shown })}
      />
      {asked.shown === 'open' && (
        <select
          className="field w-auto min-h-8"
          aria-label="Order"
          value={asked.byDanger ? 'danger' : ''}
          onChange={(event) => asked.ask({ order: event.target.value || null })}
        >
          <option value="">Newest first</option>
          <option value="danger">First to begin</option>
        </select>
      )}
    </div>
  );
}

/** How many wait for a decision, by client; each is a way to that client's alone, and back to all. */
function ClientCounts({ counts }: { counts: readonly RequestCountShape[] }) {
  const { clients, client } = useClients();
  const { put } = useSearch();
  if (clients.length < 2) return null;
  const all = counts.reduce((sum, { open }) => sum + open, 0);
  const chip = 'inline-flex items-center gap-1.5 rounded-full border px-2.5 min-h-8 text-[13px]';
  const look = (isOn: boolean) => (isOn ? 'border-pine bg-pine-soft font-semibold' : 'border-line-strong bg-card hover:bg-sunk');
  return (
    <div role="group" aria-label="To decide, by client" className="flex flex-wrap gap-1.5">
      <button type="button" aria-pressed={!client} className={`${chip} ${look(!client)}`} onClick={() => put({ client: null })}>
        All <span className="tabular">{all}</span>
      </button>
      {clients.flatMap(({ id, code, colour, name }) => {
        const found = counts.find(({ clientId }) => clientId === id);
        // where one is chosen, nothing of the others is shown
        if (client ? client.id !== id : !found) return [];
        return [
          <button
            key={id}
            type="button"
            aria-pressed={client?.id === id}
            className={`${chip} ${look(client?.id === id)}`}
            onClick={() => put({ client: code })}
          >
            <ClientCode code={code} colour={colour} name={name} />
            <span className="tabular">{found?.open ?? 0}</span>
            <span className="sr-only">to decide{(found?.unread ?? 0) > 0 && `, ${found?.unread} unread`}</span>
            {(found?.unread ?? 0) > 0 && <span aria-hidden className="size-2 rounded-full bg-pine" />}
          </button>,
        ];
      })}
    </div>
  );
}

function FormChoice({ value, onChange }: { value: string | null; onChange: (formId: string | null) => void }) {
  const { query } = useClients();
  const { data } = useInfiniteQuery(formsQuery(query));
  const forms = data?.pages.flatMap((page) => page.items) ?? [];
  if (forms.length < 2) return null;
  return (
    <select
      className="field w-auto max-w-48 min-h-8"
      aria-label="Form"
      value={value ?? ''}
      onChange={(event) => onChange(event.target.value || null)}
    >
      <option value="">By any form</option>
      {forms.map(({ id, title }) => (
        <option key={id} value={id}>
          {title}
        </option>
      ))}
    </select>
  );
}

/** Who answers for what is shown. */
function WhoseChoice({ value, onChange }: { value: string | null; onChange: (whose: string | null) => void }) {
  const { personId } = useSession();
  const { data: people } = useQuery(peopleQuery);
  const others = people?.filter(({ id, active, role }) => active && id !== personId && (role === 'lead' || role === 'manager')) ?? [];
  return (
    <select
      className="field w-auto max-w-40 min-h-8"
      aria-label="Whose"
      value={value ?? ''}
      onChange={(event) => onChange(event.target.value || null)}
    >
      <option value="">Everybody’s</option>
      <option value="mine">Mine</option>
      {others.map(({ id, name }) => (
        <option key={id} value={id}>
          {name}
        </option>
      ))}
    </select>
  );
}

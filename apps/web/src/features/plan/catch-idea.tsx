import { useQuery } from '@tanstack/react-query';
import type { IdeaMadeShape } from '@zesting/contract';
import { useRef, useState } from 'react';
import { ideaQuery } from '../../api/plan';
import { call, wordsOf } from '../../lib/api';
import { useClients, useWrite } from '../../lib/queries';
import { useSearch } from '../../lib/use-search';
import { Button } from '../../ui/button';
import { CoveredList } from './covered-list';
import { IdeaFiles } from './idea-files';
import { caughtOf, sharedLine } from './shared';

interface Caught extends IdeaMadeShape {
  readonly title: string;
}

/** An idea in one line, for the chosen client, another, or none yet. What is typed stays until it is kept. */
export function CatchIdea() {
  const { clients, client } = useClients();
  const { search, put } = useSearch();
  const [title, setTitle] = useState(() => sharedLine(search));
  const [forId, setForId] = useState<string | null>(null);
  const [caught, setCaught] = useState<Caught>();
  const [wrong, setWrong] = useState<string>();
  // sent again after a failing network, the same line is caught once
  const [key, setKey] = useState(() => crypto.randomUUID());
  const field = useRef<HTMLInputElement>(null);
  const clientId = forId ?? client?.id ?? '';
  const keep = useWrite(
    (body: { title: string; clientId: string | null; link: string | null }) =>
      call<IdeaMadeShape>('/ideas', { method: 'POST', body, idempotencyKey: key }),
    {
      quiet: true,
    },
  );
  const attached = useQuery({ ...ideaQuery(caught?.ideaId ?? ''), enabled: caught !== undefined });
  const submit = async () => {
    const said = caughtOf(title);
    if (said.title === '' || keep.isPending) return;
    setWrong(undefined);
    try {
      setCaught({ title: said.title, ...(await keep.mutateAsync({ ...said, clientId: clientId || null })) });
      setTitle('');
      setKey(crypto.randomUUID());
      if (sharedLine(search) !== '') put({ title: null, text: null, url: null }, { replace: true });
      field.current?.focus();
    } catch (problem) {
      setWrong(`${wordsOf(problem)} What you typed is still here.`);
    }
  };
  return (
    <section aria-label="Catch an idea" className="mb-4">
      <form
        className="grid gap-2 grid-cols-[minmax(0,1fr)_auto] sm:grid-cols-[minmax(0,1fr)_auto_auto]"
        onSubmit={(event) => {
          event.preventDefault();
          void submit();
        }}
      >
        <input
          ref={field}
          className="field min-h-9 col-span-2 sm:col-span-1"
          aria-label="An idea in one line"
          placeholder="An idea in one line"
          maxLength={2200}
          value={title}
          onChange={(event) => {
            setTitle(event.target.value);
            setKey(crypto.randomUUID()); // another line is another idea
          }}
        />
        <select
          className="field min-h-9 sm:w-52"
          aria-label="For whom"
          value={clientId}
          onChange={(event) => {
            setForId(event.target.value);
            setKey(crypto.randomUUID());
          }}
        >
          <option value="">For no client yet</option>
          {clients.map((choice) => (
            <option key={choice.id} value={choice.id}>
              {choice.name}
            </option>
          ))}
        </select>
        <Button look="main" type="submit" disabled={title.trim() === '' || keep.isPending}>
          Catch
        </Button>
      </form>
      {wrong && (
        <p role="alert" className="text-rhubarb font-medium mt-1">
          {wrong}
        </p>
      )}
      {caught && (
        <div role="status" className="text-[13px] mt-1.5">
          <p>
            “{caught.title}” is on the shelf.
            {caught.covered.length > 0 && ' There is something like it already:'}
          </p>
          <CoveredList covered={caught.covered} />
          <div className="mt-1">
            <IdeaFiles key={caught.ideaId} ideaId={caught.ideaId} files={attached.data?.attached ?? []} />
          </div>
        </div>
      )}
    </section>
  );
}

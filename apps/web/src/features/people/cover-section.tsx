import { useQuery } from '@tanstack/react-query';
import type { CoverBody, PersonPageShape } from '@zesting/contract';
import { useState } from 'react';
import { toast } from 'sonner';
import { peopleQuery } from '../../api/people';
import { call, wordsOf } from '../../lib/api';
import { dayWords } from '../../lib/format';
import { useSession, useWrite } from '../../lib/queries';
import { Button } from '../../ui/button';
import { Field } from '../../ui/field';
import { SpanFields } from '../../ui/span-fields';

/** Who looks after this manager's clients while they are away. */
export function CoverSection({ person }: { person: PersonPageShape }) {
  const mayEdit = person.canEdit || person.isSelf;
  const remove = useWrite((id: string) => call(`/people/${person.id}/covers/${id}`, { method: 'DELETE' }));
  const add = useWrite((body: CoverBody) => call(`/people/${person.id}/covers`, { method: 'POST', body }));
  const takeAway = ({ id, coverId, startOn, endOn, coverName }: PersonPageShape['covers'][number]) =>
    remove.mutate(id, {
      onSuccess: () =>
        toast(`${coverName} does not cover any more`, {
          action: { label: 'Undo', onClick: () => add.mutate({ coverId, startOn, endOn }) },
        }),
    });
  return (
    <section aria-label="Cover" className="card p-4">
      <h2 className="text-lg mb-1">Cover</h2>
      <p className="text-muted mb-2">Whoever covers sees and does everything for the clients on those days, and gets the messages.</p>
      <ul className="mb-3">
        {person.covers.map((cover) => (
          <li key={cover.id} className="flex flex-wrap items-center gap-x-3 min-h-9 border-t border-line first:border-t-0">
            <span className="tabular font-medium">
              {dayWords(cover.startOn)} to {dayWords(cover.endOn)}
            </span>
            <span>{cover.managerId === person.id ? `${cover.coverName} covers` : `covers for ${cover.managerName}`}</span>
            {mayEdit && cover.managerId === person.id && (
              <Button look="quiet" className="ml-auto" disabled={remove.isPending} onClick={() => takeAway(cover)}>
                Take away
              </Button>
            )}
          </li>
        ))}
      </ul>
      {mayEdit && person.active && <AddCover person={person} />}
    </section>
  );
}

function AddCover({ person }: { person: PersonPageShape }) {
  const { todayOn } = useSession();
  const empty: CoverBody = { coverId: '', startOn: '', endOn: '' };
  const [body, setBody] = useState(empty);
  const [error, setError] = useState<string>();
  const { data: people } = useQuery(peopleQuery);
  const add = useWrite((sent: CoverBody) => call(`/people/${person.id}/covers`, { method: 'POST', body: sent }), { quiet: true });
  const submit = () => {
    if (body.coverId === '' || body.startOn === '' || body.endOn === '') return setError('Choose who covers, and the first and last day.');
    setError(undefined);
    add.mutate(body, { onSuccess: () => setBody(empty), onError: (problem) => setError(wordsOf(problem)) });
  };
  return (
    <>
      <div className="grid sm:grid-cols-[minmax(0,1fr)_11.5rem_11.5rem] gap-x-3">
        <Field label="Who covers" error={error}>
          {(control) => (
            <select
              {...control}
              className="field"
              value={body.coverId}
              onChange={(event) => setBody({ ...body, coverId: event.target.value })}
            >
              <option value="">choose…</option>
              {people
                ?.filter((other) => other.active && other.id !== person.id && (other.role === 'manager' || other.role === 'lead'))
                .map((other) => (
                  <option key={other.id} value={other.id}>
                    {other.name}
                  </option>
                ))}
            </select>
          )}
        </Field>
        <SpanFields
          span={body}
          labels={['From', 'Until']}
          todayOn={todayOn}
          min={todayOn}
          onChange={(span) => setBody({ ...body, ...span })}
        />
      </div>
      <Button disabled={add.isPending} onClick={submit}>
        Arrange cover
      </Button>
    </>
  );
}

import { useQuery } from '@tanstack/react-query';
import { CoverBody, type PersonPageShape } from '@zesting/contract';
import { toast } from 'sonner';
import { peopleQuery } from '../../api/people';
import { call } from '../../lib/api';
import { dayWords } from '../../lib/format';
import { useSession, useWrite } from '../../lib/queries';
import { useBodyForm } from '../../lib/use-body-form';
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
  const { data: people } = useQuery(peopleQuery);
  const add = useWrite((sent: CoverBody) => call(`/people/${person.id}/covers`, { method: 'POST', body: sent }), { quiet: true });
  const form = useBodyForm<CoverBody>(
    CoverBody,
    { coverId: '', startOn: '', endOn: '' },
    {
      send: async (body) => {
        await add.mutateAsync(body);
        form.reset();
      },
      words: {
        coverId: { isUuid: 'Choose who covers.' },
        startOn: { isDay: 'Choose the first day.' },
        endOn: { isDay: 'Choose the last day.' },
      },
    },
  );
  const { body, change, errorOf } = form;
  return (
    <form noValidate onSubmit={form.onSubmit}>
      <div className="grid sm:grid-cols-[minmax(0,1fr)_11.5rem_11.5rem] gap-x-3">
        <Field label="Who covers" error={errorOf('coverId')}>
          {(control) => (
            <select {...control} className="field" value={body.coverId} onChange={(event) => change({ coverId: event.target.value })}>
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
          onChange={change}
          error={errorOf('startOn') ?? errorOf('endOn')}
        />
      </div>
      {form.wrong && (
        <p role="alert" className="text-rhubarb font-medium mb-2">
          {form.wrong}
        </p>
      )}
      <Button type="submit" disabled={form.busy}>
        Arrange cover
      </Button>
    </form>
  );
}

import { useQuery } from '@tanstack/react-query';
import type { ClientPageShape, FollowUpItemBody, FollowUpItemShape, FollowUpListShape, NamedPersonShape } from '@zesting/contract';
import { useState } from 'react';
import { toast } from 'sonner';
import { followUpListsQuery } from '../../api/follow-ups';
import { call, wordsOf } from '../../lib/api';
import { aroundWhen } from '../../lib/around-words';
import { minutesWords } from '../../lib/format';
import { useWrite } from '../../lib/queries';
import { useOpened } from '../../lib/use-opened';
import { Button } from '../../ui/button';
import { Field } from '../../ui/field';
import { FormDialog } from '../../ui/form-dialog';
import { ListEditor } from '../../ui/list-editor';
import { Failed, Loading } from '../../ui/page';

/** What is done by hand around everything that goes out on each of the client's channels. */
export function FollowUpsSection({ client }: { client: ClientPageShape }) {
  const found = useQuery(followUpListsQuery(client.id));
  const { opened, open, close } = useOpened();
  const channels = client.channels.flatMap(({ id, name }) => (id ? [{ id, name }] : []));
  const listOf = (channelId: string) => found.data?.lists.find((list) => list.channelId === channelId);
  const edited = channels.find(({ id }) => opened === `after-${id}`);
  if (channels.length === 0) return null;
  return (
    <section aria-labelledby="around" className="mt-8">
      <h2 id="around" className="text-lg">
        Before and after
      </h2>
      <p className="text-muted mb-3 max-w-3xl">
        What somebody does by hand around everything that goes out there: puts it into the channel, and answers, shares or looks once it is
        out. It stands on <em>Going out</em> on its days and with whoever does it; what is out already keeps what it was given.
      </p>
      {found.isError && <Failed message={wordsOf(found.error)} onRetry={() => void found.refetch()} />}
      {found.isPending && <Loading />}
      {found.data && (
        <ul className="card max-w-4xl">
          {channels.map(({ id, name }) => (
            <li key={id} className="flex items-start gap-3 px-4 py-2.5 border-t border-line first:border-t-0">
              <div className="min-w-0 flex-1">
                <h3 className="text-base break-words">{name}</h3>
                <Items items={listOf(id)?.items ?? []} />
              </div>
              <Button look="quiet" aria-label={`Change… what is done around ${name}`} onClick={() => open(`after-${id}`)}>
                Change…
              </Button>
            </li>
          ))}
        </ul>
      )}
      {found.data && edited && (
        <ListDialog key={edited.id} channel={edited} list={listOf(edited.id)} people={found.data.people} onClose={close} />
      )}
    </section>
  );
}

function Items({ items }: { items: readonly FollowUpItemShape[] }) {
  if (items.length === 0) return <p className="text-muted text-[13px]">Nothing.</p>;
  return (
    <ul className="text-[13px]">
      {items.map((item) => (
        <li key={item.key} className="break-words">
          {item.words}{' '}
          <span className="text-muted">
            {[aroundWhen(item), item.personName, item.minutes > 0 && minutesWords(item.minutes)].filter(Boolean).join(', ')}
          </span>
        </li>
      ))}
    </ul>
  );
}

interface ListDialogProps {
  readonly channel: { readonly id: string; readonly name: string };
  readonly list: FollowUpListShape | undefined;
  readonly people: readonly NamedPersonShape[];
  readonly onClose: () => void;
}

const bodyOf = ({ key, kind, words, days, forDays, personId, minutes }: FollowUpItemShape): FollowUpItemBody => ({
  ...(key === '' ? {} : { key }),
  kind,
  words,
  days,
  forDays,
  personId,
  minutes,
});

function ListDialog({ channel, list: shown, people, onClose }: ListDialogProps) {
  const [list] = useState(shown); // as it was opened: what others do meanwhile must be noticed, not overwritten
  const [items, setItems] = useState<FollowUpItemShape[]>(list?.items ?? []);
  const [wrong, setWrong] = useState<string>();
  const save = useWrite(
    () => call(`/channels/${channel.id}/follow-ups`, { method: 'PUT', body: { items: items.map(bodyOf) }, version: list?.version ?? 0 }),
    { quiet: true },
  );
  const submit = () => {
    if (items.some(({ words }) => words.trim() === '')) return setWrong('Say what is done, or take the line out.');
    save.mutate(undefined, {
      onSuccess: () => {
        toast('Kept.');
        onClose();
      },
      onError: (error) => setWrong(wordsOf(error)),
    });
  };
  return (
    <FormDialog
      form={{
        onSubmit: (event) => {
          event.preventDefault();
          submit();
        },
        wrong,
        busy: save.isPending,
      }}
      onClose={onClose}
      title={`Around everything on ${channel.name}`}
      description="What is put in before is due by the day on which it goes out; what follows is counted from the day on which it really went out."
      action="Keep it"
      leave="Leave as it was"
      wide
    >
      <div className="mb-3">
        <ListEditor<FollowUpItemShape>
          label="What is done around it"
          ordered
          dense
          items={items}
          onChange={(next) => {
            setWrong(undefined);
            setItems(next);
          }}
          nameOf={({ words }) => words || 'this line'}
          make={() => ({ key: '', kind: 'follow_up', words: '', days: 0, forDays: 1, personId: null, personName: null, minutes: 0 })}
          addWords="Add a line"
          empty="Nothing yet."
        >
          {(item, put, index) => <Line item={item} put={put} number={index + 1} people={people} />}
        </ListEditor>
      </div>
    </FormDialog>
  );
}

interface LineProps {
  readonly item: FollowUpItemShape;
  readonly put: (part: Partial<FollowUpItemShape>) => void;
  readonly number: number;
  readonly people: readonly NamedPersonShape[];
}

const whole = (text: string, least: number, most: number): number => Math.min(most, Math.max(least, Math.round(Number(text)) || least));

function Line({ item, put, number, people }: LineProps) {
  const isEntering = item.kind === 'enter';
  const hasLeft = item.personId !== null && !people.some(({ personId }) => personId === item.personId);
  return (
    <div className="grid grid-cols-2 sm:grid-cols-[9.5rem_minmax(0,1fr)_7rem_6rem] gap-x-2 gap-y-1">
      <Field label="When">
        {(control) => (
          <select
            {...control}
            aria-label={`When, line ${number}`}
            className="field"
            value={item.kind}
            onChange={({ target }) => put({ kind: target.value === 'enter' ? 'enter' : 'follow_up', forDays: 1 })}
          >
            <option value="enter">Before</option>
            <option value="follow_up">Once out</option>
          </select>
        )}
      </Field>
      <div className="col-span-2 sm:col-span-1 order-first sm:order-none">
        <Field label={`Line ${number}`}>
          {(control) => (
            <input
              {...control}
              className="field"
              maxLength={200}
              placeholder={isEntering ? 'Put it into the planner there' : 'Share it with the group'}
              value={item.words}
              onChange={(event) => put({ words: event.target.value })}
            />
          )}
        </Field>
      </div>
      <Field label={isEntering ? 'Days before' : 'Days later'}>
        {(control) => (
          <input
            {...control}
            aria-label={`${isEntering ? 'Days before' : 'Days later'}, line ${number}`}
            type="number"
            min={0}
            max={365}
            className="field"
            value={item.days}
            onChange={({ target }) => put({ days: whole(target.value, 0, 365) })}
          />
        )}
      </Field>
      {isEntering ? (
        <span className="hidden sm:block" />
      ) : (
        <Field label="For days">
          {(control) => (
            <input
              {...control}
              aria-label={`For days, line ${number}`}
              type="number"
              min={1}
              max={60}
              className="field"
              value={item.forDays}
              onChange={({ target }) => put({ forDays: whole(target.value, 1, 60) })}
            />
          )}
        </Field>
      )}
      <div className="col-span-2">
        <Field label="Who">
          {(control) => (
            <select
              {...control}
              aria-label={`Who, line ${number}`}
              className="field"
              value={item.personId ?? ''}
              onChange={({ target }) => put({ personId: target.value || null, ...(target.value === '' ? { minutes: 0 } : {}) })}
            >
              <option value="">Whoever comes to it</option>
              {hasLeft && <option value={item.personId ?? ''}>{item.personName ?? 'Somebody who has left'}</option>}
              {people.map(({ personId, name }) => (
                <option key={personId} value={personId}>
                  {name}
                </option>
              ))}
            </select>
          )}
        </Field>
      </div>
      {item.personId !== null && (
        <div className="col-span-2">
          <Field label="Minutes each time">
            {(control) => (
              <input
                {...control}
                aria-label={`Minutes each time, line ${number}`}
                type="number"
                min={0}
                max={2400}
                className="field"
                value={item.minutes}
                onChange={({ target }) => put({ minutes: whole(target.value, 0, 2400) })}
              />
            )}
          </Field>
        </div>
      )}
    </div>
  );
}

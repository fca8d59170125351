import { useQuery } from '@tanstack/react-query';
import type { ClientPageShape, FollowUpItemShape, FollowUpListShape } from '@zesting/contract';
import { useState } from 'react';
import { toast } from 'sonner';
import { followUpListsQuery } from '../../api/follow-ups';
import { call, wordsOf } from '../../lib/api';
import { count } from '../../lib/format';
import { useWrite } from '../../lib/queries';
import { useOpened } from '../../lib/use-opened';
import { Button } from '../../ui/button';
import { Field } from '../../ui/field';
import { FormDialog } from '../../ui/form-dialog';
import { ListEditor } from '../../ui/list-editor';
import { Failed, Loading } from '../../ui/page';

/** What is done by hand after something went out on each of the client's channels. */
export function FollowUpsSection({ client }: { client: ClientPageShape }) {
  const found = useQuery(followUpListsQuery(client.id));
  const { opened, open, close } = useOpened();
  const channels = client.channels.flatMap(({ id, name }) => (id ? [{ id, name }] : []));
  const listOf = (channelId: string) => found.data?.lists.find((list) => list.channelId === channelId);
  const edited = channels.find(({ id }) => opened === `after-${id}`);
  if (channels.length === 0) return null;
  return (
    <section aria-labelledby="afterwards" className="mt-8">
      <h2 id="afterwards" className="text-lg">
        Afterwards
      </h2>
      <p className="text-muted mb-3 max-w-3xl">
        What somebody does once a piece is out there. It stands on <em>Going out</em> on its days; what is out already keeps what it was
        given.
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
              <Button look="quiet" aria-label={`Change… what is done after ${name}`} onClick={() => open(`after-${id}`)}>
                Change…
              </Button>
            </li>
          ))}
        </ul>
      )}
      {found.data && edited && <ListDialog key={edited.id} channel={edited} list={listOf(edited.id)} onClose={close} />}
    </section>
  );
}

const whenWords = (days: number): string => (days === 0 ? 'the same day' : `${count(days, 'day')} later`);

function Items({ items }: { items: readonly FollowUpItemShape[] }) {
  if (items.length === 0) return <p className="text-muted text-[13px]">Nothing.</p>;
  return (
    <ul className="text-[13px]">
      {items.map((item, index) => (
        <li key={index} className="break-words">
          {item.words} <span className="text-muted">{whenWords(item.daysAfter)}</span>
        </li>
      ))}
    </ul>
  );
}

interface ListDialogProps {
  readonly channel: { readonly id: string; readonly name: string };
  readonly list: FollowUpListShape | undefined;
  readonly onClose: () => void;
}

function ListDialog({ channel, list: shown, onClose }: ListDialogProps) {
  const [list] = useState(shown); // as it was opened: what others do meanwhile must be noticed, not overwritten
  const [items, setItems] = useState<FollowUpItemShape[]>(list?.items ?? []);
  const [wrong, setWrong] = useState<string>();
  const save = useWrite(() => call(`/channels/${channel.id}/follow-ups`, { method: 'PUT', body: { items }, version: list?.version ?? 0 }), {
    quiet: true,
  });
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
      title={`After something is out on ${channel.name}`}
      description="Each on its day, counted from the day on which it really went out."
      action="Keep it"
      leave="Leave as it was"
    >
      <div className="mb-3">
        <ListEditor<FollowUpItemShape>
          label="What is done afterwards"
          ordered
          dense
          items={items}
          onChange={(next) => {
            setWrong(undefined);
            setItems(next);
          }}
          nameOf={({ words }) => words || 'this line'}
          make={() => ({ words: '', daysAfter: 0 })}
          addWords="Add a line"
          empty="Nothing yet."
        >
          {(item, put, index) => (
            <div className="grid grid-cols-[minmax(0,1fr)_6rem] gap-2">
              <Field label={`Line ${index + 1}`}>
                {(control) => (
                  <input
                    {...control}
                    className="field"
                    maxLength={200}
                    placeholder="Share it with the group"
                    value={item.words}
                    onChange={(event) => put({ words: event.target.value })}
                  />
                )}
              </Field>
              <Field label="Days later">
                {(control) => (
                  <input
                    {...control}
                    type="number"
                    min={0}
                    max={365}
                    className="field"
                    value={item.daysAfter}
                    onChange={(event) => put({ daysAfter: Math.min(365, Math.max(0, Math.round(Number(event.target.value)))) })}
                  />
                )}
              </Field>
            </div>
          )}
        </ListEditor>
      </div>
    </FormDialog>
  );
}

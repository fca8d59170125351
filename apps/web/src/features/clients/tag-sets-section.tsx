import { useQuery } from '@tanstack/react-query';
import { TagSetBody, type ClientPageShape, type TagSetMadeShape, type TagSetShape } from '@zesting/contract';
import { Plus } from 'lucide-react';
import { useState } from 'react';
import { toast } from 'sonner';
import { tagSetsQuery } from '../../api/library';
import { call, wordsOf } from '../../lib/api';
import { count, dayWords } from '../../lib/format';
import { useWrite } from '../../lib/queries';
import { weekdayName } from '../../lib/rhythm-words';
import { tagWords, toTags } from '../../lib/tags';
import { useBodyForm } from '../../lib/use-body-form';
import { useOpened } from '../../lib/use-opened';
import { Button } from '../../ui/button';
import { FormDialog } from '../../ui/form-dialog';
import { OptionField } from '../../ui/option-field';
import { Empty, Failed, Loading } from '../../ui/page';
import { PutAway } from '../../ui/put-away';
import { TextField } from '../../ui/text-field';

/** Tags that are kept under a name, put in with one press where a channel's part is written. */
export function TagSetsSection({ client }: { client: ClientPageShape }) {
  const found = useQuery(tagSetsQuery(client.id));
  const { opened, open, close } = useOpened();
  const restore = useWrite((id: string) => call(`/tag-sets/${id}/archive`, { method: 'POST', body: { archived: false } }));
  const sets = found.data?.tagSets ?? [];
  const edited = sets.find(({ id }) => opened === `tags-${id}`);
  return (
    <section aria-labelledby="tag-sets">
      <div className="flex flex-wrap items-center gap-3 mb-1">
        <h2 id="tag-sets" className="text-lg">
          Tag sets
        </h2>
        <Button className="ml-auto" onClick={() => open('new-tags')}>
          <Plus size={15} aria-hidden /> New tag set
        </Button>
      </div>
      <p className="text-muted mb-3 max-w-3xl">
        Put in with one press where a channel is written: those for the piece’s pillar and day come first. What carries the tags keeps them
        when a set is changed.
      </p>
      {found.isError && <Failed message={wordsOf(found.error)} onRetry={() => void found.refetch()} />}
      {found.isPending && <Loading />}
      {found.data && sets.length === 0 && (
        <Empty title="No tags are kept yet">Keep those that go out again and again, for a pillar or a weekday if you like.</Empty>
      )}
      {sets.length > 0 && (
        <ul className="card max-w-4xl">
          {sets.map((set) => (
            <li key={set.id} className="flex items-start gap-3 px-4 py-2.5 border-t border-line first:border-t-0">
              <div className="min-w-0 flex-1">
                <h3 className="text-base break-words">{set.name}</h3>
                <p className="text-lake break-words">{tagWords(set.tags)}</p>
                <p className="text-muted text-[13px]">{[meantWords(set), timesUsed(set)].filter(Boolean).join('. ')}</p>
              </div>
              <Button look="quiet" aria-label={`Change ${set.name}`} onClick={() => open(`tags-${set.id}`)}>
                Change…
              </Button>
            </li>
          ))}
        </ul>
      )}
      <div className="mt-3">
        <PutAway items={found.data?.archived ?? []} title="Put away" action="take back" onBack={(id) => restore.mutate(id)} />
      </div>
      {opened === 'new-tags' && <TagSetDialog client={client} set={undefined} onClose={close} />}
      {edited && <TagSetDialog key={edited.id} client={client} set={edited} onClose={close} />}
    </section>
  );
}

/** What a set is meant for. */
const meantWords = ({ pillarName, weekday }: TagSetShape): string =>
  [pillarName ? `For ${pillarName}` : '', weekday === null ? '' : `${pillarName ? 'on' : 'For'} ${weekdayName(weekday)}s`]
    .filter(Boolean)
    .join(' ');

/** How often all of its tags went out together, or will. */
const timesUsed = ({ used, lastOn }: TagSetShape): string =>
  used === 0 ? 'Not used within a year' : `Used ${count(used, 'time')} within a year, last on ${dayWords(lastOn ?? '')}`;

const WEEKDAYS = [1, 2, 3, 4, 5, 6, 7].map((weekday) => ({ id: String(weekday), name: weekdayName(weekday) }));

function TagSetDialog({ client, set, onClose }: { client: ClientPageShape; set: TagSetShape | undefined; onClose: () => void }) {
  const save = useWrite(
    (body: TagSetBody) =>
      set
        ? call(`/tag-sets/${set.id}`, { method: 'PUT', body, version: set.version })
        : call<TagSetMadeShape>(`/clients/${client.id}/tag-sets`, { method: 'POST', body }),
    { quiet: true },
  );
  const away = useWrite(() => call(`/tag-sets/${set?.id ?? ''}/archive`, { method: 'POST', body: { archived: true } }));
  const [text, setText] = useState(tagWords(set?.tags ?? []));
  const form = useBodyForm<TagSetBody>(
    TagSetBody,
    { name: set?.name ?? '', tags: set?.tags ?? [], pillarId: set?.pillarId ?? null, weekday: set?.weekday ?? null },
    {
      send: async (body) => {
        await save.mutateAsync(body);
        toast(set ? 'Changed.' : 'Kept.');
        onClose();
      },
      words: { name: { isNotBlank: 'Give it a name.' }, tags: { arrayNotEmpty: 'Type at least one tag.', matches: 'A tag is one word.' } },
    },
  );
  const { body, change, errorOf } = form;
  const pillars = client.pillars.flatMap(({ id, name }) => (id ? { id, name } : []));
  const kept = set?.pillarId && !pillars.some(({ id }) => id === set.pillarId);
  return (
    <FormDialog
      form={form}
      onClose={onClose}
      title={set ? 'Change the tag set' : 'New tag set'}
      action={set ? 'Change it' : 'Keep it'}
      beside={
        set && (
          <Button disabled={away.isPending} onClick={() => away.mutate(undefined, { onSuccess: onClose })}>
            Put it away
          </Button>
        )
      }
    >
      <TextField label="Name" required maxLength={80} error={errorOf('name')} value={body.name} onChange={(name) => change({ name })} />
      <TextField
        label="Tags"
        required
        rows={3}
        error={errorOf('tags')}
        help="Apart by spaces, in the order in which they go out."
        value={text}
        onChange={(typed) => {
          setText(typed);
          change({ tags: toTags(typed) });
        }}
      />
      <div className="grid sm:grid-cols-2 gap-x-3">
        <OptionField
          label="For the pillar"
          none="Any"
          error={errorOf('pillarId')}
          value={body.pillarId}
          options={kept ? [...pillars, { id: set.pillarId ?? '', name: set.pillarName ?? '' }] : pillars}
          onChange={(pillarId) => change({ pillarId })}
        />
        <OptionField
          label="For the weekday"
          none="Any"
          error={errorOf('weekday')}
          value={body.weekday === null ? null : String(body.weekday)}
          options={WEEKDAYS}
          onChange={(weekday) => change({ weekday: weekday === null ? null : Number(weekday) })}
        />
      </div>
    </FormDialog>
  );
}

import { useQuery } from '@tanstack/react-query';
import { EditIdeaBody, type IdeaPageShape } from '@zesting/contract';
import { toast } from 'sonner';
import { Link } from 'react-router';
import { ideaQuery } from '../../api/plan';
import { call, wordsOf } from '../../lib/api';
import { dayWords } from '../../lib/format';
import { useClients, useSession, useWrite } from '../../lib/queries';
import { useBodyForm } from '../../lib/use-body-form';
import { SubjectField } from '../../parts/subject-field';
import { FileList } from '../../ui/answers';
import { Button } from '../../ui/button';
import { DayField } from '../../ui/day-field';
import { Dialog } from '../../ui/dialog';
import { Field } from '../../ui/field';
import { FormDialog } from '../../ui/form-dialog';
import { Failed, Loading } from '../../ui/page';
import { OptionField } from '../../ui/option-field';
import { LinkField, TextField } from '../../ui/text-field';
import { IdeaAside } from './idea-aside';
import { MarkFields } from './mark-fields';
import { useNames } from './use-names';

/** An idea, to be developed: what it is about, for what, how good it is, and until when. */
export function IdeaPanel({ ideaId, onClose }: { ideaId: string; onClose: () => void }) {
  const idea = useQuery({ ...ideaQuery(ideaId), retry: false });
  if (idea.data) return <IdeaForm idea={idea.data} onClose={onClose} />;
  return (
    <Dialog open onClose={onClose} title="Idea">
      {idea.isError ? <Failed message={wordsOf(idea.error)} onRetry={() => void idea.refetch()} /> : <Loading />}
    </Dialog>
  );
}

function IdeaForm({ idea, onClose }: { idea: IdeaPageShape; onClose: () => void }) {
  const { clients, clientOf, to } = useClients();
  const { todayOn } = useSession();
  const edit = useWrite(
    (body: EditIdeaBody) => call<IdeaPageShape>(`/ideas/${idea.id}`, { method: 'PATCH', body, version: idea.version }),
    {
      quiet: true,
    },
  );
  const { title, note, link, pillarId, formatId, channelId, merit, ease, chance, notBeforeOn, freshUntilOn } = idea;
  const form = useBodyForm<EditIdeaBody>(
    EditIdeaBody,
    {
      title,
      note,
      link,
      pillarId,
      formatId,
      channelId,
      merit,
      ease,
      chance,
      notBeforeOn,
      freshUntilOn,
      ...(idea.clientId ? { clientId: idea.clientId } : {}),
    },
    {
      send: async (body) => {
        await edit.mutateAsync({ ...body, link: body.link?.trim() || null });
        toast('Kept');
        onClose();
      },
      words: { link: { isUrl: 'A link begins with https:// or http://.' } },
    },
  );
  const { body, change, errorOf } = form;
  const client = clientOf(body.clientId ?? '');
  const names = useNames(client);
  const isUsed = idea.state === 'used';
  if (idea.state === 'combined') return <PartIdea idea={idea} onClose={onClose} />;
  if (isUsed) return <UsedIdea idea={idea} onClose={onClose} />;
  return (
    <FormDialog
      form={form}
      onClose={onClose}
      title="Idea"
      description={`Caught by ${idea.by} on ${dayWords(idea.createdAt.slice(0, 10))}.`}
      action="Keep"
      leave="Close"
      beside={<DropIdea idea={idea} onDone={onClose} />}
      aside={<IdeaAside idea={idea} />}
    >
      <TextField
        label="In one line"
        required
        error={errorOf('title')}
        maxLength={200}
        value={body.title ?? ''}
        onChange={(title) => change({ title })}
      />
      {client && idea.clientId !== null && (
        <div className="mb-3">
          <SubjectField client={client} of={{ kind: 'idea', id: idea.id }} />
        </div>
      )}
      <TextField
        label="More about it"
        error={errorOf('note')}
        rows={3}
        maxLength={4000}
        value={body.note ?? ''}
        onChange={(note) => change({ note })}
      />
      <LinkField error={errorOf('link')} value={body.link ?? null} onChange={(link) => change({ link })} />
      <MarkFields marks={{ merit: body.merit ?? null, ease: body.ease ?? null, chance: body.chance ?? null }} onChange={change} />
      <div className="grid sm:grid-cols-2 gap-x-3">
        {idea.clientId === null && (
          <Field label="For" help="Once it has a client, it stays with it.">
            {(control) => (
              <select
                {...control}
                className="field"
                value={body.clientId ?? ''}
                onChange={(event) =>
                  change({ ...(event.target.value ? { clientId: event.target.value } : {}), pillarId: null, channelId: null })
                }
              >
                {!body.clientId && <option value="">No client yet</option>}
                {clients.map((one) => (
                  <option key={one.id} value={one.id}>
                    {one.name}
                  </option>
                ))}
              </select>
            )}
          </Field>
        )}
        <OptionField
          label="Format"
          none="Open"
          value={body.formatId ?? null}
          options={names.formats}
          onChange={(formatId) => change({ formatId })}
        />
        {client && (
          <OptionField
            label="Pillar"
            none="Open"
            value={body.pillarId ?? null}
            options={client.pillars}
            onChange={(pillarId) => change({ pillarId })}
          />
        )}
        {client && (
          <OptionField
            label="Channel"
            none="Open"
            value={body.channelId ?? null}
            options={client.channels}
            onChange={(channelId) => change({ channelId })}
          />
        )}
        <DayField
          label="Not before"
          value={body.notBeforeOn ?? ''}
          todayOn={todayOn}
          error={errorOf('notBeforeOn')}
          onChange={(on) => change({ notBeforeOn: on || null })}
        />
        <DayField
          label="Fresh until"
          help="Of what follows a trend: the last day on which it is worth being out."
          value={body.freshUntilOn ?? ''}
          todayOn={todayOn}
          error={errorOf('freshUntilOn')}
          onChange={(on) => change({ freshUntilOn: on || null })}
        />
      </div>
      {idea.clientId !== null && (
        <p className="text-muted text-[13px] mb-2">
          To plan it, choose an open slot in{' '}
          <Link to={`${to('/plan').split('?')[0]}?client=${client?.code ?? ''}`} className="text-pine underline">
            the month of {client?.name}
          </Link>
          .
        </p>
      )}
    </FormDialog>
  );
}

/** An idea that is a part of another now. */
function PartIdea({ idea, onClose }: { idea: IdeaPageShape; onClose: () => void }) {
  return (
    <Dialog open onClose={onClose} title={idea.title} description="This idea is a part of another.">
      {idea.note && <p className="mb-3 whitespace-pre-wrap">{idea.note}</p>}
      <DropIdea idea={idea} onDone={onClose} />
    </Dialog>
  );
}

function UsedIdea({ idea, onClose }: { idea: IdeaPageShape; onClose: () => void }) {
  const { to } = useClients();
  return (
    <Dialog open onClose={onClose} title={idea.title} description="This idea has become a piece.">
      {idea.note && <p className="mb-3 whitespace-pre-wrap">{idea.note}</p>}
      {idea.attached.length > 0 && <FileList files={idea.attached} />}
      <Link to={to(`/pieces/${idea.pieceId}`)} className="text-pine underline">
        Open “{idea.pieceTitle}”
      </Link>
    </Dialog>
  );
}

function DropIdea({ idea, onDone }: { idea: IdeaPageShape; onDone: () => void }) {
  const put = useWrite((state: 'open' | 'dropped') => call(`/ideas/${idea.id}/state`, { method: 'POST', body: { state } }));
  const isOpen = idea.state === 'open';
  const go = () =>
    put.mutate(isOpen ? 'dropped' : 'open', {
      onSuccess: () => {
        onDone();
        toast(isOpen ? `“${idea.title}” is dropped` : `“${idea.title}” is on the shelf again`, {
          action: { label: 'Undo', onClick: () => put.mutate(isOpen ? 'open' : 'dropped') },
        });
      },
    });
  return (
    <Button disabled={put.isPending} onClick={go}>
      {isOpen ? 'Drop it' : 'Take it up again'}
    </Button>
  );
}

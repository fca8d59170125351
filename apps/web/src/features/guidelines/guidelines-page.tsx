import { useQuery, useSuspenseQuery } from '@tanstack/react-query';
import { GuidelineBody, type GuidelineMadeShape, type GuidelineShape } from '@zesting/contract';
import { Plus } from 'lucide-react';
import { toast } from 'sonner';
import { agencyQuery } from '../../api/agency';
import { guidelinesQuery } from '../../api/guidelines';
import { call } from '../../lib/api';
import { instantWords } from '../../lib/format';
import { useClients, useSession, useWrite } from '../../lib/queries';
import { useBodyForm } from '../../lib/use-body-form';
import { useOpened } from '../../lib/use-opened';
import { CHANNEL_WORDS } from '../../lib/words';
import { GuidelinePictures } from '../../parts/guideline-pictures';
import { Button } from '../../ui/button';
import { FormDialog } from '../../ui/form-dialog';
import { LinkedText } from '../../ui/linked-text';
import { OptionField } from '../../ui/option-field';
import { Empty, PageHead } from '../../ui/page';
import { PutAway } from '../../ui/put-away';
import { TextField } from '../../ui/text-field';
import { forWords } from './guideline-words';

/** How we make things: by client, format, kind of channel and skill. Makers see at their step what holds for it. */
export function GuidelinesPage() {
  const { query, clientOf } = useClients();
  const { data } = useSuspenseQuery(guidelinesQuery(query));
  const { opened, open, close } = useOpened();
  const restore = useWrite((id: string) => call(`/guidelines/${id}/archive`, { method: 'POST', body: { archived: false } }));
  const edited = data.guidelines.find(({ id, canEdit }) => canEdit && `guideline-${id}` === opened);
  return (
    <div className="max-w-4xl mx-auto">
      <PageHead title="Guidelines" note="How we make things. Makers see at their step what holds for it.">
        <Button look="main" onClick={() => open('new')}>
          <Plus size={15} aria-hidden /> New guideline
        </Button>
      </PageHead>
      {data.guidelines.length === 0 ? (
        <Empty title="Nothing is written down yet">
          Write how a kind of thing is made: for a format, a kind of channel, a client, or whoever does a skill. It stands beside the brief
          of every piece that it holds for.
        </Empty>
      ) : (
        <ul className="card">
          {data.guidelines.map((guideline) => (
            <li key={guideline.id} className="px-4 py-3 border-t border-line first:border-t-0">
              <div className="flex items-start gap-3">
                <div className="flex-1 min-w-0">
                  <h2 className="text-base break-words">{guideline.title}</h2>
                  <p className="text-muted text-[13px]">{forWords(guideline, clientOf(guideline.clientId ?? '')?.name)}</p>
                </div>
                {guideline.canEdit && (
                  <Button look="quiet" aria-label={`Change ${guideline.title}`} onClick={() => open(`guideline-${guideline.id}`)}>
                    Change…
                  </Button>
                )}
              </div>
              <p className="whitespace-pre-wrap break-words mt-1">
                <LinkedText text={guideline.text} />
              </p>
              <GuidelinePictures guideline={guideline} canEdit={guideline.canEdit} />
              <p className="text-muted text-[12.5px] mt-1">
                {guideline.editedBy}, {instantWords(guideline.editedAt)}
              </p>
            </li>
          ))}
        </ul>
      )}
      <div className="mt-3">
        <PutAway
          items={data.archived.map(({ id, title }) => ({ id, name: title }))}
          title="Put away"
          action="take back"
          onBack={(id) => restore.mutate(id)}
        />
      </div>
      {opened === 'new' && <GuidelineDialog guideline={undefined} onClose={close} />}
      {edited && <GuidelineDialog key={edited.id} guideline={edited} onClose={close} />}
    </div>
  );
}

const KINDS = Object.entries(CHANNEL_WORDS).map(([id, name]) => ({ id, name }));

function GuidelineDialog({ guideline, onClose }: { guideline: GuidelineShape | undefined; onClose: () => void }) {
  const { clients, client } = useClients();
  const { role } = useSession();
  const { data: agency } = useQuery(agencyQuery);
  const save = useWrite(
    (body: GuidelineBody) =>
      guideline
        ? call(`/guidelines/${guideline.id}`, { method: 'PUT', body, version: guideline.version })
        : call<GuidelineMadeShape>('/guidelines', { method: 'POST', body }),
    { quiet: true },
  );
  const away = useWrite(() => call(`/guidelines/${guideline?.id ?? ''}/archive`, { method: 'POST', body: { archived: true } }));
  const form = useBodyForm<GuidelineBody>(
    GuidelineBody,
    guideline
      ? {
          title: guideline.title,
          text: guideline.text,
          clientId: guideline.clientId,
          formatId: guideline.formatId,
          channelKind: guideline.channelKind,
          skill: guideline.skill,
        }
      : {
          title: '',
          text: '',
          clientId: client?.id ?? (role === 'lead' ? null : (clients[0]?.id ?? null)),
          formatId: null,
          channelKind: null,
          skill: null,
        },
    {
      send: async (body) => {
        await save.mutateAsync(body);
        toast(guideline ? 'Changed: makers see it as it is now.' : 'Written down.');
        onClose();
      },
      words: { title: { isNotBlank: 'Give it a name.' }, text: { isNotBlank: 'Say how it is made.' } },
    },
  );
  const { body, change, errorOf } = form;
  const formats = agency?.formats ?? [];
  const skills = agency?.skills.map(({ name }) => ({ id: name, name })) ?? [];
  const kept = guideline?.formatId && !formats.some(({ id }) => id === guideline.formatId);
  return (
    <FormDialog
      form={form}
      onClose={onClose}
      title={guideline ? 'Change the guideline' : 'New guideline'}
      description="What is left open does not matter: the more is said, the fewer pieces it holds for."
      action={guideline ? 'Change it' : 'Write it down'}
      beside={
        guideline && (
          <Button disabled={away.isPending} onClick={() => away.mutate(undefined, { onSuccess: onClose })}>
            Put it away
          </Button>
        )
      }
    >
      <TextField
        label="Name"
        required
        maxLength={120}
        error={errorOf('title')}
        value={body.title}
        onChange={(title) => change({ title })}
      />
      <TextField
        label="How it is made"
        required
        rows={8}
        maxLength={10_000}
        error={errorOf('text')}
        help="Full addresses become links."
        value={body.text}
        onChange={(text) => change({ text })}
      />
      <div className="grid sm:grid-cols-2 gap-x-3">
        <OptionField
          label="Client"
          none={role === 'lead' ? 'Every client' : 'Choose a client'}
          error={errorOf('clientId')}
          value={body.clientId}
          options={clients}
          onChange={(clientId) => change({ clientId })}
        />
        <OptionField
          label="Format"
          none="Any"
          error={errorOf('formatId')}
          value={body.formatId}
          options={kept ? [...formats, { id: guideline.formatId ?? '', name: guideline.formatName ?? '' }] : formats}
          onChange={(formatId) => change({ formatId })}
        />
        <OptionField
          label="Kind of channel"
          none="Any"
          error={errorOf('channelKind')}
          value={body.channelKind}
          options={KINDS}
          onChange={(kind) => change({ channelKind: kind as GuidelineBody['channelKind'] })} // one of the options
        />
        <OptionField
          label="Whoever does"
          none="Everybody on the piece"
          error={errorOf('skill')}
          value={body.skill}
          options={skills}
          onChange={(skill) => change({ skill })}
        />
      </div>
    </FormDialog>
  );
}

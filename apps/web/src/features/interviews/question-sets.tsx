import { useQuery } from '@tanstack/react-query';
import { NewQuestionSetBody, QuestionSetBody, type QuestionSetMadeShape, type QuestionSetShape } from '@zesting/contract';
import { Plus } from 'lucide-react';
import { questionSetsQuery } from '../../api/interviews';
import { call } from '../../lib/api';
import { count } from '../../lib/format';
import { useClients, useWrite } from '../../lib/queries';
import { useBodyForm, type BodyForm } from '../../lib/use-body-form';
import { Button } from '../../ui/button';
import { FormDialog } from '../../ui/form-dialog';
import { OptionField } from '../../ui/option-field';
import { PutAway } from '../../ui/put-away';
import { LinesField, TextField } from '../../ui/text-field';

interface QuestionSetsProps {
  readonly opened: string | null;
  readonly onOpen: (name: string) => void;
  readonly onClose: () => void;
}

/** Questions that are kept to be asked again, for one treatment or any, for one client or all. */
export function QuestionSets({ opened, onOpen, onClose }: QuestionSetsProps) {
  const { query, clientOf } = useClients();
  const { data } = useQuery(questionSetsQuery(query));
  const restore = useWrite((id: string) => call(`/question-sets/${id}/restore`, { method: 'POST' }));
  const set = data?.sets.find(({ id }) => `set:${id}` === opened);
  return (
    <aside aria-label="Questions kept" className="card p-4">
      <div className="flex items-center mb-1">
        <h2 className="text-lg flex-1">Kept</h2>
        <Button look="quiet" onClick={() => onOpen('set')}>
          <Plus size={15} aria-hidden />
          New set
        </Button>
      </div>
      {data?.sets.length === 0 && (
        <p className="text-muted text-[13px]">
          Questions that come again, such as those for a portrait: kept here, they are chosen when you ask.
        </p>
      )}
      <ul>
        {data?.sets.map((one) => (
          <li key={one.id} className="border-t border-line first:border-t-0 py-1.5">
            <button type="button" className="font-medium text-left hover:underline min-h-6" onClick={() => onOpen(`set:${one.id}`)}>
              {one.title}
            </button>
            <p className="text-muted text-[13px]">
              {[one.treatment, count(one.questions.length, 'question'), clientOf(one.clientId ?? '')?.name ?? 'every client']
                .filter(Boolean)
                .join(' · ')}
            </p>
          </li>
        ))}
      </ul>
      <PutAway
        items={(data?.archived ?? []).map(({ id, title }) => ({ id, name: title }))}
        title="Put away"
        action="take back"
        onBack={(id) => restore.mutate(id)}
      />
      {opened === 'set' && <NewSetDialog onClose={onClose} />}
      {set && <EditSetDialog key={set.id} set={set} onClose={onClose} />}
    </aside>
  );
}

const WORDS = { questions: { arrayMinSize: 'Write at least one, a line each.', arrayMaxSize: 'Thirty at most.' } };

function NewSetDialog({ onClose }: { onClose: () => void }) {
  const { clients, client } = useClients();
  const add = useWrite((body: NewQuestionSetBody) => call<QuestionSetMadeShape>('/question-sets', { method: 'POST', body }), {
    quiet: true,
  });
  const form = useBodyForm<NewQuestionSetBody>(
    NewQuestionSetBody,
    { title: '', treatment: '', questions: [], clientId: client?.id ?? null },
    {
      send: async (body) => {
        await add.mutateAsync(body);
        onClose();
      },
      words: WORDS,
    },
  );
  return (
    <FormDialog form={form} onClose={onClose} title="Questions to keep" action="Keep them">
      <OptionField
        label="For"
        none="Every client"
        value={form.body.clientId}
        options={clients}
        onChange={(clientId) => form.change({ clientId })}
      />
      <SetFields form={form as unknown as BodyForm<QuestionSetBody>} />
    </FormDialog>
  );
}

function EditSetDialog({ set, onClose }: { set: QuestionSetShape; onClose: () => void }) {
  const { title, treatment, questions } = set;
  const save = useWrite((body: QuestionSetBody) => call(`/question-sets/${set.id}`, { method: 'PUT', body, version: set.version }), {
    quiet: true,
  });
  const away = useWrite(() => call(`/question-sets/${set.id}`, { method: 'DELETE' }));
  const form = useBodyForm<QuestionSetBody>(
    QuestionSetBody,
    { title, treatment, questions },
    {
      send: async (body) => {
        await save.mutateAsync(body);
        onClose();
      },
      words: WORDS,
    },
  );
  return (
    <FormDialog
      form={form}
      onClose={onClose}
      title={title}
      action="Keep"
      beside={
        <Button disabled={away.isPending} onClick={() => away.mutate(undefined, { onSuccess: onClose })}>
          Put it away
        </Button>
      }
    >
      <SetFields form={form} />
    </FormDialog>
  );
}

function SetFields({ form: { body, change, errorOf } }: { form: BodyForm<QuestionSetBody> }) {
  return (
    <>
      <TextField
        label="Name"
        required
        error={errorOf('title')}
        maxLength={100}
        value={body.title}
        onChange={(title) => change({ title })}
      />
      <TextField
        label="For the treatment"
        help="As it is called in the client’s pillars, such as Story. Where something is treated so, these questions come first. Empty: for any."
        error={errorOf('treatment')}
        maxLength={60}
        value={body.treatment}
        onChange={(treatment) => change({ treatment })}
      />
      <LinesField
        label="Questions, one on each line"
        required
        error={errorOf('questions')}
        rows={8}
        lines={body.questions}
        onChange={(questions) => change({ questions })}
      />
    </>
  );
}

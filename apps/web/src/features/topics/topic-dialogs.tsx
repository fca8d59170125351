import {
  EditTopicBody,
  NewTopicsBody,
  TreatmentsBody,
  type ClientShape,
  type TopicShape,
  type TopicsMadeShape,
  type TopicsShape,
} from '@zesting/contract';
import { nextMonth } from '@zesting/core';
import { toast } from 'sonner';
import { call } from '../../lib/api';
import { count, monthWords } from '../../lib/format';
import { useWrite } from '../../lib/queries';
import { useBodyForm } from '../../lib/use-body-form';
import { FormDialog } from '../../ui/form-dialog';
import { LinesField, TextField } from '../../ui/text-field';

interface NewTopicsProps {
  readonly client: ClientShape;
  readonly pillarId: string;
  /** without one they are topics of the pillar */
  readonly parent: TopicShape | undefined;
  readonly onClose: () => void;
}

/** Many branches at once, a line each. */
export function NewTopicsDialog({ client, pillarId, parent, onClose }: NewTopicsProps) {
  const add = useWrite((body: NewTopicsBody) => call<TopicsMadeShape>(`/clients/${client.id}/topics`, { method: 'POST', body }), {
    quiet: true,
  });
  const form = useBodyForm<NewTopicsBody>(
    NewTopicsBody,
    { pillarId, parentId: parent?.id ?? null, names: [] },
    {
      send: async (body) => {
        await add.mutateAsync(body);
        toast(`${count(body.names.length, parent ? 'subtopic' : 'topic')} added`);
        onClose();
      },
      words: { names: { arrayMinSize: 'Name at least one, a line each.' } },
    },
  );
  const below = parent?.name ?? client.pillars.find(({ id }) => id === pillarId)?.name ?? '';
  return (
    <FormDialog form={form} onClose={onClose} title={parent ? `Subtopics of ${below}` : `Topics of ${below}`} action="Add them">
      <LinesField
        label="One on each line"
        required
        help="A list can be pasted."
        error={form.errorOf('names')}
        rows={8}
        lines={[]}
        onChange={(names) => form.change({ names })}
      />
    </FormDialog>
  );
}

interface TopicDialogProps {
  readonly topic: TopicShape;
  readonly onClose: () => void;
}

const edit = (topic: TopicShape) => (body: EditTopicBody) => call(`/topics/${topic.id}`, { method: 'PATCH', body, version: topic.version });

export function RenameDialog({ topic, onClose }: TopicDialogProps) {
  const save = useWrite(edit(topic), { quiet: true });
  const form = useBodyForm<EditTopicBody>(
    EditTopicBody,
    { name: topic.name },
    {
      send: async (body) => {
        await save.mutateAsync(body);
        onClose();
      },
    },
  );
  return (
    <FormDialog form={form} onClose={onClose} title={`Rename ${topic.name}`} action="Rename">
      <TextField
        label="Name"
        required
        error={form.errorOf('name')}
        maxLength={100}
        value={form.body.name ?? ''}
        onChange={(name) => form.change({ name })}
      />
    </FormDialog>
  );
}

/** So many months can be chosen at once. */
const AHEAD = 12;

/** In which of the coming months a subject has its turn. */
export function MonthsDialog({ topic, thisMonth, onClose }: TopicDialogProps & { readonly thisMonth: string }) {
  const save = useWrite(edit(topic), { quiet: true });
  const form = useBodyForm<EditTopicBody>(
    EditTopicBody,
    { months: topic.months },
    {
      send: async (body) => {
        await save.mutateAsync(body);
        onClose();
      },
    },
  );
  const chosen = form.body.months ?? [];
  const ahead = Array.from({ length: AHEAD }, (_, index) => nextMonth(thisMonth, index));
  const all = [...new Set([...topic.months, ...ahead])].sort();
  return (
    <FormDialog
      form={form}
      onClose={onClose}
      title={`Months of ${topic.name}`}
      description="In which months it has its turn."
      action="Keep"
    >
      <div className="grid grid-cols-2 sm:grid-cols-3 mb-3">
        {all.map((month) => (
          <label key={month} className="inline-flex items-center gap-2 min-h-8">
            <input
              type="checkbox"
              className="size-4 accent-pine"
              checked={chosen.includes(month)}
              onChange={(event) =>
                form.change({ months: event.target.checked ? [...chosen, month] : chosen.filter((other) => other !== month) })
              }
            />
            {monthWords(month)}
          </label>
        ))}
      </div>
    </FormDialog>
  );
}

/** In which ways subjects can be treated. */
export function TreatmentsDialog({ clientId, all, onClose }: { clientId: string; all: TopicsShape; onClose: () => void }) {
  const save = useWrite(
    (body: TreatmentsBody) => call(`/clients/${clientId}/treatments`, { method: 'PUT', body, version: all.treatmentsVersion }),
    { quiet: true },
  );
  const form = useBodyForm<TreatmentsBody>(
    TreatmentsBody,
    { names: all.treatments },
    {
      send: async (body) => {
        await save.mutateAsync(body);
        onClose();
      },
      words: { names: { arrayUnique: 'One of them stands there twice.', arrayMaxSize: 'Twelve at most.' } },
    },
  );
  return (
    <FormDialog
      form={form}
      onClose={onClose}
      title="Treatments"
      description="In which ways each subject can be treated: how to, story, before and after. Each is a column."
      action="Keep"
    >
      <LinesField
        label="One on each line"
        help="What was treated in a way that goes stays beside its subject."
        error={form.errorOf('names')}
        rows={5}
        lines={all.treatments}
        onChange={(names) => form.change({ names })}
      />
    </FormDialog>
  );
}

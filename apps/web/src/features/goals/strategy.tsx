import {
  STRATEGY_KINDS,
  StrategyNoteBody,
  type ClientShape,
  type StrategyKind,
  type StrategyNoteMadeShape,
  type StrategyNoteShape,
} from '@zesting/contract';
import { Plus } from 'lucide-react';
import { useState } from 'react';
import { toast } from 'sonner';
import { call } from '../../lib/api';
import { useWrite } from '../../lib/queries';
import { useBodyForm } from '../../lib/use-body-form';
import { Button } from '../../ui/button';
import { FormDialog } from '../../ui/form-dialog';
import { ChoiceField } from '../../ui/option-field';
import { LinkField, TextField } from '../../ui/text-field';

const KIND_WORDS: Record<StrategyKind, readonly [title: string, empty: string]> = {
  mission: ['Mission', 'What it is there for.'],
  works: ['What works', 'What was seen to work.'],
  works_not: ['What does not', 'What was tried and did not.'],
  admired: ['Admired', 'Examples that it admires, and why.'],
};

/** What is known of a client's strategy: its mission, what works and what does not, examples it admires. */
export function Strategy({ client, notes }: { client: ClientShape; notes: readonly StrategyNoteShape[] }) {
  const [edited, setEdited] = useState<StrategyNoteShape | StrategyKind>();
  return (
    <aside aria-label="Strategy" className="card p-4">
      <h2 className="text-lg mb-1">Strategy</h2>
      {STRATEGY_KINDS.map((kind) => (
        <section key={kind} aria-label={KIND_WORDS[kind][0]} className="border-t border-line pt-2 mt-2">
          <div className="flex items-center">
            <h3 className="text-[13px] font-semibold flex-1">{KIND_WORDS[kind][0]}</h3>
            <Button look="quiet" className="px-1.5" aria-label={`Add to ${KIND_WORDS[kind][0]}`} onClick={() => setEdited(kind)}>
              <Plus size={15} aria-hidden />
            </Button>
          </div>
          {notes.every((note) => note.kind !== kind) && <p className="text-muted text-[13px]">{KIND_WORDS[kind][1]}</p>}
          <ul className="grid gap-1.5">
            {notes
              .filter((note) => note.kind === kind)
              .map((note) => (
                <Note key={note.id} note={note} onEdit={() => setEdited(note)} />
              ))}
          </ul>
        </section>
      ))}
      {edited !== undefined && (
        <NoteDialog
          key={typeof edited === 'string' ? edited : edited.id}
          clientId={client.id}
          note={typeof edited === 'string' ? undefined : edited}
          kind={typeof edited === 'string' ? edited : edited.kind}
          onClose={() => setEdited(undefined)}
        />
      )}
    </aside>
  );
}

function Note({ note, onEdit }: { note: StrategyNoteShape; onEdit: () => void }) {
  return (
    <li className="text-[13px]">
      <p className="whitespace-pre-line break-words">{note.text}</p>
      <p className="text-muted">
        {note.link && (
          <a href={note.link} target="_blank" rel="noreferrer noopener" className="text-pine underline break-all">
            {note.link.replace(/^https?:\/\//, '')}
          </a>
        )}{' '}
        {note.by} ·{' '}
        <button type="button" className="underline min-h-6" aria-label={`Change: ${note.text.slice(0, 60)}`} onClick={onEdit}>
          change
        </button>
      </p>
    </li>
  );
}

interface NoteDialogProps {
  readonly clientId: string;
  readonly note: StrategyNoteShape | undefined;
  readonly kind: StrategyKind;
  readonly onClose: () => void;
}

function NoteDialog({ clientId, note, kind, onClose }: NoteDialogProps) {
  const save = useWrite(
    (body: StrategyNoteBody) =>
      note
        ? call(`/strategy/${note.id}`, { method: 'PUT', body, version: note.version })
        : call<StrategyNoteMadeShape>(`/clients/${clientId}/strategy`, { method: 'POST', body }),
    { quiet: true },
  );
  const away = useWrite(() => call(`/strategy/${note?.id}`, { method: 'DELETE' }));
  const back = useWrite(() => call(`/strategy/${note?.id}/restore`, { method: 'POST' }));
  const form = useBodyForm<StrategyNoteBody>(
    StrategyNoteBody,
    { kind, text: note?.text ?? '', link: note?.link ?? null },
    {
      send: async (body) => {
        await save.mutateAsync({ ...body, link: body.link?.trim() || null });
        onClose();
      },
      words: { text: { isNotBlank: 'Say what is known.' }, link: { isUrl: 'A link begins with https:// or http://.' } },
    },
  );
  const { body, change, errorOf } = form;
  return (
    <FormDialog
      form={form}
      onClose={onClose}
      title={note ? 'Change the note' : KIND_WORDS[kind][0]}
      action="Keep"
      {...(note
        ? {
            beside: (
              <Button
                onClick={() =>
                  away.mutate(undefined, {
                    onSuccess: () => {
                      toast('The note is taken off.', { action: { label: 'Put it back', onClick: () => back.mutate() } });
                      onClose();
                    },
                  })
                }
              >
                Take off
              </Button>
            ),
          }
        : {})}
    >
      {note && (
        <ChoiceField
          label="Under"
          value={body.kind}
          options={STRATEGY_KINDS.map((id) => ({ id, name: KIND_WORDS[id][0] }))}
          onChange={(id) => change({ kind: STRATEGY_KINDS.find((one) => one === id) ?? body.kind })}
        />
      )}
      <TextField
        label="What is known"
        required
        error={errorOf('text')}
        maxLength={2000}
        rows={4}
        value={body.text}
        onChange={(text) => change({ text })}
      />
      <LinkField error={errorOf('link')} value={body.link ?? null} onChange={(link) => change({ link })} />
    </FormDialog>
  );
}

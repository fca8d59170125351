import { EditPieceBody, type PieceShape } from '@zesting/contract';
import { useState } from 'react';
import { toast } from 'sonner';
import { call, wordsOf } from '../../lib/api';
import { useWrite } from '../../lib/queries';
import { useBodyForm } from '../../lib/use-body-form';
import { Button } from '../../ui/button';
import { Field } from '../../ui/field';
import { OptionField } from '../../ui/option-field';
import { PurposeField } from '../../ui/purpose-field';
import { FormDialog } from '../../ui/form-dialog';

/** Title and pillar of a piece, and the shelf: a shelved piece leaves the desk and the calendar and can come back. */
export function EditPieceDialog({ piece: shown, onClose }: { piece: PieceShape; onClose: () => void }) {
  const [piece] = useState(shown); // as it was opened: what others do meanwhile must be noticed, not overwritten
  const edit = useWrite((body: EditPieceBody) => call(`/pieces/${piece.id}`, { method: 'PATCH', body, version: piece.version }), {
    quiet: true,
  });
  const save = async (body: EditPieceBody) => {
    await edit.mutateAsync(body);
    onClose();
  };
  const form = useBodyForm<EditPieceBody>(
    EditPieceBody,
    { title: piece.title, pillarId: piece.pillarId, purpose: piece.purpose },
    {
      send: ({ title = '', pillarId = null, purpose = null }) => save({ title: title.trim(), pillarId, purpose }),
      words: { title: { isNotBlank: 'A piece needs a title.' } },
    },
  );
  const { body, change, errorOf } = form;
  const shelve = (
    <Button
      disabled={edit.isPending}
      onClick={() => void save({ shelved: !piece.shelved }).catch((problem: unknown) => toast.error(wordsOf(problem)))}
    >
      {piece.shelved ? 'Take off the shelf' : 'Put on the shelf'}
    </Button>
  );
  return (
    <FormDialog form={form} onClose={onClose} title="Edit the piece" action="Save" leave="Leave as it was" beside={shelve}>
      <Field label="Title" required error={errorOf('title')}>
        {(control) => (
          <input {...control} className="field" value={body.title} onChange={(event) => change({ title: event.target.value })} />
        )}
      </Field>
      <div className="grid sm:grid-cols-2 gap-x-3">
        <OptionField
          label="Pillar"
          none="None"
          value={body.pillarId ?? null}
          options={piece.pillars}
          onChange={(pillarId) => change({ pillarId })}
        />
        <PurposeField value={body.purpose} onChange={(purpose) => change({ purpose })} />
      </div>
    </FormDialog>
  );
}

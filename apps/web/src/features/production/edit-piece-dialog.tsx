import type { EditPieceBody, PieceShape } from '@zesting/contract';
import { useState } from 'react';
import { call, wordsOf } from '../../lib/api';
import { useWrite } from '../../lib/queries';
import { Button } from '../../ui/button';
import { Dialog } from '../../ui/dialog';
import { Field } from '../../ui/field';

/** Title and pillar of a piece, and the shelf: a shelved piece leaves the desk and the calendar and can come back. */
export function EditPieceDialog({ piece: shown, onClose }: { piece: PieceShape; onClose: () => void }) {
  const [piece] = useState(shown); // as it was opened: what others do meanwhile must be noticed, not overwritten
  const [title, setTitle] = useState(piece.title);
  const [pillarId, setPillarId] = useState(piece.pillarId);
  const [error, setError] = useState<string>();
  const edit = useWrite((body: EditPieceBody) => call(`/pieces/${piece.id}`, { method: 'PATCH', body, version: piece.version }), {
    quiet: true,
  });
  const save = (body: EditPieceBody) => edit.mutate(body, { onSuccess: onClose, onError: (problem) => setError(wordsOf(problem)) });
  const submit = () => (title.trim() === '' ? setError('A piece needs a title.') : save({ title: title.trim(), pillarId }));
  return (
    <Dialog open onClose={onClose} title="Edit the piece">
      <Field label="Title" required error={error}>
        {(control) => <input {...control} className="field" value={title} onChange={(event) => setTitle(event.target.value)} />}
      </Field>
      <Field label="Pillar">
        {(control) => (
          <select {...control} className="field" value={pillarId ?? ''} onChange={(event) => setPillarId(event.target.value || null)}>
            <option value="">None</option>
            {piece.pillars.map((pillar) => (
              <option key={pillar.id} value={pillar.id}>
                {pillar.name}
              </option>
            ))}
          </select>
        )}
      </Field>
      <div className="flex flex-wrap justify-end gap-2">
        <Button className="mr-auto" disabled={edit.isPending} onClick={() => save({ shelved: !piece.shelved })}>
          {piece.shelved ? 'Take off the shelf' : 'Put on the shelf'}
        </Button>
        <Button onClick={onClose}>Leave as it was</Button>
        <Button look="main" disabled={edit.isPending} onClick={submit}>
          Save
        </Button>
      </div>
    </Dialog>
  );
}

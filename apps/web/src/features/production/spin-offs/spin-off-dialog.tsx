import type { PieceShape, SpinOffBody, SpinOffSourceShape } from '@zesting/contract';
import { areClipTimes } from '@zesting/core';
import { useState } from 'react';
import { toast } from 'sonner';
import { call, wordsOf } from '../../../lib/api';
import { useWrite } from '../../../lib/queries';
import { ClipTimeField } from '../../../parts/spin-offs/output-row';
import { Button } from '../../../ui/button';
import { FormDialog } from '../../../ui/form-dialog';
import { TextField } from '../../../ui/text-field';

interface SpinOffDialogProps {
  readonly piece: PieceShape;
  readonly source: SpinOffSourceShape;
  readonly onClose: () => void;
}

/** How a piece is made from its source: what it is called beside it, where a clip is cut; or that it is cut loose. */
export function SpinOffDialog({ piece, source, onClose }: SpinOffDialogProps) {
  const [name, setName] = useState(source.name);
  const [callToAction, setCallToAction] = useState(source.callToAction);
  const [from, setFrom] = useState(source.fromSecond ?? undefined);
  const [to, setTo] = useState(source.toSecond ?? undefined);
  const [wrong, setWrong] = useState<string>();
  const save = useWrite((body: SpinOffBody) => call(`/pieces/${piece.id}/spin-off`, { method: 'PUT', body }), { quiet: true });
  const cut = useWrite(() => call(`/pieces/${piece.id}/spin-off`, { method: 'DELETE' }));
  const submit = () => {
    if ((from === undefined) !== (to === undefined) || (from !== undefined && to !== undefined && !areClipTimes({ from, to })))
      return setWrong('A clip has a beginning and an end after it, such as 1:15 and 1:40.');
    save.mutate(
      { name, callToAction, fromSecond: from ?? null, toSecond: to ?? null },
      { onSuccess: onClose, onError: (error) => setWrong(wordsOf(error)) },
    );
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
      title={`Made from “${source.title}”`}
      action="Change it"
      leave="Leave as it was"
      beside={
        <Button
          disabled={cut.isPending}
          onClick={() =>
            cut.mutate(undefined, {
              onSuccess: () => {
                toast('It stays as it is, and follows its source no more.');
                onClose();
              },
            })
          }
        >
          Cut it loose
        </Button>
      }
    >
      <TextField label="Called" help="Stands behind its source’s title." maxLength={80} value={name} onChange={setName} />
      <TextField label="Call to action" help="Stands under the text." maxLength={300} value={callToAction} onChange={setCallToAction} />
      <div className="grid grid-cols-2 gap-x-3">
        <ClipTimeField label="Clip from" value={from} onChange={setFrom} />
        <ClipTimeField label="Clip to" value={to} onChange={setTo} />
      </div>
    </FormDialog>
  );
}

import { useQuery } from '@tanstack/react-query';
import { BroughtAllBody, type PieceShape, type StepShape } from '@zesting/contract';
import { toast } from 'sonner';
import { materialQuery } from '../../../api/material';
import { call } from '../../../lib/api';
import { count, dayWords, instantWords } from '../../../lib/format';
import { useWrite } from '../../../lib/queries';
import { useBodyForm } from '../../../lib/use-body-form';
import { useOpened } from '../../../lib/use-opened';
import { Button } from '../../../ui/button';
import { FormDialog } from '../../../ui/form-dialog';
import { Tag } from '../../../ui/tags';
import { TextField } from '../../../ui/text-field';
import { AskMaterialDialog } from './ask-material-dialog';

/** A step in which the client brings something: whether it was asked, what has come, and what can be done about it. */
export function DeliveryLine({ piece, step }: { piece: PieceShape; step: StepShape }) {
  const { data } = useQuery(materialQuery(piece.id));
  const { opened, open, close } = useOpened();
  if (!data) return null;
  const asked = data.deliveries.find(({ stepId }) => stepId === step.id);
  const came = data.material.filter(({ stepId }) => stepId === step.id).length;
  const isDone = step.finishedOn !== null;
  const isTaken = piece.steps.some(({ predecessorIds, startedOn }) => startedOn !== null && predecessorIds.includes(step.id));
  return (
    <>
      {asked && !isDone && (
        <p className="text-[13px] flex flex-wrap items-center gap-x-2">
          <span>
            {asked.contactName} was asked{asked.times > 1 ? ` ${count(asked.times, 'time')}, last` : ''} {instantWords(asked.askedAt)}, to
            bring it by {dayWords(asked.dueOn)}.
          </span>
          {asked.isPastDue && <Tag tone="rhubarb">past due</Tag>}
          {came > 0 && <Tag tone="pine">{count(came, 'thing')} so far</Tag>}
        </p>
      )}
      {asked && (
        <p className="text-[13px] whitespace-pre-wrap break-words border-l-2 border-line pl-2 my-1">{asked.words || 'No words.'}</p>
      )}
      {asked?.broughtWords && (
        <p className="text-[13px]">
          {asked.broughtBy}: “{asked.broughtWords}”
        </p>
      )}
      {!asked && !isDone && step.atHand && <p className="text-rind text-[13px] font-medium">Nobody has asked the client yet.</p>}
      {piece.canManage && (!isDone || !isTaken) && (
        <div className="flex flex-wrap gap-2 my-1.5">
          <Button
            look={asked ? 'plain' : 'main'}
            aria-label={`${asked ? 'Ask again' : 'Ask the client'}… (${step.title})`}
            onClick={() => open(`ask-${step.id}`)}
          >
            {asked ? 'Ask again…' : 'Ask the client…'}
          </Button>
          {!isDone && step.atHand && (
            <Button aria-label={`It has come… (${step.title})`} onClick={() => open(`came-${step.id}`)}>
              It has come…
            </Button>
          )}
        </div>
      )}
      {piece.canManage && opened === `ask-${step.id}` && <AskMaterialDialog clientId={piece.clientId} step={step} onClose={close} />}
      {piece.canManage && !isDone && opened === `came-${step.id}` && <CameDialog step={step} onClose={close} />}
    </>
  );
}

/** Records that everything has come another way, such as by mail. */
function CameDialog({ step, onClose }: { step: StepShape; onClose: () => void }) {
  const record = useWrite((body: BroughtAllBody) => call(`/steps/${step.id}/brought`, { method: 'POST', body }), { quiet: true });
  const form = useBodyForm<BroughtAllBody>(
    BroughtAllBody,
    { words: '' },
    {
      send: async (body) => {
        await record.mutateAsync(body);
        toast(`${step.title}: it has come`);
        onClose();
      },
    },
  );
  return (
    <FormDialog
      form={form}
      onClose={onClose}
      title={`“${step.title}” has come`}
      description="What waited for it can begin, and whoever has that is told. Put what came into the piece’s material."
      action="Record it"
    >
      <TextField
        label="How it came"
        help="Such as “by mail on Monday”. May be left empty."
        rows={2}
        maxLength={2000}
        value={form.body.words}
        onChange={(words) => form.change({ words })}
        error={form.errorOf('words')}
      />
    </FormDialog>
  );
}

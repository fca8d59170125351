import type { PieceShape, StepShape } from '@zesting/contract';
import { makersBefore } from '@zesting/core';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { toast } from 'sonner';
import { clockQuery, hoursQuery } from '../../api/production';
import { call } from '../../lib/api';
import { count, dayWords } from '../../lib/format';
import { useKept } from '../../lib/kept';
import { useSession, useWrite } from '../../lib/queries';
import { useOpened } from '../../lib/use-opened';
import { Button } from '../../ui/button';
import { Dialog } from '../../ui/dialog';
import { Field } from '../../ui/field';
import { Clock } from './hours/clock';
import { RemainingField } from './remaining-field';
import { StepChecklist } from './step-checklist';

interface StepActionsProps {
  readonly piece: PieceShape;
  /** saves what is typed; false when it could not be */
  readonly save: () => Promise<boolean>;
  readonly busy: boolean;
}

/** What the viewer can do about the steps at hand: begin, hand in, pass or hand back. */
export function StepActions({ piece, save, busy }: StepActionsProps) {
  const { personId } = useSession();
  const steps = piece.steps.filter(
    (step) => step.mine && (step.doerId === personId || (step.doerId === null && piece.canManage) || step.kind === 'check'),
  );
  return (
    <>
      {steps.map((step) => (
        <StepBar key={step.id} step={step} steps={piece.steps} save={save} busy={busy} />
      ))}
    </>
  );
}

function StepBar({ step, steps, save, busy }: { step: StepShape; steps: readonly StepShape[] } & Omit<StepActionsProps, 'piece'>) {
  const { opened, open, close } = useOpened();
  const act = useWrite((path: string) => call(`/steps/${step.id}/${path}`, { method: 'POST' }));
  const linesOpen = step.checklist.filter(({ tick }) => tick === null).length;
  const [isTold, setTold] = useState(false);
  const handIn = async () => {
    setTold(linesOpen > 0);
    if (linesOpen === 0 && (await save()))
      act.mutate('hand-in', { onSuccess: () => toast(step.kind === 'check' ? `${step.title}: passed` : `${step.title}: handed in`) });
  };
  return (
    <div className="flex flex-wrap items-center gap-2 rounded-md bg-pine-soft px-3 py-2 mb-3">
      <p className="flex-1 min-w-40">
        <strong>{step.title}</strong> is at hand{step.doerName ? ` (${step.doerName})` : ''}
        {step.latestFinishOn && <>, by {dayWords(step.latestFinishOn)}</>}
        {' · '}
        <RemainingField stepId={step.id} title={step.title} leftMinutes={step.leftMinutes} />
        {step.remark && <span className="block text-rind">Handed back: {step.remark}</span>}
      </p>
      <div className="flex flex-wrap items-center justify-end gap-2 ml-auto">
        <StepClock step={step} />
        {step.startedOn === null && (
          <Button disabled={act.isPending} onClick={() => act.mutate('begin')}>
            Begin
          </Button>
        )}
        {step.kind === 'check' && (
          <Button look="danger" onClick={() => open(`back-${step.id}`)}>
            Hand back…
          </Button>
        )}
        <Button look="main" disabled={act.isPending || busy} onClick={() => void handIn()}>
          {step.kind === 'check' ? 'Pass' : 'Hand in'}
        </Button>
      </div>
      <StepChecklist step={step} />
      {isTold && linesOpen > 0 && (
        <p role="alert" className="w-full text-rhubarb font-medium">
          {count(linesOpen, 'line')} to tick first.
        </p>
      )}
      {step.kind === 'check' && opened === `back-${step.id}` && <HandBackDialog step={step} steps={steps} onClose={close} />}
    </div>
  );
}

/** The viewer's clock on a step that is at hand. */
function StepClock({ step }: { step: StepShape }) {
  const { data: own } = useQuery(clockQuery);
  const { data: hours } = useQuery(hoursQuery(step.id));
  // its room is kept: what stands beside it is not to move under somebody's press
  if (!own || !hours) return <span aria-hidden className="w-56 min-h-8" />;
  const startedAt = own.clock?.stepId === step.id ? own.clock.startedAt : null;
  return <Clock stepId={step.id} title={step.title} workedMinutes={hours.minutes} startedAt={startedAt} />;
}

/** Hands work back to whoever made it; where several made what the check looks at, the checker says who does it again. */
function HandBackDialog({ step, steps, onClose }: { step: StepShape; steps: readonly StepShape[]; onClose: () => void }) {
  const { all, nearest } = makersBefore(step, steps);
  const [typed, setRemark] = useKept<string>(`step:${step.id}:hand-back`);
  const remark = typed ?? '';
  const [chosen, setChosen] = useState<readonly string[]>(nearest.length === 1 ? nearest.map(({ id }) => id) : []);
  const [errors, setErrors] = useState<{ remark?: string; who?: string }>({});
  const handBack = useWrite((body: { remark: string; stepIds: readonly string[] }) =>
    call(`/steps/${step.id}/hand-back`, { method: 'POST', body }),
  );
  const send = () => {
    const missing = {
      ...(remark.trim() === '' ? { remark: 'Say what should be different.' } : {}),
      ...(chosen.length === 0 ? { who: 'Say who does it again.' } : {}),
    };
    setErrors(missing);
    if (Object.keys(missing).length === 0) handBack.mutate({ remark: remark.trim(), stepIds: chosen }, { onSuccess: done });
  };
  const done = () => {
    setRemark(null);
    onClose();
  };
  return (
    <Dialog open onClose={onClose} title="Hand back to the maker" description="The maker hears it at once; the path is planned anew.">
      {all.length > 1 && (
        <fieldset className="mb-3.5" aria-describedby={errors.who ? 'who-again' : undefined}>
          <legend className="font-medium mb-1">Who does it again?</legend>
          {all.map((maker) => (
            <label key={maker.id} className="flex items-center gap-2 min-h-8">
              <input
                type="checkbox"
                className="size-4 accent-pine"
                checked={chosen.includes(maker.id)}
                onChange={({ target }) => setChosen(target.checked ? [...chosen, maker.id] : chosen.filter((id) => id !== maker.id))}
              />
              {maker.title}
              <span className="text-muted">{maker.doerName ?? 'nobody yet'}</span>
            </label>
          ))}
          {errors.who && (
            <p id="who-again" role="alert" className="text-rhubarb font-medium">
              {errors.who}
            </p>
          )}
        </fieldset>
      )}
      <Field label="What should be different?" error={errors.remark} required>
        {(control) => (
          <textarea {...control} className="field" rows={4} value={remark} onChange={(event) => setRemark(event.target.value || null)} />
        )}
      </Field>
      <div className="flex justify-end gap-2">
        <Button onClick={onClose}>Not yet</Button>
        <Button look="danger" disabled={handBack.isPending} onClick={send}>
          Hand back
        </Button>
      </div>
    </Dialog>
  );
}

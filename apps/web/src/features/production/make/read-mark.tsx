import type { SittingStep } from '@zesting/contract';
import { Link } from 'react-router';
import { toast } from 'sonner';
import { call } from '../../../lib/api';
import { count } from '../../../lib/format';
import { useSession, useWrite } from '../../../lib/queries';
import { Button } from '../../../ui/button';

/** Marks one of those that are read from as done: it is handed in, and goes from the list. */
export function ReadMark({ step }: { step: SittingStep }) {
  const { personId, role } = useSession();
  const handIn = useWrite(() => call(`/steps/${step.stepId}/hand-in`, { method: 'POST' }));
  const isMine = step.doerId === personId || (step.doerId === null && (role === 'lead' || role === 'manager'));
  if (!step.atHand) return <p className="text-muted text-[13px] mt-2">Waits for others.</p>;
  if (!isMine) return <p className="text-muted text-[13px] mt-2">{step.doerName ? `With ${step.doerName}.` : 'With nobody yet.'}</p>;
  if (step.linesOpen > 0)
    return (
      <p className="mt-3 text-muted">
        {count(step.linesOpen, 'line')} of its checklist to tick first, <Link to={`/pieces/${step.pieceId}`}>on the piece</Link>.
      </p>
    );
  return (
    <p className="mt-3">
      <Button
        look="main"
        disabled={handIn.isPending}
        onClick={() => handIn.mutate(undefined, { onSuccess: () => toast(`${step.pieceTitle}: ${step.stepTitle} handed in`) })}
      >
        Done: hand in {step.stepTitle}
      </Button>
    </p>
  );
}

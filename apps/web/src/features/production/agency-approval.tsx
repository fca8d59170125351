import type { PieceShape } from '@zesting/contract';
import { toast } from 'sonner';
import { call } from '../../lib/api';
import { useSession, useWrite } from '../../lib/queries';
import { Button } from '../../ui/button';

/** Where the agency decides for the client: the named person's one click, once everything is made and checked. */
export function AgencyApproval({ piece }: { piece: PieceShape }) {
  const { personId } = useSession();
  const approve = useWrite(() => call(`/pieces/${piece.id}/agency-approval`, { method: 'POST' }));
  const decider = piece.agencyDecider;
  const isMade = piece.steps.every((step) => step.finishedOn !== null || step.kind === 'sign_off');
  const isSigned = piece.content.shared.state === 'signed' && piece.content.channels.every((part) => part.state === 'signed');
  if (!decider || !isMade || isSigned) return null;
  return (
    <div className="flex flex-wrap items-center gap-2 rounded-md bg-lake-soft px-3 py-2 mb-3">
      <p className="flex-1 min-w-40">
        Nothing goes to the client: <strong>{decider.name}</strong> decides on its standing authority.
      </p>
      {decider.personId === personId && (
        <Button
          look="main"
          disabled={approve.isPending}
          onClick={() => approve.mutate(undefined, { onSuccess: () => toast('Approved for the client') })}
        >
          Approve exactly this version
        </Button>
      )}
    </div>
  );
}

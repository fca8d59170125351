import { count } from '../../lib/format';
import { Button } from '../../ui/button';
import type { MonthProposal } from './use-proposal';

/** What a proposal comes to, and the two ways out of it. */
export function ProposalBar({ proposal }: { proposal: MonthProposal }) {
  const all = proposal.lines?.size ?? 0;
  if (all === 0) return null;
  return (
    <div
      role="region"
      aria-label="The proposal"
      className="card border-pine flex flex-wrap items-center gap-3 px-4 py-2.5 mb-3 sticky top-2 z-20"
    >
      <p>
        <strong className="font-semibold">{count(all, 'slot')} proposed.</strong>{' '}
        <span className="text-muted">Nothing is changed until you take it; leave out what you do not want.</span>
      </p>
      <div className="ml-auto flex gap-2">
        <Button onClick={proposal.drop}>Leave all</Button>
        <Button look="main" disabled={proposal.busy || proposal.taken.size === 0} onClick={() => void proposal.take()}>
          Take {proposal.taken.size} of {all}
        </Button>
      </div>
    </div>
  );
}

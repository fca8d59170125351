import { count } from '../../lib/format';
import { Button } from '../../ui/button';
import { Seeking } from '../../ui/seeking';
import type { MonthProposal } from './use-proposal';

/** What a proposal comes to, the search for the best one, and the two ways out of it. */
export function ProposalBar({ proposal }: { proposal: MonthProposal }) {
  const all = proposal.lines?.size ?? 0;
  if (all === 0) return null;
  return (
    <div
      role="region"
      aria-label="The proposal"
      className="card border-pine flex flex-wrap items-center gap-3 px-4 py-2.5 mb-3 sticky top-2 z-20"
    >
      <p className="min-w-0 flex-1 basis-72">
        <strong className="font-semibold">{count(all, 'slot')} proposed.</strong>{' '}
        <span className="text-muted">
          <BestWords proposal={proposal} /> Nothing is changed until you take it.
        </span>
      </p>
      <div className="ml-auto flex flex-wrap gap-2">
        {proposal.seeking ? (
          <Seeking words="Seeking the best" most={60} onStop={proposal.seeking.leave} />
        ) : (
          proposal.best === null && (
            <Button disabled={proposal.busy} onClick={() => void proposal.seekBest()}>
              Seek the best
            </Button>
          )
        )}
        <Button onClick={proposal.drop}>Leave all</Button>
        <Button look="main" disabled={proposal.busy || proposal.taken.size === 0} onClick={() => void proposal.take()}>
          Take {proposal.taken.size} of {all}
        </Button>
      </div>
    </div>
  );
}

/** How the best that was found compares with the quick one. */
function BestWords({ proposal: { best } }: { proposal: MonthProposal }) {
  if (!best) return <>Found quickly; leave out what you do not want.</>;
  const more = best.quickValue > 0 ? ((best.value - best.quickValue) / best.quickValue) * 100 : 0;
  const seconds = `${(best.milliseconds / 1000).toFixed(1)} s`;
  if (!best.isProven) return <>The best that was found in {seconds}, without proof that none is better.</>;
  return more < 0.05 ? (
    <>Proven in {seconds}: none is better than the quick one.</>
  ) : (
    <>
      Proven in {seconds} to be the best, {more.toFixed(1)} % better than the quick one.
    </>
  );
}

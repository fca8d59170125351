import { useQuery, useQueryClient } from '@tanstack/react-query';
import type { GiveOutBody, StaffingProposalShape } from '@zesting/contract';
import { addDays, getDay, mondayOf } from '@zesting/core';
import { useState } from 'react';
import { toast } from 'sonner';
import { givenOutcomeQuery, staffingQuery } from '../../../api/staffing';
import { call, wordsOf } from '../../../lib/api';
import { count, dayWords } from '../../../lib/format';
import { useClients, useSession, useWrite } from '../../../lib/queries';
import { useSearch } from '../../../lib/use-search';
import { ProductionNav } from '../../../parts/production-nav';
import { Button } from '../../../ui/button';
import { Choice } from '../../../ui/choice';
import { Empty, Failed, PageHead } from '../../../ui/page';
import { Seeking } from '../../../ui/seeking';
import { AS_PROPOSED, givesOf, isAsProposed, linesOf, putDoer, putTaken } from './chosen-gives';
import { GiveList } from './give-list';
import { LaterPieces, LeftSteps, WhoGets } from './proposed-sides';

const SPANS = { '2': '2 weeks', '4': '4 weeks', '13': '3 months' } as const;
type Weeks = keyof typeof SPANS;
/** The solver's stages and what goes before and after them, at most. */
const MOST_SECONDS = 60;

/** Who could take the steps that nobody has: proposed for all of them together, taken whole or in part. */
export function ProposePage() {
  const { search, put } = useSearch();
  const { todayOn } = useSession();
  const queries = useQueryClient();
  const weeks = (Object.keys(SPANS) as Weeks[]).find((one) => one === search.get('weeks')) ?? '4';
  const withGiven = search.get('given') === 'yes';
  const toOn = addDays(mondayOf(getDay(todayOn)), Number(weeks) * 7 - 1);
  const { query: clients } = useClients();
  const asked = staffingQuery(toOn, withGiven, clients);
  const proposal = useQuery(asked);
  return (
    <>
      <PageHead nav={<ProductionNav />} title="Production" />
      <div className="flex flex-wrap items-center gap-x-4 gap-y-2 mb-4">
        <h2 className="text-lg">Propose doers</h2>
        <Choice
          label="What is due within"
          value={weeks}
          options={Object.entries(SPANS) as [Weeks, string][]}
          onChange={(next) => put({ weeks: next === '4' ? null : next }, { replace: true })}
        />
        <label className="flex items-center gap-2 min-h-6">
          <input
            type="checkbox"
            className="size-4 accent-pine"
            checked={withGiven}
            onChange={(event) => put({ given: event.target.checked ? 'yes' : null }, { replace: true })}
          />
          Also what somebody has and has not begun
        </label>
      </div>
      {proposal.isFetching ? (
        <div className="card px-6 py-10 flex justify-center">
          <Seeking
            words="Looking who could do what"
            most={MOST_SECONDS}
            onStop={() => void queries.cancelQueries({ queryKey: asked.queryKey })}
          />
        </div>
      ) : proposal.isError ? (
        <Failed message={wordsOf(proposal.error)} onRetry={() => void proposal.refetch()} />
      ) : proposal.data ? (
        <Proposal key={proposal.dataUpdatedAt} proposal={proposal.data} toOn={toOn} onAgain={() => void proposal.refetch()} />
      ) : (
        <Empty title="Stopped">
          <Button onClick={() => void proposal.refetch()}>Look again</Button>
        </Empty>
      )}
    </>
  );
}

interface ProposalProps {
  readonly proposal: StaffingProposalShape;
  readonly toOn: string;
  readonly onAgain: () => void;
}

/** What giving nothing comes to. */
const NOTHING = { pieces: [], othersLater: 0 };

/** What is proposed, what it comes to as it is chosen, and the two ways out of it. */
function Proposal({ proposal, toOn, onAgain }: ProposalProps) {
  const [choosing, setChoosing] = useState(AS_PROPOSED);
  const [wrong, setWrong] = useState<string>();
  const send = useWrite((body: GiveOutBody) => call('/staffing/gives', { method: 'POST', body }), { quiet: true });
  const gives = givesOf(proposal, choosing);
  const body = { gives: gives.map(({ stepId, personId, version }) => ({ stepId, personId, version })) };
  const isWhole = isAsProposed(proposal, choosing);
  const reckoned = useQuery({ ...givenOutcomeQuery(body), enabled: !isWhole && gives.length > 0 });
  const outcome = isWhole ? proposal : gives.length === 0 ? NOTHING : reckoned.isPlaceholderData ? undefined : reckoned.data;
  const give = () => {
    setWrong(undefined);
    send.mutate(body, {
      onSuccess: () => {
        toast(`${count(gives.length, 'step')} given.`);
        onAgain();
      },
      onError: (problem) => setWrong(wordsOf(problem)),
    });
  };
  // what nobody is proposed for counts where somebody is chosen for it
  const proposed = proposal.gives.length + proposal.left.filter(({ stepId }) => choosing.instead.has(stepId)).length;
  const onDoer = (stepId: string, personId: string) => setChoosing(putDoer(choosing, stepId, personId));
  if (proposal.gives.length === 0 && proposal.left.length === 0)
    return <Empty title="Nothing to give out">Every step that is due by {dayWords(toOn)} is somebody’s.</Empty>;
  return (
    <>
      {wrong && (
        <p role="alert" className="card border-rhubarb px-4 py-2 mb-3 flex flex-wrap items-center gap-3">
          <span className="text-rhubarb font-medium">{wrong} Nothing was given.</span>
          <Button onClick={onAgain}>Look again</Button>
        </p>
      )}
      <div
        role="region"
        aria-label="The proposal"
        className="card border-pine flex flex-wrap items-center gap-3 px-4 py-2.5 mb-3 sticky top-2 z-20"
      >
        <p className="min-w-0 flex-1 basis-72">
          <strong className="font-semibold">
            {proposal.gives.length === 0 ? 'Nobody to propose.' : `${count(proposal.gives.length, 'step')} due by ${dayWords(toOn)}.`}
          </strong>{' '}
          <span className="text-muted">{foundWords(proposal)} Nothing is given until you say so.</span>
        </p>
        <Button look="main" disabled={send.isPending || gives.length === 0} onClick={give}>
          Give {gives.length} of {proposed}
        </Button>
      </div>
      <div className="grid gap-4 items-start lg:grid-cols-[minmax(0,1fr)_20rem]">
        <div className="min-w-0">
          <GiveList
            gives={linesOf(proposal.gives, choosing, isWhole ? [] : (reckoned.data?.ends ?? []))}
            proposed={proposal.gives}
            leftOut={choosing.leftOut}
            currency={proposal.currency}
            onTaken={(stepIds, isTaken) => setChoosing(putTaken(choosing, stepIds, isTaken))}
            onDoer={onDoer}
          />
          <LeftSteps left={proposal.left} instead={choosing.instead} currency={proposal.currency} onDoer={onDoer} />
        </div>
        <div className="grid gap-4">
          <WhoGets gives={gives} currency={proposal.currency} />
          {reckoned.isError ? (
            <Failed message={wordsOf(reckoned.error)} onRetry={() => void reckoned.refetch()} />
          ) : (
            <LaterPieces outcome={outcome} />
          )}
        </div>
      </div>
    </>
  );
}

/** How good it is, and how it was found. */
function foundWords({ isProven, milliseconds, moreSteps }: StaffingProposalShape): string {
  const seconds = `${(milliseconds / 1000).toFixed(1)} s`;
  const how = isProven
    ? `Weighed together in ${seconds}: fewest late days first, then whom you would choose.`
    : `The best that was found in ${seconds}, without proof that none is better.`;
  return moreSteps > 0
    ? `${how} ${count(moreSteps, 'step')} more, due later, ${moreSteps === 1 ? 'is' : 'are'} left for the next time.`
    : how;
}

import type { PlanMonthShape } from '@zesting/contract';
import { nextMonth } from '@zesting/core';
import { CopyPlus, Frame, Sparkle } from 'lucide-react';
import { monthWords } from '../../lib/format';
import { useSearch } from '../../lib/use-search';
import { Button } from '../../ui/button';
import { PageHead } from '../../ui/page';
import { Turn } from '../../ui/turn';
import { PlanNav } from '../../parts/plan-nav';
import type { MonthProposal } from './use-proposal';

interface MonthHeadProps {
  /** the month that was asked for: it may be on its way */
  readonly asked: string;
  readonly plan: PlanMonthShape;
  readonly proposal: MonthProposal;
  /** slots that can still be filled */
  readonly free: number;
  /** copies what stands in the month into others */
  readonly onCopy: () => void;
  /** shows what the month is made of, to begin it */
  readonly onStart: () => void;
}

/** Which month, how full it is, and a proposal for the rest. */
export function MonthHead({ asked, plan, proposal, free, onCopy, onStart }: MonthHeadProps) {
  const { put } = useSearch();
  const filled = plan.slots.filter(({ planned }) => planned !== null).length;
  const go = (to: string | null) => put({ month: to, slot: null });
  return (
    <PageHead
      nav={<PlanNav />}
      title={monthWords(plan.month)}
      note={plan.slots.length === 0 ? null : `${filled} of ${plan.slots.length} slots filled, ${free} open`}
      turn={
        <Turn
          before="The month before"
          home="This month"
          after="The month after"
          onBefore={() => go(nextMonth(asked, -1))}
          onHome={() => go(null)}
          onAfter={() => go(nextMonth(asked, 1))}
        />
      }
    >
      {plan.hasRhythm && (
        <Button onClick={onStart} aria-label="The frame of this month" title="The frame of this month">
          <Frame size={15} aria-hidden />
        </Button>
      )}
      {plan.slots.some(({ planned }) => planned !== null) && (
        <Button onClick={onCopy} aria-label="Copy this month into others" title="Copy this month into others">
          <CopyPlus size={15} aria-hidden />
        </Button>
      )}
      {free > 0 && (
        <Button look="main" disabled={proposal.busy || plan.month !== asked} onClick={() => void proposal.propose()}>
          <Sparkle size={15} aria-hidden />
          {proposal.lines ? 'Propose anew' : 'Propose the month'}
        </Button>
      )}
    </PageHead>
  );
}

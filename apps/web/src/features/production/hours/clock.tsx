import type { StopClockBody } from '@zesting/contract';
import { Pause, Play } from 'lucide-react';
import { useEffect, useState } from 'react';
import { toast } from 'sonner';
import { ApiProblem, call, wordsOf } from '../../../lib/api';
import { minutesWords } from '../../../lib/format';
import { present } from '../../../lib/now';
import { useWrite } from '../../../lib/queries';
import { useOpened } from '../../../lib/use-opened';
import { Button } from '../../../ui/button';
import { HoursDialog } from './hours-dialog';
import { StopDialog } from './stop-dialog';

interface ClockProps {
  readonly stepId: string;
  readonly title: string;
  /** what the viewer worked on it */
  readonly workedMinutes: number;
  /** since when their clock on it runs; null: it does not */
  readonly startedAt: string | null;
}

/** Whole minutes since a moment, while somebody looks. */
function useMinutesSince(startedAt: string | null): number {
  const [, setTick] = useState(0);
  useEffect(() => {
    if (startedAt === null) return;
    const timer = setInterval(() => setTick((before) => before + 1), 15_000);
    return () => clearInterval(timer);
  }, [startedAt]);
  return startedAt === null ? 0 : Math.max(0, Math.floor((present().getTime() - Date.parse(startedAt)) / 60_000));
}

/** Hours of a step: by the clock, that begins and pauses, or typed. What is left of the step goes down by them. */
export function Clock({ stepId, title, workedMinutes, startedAt }: ClockProps) {
  const { opened, open, close } = useOpened();
  const running = useMinutesSince(startedAt);
  const start = useWrite(() => call(`/steps/${stepId}/clock`, { method: 'POST' }), { quiet: true });
  const stop = useWrite((body: StopClockBody) => call('/clock/stop', { method: 'POST', body }), { quiet: true });
  const isForgotten = (problem: unknown) => problem instanceof ApiProblem && problem.code === 'hours.clock_forgotten';
  const onError = (problem: unknown) => (isForgotten(problem) ? open(`stop-${stepId}`) : toast.error(wordsOf(problem)));
  return (
    <span className="inline-flex flex-wrap items-center gap-2">
      {startedAt === null ? (
        <Button disabled={start.isPending} aria-label={`Start the clock of ${title}`} onClick={() => start.mutate(undefined, { onError })}>
          <Play size={14} aria-hidden /> Start the clock
        </Button>
      ) : (
        <Button
          look="main"
          disabled={stop.isPending}
          aria-label={`Pause · ${minutesWords(running)}, the clock of ${title}`}
          onClick={() => stop.mutate({}, { onError })}
        >
          <Pause size={14} aria-hidden /> <span className="tabular">Pause · {minutesWords(running)}</span>
        </Button>
      )}
      <button
        type="button"
        className="underline decoration-dotted underline-offset-4 min-h-6 text-[13px]"
        aria-label={`${minutesWords(workedMinutes)} worked on ${title}. Type hours`}
        onClick={() => open(`hours-${stepId}`)}
      >
        {workedMinutes > 0 ? `${minutesWords(workedMinutes)} worked` : 'Type hours'}
      </button>
      {opened === `hours-${stepId}` && <HoursDialog stepId={stepId} title={title} onClose={close} />}
      {opened === `stop-${stepId}` && <StopDialog onClose={close} />}
    </span>
  );
}

import { useQuery } from '@tanstack/react-query';
import type { InterviewShape } from '@zesting/contract';
import { useState } from 'react';
import { askedAboutQuery, type AskedAbout } from '../api/interviews';
import { dayWords } from '../lib/format';
import { Button } from '../ui/button';
import { AskDialog } from './ask-dialog';
import { InterviewAnswers } from './interview-answers';

interface AskedAboutProps {
  readonly clientId: string;
  readonly about: { readonly of: AskedAbout; readonly title: string };
  readonly canAsk: boolean;
}

/** What was asked about an idea or a piece and what those who know answered, with a way to ask more. */
export function AskedAboutSection({ clientId, about, canAsk }: AskedAboutProps) {
  const { data: interviews = [] } = useQuery(askedAboutQuery(about.of));
  const [isAsking, setAsking] = useState(false);
  if (interviews.length === 0 && !canAsk) return null;
  return (
    <div>
      {interviews.map((interview) => (
        <details key={interview.id} open={interview.answered > 0} className="mt-2 border-t border-line pt-2">
          <summary className="min-h-6">
            <span className="font-medium">{interview.title}</span> <InterviewState interview={interview} />
          </summary>
          <InterviewAnswers interview={interview} canWrite={canAsk} />
        </details>
      ))}
      {canAsk && (
        <Button look="quiet" className="-ml-3 mt-1" onClick={() => setAsking(true)}>
          Ask who knows…
        </Button>
      )}
      {isAsking && <AskDialog clientId={clientId} about={about} onClose={() => setAsking(false)} />}
    </div>
  );
}

/** Who was asked, how much is answered, and by when. */
export function InterviewState({ interview }: { interview: InterviewShape }) {
  const { answerer, answered, questions, dueOn, isPastDue, closedAt } = interview;
  const isDone = answered === questions.length;
  return (
    <span className="text-muted text-[13px]">
      {answerer && `${answerer}, `}
      <span className={isDone ? 'text-pine font-medium' : ''}>
        {answered} of {questions.length} answered
      </span>
      {dueOn && !isDone && closedAt === null && (
        <span className={isPastDue ? 'text-rhubarb font-medium' : ''}>
          {isPastDue ? `, was due ${dayWords(dueOn)}` : `, by ${dayWords(dueOn)}`}
        </span>
      )}
      {closedAt !== null && ', closed'}
    </span>
  );
}

import { useQuery } from '@tanstack/react-query';
import type { CandidateShape, DelaysShape, StepShape } from '@zesting/contract';
import { useState } from 'react';
import { candidatesQuery, delaysQuery } from '../../api/people';
import { ApiProblem, call, wordsOf } from '../../lib/api';
import { count, dayWords, listWords, minutesWords, zoneWords } from '../../lib/format';
import { moneyWords } from '../../lib/money';
import { useWrite } from '../../lib/queries';
import { SKILL_LEVELS } from '../../lib/words';
import { Button } from '../../ui/button';
import { Dialog } from '../../ui/dialog';
import { Field } from '../../ui/field';
import { Failed, Loading } from '../../ui/page';
import { Tag } from '../../ui/tags';

const tooLate = ({ predictedFinishOn, latestFinishOn }: CandidateShape): boolean =>
  predictedFinishOn !== null && latestFinishOn !== null && predictedFinishOn > latestFinishOn;

/** What else becomes late with somebody; nothing where nothing does, or it is not known. */
function Delays({ delays }: { delays: DelaysShape | undefined }) {
  if (!delays || delays.count === 0) return null;
  const more = delays.count - delays.titles.length;
  const rest = more === 0 ? [] : [delays.titles.length > 0 ? `${more} more` : count(more, 'piece')];
  return (
    <p className="text-[13px] text-rind">Makes {listWords([...delays.titles.map((title) => `“${title}”`), ...rest])} late, or later</p>
  );
}

/** Why a step was not given: somebody else gave it away since it was looked at, or what the server says. */
function meanwhileWords(problem: unknown, title: string): string {
  if (!(problem instanceof ApiProblem) || problem.code !== 'http.changed_meanwhile') return wordsOf(problem);
  const theirs = problem.body['theirs'] as { doerName: string | null } | undefined; // what this problem carries
  return `Meanwhile ${theirs?.doerName ?? 'nobody'} has “${title}”. Nothing was overwritten: choose again.`;
}

/** What the dialog knows of the step. */
type GivenStep = Pick<StepShape, 'id' | 'title' | 'leftMinutes' | 'spanDays' | 'doerId' | 'version'> & Partial<Pick<StepShape, 'withId'>>;

/** Who takes a step: skill, what is open, days off, and when it would end by all that each has to do. */
export function AssignDialog({ step, onClose }: { step: GivenStep; onClose: () => void }) {
  const candidates = useQuery(candidatesQuery(step.id));
  const { data: delays } = useQuery(delaysQuery(step.id)); // which takes longer, and is not waited for
  const assign = useWrite(
    (personId: string | null) => call(`/steps/${step.id}/doer`, { method: 'PUT', body: { personId }, version: step.version }),
    { quiet: true },
  );
  const [meanwhile, setMeanwhile] = useState<string>();
  const give = (personId: string | null) =>
    assign.mutate(personId, {
      onSuccess: onClose,
      onError: (problem) => setMeanwhile(meanwhileWords(problem, step.title)),
    });
  return (
    <Dialog
      open
      wide
      onClose={onClose}
      title={`Who does “${step.title}”?`}
      description={`${minutesWords(step.leftMinutes)} of work over ${count(step.spanDays, 'day')}. Whoever usually does it first, then skilled ones, then those with least open. Predictions go by all that each has to do.`}
    >
      {meanwhile && (
        <p role="alert" className="text-rhubarb font-medium mb-2">
          {meanwhile}
        </p>
      )}
      {candidates.isError && <Failed message={wordsOf(candidates.error)} onRetry={() => void candidates.refetch()} />}
      {candidates.isPending && <Loading />}
      <ul>
        {candidates.data?.map((person) => (
          <li
            key={person.personId}
            className="grid grid-cols-[minmax(0,1fr)_auto] gap-x-3 py-2.5 border-t border-line first:border-t-0 items-center"
          >
            <div>
              <p className="flex flex-wrap items-center gap-x-2">
                <span className="font-semibold">{person.name}</span>
                <span className="text-muted">
                  {person.role === 'freelance' ? `freelance, ${zoneWords(person.zone)}` : zoneWords(person.zone)}
                </span>
                {person.isUsual && <Tag tone="lake">Usually does this</Tag>}
                <Tag tone={person.skillLevel === 0 ? 'calm' : 'pine'}>{SKILL_LEVELS[person.skillLevel] ?? ''}</Tag>
              </p>
              <p className="text-muted text-[13px]">
                {person.openSteps === 0 ? 'Nothing open' : `${count(person.openSteps, 'step')} open, ${minutesWords(person.openMinutes)}`}
                {person.timeOffOn.length > 0 &&
                  ` · off ${person.timeOffOn
                    .slice(0, 4)
                    .map((day) => dayWords(day))
                    .join(', ')}${person.timeOffOn.length > 4 ? ` and ${person.timeOffOn.length - 4} more` : ''}`}
                {person.predictedFinishOn && ` · predicted to end ${dayWords(person.predictedFinishOn)}`}
                {tooLate(person) && <span className="text-rhubarb font-medium">, needed {dayWords(person.latestFinishOn ?? '')}</span>}
                {person.cost && ` · costs ${moneyWords(person.cost.amount, person.cost.currency)}`}
              </p>
              {person.personId !== step.doerId && <Delays delays={delays?.find(({ personId }) => personId === person.personId)} />}
            </div>
            <Button
              look={person.personId === step.doerId ? 'quiet' : 'plain'}
              disabled={assign.isPending || person.personId === step.doerId}
              onClick={() => give(person.personId)}
            >
              {person.personId === step.doerId ? 'Has it' : `Give to ${person.name.split(' ')[0] ?? ''}`}
            </Button>
          </li>
        ))}
      </ul>
      {step.doerId && step.withId !== undefined && candidates.data && (
        <TogetherWith
          step={step}
          people={candidates.data.filter(({ personId }) => personId !== step.doerId)}
          onDone={onClose}
          onProblem={(problem) => setMeanwhile(meanwhileWords(problem, step.title))}
        />
      )}
      {step.doerId && (
        <Button look="quiet" className="mt-2 -ml-3" onClick={() => give(null)}>
          Take it back: nobody has it
        </Button>
      )}
    </Dialog>
  );
}

interface TogetherWithProps {
  readonly step: GivenStep;
  readonly people: readonly CandidateShape[];
  readonly onDone: () => void;
  readonly onProblem: (problem: unknown) => void;
}

/** Who takes the step together with its doer, to learn it: they see the piece and hear of it, and none of its hours are theirs. */
function TogetherWith({ step, people, onDone, onProblem }: TogetherWithProps) {
  const take = useWrite(
    (personId: string | null) => call(`/steps/${step.id}/with`, { method: 'PUT', body: { personId }, version: step.version }),
    { quiet: true },
  );
  return (
    <div className="mt-3 border-t border-line-strong pt-3 max-w-sm">
      <Field label="Somebody who takes it with them, to learn it" help="They see the piece. Its hours stay with who does it.">
        {(control) => (
          <select
            {...control}
            className="field"
            disabled={take.isPending}
            value={step.withId ?? ''}
            onChange={({ target }) => take.mutate(target.value || null, { onSuccess: onDone, onError: onProblem })}
          >
            <option value="">Nobody</option>
            {people.map(({ personId, name }) => (
              <option key={personId} value={personId}>
                {name}
              </option>
            ))}
          </select>
        )}
      </Field>
    </div>
  );
}

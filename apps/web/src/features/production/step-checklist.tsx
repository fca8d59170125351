import type { ChecklistLineShape, StepShape, TickBody } from '@zesting/contract';
import { call } from '../../lib/api';
import { instantWords } from '../../lib/format';
import { useWrite } from '../../lib/queries';
import { useHeld } from '../../lib/use-held';

/** What is looked at before a step is handed in, ticked line by line; whoever ticked it is named. Nothing where the step has no list. */
export function StepChecklist({ step }: { step: StepShape }) {
  if (step.checklist.length === 0) return null;
  return (
    <fieldset className="w-full border-t border-line pt-1.5">
      <legend className="sr-only">Checklist of {step.title}</legend>
      <div className="grid gap-x-5 sm:grid-cols-2">
        {step.checklist.map((line, position) => (
          <Line key={position} stepId={step.id} position={position} line={line} />
        ))}
      </div>
    </fieldset>
  );
}

/** How much of a step's checklist is ticked, and by whom: to be looked up, not ticked. */
export function TickedLines({ step: { checklist } }: { step: StepShape }) {
  if (checklist.length === 0) return null;
  const ticked = checklist.filter(({ tick }) => tick !== null).length;
  return (
    <details className="text-[13px]">
      <summary className="min-h-6 text-muted">
        Checklist: {ticked} of {checklist.length} ticked
      </summary>
      <ul>
        {checklist.map(({ text, tick }, position) => (
          <li key={position} className="py-0.5 break-words">
            {text} <span className="text-muted">· {tick ? `${tick.by}, ${instantWords(tick.at)}` : 'not yet'}</span>
          </li>
        ))}
      </ul>
    </details>
  );
}

function Line({ stepId, position, line: { text, tick } }: { stepId: string; position: number; line: ChecklistLineShape }) {
  const say = useWrite((body: TickBody) => call(`/steps/${stepId}/tick`, { method: 'PUT', body }));
  const [isDone, hold] = useHeld(tick !== null);
  return (
    <label className="flex items-start gap-2 min-h-7 py-0.5">
      <input
        type="checkbox"
        className="size-4 mt-0.5 accent-pine shrink-0"
        checked={isDone}
        onChange={({ target }) => {
          hold(target.checked);
          say.mutate({ position, isDone: target.checked, text }, { onError: () => hold(undefined) });
        }}
      />
      <span className="min-w-0 break-words">
        {text}
        {tick && (
          <span className="text-muted text-[13px]">
            {' '}
            {tick.by}, {instantWords(tick.at)}
          </span>
        )}
      </span>
    </label>
  );
}

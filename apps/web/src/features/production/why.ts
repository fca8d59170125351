import type { StepShape } from '@zesting/contract';
import type { HeldBy } from '@zesting/core';
import { count, dayWords } from '../../lib/format';

/** Why a step's dates lie where they do: its span, what it must be ready for, and the days on which nobody is there. */
export function whyWords(step: StepShape, steps: readonly StepShape[]): string {
  const span = count(step.spanDays, 'working day');
  const off = step.daysOff.length > 0 ? `; off ${step.daysOff.map((day) => dayWords(day)).join(', ')}` : '';
  if (step.latestHeldBy === null) return `${span}; no aim date yet`;
  const held = heldWords(step.latestHeldBy, steps);
  const short = step.slackDays !== null && step.slackDays < 0 ? `; could end ${dayWords(step.earliestFinishOn)}` : '';
  return `${span}, ${held}${off}${short}${step.sameDay ? '; may share a day with the step before' : ''}`;
}

/** When the load of everybody lets the step end; null when it is done, or not known. */
export function predictedWords(step: StepShape): string | null {
  if (step.finishedOn !== null || step.predictedFinishOn === null) return null;
  const behind =
    step.behindSteps > 0 ? `: ${count(step.behindSteps, 'step')} due earlier ${step.behindSteps === 1 ? 'goes' : 'go'} first` : '';
  return `Predicted to end ${dayWords(step.predictedFinishOn)}${behind}`;
}

function heldWords(held: HeldBy, steps: readonly StepShape[]): string {
  if (held.by === 'pin') return 'pinned by hand';
  if (held.by !== 'step') return 'done before it is published';
  const next = steps.find((other) => other.id === held.stepId);
  return `done before ${next?.title ?? 'the next step'}${next?.latestStartOn ? ` must start on ${dayWords(next.latestStartOn)}` : ''}`;
}

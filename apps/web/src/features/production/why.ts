import type { StepShape } from '@zesting/contract';
import { count, dayWords } from '../../lib/format';

/** Why a step's dates lie where they do: its span, what it must be ready for, and the days on which nobody is there. */
export function whyWords(step: StepShape): string {
  const span = count(step.spanDays, 'working day');
  const off = step.daysOff.length > 0 ? `; off ${step.daysOff.map((day) => dayWords(day)).join(', ')}` : '';
  if (step.latestHeldBy === null) return `${span}; no aim date yet`;
  const held = { aim: 'done before it is published', pin: 'pinned by hand', step: 'done before the next step', today: '', start: '' }[step.latestHeldBy.by];
  const short = step.slackDays !== null && step.slackDays < 0 ? `; could end ${dayWords(step.earliestFinishOn)}` : '';
  return `${span}, ${held}${off}${short}${step.sameDay ? '; may share a day with the step before' : ''}`;
}

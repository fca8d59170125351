import type { GoalShape } from '@zesting/contract';
import type { GoalStanding } from '@zesting/core';
import { dayWords } from '../../lib/format';
import type { Tone } from '../../ui/tags';

export const STANDINGS: Record<GoalStanding, readonly [words: string, tone: Tone]> = {
  ahead: ['begins later', 'calm'],
  unknown: ['nothing read yet', 'rind'],
  reached: ['reached', 'pine'],
  missed: ['missed', 'rhubarb'],
  behind: ['behind', 'rhubarb'],
  on_pace: ['on pace', 'pine'],
  before: ['ahead of its pace', 'pine'],
};

const NUMBERS = new Intl.NumberFormat('en-GB', { maximumFractionDigits: 2 });

/** A figure as it was read. */
export const figure = (value: number): string => NUMBERS.format(value).replace('-', '−');
/** A figure that was reckoned: no more of it than anybody believes. */
export const rounded = (value: number): string => figure(Math.abs(value) >= 100 ? Math.round(value) : Math.round(value * 10) / 10);

export const unitOf = ({ measure, unit }: Pick<GoalShape, 'measure' | 'unit'>): string => (measure === 'pieces' ? 'pieces out' : unit);

/** How fast it goes, how fast it would have to, and where that leads, in words. */
export function paceWords({ pace, byOn }: Pick<GoalShape, 'pace' | 'byOn'>): string {
  const real = pace.realPerWeek === null ? null : `${rounded(pace.realPerWeek)} a week`;
  if (pace.standing === 'reached') return `Reached on ${dayWords(pace.reachesOn ?? byOn)}.`;
  if (pace.standing === 'missed') return `Its day was ${dayWords(byOn)}.`;
  if (pace.neededNowPerWeek === null) return '';
  const needed = `It needs ${rounded(pace.neededNowPerWeek)} a week from now on`;
  if (real === null) return `${needed}.`;
  const leads = pace.reachesOn === null ? 'which does not lead there' : `which leads there on ${dayWords(pace.reachesOn)}`;
  return `${needed}. It has gone ${real}, ${leads}.`;
}

/** Where a value stands on the way from start to target, 0 to 1. */
export const partOf = ({ startValue, target }: Pick<GoalShape, 'startValue' | 'target'>, value: number): number =>
  Math.min(1, Math.max(0, (value - startValue) / (target - startValue)));

import { daysBetween, type Day } from '../time/index.js';

/** What an idea is weighed by, each 1 to 5; null: not weighed yet. `ease`: 5 is little work. `chance`: how likely it is to work. */
export interface IdeaMarks {
  readonly merit: number | null;
  readonly ease: number | null;
  readonly chance: number | null;
}

/** How much each mark counts; set by the agency. */
export interface IdeaWeights {
  readonly merit: number;
  readonly ease: number;
  readonly chance: number;
}

const MIDDLE = 3;
const SPAN = 4;

/**
 * How good an idea is beside others, 0 to 1: the mean of its marks by their weights. A mark that nobody gave counts as the middle one, so that what
 * is not weighed stands neither before nor behind. A weighted sum of marks is common practice.
 */
export function worthOf(marks: IdeaMarks, weights: IdeaWeights): number {
  const all = weights.merit + weights.ease + weights.chance;
  if (all === 0) return 0.5;
  const part = (mark: number | null, weight: number) => (((mark ?? MIDDLE) - 1) / SPAN) * weight;
  return (part(marks.merit, weights.merit) + part(marks.ease, weights.ease) + part(marks.chance, weights.chance)) / all;
}

/** How old an idea is against the day until which it is fresh. */
export type Freshness = 'lasting' | 'fresh' | 'fading' | 'stale';

/** So near its last day an idea that follows a trend is fading. */
const FADING_DAYS = 7;

/** @param freshUntilOn the last day on which it is worth making; null: it lasts */
export function freshnessOf(freshUntilOn: Day | null, todayOn: Day): Freshness {
  if (freshUntilOn === null) return 'lasting';
  const left = daysBetween(todayOn, freshUntilOn);
  return left < 0 ? 'stale' : left < FADING_DAYS ? 'fading' : 'fresh';
}

/** A pillar's stock of ideas, and how long it would feed the rhythm. */
export interface Supply {
  readonly pillarId: string | null;
  readonly ideas: number;
  /** pieces that the rhythm takes of it in a week */
  readonly perWeek: number;
  /** null: the rhythm takes none */
  readonly weeks: number | null;
}

/**
 * Weeks of supply per pillar: ideas ÷ what the rhythm takes a week. Slots that want a pillar take from it; those that want none are shared out among
 * the pillars by their shares, and what the shares leave free is taken from ideas without a pillar.
 * @param slots the pillars that the slots of some weeks want
 */
export function supplyOf(
  pillars: readonly { readonly id: string; readonly share: number }[],
  ideas: readonly { readonly pillarId: string | null }[],
  slots: readonly { readonly pillarId: string | null }[],
  weeks: number,
): Supply[] {
  const open = slots.filter(({ pillarId }) => pillarId === null).length;
  const free = Math.max(0, 100 - pillars.reduce((sum, { share }) => sum + share, 0));
  const line = (pillarId: string | null, share: number): Supply => {
    const wanted = pillarId === null ? 0 : slots.filter((slot) => slot.pillarId === pillarId).length;
    const perWeek = (wanted + (open * share) / 100) / weeks;
    const count = ideas.filter((idea) => idea.pillarId === pillarId).length;
    return { pillarId, ideas: count, perWeek, weeks: perWeek > 0 ? count / perWeek : null };
  };
  return [...pillars.map(({ id, share }) => line(id, share)), line(null, free)];
}

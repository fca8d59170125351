import type { BriefFact } from '../intake/index.js';
import { addDays, daysBetween, type Day } from '../time/index.js';

export * from './clock.js';

/** What is known of a request when it is judged. */
export interface Judged {
  readonly todayOn: Day;
  readonly wishOn: Day | null;
  /** the earliest day that the path and the calendars allow; null where no route is known */
  readonly earliestOn: Day | null;
  /** the day that is predicted after all that is taken on already; never sooner */
  readonly predictedOn: Day | null;
  /** what the brief needs and no answer gives */
  readonly missing: readonly BriefFact[];
  /** whether it is for a launch, which is planned longer ahead */
  readonly isLaunch: boolean;
  /** days ahead that anything, and a launch, should be asked for */
  readonly noticeDays: number;
  readonly launchNoticeDays: number;
  /** how many things are alike enough to be the same */
  readonly twins: number;
  /** what stands in the way on the wished day */
  readonly clashes: number;
}

/** In one word what to do: *nothing stands against it*, *ask first*, *look first*, *predicted later*, *not by that day*. */
export type VerdictWord = 'not_by_then' | 'later' | 'ask' | 'look' | 'ready';

/** What stands in the way of a request that is to be decided: the first of a verdict's words that it has, or an answer that is later than promised. */
export const STANDS = ['not_by_then', 'later', 'ask', 'answer_late'] as const;
export type Stands = (typeof STANDS)[number];

export interface Judgement {
  readonly word: VerdictWord;
  /** days between the predicted day and the wish; negative where it is wished for sooner; null without either */
  readonly slackDays: number | null;
  /** the first day that keeps the notice */
  readonly noticeOn: Day;
  readonly keepsNotice: boolean;
}

/**
 * Judges a request by figures; a person decides. What the path does not allow comes first, then what is predicted later than wished for as things stand,
 * then what is missing, then what should be looked at. Notice of 30 days for anything and 90 for a launch is common practice.
 */
export function judge(request: Judged): Judgement {
  const { todayOn, wishOn, earliestOn, predictedOn, missing, isLaunch, noticeDays, launchNoticeDays, twins, clashes } = request;
  const between = (day: Day | null) => (wishOn !== null && day !== null ? daysBetween(day, wishOn) : null);
  const slackDays = between(predictedOn);
  const noticeOn = addDays(todayOn, isLaunch ? launchNoticeDays : noticeDays);
  const word: VerdictWord =
    (between(earliestOn) ?? 0) < 0
      ? 'not_by_then'
      : (slackDays ?? 0) < 0
        ? 'later'
        : missing.length > 0
          ? 'ask'
          : twins + clashes > 0
            ? 'look'
            : 'ready';
  return { word, slackDays, noticeOn, keepsNotice: wishOn === null || wishOn >= noticeOn };
}

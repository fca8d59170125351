import type { BriefFact } from '../intake/index.js';
import { addDays, daysBetween, type Day } from '../time/index.js';

/** What is known of a request when it is judged. */
export interface Judged {
  readonly todayOn: Day;
  readonly wishOn: Day | null;
  /** the earliest day that the route allows; null where no route is known */
  readonly earliestOn: Day | null;
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

/** In one word what to do: *nothing stands against it*, *ask first*, *look first*, *not by that day*. */
export type VerdictWord = 'ready' | 'ask' | 'look' | 'not_by_then';

export interface Judgement {
  readonly word: VerdictWord;
  /** days between the earliest day and the wish; negative where it is wished for sooner; null without either */
  readonly slackDays: number | null;
  /** the first day that keeps the notice */
  readonly noticeOn: Day;
  readonly keepsNotice: boolean;
}

/**
 * Judges a request by figures; a person decides. What cannot be made in time comes before what is missing, that before what should be looked at.
 * Notice of 30 days for anything and 90 for a launch is common practice.
 */
export function judge({ todayOn, wishOn, earliestOn, missing, isLaunch, noticeDays, launchNoticeDays, twins, clashes }: Judged): Judgement {
  const slackDays = wishOn !== null && earliestOn !== null ? daysBetween(earliestOn, wishOn) : null;
  const noticeOn = addDays(todayOn, isLaunch ? launchNoticeDays : noticeDays);
  const word: VerdictWord =
    slackDays !== null && slackDays < 0 ? 'not_by_then' : missing.length > 0 ? 'ask' : twins + clashes > 0 ? 'look' : 'ready';
  return { word, slackDays, noticeOn, keepsNotice: wishOn === null || wishOn >= noticeOn };
}

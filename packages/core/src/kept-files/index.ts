import { addDays, type Day } from '../time/index.js';

/** What a file of the library is kept for: a picture of a product, which is renewed; what pictures are begun from; anything else. */
export const KEPT_FILE_KINDS = ['product', 'template', 'other'] as const;
export type KeptFileKind = (typeof KEPT_FILE_KINDS)[number];

/** So many days before its day somebody is told that a file is to be renewed. Common practice: time for a new picture to be taken. */
export const RENEW_SOON_DAYS = 30;

/** How a file stands to the day by which it is to be renewed. */
export type Renewal = 'fresh' | 'soon' | 'old';

/** A file is good up to its day, and on it. @param renewBy null: for good */
export function renewalOf(renewBy: Day | null, todayOn: Day): Renewal {
  if (renewBy === null || renewBy > addDays(todayOn, RENEW_SOON_DAYS)) return 'fresh';
  return renewBy < todayOn ? 'old' : 'soon';
}

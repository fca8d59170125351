import { fileKindOf, getDay, renewalOf, type KeptFileKind, type Renewal } from '@zesting/core';
import { dayWords } from './format';

/** What a kept file is, one and many. */
export const KEPT_WORDS: Record<KeptFileKind, { readonly one: string; readonly many: string }> = {
  product: { one: 'Product picture', many: 'Product pictures' },
  template: { one: 'Picture template', many: 'Picture templates' },
  other: { one: 'Other file', many: 'Other files' },
};

const TONES = { fresh: 'calm', soon: 'rind', old: 'rhubarb' } as const satisfies Record<Renewal, string>;

/** What is said of the day by which a file is to be renewed; null where it is good for good. */
export function renewWords(renewBy: string | null, todayOn: string): { words: string; tone: (typeof TONES)[Renewal] } | null {
  if (renewBy === null) return null;
  const renewal = renewalOf(getDay(renewBy), getDay(todayOn));
  return { words: renewal === 'old' ? `To be renewed since ${dayWords(renewBy)}` : `Renew by ${dayWords(renewBy)}`, tone: TONES[renewal] };
}

/** A title out of a file's name: without its ending, with spaces. */
export const titleOfName = (name: string): string =>
  name
    .replace(/\.\w{1,5}$/, '')
    .replaceAll(/[-_.]+/g, ' ')
    .trim();

/** Whether a file can go out as it is: pictures, clips and sounds. */
export const goesOut = (mime: string): boolean => fileKindOf(mime) !== 'paper';

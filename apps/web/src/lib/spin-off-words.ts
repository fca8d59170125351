import { clipTime, type Fact, type Offset } from '@zesting/core';
import type { PreviewedOutputShape } from '@zesting/contract';
import { count } from './format';
import { PURPOSE_WORDS } from './words';

export const FACT_WORDS: Readonly<Record<Fact, string>> = {
  title: 'Title',
  purpose: 'Purpose',
  copy: 'Text',
  media: 'Pictures and files',
  disclosure: 'Disclosure',
  link: 'Link',
  tags: 'Tags',
};

/** "title, text" of some facts. */
export const factsInWords = (facts: readonly Fact[]): string => facts.map((fact) => FACT_WORDS[fact].toLowerCase()).join(', ');

/** What stands in a fact, as it is read; empty: nothing does. */
export const factText = (fact: Fact, text: string): string =>
  fact === 'purpose' ? (Object.entries(PURPOSE_WORDS).find(([id]) => id === text)?.[1] ?? '') : text;

/** "2 working days after", "the day before", "on the same day". */
export function offsetWords({ count: number, unit }: Offset): string {
  if (number === 0) return 'on the same day';
  return `${count(Math.abs(number), unit === 'days' ? 'day' : 'working day')} ${number < 0 ? 'before' : 'after'}`;
}

/** "from 0:10 to 1:20"; empty where it is no clip. */
export const clipWords = (from: number | null, to: number | null): string =>
  from === null || to === null ? '' : `from ${clipTime(from)} to ${clipTime(to)}`;

export const STANDING_WORDS: Readonly<Record<PreviewedOutputShape['standing'], string>> = {
  fine: 'In time',
  will_be_late: 'Will be late',
  late: 'Out of reach',
  past: 'In the past',
};

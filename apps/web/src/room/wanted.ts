import type { Pointed } from '@zesting/core';

/** One thing that a contact wants changed, as it is being written: at a place that they pointed at, or about the whole. */
export interface Wanted {
  /** counts up: what is typed stays with its box when one before it goes */
  readonly key: number;
  readonly text: string;
  readonly place: Pointed | null;
}

export const FIRST: Wanted = { key: 0, text: '', place: null };

/** Adds one about the whole in words, into a box of the whole that is still empty where there is one; what is asked for already is not asked twice. */
export function wishedFor(wanted: readonly Wanted[], text: string): readonly Wanted[] {
  if (wanted.some((one) => one.text === text)) return wanted;
  const empty = wanted.find((one) => one.text.trim() === '' && one.place === null);
  return empty ? wanted.map((one) => (one === empty ? { ...one, text } : one)) : [...wanted, { key: nextKey(wanted), text, place: null }];
}

/** Adds one at a place, into a box of the whole that is still empty where there is one. */
export function pointedAt(wanted: readonly Wanted[], place: Pointed): Wanted[] {
  const empty = wanted.find((one) => one.text.trim() === '' && one.place === null);
  const kept = wanted.filter((one) => one !== empty);
  return [...kept, { key: nextKey(wanted), text: '', place }];
}

export const nextKey = (wanted: readonly Wanted[]): number => Math.max(-1, ...wanted.map(({ key }) => key)) + 1;

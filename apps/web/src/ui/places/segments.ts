import { sentencesIn } from '@zesting/core';
import type { Mark } from './mark';

/** A run of text that lies in the same marks and the same sentence throughout. */
export interface Segment {
  readonly from: number;
  readonly to: number;
  /** ids of the marks that it lies in */
  readonly markIds: readonly string[];
  /** those whose stretch ends with it */
  readonly ends: readonly Mark[];
  /** from where its sentence goes; null between sentences */
  readonly sentence: { readonly from: number; readonly to: number } | null;
}

/** Cuts a text where marks and sentences begin and end: the segments are the whole text, in order, none empty. */
export function segmentsOf(text: string, marks: readonly Mark[]): Segment[] {
  const stretches = marks.flatMap((mark) => (mark.place.kind === 'stretch' ? { mark, from: mark.place.from, to: mark.place.to } : []));
  const sentences = sentencesIn(text);
  const cuts = [...new Set([0, text.length, ...[...stretches, ...sentences].flatMap(({ from, to }) => [from, to])])]
    .filter((at) => at >= 0 && at <= text.length)
    .sort((a, b) => a - b);
  return cuts.slice(0, -1).map((from, index) => {
    const to = cuts[index + 1] ?? from;
    return {
      from,
      to,
      markIds: stretches.filter((stretch) => stretch.from <= from && to <= stretch.to).map(({ mark }) => mark.id),
      ends: stretches.filter((stretch) => stretch.to === to).map(({ mark }) => mark),
      sentence: sentences.find((sentence) => sentence.from <= from && to <= sentence.to) ?? null,
    };
  });
}

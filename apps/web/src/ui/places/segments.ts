import { sentencesIn, type ReadRun } from '@zesting/core';
import type { Mark } from './mark';

/** A run of text that lies in the same marks and the same sentence throughout. */
export interface Segment {
  readonly from: number;
  readonly to: number;
  /** ids of the marks that it lies in */
  readonly markIds: readonly string[];
  /** those whose stretch ends with it */
  readonly ends: readonly Mark[];
  /** from where its sentence goes, and how it reads; null between sentences */
  readonly sentence: { readonly from: number; readonly to: number; readonly words: string } | null;
}

/** Cuts a text where marks and sentences begin and end: the segments are the whole text, in order, none empty. */
export function segmentsOf(text: string, marks: readonly Mark[]): Segment[] {
  const stretches = marks.flatMap((mark) => (mark.place.kind === 'stretch' ? { mark, from: mark.place.from, to: mark.place.to } : []));
  const sentences = sentencesIn(text).map(({ from, to }) => ({ from, to, words: text.slice(from, to) }));
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

/** Whether a run reads as it stands in its source, and not as a sign for it. */
export const isWordForWord = ({ text, from, to }: ReadRun): boolean => text.length === to - from && text !== '\n';

/**
 * Segments of a source as far as its runs show them, cut where runs begin and end. The number of a mark stands behind the last that is seen of it, and a
 * sentence goes from the first to the last of it that is seen.
 */
export function cutByRuns(source: string, segments: readonly Segment[], runs: readonly ReadRun[]): Segment[] {
  const shown = runs.filter(isWordForWord);
  const parts = shown.flatMap((run) =>
    segments.flatMap((segment): Segment[] => {
      const [from, to] = [Math.max(segment.from, run.from), Math.min(segment.to, run.to)];
      return from < to ? [{ ...segment, from, to, ends: [] }] : [];
    }),
  );
  const marks = segments.flatMap(({ ends }) => ends);
  const seenOf = ({ from, to }: NonNullable<Segment['sentence']>) => {
    const inside = parts.filter((part) => from <= part.from && part.to <= to);
    const words = inside.map((part) => source.slice(part.from, part.to)).join('');
    return { from: inside[0]?.from ?? from, to: inside.at(-1)?.to ?? to, words };
  };
  const sentences = new Map(parts.flatMap(({ sentence }) => (sentence ? [[sentence, seenOf(sentence)] as const] : [])));
  return parts.map((part, index) => ({
    ...part,
    sentence: part.sentence && (sentences.get(part.sentence) ?? null),
    ends: marks.filter(({ id }) => part.markIds.includes(id) && !parts.slice(index + 1).some(({ markIds }) => markIds.includes(id))),
  }));
}

import { compareText } from '../compare/index.js';

/** A stretch of a piece's copy, or of another of its texts, as it stood when somebody spoke of it. */
export interface Stretch {
  readonly kind: 'stretch';
  /** the channel whose own copy it is; null: the copy that channels share */
  readonly channelId: string | null;
  /** which of the piece's texts it is, by what that is known by in its format; absent: the copy */
  readonly textKey?: string;
  /** what that text was called then */
  readonly textName?: string;
  /** from this character (UTF-16 unit) of the text, counted from 0 … */
  readonly from: number;
  /** … up to but without this one */
  readonly to: number;
  /** the whole text in which it stood */
  readonly onText: string;
  /** it is laid out, as `readProse` reads it; absent: it is words alone */
  readonly isLaidOut?: boolean;
}

/** Where a stretch is in what a text became. Of what is `gone`, `from` and `to` are the spot where it stood. */
export interface Followed {
  readonly state: 'stands' | 'changed' | 'gone';
  readonly from: number;
  readonly to: number;
}

/** What stands in a stretch, with the marks of a layout where there is one. */
export const wordsOfStretch = ({ onText, from, to }: Stretch): string => onText.slice(from, to);

/**
 * Finds a stretch in what its text became. Edits on one side of it alone never lose it, whatever they are; nor do any others that leave its
 * words as they are, where these stand once in both texts. Else it is followed by the words that stayed (as `compareText` tells them).
 * @param text what the text is now
 * @param language by whose rules words are told apart (BCP 47)
 */
export function followStretch(stretch: Stretch, text: string, language = 'en'): Followed {
  const { onText, from, to } = stretch;
  const words = wordsOfStretch(stretch);
  if (sameBefore(onText, text) >= to) return { state: 'stands', from, to };
  const moved = text.length - onText.length;
  if (sameAfter(onText, text) >= onText.length - from) return { state: 'stands', from: from + moved, to: to + moved };
  const at = onlyPlace(text, words);
  if (at !== null && onlyPlace(onText, words) !== null) return { state: 'stands', from: at, to: at + words.length };
  return byWords(stretch, text, language);
}

/** How many characters two texts have in common from their beginning. */
function sameBefore(one: string, other: string): number {
  let count = 0;
  while (count < one.length && count < other.length && one[count] === other[count]) count++;
  return count;
}

/** How many characters two texts have in common up to their end. */
function sameAfter(one: string, other: string): number {
  let count = 0;
  while (count < one.length && count < other.length && one[one.length - 1 - count] === other[other.length - 1 - count]) count++;
  return count;
}

/** Where words stand in a text; null where they do not, or more than once. */
function onlyPlace(text: string, words: string): number | null {
  const at = text.indexOf(words);
  return at >= 0 && text.indexOf(words, at + 1) < 0 ? at : null;
}

/** Follows a stretch by the words that stayed, and by what stands where words of it went. */
function byWords({ onText, from, to }: Stretch, text: string, language: string): Followed {
  const pieces = compareText(onText, text, language);
  let [before, after, start, end] = [0, 0, 0, 0];
  for (const [index, { kind, text: part }] of pieces.entries()) {
    const next = pieces[index + 1];
    const holds = (at: number) => kind !== 'new' && before <= at && at < before + part.length;
    if (kind === 'same' && holds(from) && holds(to - 1)) return { state: 'stands', from: after + from - before, to: after + to - before };
    if (holds(from)) start = kind === 'same' ? after + from - before : after;
    // what took the place of its last words belongs to it
    if (holds(to - 1)) end = kind === 'same' ? after + to - before : after + (next?.kind === 'new' ? next.text.length : 0);
    if (kind !== 'new') before += part.length;
    if (kind !== 'gone') after += part.length;
  }
  return start < end ? { state: 'changed', from: start, to: end } : { state: 'gone', from: start, to: start };
}

/**
 * The sentences of a text, each on one line, without the blanks round them: what can be pointed at without dragging.
 * @param language by whose rules sentences are told apart (BCP 47)
 * @see UAX #29, sentence boundaries (`Intl.Segmenter`)
 */
export function sentencesIn(text: string, language = 'en'): { from: number; to: number }[] {
  const sentences: { from: number; to: number }[] = [];
  for (const { segment, index } of new Intl.Segmenter(language, { granularity: 'sentence' }).segment(text))
    for (const { 0: part, index: at } of segment.matchAll(/[^\n]+/gu)) {
      const from = index + at + (part.length - part.trimStart().length);
      const words = part.trim();
      if (words !== '') sentences.push({ from, to: from + words.length });
    }
  return sentences;
}

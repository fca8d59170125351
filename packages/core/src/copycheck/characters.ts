const GRAPHEMES = new Intl.Segmenter('en', { granularity: 'grapheme' });

/** Characters as people perceive them, each as the text that it is. @see UAX #29, extended grapheme clusters (`Intl.Segmenter`) */
export const charactersOf = (text: string): string[] => [...GRAPHEMES.segment(text)].map(({ segment }) => segment);

/** How many characters people perceive in a text. @see UAX #29 */
export function countCharacters(text: string): number {
  // what nobody composes of several code units is counted without segmenting, which is slow over long texts
  if (/^[\n\x20-\x7e]*$/.test(text)) return text.length;
  let count = 0;
  for (const _ of GRAPHEMES.segment(text)) count += 1;
  return count;
}

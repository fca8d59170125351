import { diffArrays } from 'diff';

/** A stretch of two texts: in both, only in the one before, or only in the one after. */
export interface TextPiece {
  readonly kind: 'same' | 'gone' | 'new';
  readonly text: string;
}

/** Texts that differ by more words than this are compared by lines: by words it would take seconds. */
const MOST_WORDS = 1_000;

/**
 * How a text became another, by words as people see them: all that is `same` or `gone` is the text before, all that is `same` or `new` the one
 * after, character for character. Of what changed side by side, `gone` comes first. A blank between two changed words changed with them.
 * @param language by whose rules words are told apart (BCP 47)
 * @see Myers 1986, An O(ND) Difference Algorithm and Its Variations, as the package `diff` has it; UAX #29 word boundaries (`Intl.Segmenter`)
 */
export function compareText(before: string, after: string, language = 'en'): TextPiece[] {
  if (before === after) return before === '' ? [] : [{ kind: 'same', text: before }];
  const words = wordsOf(language);
  // typed as never undefined without the bound
  const byWords = diffArrays(words(before), words(after), { maxEditLength: MOST_WORDS }) as
    ReturnType<typeof diffArrays<string>> | undefined;
  const found = (byWords ?? diffArrays(linesOf(before), linesOf(after))).map(({ added, removed, value }): TextPiece => ({
    kind: added ? 'new' : removed ? 'gone' : 'same',
    text: value.join(''),
  }));
  return joined(found);
}

const wordsOf = (language: string) => {
  const segmenter = new Intl.Segmenter(language, { granularity: 'word' });
  // taken apart where words end in any language first: the segmenter is slow on long texts
  return (text: string): string[] =>
    text.split(/(?<=\s)(?=[\p{L}\p{N}])/u).flatMap((part) => [...segmenter.segment(part)].map(({ segment }) => segment));
};
const linesOf = (text: string): string[] => text.split(/(?<=\n)/);

/** Blanks between changes go with them, and of each stretch of changes there is one piece of a kind. */
function joined(found: readonly TextPiece[]): TextPiece[] {
  const pieces: TextPiece[] = [];
  let [gone, come] = ['', ''];
  const flush = () => {
    if (gone) pieces.push({ kind: 'gone', text: gone });
    if (come) pieces.push({ kind: 'new', text: come });
    [gone, come] = ['', ''];
  };
  for (const [index, { kind, text }] of found.entries()) {
    const isBetween = kind === 'same' && text.trim() === '' && (gone !== '' || come !== '') && index < found.length - 1;
    if (kind === 'gone' || isBetween) gone += text;
    if (kind === 'new' || isBetween) come += text;
    if (kind !== 'same' || isBetween) continue;
    flush();
    pieces.push({ kind, text });
  }
  flush();
  return pieces;
}

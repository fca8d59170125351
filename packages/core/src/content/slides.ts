/** One slide's words, and where they stand in the text that has them all. */
export interface SlideWords {
  /** from 1: the picture of the same place stands with it */
  readonly number: number;
  readonly words: string;
  readonly from: number;
  readonly to: number;
}

/** A paragraph that begins with its number: `2. Words`. */
const NUMBERED = /^(\d{1,3})[.)]\s+/;

/** The highest number that leaves slides before it without words: a higher one (`900. visitor`) is what the slide says. */
const SLIDES_BETWEEN = 50;

/**
 * The words of slides, as they stand in one text: each paragraph is a slide, apart by an empty line. One that begins with a number higher than those
 * before it is that slide (those between have no words, up to `SLIDES_BETWEEN`); any other is the next.
 */
export function slideWords(text: string): SlideWords[] {
  const slides: SlideWords[] = [];
  for (const { 0: paragraph, index } of text.matchAll(/\S[^]*?(?=\n[^\S\n]*\n|\s*$)/g)) {
    const next = (slides.at(-1)?.number ?? 0) + 1;
    const [mark = '', said = ''] = NUMBERED.exec(paragraph) ?? [];
    const isSaid = mark !== '' && Number(said) >= next && Number(said) <= Math.max(next, SLIDES_BETWEEN);
    const from = index + (isSaid ? mark.length : 0);
    slides.push({
      number: isSaid ? Number(said) : next,
      words: text.slice(from, index + paragraph.length),
      from,
      to: index + paragraph.length,
    });
  }
  return slides;
}

/** The text that has the words of slides in their order, numbered; a slide without words is left out, and keeps its number. */
export const slidesText = (words: readonly string[]): string =>
  words
    .map((each) => each.trim().replace(/\n(?:[^\S\n]*\n)+/g, '\n'))
    .flatMap((each, index) => (each === '' ? [] : [`${index + 1}. ${each}`]))
    .join('\n\n');

/**
 * How alike two texts are, by the trigrams they share: the same values as PostgreSQL's pg_trgm, whose index finds the candidates that are scored
 * and explained here.
 * @see PostgreSQL documentation, F.35 pg_trgm: trigram concepts
 */

/** The words of a text: runs of letters and digits, in small letters. */
const wordsOf = (text: string): string[] => text.toLowerCase().match(/[\p{L}\p{N}]+/gu) ?? [];

/** The trigrams of a text in their order: of each word with two spaces before it and one after. */
function orderedTrigrams(text: string): string[] {
  return wordsOf(text).flatMap((word) => {
    const signs = [...`  ${word} `];
    return signs.slice(2).map((sign, at) => `${signs[at]}${signs[at + 1]}${sign}`);
  });
}

/** The set of trigrams of a text. */
export const trigramsOf = (text: string): ReadonlySet<string> => new Set(orderedTrigrams(text));

function shareOf(a: ReadonlySet<string>, b: ReadonlySet<string>): number {
  let common = 0;
  for (const trigram of a) if (b.has(trigram)) common += 1;
  const all = a.size + b.size - common;
  return all === 0 ? 0 : common / all;
}

/** How alike two texts are as a whole, 0 to 1: trigrams in common ÷ trigrams in either. */
export const similarity = (a: string, b: string): number => shareOf(trigramsOf(a), trigramsOf(b));

/** How alike a text is to the stretch of another that is most like it, 0 to 1. */
export function wordSimilarity(part: string, whole: string): number {
  const wanted = trigramsOf(part);
  const ordered = orderedTrigrams(whole);
  let best = 0;
  for (let from = 0; from < ordered.length; from += 1) {
    // a stretch that is most alike begins and ends with something that is wanted
    if (!wanted.has(ordered[from] ?? '')) continue;
    const stretch = new Set<string>();
    for (let to = from; to < ordered.length; to += 1) {
      const trigram = ordered[to] ?? '';
      stretch.add(trigram);
      if (wanted.has(trigram)) best = Math.max(best, shareOf(wanted, stretch));
    }
  }
  return best;
}

/** So much alike is worth telling: PostgreSQL's own default. */
export const ALIKE = 0.3;
/** Words that say nothing about what something is about. */
const LEAST_LETTERS = 3;

/** The words that two texts share, in the order of the first: why they are called alike. */
export function sharedWords(a: string, b: string): string[] {
  const others = new Set(wordsOf(b));
  return [...new Set(wordsOf(a))].filter((word) => word.length >= LEAST_LETTERS && others.has(word));
}

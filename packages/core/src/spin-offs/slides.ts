const MARKED = /^(#{1,6})\s+(.*\S)\s*$/;
/** So long may a line be that counts as a heading without a mark, in characters. */
const HEADING_MOST = 80;

interface Heading {
  readonly words: string;
  /** 1 is the highest */
  readonly level: number;
  /** the line on which it stands, from 0 */
  readonly line: number;
}

/**
 * The slides of an article, one per main heading with the first paragraph below it, numbered.
 * A heading is a line that begins with `#`s and a space; where no line does, a short line that stands alone and ends without a mark of a sentence.
 * The main ones are those of the highest level of which there are at least two, else of the highest there is. What stands before the first is left out.
 * @returns each slide as its text; the whole as the only one where there is no heading, and none of an empty text
 */
export function slidesOf(text: string): string[] {
  const lines = text.replace(/\r\n?/g, '\n').split('\n');
  const headings = headingsOf(lines);
  const main = mainOf(headings);
  if (main.length === 0) return text.trim() === '' ? [] : [text.trim()];
  const ends = new Set(headings.map(({ line }) => line));
  return main.map(({ words, line }, index) => [`${index + 1}. ${words}`, paragraphAfter(lines, line, ends)].filter(Boolean).join('\n'));
}

function headingsOf(lines: readonly string[]): Heading[] {
  const marked = lines.flatMap((text, line): Heading[] => {
    const [, marks, words] = MARKED.exec(text) ?? [];
    return marks !== undefined && words !== undefined ? [{ words, level: marks.length, line }] : [];
  });
  if (marked.length > 0) return marked;
  const isEmpty = (line: number) => (lines[line] ?? '').trim() === '';
  return lines.flatMap((text, line): Heading[] => {
    const words = text.trim();
    const isAlone = isEmpty(line - 1) && isEmpty(line + 1) && line + 1 < lines.length;
    return words !== '' && isAlone && [...words].length <= HEADING_MOST && !/[.!?:;,…]$/u.test(words) ? [{ words, level: 1, line }] : [];
  });
}

function mainOf(headings: readonly Heading[]): Heading[] {
  const levels = [...new Set(headings.map(({ level }) => level))].sort((a, b) => a - b);
  const at = (level: number | undefined) => headings.filter((heading) => heading.level === level);
  return at(levels.find((level) => at(level).length > 1) ?? levels[0]);
}

/** The lines of the first paragraph below a line, up to an empty one or the next heading. */
function paragraphAfter(lines: readonly string[], line: number, ends: ReadonlySet<number>): string {
  const found: string[] = [];
  for (let at = line + 1; at < lines.length && !ends.has(at); at++) {
    const words = (lines[at] ?? '').trim();
    if (words !== '') found.push(words);
    else if (found.length > 0) break;
  }
  return found.join('\n');
}

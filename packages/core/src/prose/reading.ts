import { readProse } from './marks.js';
import type { ProseBlock, ProseItem, ProseRun, ReadRun } from './model.js';

/** Words with the address behind those that lead to one, unless they are it. */
function wordsOfRuns(runs: readonly ProseRun[]): string {
  return runs
    .map(({ text, link }, index) => {
      if (link === null || runs[index + 1]?.link === link) return text;
      const begin = runs.slice(0, index).findLastIndex((run) => run.link !== link) + 1;
      const linked = runs
        .slice(begin, index + 1)
        .map((run) => run.text)
        .join('');
      const address = link.replace(/^(mailto|tel):/i, '');
      return linked.trim() === address || linked.trim() === link ? text : `${text} (${address})`;
    })
    .join('');
}

interface WordsOptions {
  /** what stands before a heading of a level; usually nothing */
  readonly beforeHeading?: (level: number) => string;
}

const wordsOfBlock = (block: ProseBlock, options: WordsOptions): string => {
  switch (block.kind) {
    case 'paragraph':
      return wordsOfRuns(block.runs);
    case 'heading':
      return `${options.beforeHeading?.(block.level) ?? ''}${wordsOfRuns(block.runs)}`;
    case 'list':
      return block.items.map((item, index) => wordsOfItem(item, block.isOrdered ? `${index + 1}. ` : '• ', options)).join('\n');
  }
};

const wordsOfItem = (item: ProseItem, mark: string, options: WordsOptions): string => {
  const lines = item
    .map((block) => wordsOfBlock(block, options))
    .join('\n')
    .split('\n');
  return lines.map((line, index) => `${index === 0 ? mark : '  '}${line}`).join('\n');
};

/** A copy that is laid out as words alone, for where nothing can be laid out: headings on their own lines, points of lists behind a dot or number, addresses behind their words. */
export const proseWords = (source: string, options: WordsOptions = {}): string =>
  readProse(source)
    .map((block) => wordsOfBlock(block, options))
    .join('\n\n');

/** The same with its headings marked by number signs, so that what is made from headings finds them. */
export const headingMarks = (source: string): string => proseWords(source, { beforeHeading: (level) => `${'#'.repeat(level)} ` });

/** The runs of each paragraph, heading and point of a list. */
export const linesIn = (block: ProseBlock<ReadRun>): (readonly ReadRun[])[] =>
  block.kind === 'list' ? block.items.flatMap((item) => item.flatMap(linesIn)) : [block.runs];

/** What is read of a source from one UTF-16 unit of it up to another, without its marks; blocks apart by a blank. */
export const wordsBetween = (source: string, from: number, to: number): string =>
  readProse(source)
    .flatMap(linesIn)
    .map((runs) =>
      runs
        .flatMap((run) => {
          if (run.to <= from || to <= run.from) return [];
          const isWhole = run.text.length !== run.to - run.from;
          return [isWhole ? run.text : run.text.slice(Math.max(0, from - run.from), to - run.from)];
        })
        .join(''),
    )
    .filter((words) => words !== '')
    .join(' ');

const escaped = (text: string): string =>
  text.replace(/[&<>"]/g, (sign) => ({ '&': '&amp;', '<': '&lt;', '>': '&gt;', '"': '&quot;' })[sign] ?? sign);

const htmlOfRuns = (runs: readonly ProseRun[]): string =>
  runs
    .map(({ text, isStrong, isEmphasis, link }) => {
      const words = escaped(text).replace(/\n/g, '<br>');
      const emphasised = isEmphasis ? `<em>${words}</em>` : words;
      const strong = isStrong ? `<strong>${emphasised}</strong>` : emphasised;
      return link === null ? strong : `<a href="${escaped(link)}">${strong}</a>`;
    })
    .join('');

const htmlOfBlock = (block: ProseBlock): string => {
  switch (block.kind) {
    case 'paragraph':
      return `<p>${htmlOfRuns(block.runs)}</p>`;
    case 'heading': // the first is the title's
      return `<h${block.level + 1}>${htmlOfRuns(block.runs)}</h${block.level + 1}>`;
    case 'list': {
      const [name, items] = [block.isOrdered ? 'ol' : 'ul', block.items.map((item) => `<li>${htmlOfItem(item)}</li>`).join('')];
      return `<${name}>${items}</${name}>`;
    }
  }
};

/** The only words of a point stand in no paragraph of their own. */
const htmlOfItem = (item: ProseItem): string => {
  const isLoose = item.filter(({ kind }) => kind === 'paragraph').length > 1;
  return item.map((block) => (block.kind === 'paragraph' && !isLoose ? htmlOfRuns(block.runs) : htmlOfBlock(block))).join('');
};

/** A copy that is laid out as HTML, for what takes that: pages, letters, the clipboard. Only what `ProseBlock` has is in it. @see HTML Living Standard */
export const proseHtml = (source: string): string => readProse(source).map(htmlOfBlock).join('\n');

/** How many words people count in a text. @param language by whose rules (BCP 47) @see UAX #29 word boundaries (`Intl.Segmenter`) */
export function wordCount(text: string, language = 'en'): number {
  let count = 0;
  for (const { isWordLike } of new Intl.Segmenter(language, { granularity: 'word' }).segment(text)) if (isWordLike) count += 1;
  return count;
}

import type { Break, Emphasis, Link, List, ListItem, Nodes, Paragraph, PhrasingContent, RootContent, Strong, Text } from 'mdast';
import { fromMarkdown } from 'mdast-util-from-markdown';
import { toMarkdown } from 'mdast-util-to-markdown';
import { isSafeLink, type ProseBlock, type ProseItem, type ProseRun, type ReadRun } from './model.js';

/** What CommonMark has and a copy has not: it stands there as it was written. */
const NOT_READ = [
  'autolink',
  'blockQuote',
  'codeFenced',
  'codeIndented',
  'codeText',
  'definition',
  'htmlFlow',
  'htmlText',
  'labelStartImage',
  'setextUnderline',
  'thematicBreak',
];

/**
 * Reads a copy that is laid out. It is written in a part of CommonMark: headings (#, ##, ###), lists (-, 1.), `[links](address)`, `**strong**`, `*emphasis*`; whatever else
 * stands there is words. Every text can be read.
 * @see CommonMark 0.31, as the packages micromark and mdast-util-from-markdown have it
 */
export function readProse(source: string): ProseBlock<ReadRun>[] {
  let from = 0;
  return sectionsOf(source).flatMap((section) => {
    const blocks = readSection(section).map((block) => movedBlock(block, from));
    from += section.length;
    return blocks;
  });
}

/**
 * A source cut where whatever stood before ends, so that each section reads by itself as it does in the whole: before a heading, and behind an empty line before what
 * neither goes on with a list nor lies in one.
 */
const sectionsOf = (source: string): string[] => source.split(/(?<=\n)(?=#{1,6}(?:[ \t]|\r?\n|$))|(?<=(?:^|\n)[ \t]*\r?\n)(?=[^\s\-*+\d])/);

/** So much of what was read and written is kept: while somebody writes, all but one part is the same at every key. */
const KEPT = 2_000;
/** What is longer, in UTF-16 units, is done anew each time. */
const LONGEST_KEPT = 10_000;

/** A function that remembers what it gave for the texts that were asked for last. */
function remembering<Value>(make: (text: string) => Value): (text: string) => Value {
  const known = new Map<string, { readonly value: Value }>();
  return (text) => {
    if (text.length > LONGEST_KEPT) return make(text);
    const found = known.get(text) ?? { value: make(text) };
    known.delete(text);
    known.set(text, found); // the last that was asked for goes last
    const [oldest] = known.size > KEPT ? known.keys() : [];
    if (oldest !== undefined) known.delete(oldest);
    return found.value;
  };
}

/** The same without sections, which takes as long as the whole is. */
export const readWhole = (source: string): ProseBlock<ReadRun>[] =>
  fromMarkdown(source, { extensions: [{ disable: { null: NOT_READ } }] }).children.flatMap((node) => blockOf(node, source));

const readSection = remembering((section) => readWhole(section));

const movedRuns = (runs: readonly ReadRun[], by: number): ReadRun[] =>
  runs.map((run) => ({ ...run, from: run.from + by, to: run.to + by }));

function movedBlock<Block extends ProseBlock<ReadRun>>(block: Block, by: number): Block {
  if (by === 0) return block;
  return block.kind === 'list'
    ? { ...block, items: block.items.map((item) => item.map((part) => movedBlock(part, by))) }
    : { ...block, runs: movedRuns(block.runs, by) };
}

const NO_LOOK = { isStrong: false, isEmphasis: false, link: null };

function blockOf(node: RootContent | ListItem['children'][number], source: string): ProseBlock<ReadRun>[] {
  switch (node.type) {
    case 'heading': {
      const level = Math.min(node.depth, 3) as 1 | 2 | 3; // headings are six deep at most, and at least one
      const runs = runsOf(node.children, source, NO_LOOK);
      return runs.length === 0 ? [] : [{ kind: 'heading', level, runs }];
    }
    case 'paragraph': {
      const runs = runsOf(node.children, source, NO_LOOK);
      return runs.length === 0 ? [] : [{ kind: 'paragraph', runs }];
    }
    case 'list': {
      const items = node.children.map((item) => itemOf(item, source)).filter((item) => item.length > 0);
      return items.length === 0 ? [] : [{ kind: 'list', isOrdered: node.ordered === true, items }];
    }
    default:
      return [];
  }
}

/** A heading in a list is a line of it. */
const itemOf = (item: ListItem, source: string): ProseItem<ReadRun> =>
  item.children.flatMap((node) =>
    blockOf(node, source).map((block) => (block.kind === 'heading' ? { kind: 'paragraph' as const, runs: block.runs } : block)),
  );

function runsOf(nodes: readonly PhrasingContent[], source: string, look: Omit<ProseRun, 'text'>): ReadRun[] {
  return nodes.flatMap((node): ReadRun[] => {
    switch (node.type) {
      case 'text':
        return piecesOf(node, source).map((piece) => ({ ...piece, ...look }));
      case 'break':
        return [{ text: '\n', ...spanOf(node), ...look }];
      case 'strong':
        return runsOf(node.children, source, { ...look, isStrong: true });
      case 'emphasis':
        return runsOf(node.children, source, { ...look, isEmphasis: true });
      case 'link':
        return runsOf(node.children, source, { ...look, link: isSafeLink(node.url) ? node.url : look.link });
      default:
        return [];
    }
  });
}

const spanOf = ({ position }: Nodes) => ({ from: position?.start.offset ?? 0, to: position?.end.offset ?? 0 });

/** A text as it is read, in pieces that stand in the source word for word: what was escaped there stands apart. */
function piecesOf(node: Text, source: string): Pick<ReadRun, 'text' | 'from' | 'to'>[] {
  const { from, to } = spanOf(node);
  const pieces: { text: string; from: number; to: number }[] = [];
  let at = from;
  let isAlone = true;
  for (const unit of node.value) {
    const start = at;
    // blanks at the end and the beginning of a line are not read
    while (at < to && source[at] !== unit[0] && /[ \t\r]/.test(source[at] ?? '')) at++;
    const reference = source[at] === '&' && unit !== '&' ? /^&[#\w]+;/.exec(source.slice(at, to)) : null;
    if (source[at] === '\\' && source[at + 1] === unit) at++;
    const begins = at;
    at += reference ? reference[0].length : unit.length;
    const last = pieces.at(-1);
    // every end of a line begins a new one, as people see it who typed it
    const isLineEnd = unit === '\n';
    if (last && !isAlone && !isLineEnd && !reference && begins === start) {
      last.text += unit;
      last.to = at;
    } else pieces.push({ text: unit, from: begins, to: at });
    isAlone = reference !== null || isLineEnd;
  }
  return pieces;
}

/** Writes what is laid out as a source that reads as the same. Blocks without words are left out, and blanks where nobody sees them. */
export const writeProse = (blocks: readonly ProseBlock[]): string =>
  besideLists(blocks)
    .map((part) => writePart(JSON.stringify(part)))
    .filter((part) => part !== '')
    .join('\n\n');

/** Blocks by themselves, but lists that follow each other together: these need other signs to stay apart. */
function besideLists(blocks: readonly ProseBlock[]): ProseBlock[][] {
  const parts: ProseBlock[][] = [];
  for (const block of blocks) {
    const last = parts.at(-1);
    if (last?.[0]?.kind === 'list' && (block.kind === 'list' || isSilent(block))) last.push(block);
    else parts.push([block]);
  }
  return parts;
}

/** Whether nothing is left of a block where it is written. */
const isSilent = (block: ProseBlock): boolean => nodeOf(block).length === 0;

const writePart = remembering((part) => {
  const children = (JSON.parse(part) as ProseBlock[]).flatMap((block): RootContent[] => nodeOf(block)); // as `writeProse` gives it
  const options = { bullet: '-', emphasis: '*', strong: '*', listItemIndent: 'one', resourceLink: true } as const;
  return wholeCharacters(toMarkdown({ type: 'root', children }, options).trimEnd());
});

/** mdast-util-to-markdown writes a character beside a mark by its number, and of one that takes two UTF-16 units only the unit that is beside it. */
function wholeCharacters(source: string): string {
  const numbered = (pair: string) => `&#x${(pair.codePointAt(0) ?? 0).toString(16).toUpperCase()};`;
  const unit = (digits: string) => String.fromCharCode(parseInt(digits, 16));
  return source
    .replace(/&#x(D[89AB][\dA-F]{2});([\uDC00-\uDFFF])/g, (_, high: string, low: string) => numbered(unit(high) + low))
    .replace(/([\uD800-\uDBFF])&#x(D[C-F][\dA-F]{2});/g, (_, high: string, low: string) => numbered(high + unit(low)));
}

/** A text without any marks as a source that reads as it: its paragraphs, and its lines in them. */
export const asProse = (words: string): string =>
  writeProse(
    words
      .replace(/\r\n?/g, '\n')
      .split(/\n[ \t]*\n\s*/)
      .map((text) => ({ kind: 'paragraph', runs: [{ text, ...NO_LOOK }] })),
  );

function nodeOf(block: ProseBlock): RootContent[] {
  if (block.kind === 'list') {
    const items = block.items.map(itemNode).filter(({ children }) => children.length > 0);
    return items.length === 0
      ? []
      : [{ type: 'list', ordered: block.isOrdered, start: block.isOrdered ? 1 : null, spread: false, children: items } satisfies List];
  }
  const isHeading = block.kind === 'heading';
  const children = phrasing(tidyRuns(block.runs, isHeading));
  if (children.length === 0) return [];
  return [isHeading ? { type: 'heading', depth: block.level, children } : { type: 'paragraph', children }];
}

function itemNode(item: ProseItem): ListItem {
  const children = item.flatMap((block) => nodeOf(block) as (Paragraph | List)[]); // what an item has
  return { type: 'listItem', spread: children.filter(({ type }) => type === 'paragraph').length > 1, children };
}

/** Runs as they can be read again: a block and its lines begin and end with a word, no line is empty, blanks look like the words on both of their sides, and ends of lines like nothing. */
function tidyRuns(runs: readonly ProseRun[], isOneLine: boolean): ProseRun[] {
  const units = runs.flatMap(({ text, link, ...look }) => {
    const safe = { ...look, link: link !== null && isSafeLink(link) ? link : null };
    return [...text.replace(/\r\n?/g, '\n')].map((unit) => ({ ...safe, text: unit === '\n' && isOneLine ? ' ' : unit }));
  });
  const isBlank = ({ text }: ProseRun) => /^\s$/u.test(text);
  const kept: ProseRun[] = [];
  let blanks = '';
  for (const unit of units) {
    if (isBlank(unit)) {
      blanks += unit.text;
      continue;
    }
    const before = kept.at(-1);
    if (before && blanks.includes('\n')) kept.push({ text: '\n', ...NO_LOOK });
    else if (before && blanks !== '')
      kept.push({
        text: blanks,
        isStrong: before.isStrong && unit.isStrong,
        isEmphasis: before.isEmphasis && unit.isEmphasis,
        link: before.link === unit.link ? unit.link : null,
      });
    blanks = '';
    kept.push(unit);
  }
  return joinedRuns(kept);
}

const sameLook = (one: ProseRun, other: ProseRun) =>
  one.isStrong === other.isStrong && one.isEmphasis === other.isEmphasis && one.link === other.link;

function joinedRuns(runs: readonly ProseRun[]): ProseRun[] {
  const joined: ProseRun[] = [];
  for (const run of runs) {
    const last = joined.at(-1);
    if (last && sameLook(last, run)) joined[joined.length - 1] = { ...last, text: last.text + run.text };
    else joined.push(run);
  }
  return joined;
}

/** Runs that share something, one after the other. */
function grouped<Key>(runs: readonly ProseRun[], keyOf: (run: ProseRun) => Key): [Key, ProseRun[]][] {
  const groups: [Key, ProseRun[]][] = [];
  for (const run of runs) {
    const last = groups.at(-1);
    if (last && last[0] === keyOf(run)) last[1].push(run);
    else groups.push([keyOf(run), [run]]);
  }
  return groups;
}

const phrasing = (runs: readonly ProseRun[]): PhrasingContent[] =>
  grouped(runs, ({ link }) => link).flatMap(([link, linked]): PhrasingContent[] => {
    const inside = grouped(linked, ({ isStrong }) => isStrong).flatMap(([isStrong, strong]): PhrasingContent[] => {
      const words = grouped(strong, ({ isEmphasis }) => isEmphasis).flatMap(([isEmphasis, emphasised]): PhrasingContent[] => {
        const texts = emphasised.flatMap(({ text }) => textNodes(text));
        return isEmphasis ? [{ type: 'emphasis', children: texts } satisfies Emphasis] : texts;
      });
      return isStrong ? [{ type: 'strong', children: words } satisfies Strong] : words;
    });
    return link === null ? inside : [{ type: 'link', url: link, children: inside } satisfies Link];
  });

const textNodes = (text: string): (Text | Break)[] =>
  text
    .split('\n')
    .flatMap((line, index) => [
      ...(index > 0 ? [{ type: 'break' } satisfies Break] : []),
      ...(line === '' ? [] : [{ type: 'text', value: line } satisfies Text]),
    ]);

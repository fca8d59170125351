import type { JSONContent } from '@tiptap/core';
import type { ProseBlock, ProseItem, ProseRun } from '@zesting/core';

/** Blocks as the editor has them. It wants a paragraph even where there is nothing. */
export function toDocument(blocks: readonly ProseBlock[]): JSONContent {
  return { type: 'doc', content: blocks.length === 0 ? [{ type: 'paragraph' }] : blocks.map(toNode) };
}

function toNode(block: ProseBlock): JSONContent {
  switch (block.kind) {
    case 'paragraph':
      return { type: 'paragraph', content: block.runs.flatMap(toInline) };
    case 'heading':
      return { type: 'heading', attrs: { level: block.level }, content: block.runs.flatMap(toInline) };
    case 'list':
      return { type: block.isOrdered ? 'orderedList' : 'bulletList', content: block.items.map(toItem) };
  }
}

/** A point of a list begins with a paragraph in the editor. */
function toItem(item: ProseItem): JSONContent {
  const content = item.map(toNode);
  return { type: 'listItem', content: content[0]?.type === 'paragraph' ? content : [{ type: 'paragraph' }, ...content] };
}

function toInline({ text, isStrong, isEmphasis, link }: ProseRun): JSONContent[] {
  const marks = [
    ...(link === null ? [] : [{ type: 'link', attrs: { href: link } }]),
    ...(isStrong ? [{ type: 'bold' }] : []),
    ...(isEmphasis ? [{ type: 'italic' }] : []),
  ];
  return text
    .split('\n')
    .flatMap((line, index) => [
      ...(index > 0 ? [{ type: 'hardBreak' }] : []),
      ...(line === '' ? [] : [{ type: 'text', text: line, marks }]),
    ]);
}

/** What the editor has, as our own content model; whatever that does not know is its words. */
export const fromDocument = (document: JSONContent): ProseBlock[] => (document.content ?? []).flatMap(fromNode);

function fromNode(node: JSONContent): ProseBlock[] {
  switch (node.type) {
    case 'heading':
      return [{ kind: 'heading', level: levelOf(node.attrs?.['level']), runs: runsOf(node) }];
    case 'bulletList':
    case 'orderedList':
      return [{ kind: 'list', isOrdered: node.type === 'orderedList', items: (node.content ?? []).map(fromItem) }];
    default:
      return [{ kind: 'paragraph', runs: runsOf(node) }];
  }
}

const levelOf = (level: unknown): 1 | 2 | 3 => (level === 1 || level === 2 ? level : 3);

const fromItem = ({ content = [] }: JSONContent): ProseItem =>
  content.flatMap(fromNode).map((block) => (block.kind === 'heading' ? { kind: 'paragraph', runs: block.runs } : block));

const runsOf = ({ content = [] }: JSONContent): ProseRun[] =>
  content.map(({ type, text = '', marks = [] }) => {
    const link: unknown = marks.find((mark) => mark.type === 'link')?.attrs?.['href'];
    return {
      text: type === 'hardBreak' ? '\n' : text,
      isStrong: marks.some((mark) => mark.type === 'bold'),
      isEmphasis: marks.some((mark) => mark.type === 'italic'),
      link: typeof link === 'string' ? link : null,
    };
  });

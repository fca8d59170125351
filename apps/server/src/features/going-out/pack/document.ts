import { readProse, type ProseBlock, type ProseRun } from '@zesting/core';
import type * as Docx from 'docx';
import type { PackContents, Packed } from './contents.js';

const whenOf = ({ row }: Packed): string => `${row.on ?? ''}, ${row.at?.slice(0, 5) ?? ''} ${row.zone}: ${row.channelName}`;

/** The parts of a placement as a document tells them, in their order; empty ones are left out. */
const partsOf = ({ handOut, media }: Packed): readonly (readonly [head: string, text: string])[] =>
  (
    [
      ...handOut.texts.map(({ name, text }) => [name, text] as const),
      ['Text', handOut.text],
      ['Tags', handOut.tags],
      ['Link', handOut.link],
      ['First comment', handOut.firstComment],
      ['Files', media.map(({ name, alt }) => (alt === '' ? name : `${name} (${alt})`)).join('\n')],
    ] as const
  ).filter(([, text]) => text !== '');

const headOf = ({ client, from, to }: PackContents): string => `${client.name} (${client.code}), ${from} to ${to}`;

/** The pack as one plain text. */
export const textOf = (contents: PackContents): string =>
  [
    headOf(contents),
    ...contents.packed.map((packed) =>
      [whenOf(packed), packed.row.pieceTitle, ...partsOf(packed).map(([head, text]) => `${head}:\n${text}`)].join('\n\n'),
    ),
  ].join(`\n\n${'-'.repeat(40)}\n\n`) + '\n';

/** The pack as a document that word processors open: a heading per placement, below it what goes out. @see ISO/IEC 29500 */
export async function documentOf(contents: PackContents): Promise<Buffer> {
  const docx = await import('docx'); // large, and needed for packs alone
  const { Document, HeadingLevel, Packer, Paragraph, TextRun } = docx;
  const lines = (text: string) =>
    new Paragraph({ children: text.split('\n').map((line, index) => new TextRun({ text: line, ...(index > 0 ? { break: 1 } : {}) })) });
  return Packer.toBuffer(
    new Document({
      title: headOf(contents),
      numbering: { config: [numbersOf(docx)] },
      sections: [
        {
          children: [
            new Paragraph({ text: headOf(contents), heading: HeadingLevel.TITLE }),
            ...contents.packed.flatMap((packed) => [
              new Paragraph({ text: packed.row.pieceTitle, heading: HeadingLevel.HEADING_1 }),
              new Paragraph({ text: whenOf(packed) }),
              ...partsOf(packed).flatMap(([head, text]) => [
                new Paragraph({ text: head, heading: HeadingLevel.HEADING_2 }),
                ...(head === 'Text' && packed.handOut.laidOut !== null ? proseOf(docx, packed.handOut.laidOut) : [lines(text)]),
              ]),
            ]),
          ],
        },
      ],
    }),
  );
}

const NUMBERS = 'numbers';

/** How numbered lists count, three deep and more. */
const numbersOf = ({ LevelFormat, AlignmentType }: typeof Docx) => ({
  reference: NUMBERS,
  levels: Array.from({ length: 9 }, (_, level) => ({
    level,
    format: LevelFormat.DECIMAL,
    text: `%${level + 1}.`,
    alignment: AlignmentType.START,
    style: { paragraph: { indent: { left: 720 * (level + 1), hanging: 360 } } },
  })),
});

/** A text as it is laid out, its headings below those of the document. */
function proseOf(docx: typeof Docx, source: string): Docx.Paragraph[] {
  const { Paragraph, HeadingLevel } = docx;
  const headings = [HeadingLevel.HEADING_3, HeadingLevel.HEADING_4, HeadingLevel.HEADING_5] as const;
  let lists = 0;
  const paragraphs = (block: ProseBlock, level: number, instance: number): Docx.Paragraph[] => {
    if (block.kind === 'paragraph') return [new Paragraph({ children: runsOf(docx, block.runs) })];
    if (block.kind === 'heading')
      return [new Paragraph({ children: runsOf(docx, block.runs), heading: headings[block.level - 1] ?? HeadingLevel.HEADING_5 })];
    const own = block.isOrdered ? ++lists : instance;
    const look = block.isOrdered ? { numbering: { reference: NUMBERS, level, instance: own } } : { bullet: { level } };
    return block.items.flatMap((item) =>
      item.flatMap((part, index) =>
        part.kind === 'paragraph'
          ? [new Paragraph({ children: runsOf(docx, part.runs), ...(index === 0 ? look : { indent: { left: 720 * (level + 1) } }) })]
          : paragraphs(part, Math.min(level + 1, 8), own),
      ),
    );
  };
  return readProse(source).flatMap((block) => paragraphs(block, 0, 0));
}

const runsOf = ({ ExternalHyperlink, TextRun }: typeof Docx, runs: readonly ProseRun[]): (Docx.TextRun | Docx.ExternalHyperlink)[] =>
  runs.map(({ text, isStrong, isEmphasis, link }) => {
    const look = { bold: isStrong, italics: isEmphasis, ...(link === null ? {} : { style: 'Hyperlink' }) };
    const run = text === '\n' ? new TextRun({ break: 1 }) : new TextRun({ text, ...look });
    return link === null ? run : new ExternalHyperlink({ link, children: [run] });
  });

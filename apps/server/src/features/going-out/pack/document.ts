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
  const { Document, HeadingLevel, Packer, Paragraph, TextRun } = await import('docx'); // large, and needed for packs alone
  const lines = (text: string) =>
    new Paragraph({ children: text.split('\n').map((line, index) => new TextRun({ text: line, ...(index > 0 ? { break: 1 } : {}) })) });
  return Packer.toBuffer(
    new Document({
      title: headOf(contents),
      sections: [
        {
          children: [
            new Paragraph({ text: headOf(contents), heading: HeadingLevel.TITLE }),
            ...contents.packed.flatMap((packed) => [
              new Paragraph({ text: packed.row.pieceTitle, heading: HeadingLevel.HEADING_1 }),
              new Paragraph({ text: whenOf(packed) }),
              ...partsOf(packed).flatMap(([head, text]) => [new Paragraph({ text: head, heading: HeadingLevel.HEADING_2 }), lines(text)]),
            ]),
          ],
        },
      ],
    }),
  );
}

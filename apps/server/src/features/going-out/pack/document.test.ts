import { strFromU8, unzipSync } from 'fflate';
import { handOut, type Content } from '@zesting/core';
import type { PackContents } from './contents.js';
import { documentOf, textOf } from './document.js';

const COPY = `# Rye & more

Start on **Thursday**\\
with [flour](https://kilnlane.test/rye?a=1&b=2).

1. Mix
2. Wait
   - a day
   - a night

Then:

1. Bake`;

/** As much of a pack as a document looks at. */
const packOf = (content: Content) =>
  ({
    client: { code: 'KILN', name: 'Kiln Lane' },
    from: '2027-03-01',
    to: '2027-03-07',
    packed: [
      {
        row: { on: '2027-03-04', at: '09:00', zone: 'Europe/London', channelName: 'Blog', pieceTitle: 'Rye' },
        handOut: handOut(content, 'blog'),
        media: [],
      },
    ],
  }) as unknown as PackContents;

describe('the document of a pack', () => {
  const content: Content = {
    shared: { copy: COPY, media: [], disclosure: 'Advert', isLaidOut: true },
    channels: { blog: { copy: '', tags: [], firstComment: '', link: '' } },
  };
  const parts = async (of: Content) => {
    const files = unzipSync(new Uint8Array(await documentOf(packOf(of))));
    const read = (name: string) => strFromU8(files[name] ?? new Uint8Array());
    return { document: read('word/document.xml'), links: read('word/_rels/document.xml.rels') };
  };
  /** The paragraphs from the text's heading on: style, list, words. */
  const paragraphs = (document: string) =>
    [...document.matchAll(/<w:p>(.*?)<\/w:p>/gs)].map(([, inside = '']) => {
      const one = (pattern: RegExp) => pattern.exec(inside)?.[1] ?? '';
      const words = [...inside.matchAll(/<w:t[^>]*>([^<]*)<\/w:t>|<w:br\/>/g)]
        .map(([all, text]) => (all === '<w:br/>' ? '/' : text))
        .join('');
      return [one(/<w:pStyle w:val="([^"]*)"/), one(/<w:numId w:val="([^"]*)"/), one(/<w:ilvl w:val="([^"]*)"/), words];
    });

  it('has headings, lists and links as such, below its own headings', async () => {
    const { document, links } = await parts(content);
    const said = paragraphs(document).slice(4);
    expect(said.map(([style, , , words]) => [style, words])).toEqual([
      ['Heading3', 'Rye &amp; more'],
      ['', 'Start on Thursday/with flour.'],
      ['ListParagraph', 'Mix'],
      ['ListParagraph', 'Wait'],
      ['ListParagraph', 'a day'],
      ['ListParagraph', 'a night'],
      ['', 'Then:'],
      ['ListParagraph', 'Bake'],
      ['', 'Advert'],
    ]);
    const [mix, wait, day, , , bake] = said.slice(2);
    expect(mix?.[1]).toBe(wait?.[1]);
    expect(bake?.[1]).not.toBe(mix?.[1]); // it counts from one again
    expect([mix?.[2], day?.[2]]).toEqual(['0', '1']);
    expect(document).toMatch(/<w:b\/><w:bCs\/>.*?<w:t[^>]*>Thursday</s);
    expect(links).toContain('Target="https://kilnlane.test/rye?a=1&amp;b=2"');
  });

  it('has words alone as lines', async () => {
    const { shared } = content;
    const plain = { ...content, shared: { copy: '# Rye\nBack', media: shared.media, disclosure: '' } };
    const { document } = await parts(plain);
    expect(paragraphs(document).slice(3)).toEqual([
      ['Heading2', '', '', 'Text'],
      ['', '', '', '# Rye/Back'],
    ]);
    expect(textOf(packOf(content))).toContain(
      'Text:\nRye & more\n\nStart on Thursday\nwith flour (https://kilnlane.test/rye?a=1&b=2).\n\n1. Mix',
    );
  });
});

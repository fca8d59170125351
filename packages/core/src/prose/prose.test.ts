import fc from 'fast-check';
import {
  asProse,
  headingMarks,
  proseHtml,
  proseWords,
  readProse,
  wordCount,
  wordsBetween,
  writeProse,
  type ProseBlock,
  type ProseItem,
  type ProseRun,
} from './index.js';
import { readWhole } from './marks.js';

const run = (text: string, look: Partial<ProseRun> = {}): ProseRun => ({ text, isStrong: false, isEmphasis: false, link: null, ...look });
const paragraph = (...runs: ProseRun[]): ProseBlock & { kind: 'paragraph' } => ({ kind: 'paragraph', runs });

/** Blocks as somebody sees them: runs that look alike are one. */
const seen = (blocks: readonly ProseBlock[]): unknown =>
  blocks.map((block): unknown => {
    if (block.kind === 'list') return [block.isOrdered ? 'ol' : 'ul', block.items.map((item) => seen(item))];
    const units = block.runs.flatMap(({ text, isStrong, isEmphasis, link }) =>
      [...text].map((unit) => [unit, /\s/.test(unit) ? '' : `${isStrong ? 's' : ''}${isEmphasis ? 'e' : ''}`, link ?? ''].join('|')),
    );
    return [block.kind === 'heading' ? `h${block.level}` : 'p', units.join(' ')];
  });

/** Every character that somebody sees, with how it looks. */
const characters = (blocks: readonly ProseBlock[]): unknown[] =>
  blocks.flatMap((block): unknown[] =>
    block.kind === 'list'
      ? block.items.flatMap((item) => characters(item))
      : block.runs.flatMap(({ text, ...look }) =>
          [...text.replace(/\s/g, '')].map((unit) => [unit, look.isStrong, look.isEmphasis, look.link]),
        ),
  );

const SOURCE = `# Rye in three days

Start on **Thursday**, *before* you [shop](https://kilnlane.test/rye).\\
Then wait.

## What you need

- flour
- water, [not too cold](https://kilnlane.test/water)
  1. still
  2. soft
- \\*time\\*`;

describe('a copy that is laid out', () => {
  it('is read into headings, lists, links and emphasis', () => {
    expect(seen(readProse(SOURCE))).toEqual(
      seen([
        { kind: 'heading', level: 1, runs: [run('Rye in three days')] },
        paragraph(
          run('Start on '),
          run('Thursday', { isStrong: true }),
          run(', '),
          run('before', { isEmphasis: true }),
          run(' you '),
          run('shop', { link: 'https://kilnlane.test/rye' }),
          run('.\nThen wait.'),
        ),
        { kind: 'heading', level: 2, runs: [run('What you need')] },
        {
          kind: 'list',
          isOrdered: false,
          items: [
            [paragraph(run('flour'))],
            [
              paragraph(run('water, '), run('not too cold', { link: 'https://kilnlane.test/water' })),
              { kind: 'list', isOrdered: true, items: [[paragraph(run('still'))], [paragraph(run('soft'))]] },
            ],
            [paragraph(run('*time*'))],
          ],
        },
      ]),
    );
    expect(writeProse(readProse(SOURCE))).toBe(SOURCE);
  });

  it('says the same as words alone', () => {
    expect(proseWords(SOURCE)).toBe(
      'Rye in three days\n\nStart on Thursday, before you shop (https://kilnlane.test/rye).\nThen wait.\n\nWhat you need\n\n• flour\n• water, not too cold (https://kilnlane.test/water)\n  1. still\n  2. soft\n• *time*',
    );
    expect(headingMarks('## A\n\nb')).toBe('## A\n\nb');
    expect(proseWords('[sam@kilnlane.test](mailto:sam@kilnlane.test) and [*our* **page**](https://a.test)')).toBe(
      'sam@kilnlane.test and our page (https://a.test)',
    );
  });

  it('says the same as HTML, and nothing that runs', () => {
    expect(proseHtml('# A & B\n\n**x *y***\\\nz\n\n1. one\n\n   two\n2. three')).toBe(
      '<h2>A &amp; B</h2>\n<p><strong>x </strong><strong><em>y</em></strong><br>z</p>\n<ol><li><p>one</p><p>two</p></li><li>three</li></ol>',
    );
    expect(proseHtml('[a](javascript:alert) <img src=x onerror=alert()> ![b](https://b.test/x.png)')).toBe(
      '<p>a &lt;img src=x onerror=alert()&gt; !<a href="https://b.test/x.png">b</a></p>',
    );
  });

  it('is quoted without its marks, from anywhere to anywhere', () => {
    const between = (first: string, last: string) => wordsBetween(SOURCE, SOURCE.indexOf(first), SOURCE.indexOf(last) + last.length);
    expect(between('Start on', 'Thursday')).toBe('Start on Thursday');
    expect(between('hursday', 'shop')).toBe('hursday, before you shop');
    expect(between('soft', '\\*time')).toBe('soft *time');
    expect(wordsBetween(SOURCE, 5, 5)).toBe('');
  });

  // what CommonMark 0.31 has and a copy has not; the numbers are those of its examples (from memory)
  it.each([
    ['a code block', '    a simple', 'a simple'],
    ['a quotation', '> bar', '> bar'],
    ['a line between', 'Foo\n\n***', 'Foo\n\n***'],
    ['a heading by its underline', 'Foo\n---', 'Foo\n---'],
    ['a fence', '```\na\n```', '```\na\n```'],
    ['HTML', '<div>\n*a*', '<div>\na'],
    ['a definition', '[foo]: /url', '[foo]: /url'],
  ])('takes %s for words', (_, source, words) => {
    expect(proseWords(source)).toBe(words);
  });

  it('says where its words stand in what was read', () => {
    const source = 'a\\*b **c**&#x20;d\n  e';
    const runs = readProse(source).flatMap((block) => (block.kind === 'list' ? [] : block.runs));
    expect(runs.map(({ text, from, to }) => [text, source.slice(from, to)])).toEqual([
      ['a', 'a'],
      ['*b ', '*b '],
      ['c', 'c'],
      [' ', '&#x20;'],
      ['d', 'd'],
      ['\n', '\n'],
      ['e', 'e'],
    ]);
  });

  const words = fc.oneof(
    fc.string({
      unit: fc.constantFrom('a', 'b', ' ', '*', '_', '#', '-', '1', '.', '[', ']', '(', ')', '\\', '&', '<', '`', '!', '\n', 'é', '👩🏽‍🍳'),
      maxLength: 12,
    }),
    fc.string({ maxLength: 8 }),
  );
  const runs = fc.array(
    fc.record({
      text: words,
      isStrong: fc.boolean(),
      isEmphasis: fc.boolean(),
      link: fc.constantFrom(null, null, 'https://a.test/(b)?c=*d*', 'mailto:a@b.test'),
    }),
    { maxLength: 5 },
  );
  const paragraphs = runs.map((all): ProseBlock & { kind: 'paragraph' } => paragraph(...all));
  const list = (depth: number): fc.Arbitrary<ProseBlock & { kind: 'list' }> =>
    fc.record({
      kind: fc.constant('list' as const),
      isOrdered: fc.boolean(),
      items: fc.array(
        fc
          .tuple(
            fc.array(paragraphs, { minLength: 1, maxLength: 2 }),
            depth > 0 ? fc.array(list(depth - 1), { maxLength: 1 }) : fc.constant([]),
          )
          .map(([all, below]): ProseItem => [...all, ...below]),
        { maxLength: 3 },
      ),
    });
  const block: fc.Arbitrary<ProseBlock> = fc.oneof(
    paragraphs,
    fc.record({ kind: fc.constant('heading' as const), level: fc.constantFrom(1, 2, 3), runs }) as fc.Arbitrary<ProseBlock>,
    list(1),
  );

  it('reads as what was written, whatever that is', () => {
    fc.assert(
      fc.property(fc.array(block, { maxLength: 4 }), (blocks) => {
        const source = writeProse(blocks);
        const read = readProse(source);
        expect(writeProse(read)).toBe(source);
        expect(characters(read)).toEqual(characters(blocks));
      }),
      { numRuns: 500 },
    );
  });

  it('reads section by section as it does in the whole', () => {
    const line = fc.constantFrom(
      '# A',
      '## B *c*',
      'words',
      '- point',
      '  - below',
      '1. one',
      '',
      '   # in',
      '#tag',
      '#',
      '\\# no',
      '> q',
      '    deep',
      '**open',
      'close**',
      'x\\',
    );
    fc.assert(
      fc.property(fc.array(line, { maxLength: 10 }), fc.constantFrom('\n', '\r\n'), (lines, end) => {
        const source = lines.join(end);
        expect(readProse(source)).toEqual(readWhole(source));
      }),
      { numRuns: 400 },
    );
  });

  it('loses no word of a text that has no marks, whatever stands in it', () => {
    fc.assert(
      fc.property(words, (text) => {
        const lines = text
          .replace(/\r\n?/g, '\n')
          .split('\n')
          .map((line) => line.trim())
          .join('\n')
          .replace(/\n{3,}/g, '\n\n')
          .trim();
        expect(proseWords(asProse(text))).toBe(lines);
      }),
      { numRuns: 500 },
    );
  });

  it('counts words as people do', () => {
    expect(wordCount('Don’t stop: 3 rye loaves, 👩🏽‍🍳!')).toBe(5);
    expect(wordCount('')).toBe(0);
  });
});

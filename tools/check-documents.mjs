// npm run check-documents: a pack's document of words (DOCX) is opened by Debian's LibreOffice without a window and made into a PDF, and what can be
// read there is compared with what was written. An outside look at what our own tests read only by its XML.
import { execFileSync } from 'node:child_process';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { build } from './build.mjs';
import { needModules, needPrograms, root, tell } from './prepare.mjs';

const COPY = `# Rye & more: “slow” bread

Start on **Thursday**\\
with [flour of Łódź](https://kilnlane.test/rye?a=1&b=2) – žitný, Größe, façade, 2 < 3.

1. Mix
2. Wait
   - a day
   - a night

Then:

1. Bake`;
/** The same as a reader sees it, line by line; LibreOffice gives points and numbers signs of their own. */
const READ = [
  'Rye & more: “slow” bread',
  'Start on Thursday',
  'with flour of Łódź – žitný, Größe, façade, 2 < 3.',
  '1. Mix',
  '2. Wait',
  'a day',
  'a night',
  'Then:',
  '1. Bake',
];

const channel = { copy: '', tags: ['rye', 'slowbread'], firstComment: 'Which loaf is yours?', link: 'https://kilnlane.test/rye' };
const contents = {
  laidOut: {
    shared: { copy: COPY, media: [], disclosure: 'Advertisement', isLaidOut: true, texts: [] },
    channels: { blog: channel },
  },
  words: {
    shared: { copy: '# no heading\nA second line *as it is*', media: [], disclosure: '' },
    channels: { blog: { ...channel, tags: [] } },
  },
};
/** What stands in the PDF, in its order. */
const expected = [
  'Kiln Lane (KILN), 2027-03-01 to 2027-03-07',
  'Rye, at last',
  '2027-03-04, 09:00 Europe/London: Blog',
  'Text',
  ...READ,
  'Advertisement',
  'Tags',
  '#rye #slowbread',
  'Link',
  'https://kilnlane.test/rye',
  'First comment',
  'Which loaf is yours?',
  'Words alone',
  '# no heading',
  'A second line *as it is*',
];

await tell(async () => {
  needModules();
  needPrograms({ soffice: 'libreoffice-writer-nogui', pdftotext: 'poppler-utils' });
  build();
  const { handOut } = await import('@zesting/core');
  const { documentOf } = await import('../apps/server/dist/features/going-out/pack/document.js');
  const packed = (pieceTitle, content) => ({
    row: { on: '2027-03-04', at: '09:00', zone: 'Europe/London', channelName: 'Blog', pieceTitle },
    handOut: handOut(content, 'blog'),
    media: [],
  });
  const pack = {
    client: { code: 'KILN', name: 'Kiln Lane' },
    from: '2027-03-01',
    to: '2027-03-07',
    packed: [packed('Rye, at last', contents.laidOut), packed('Words alone', contents.words)],
  };
  const folder = mkdtempSync(join(tmpdir(), 'zesting-documents-'));
  try {
    writeFileSync(join(folder, 'pack.docx'), await documentOf(pack));
    const profile = `-env:UserInstallation=file://${join(folder, 'profile')}`;
    execFileSync('soffice', [profile, '--headless', '--convert-to', 'pdf', '--outdir', folder, join(folder, 'pack.docx')], {
      stdio: 'ignore',
      timeout: 180_000,
      cwd: root,
    });
    const text = execFileSync('pdftotext', ['-layout', join(folder, 'pack.pdf'), '-'], { encoding: 'utf8' })
      .replace(/\s+/g, ' ')
      .replace(/(\d-) (?=\d)/g, '$1'); // a day may be broken at its line's end
    let from = 0;
    const missing = expected.filter((line) => {
      const at = text.indexOf(line, from);
      if (at >= 0) from = at + line.length;
      return at < 0;
    });
    console.log(`${expected.length - missing.length} of ${expected.length} lines stand in the PDF as they were written, in their order.`);
    for (const line of missing) console.error(`Missing, or not in its place: ${line}`);
    if (missing.length > 0) {
      console.error(text);
      process.exitCode = 1;
    }
  } finally {
    rmSync(folder, { recursive: true, force: true });
  }
});

import { join } from 'node:path';
import PDFDocument from 'pdfkit';
import { readProse, recordText, type ProseBlock, type ProseRun, type RecordedDecision, type SignOffRecord } from '@zesting/core';
import { FONTS } from '../../platform/files/picture-work.js';
import { fingerprint, publicKeyText, signDocument, signingKey } from '../../platform/signing.js';

const MARGIN = 56;
const INK = '#17251d';
const MUTED = '#56615a';

/** A moment in the client's zone, and as an instant. */
const moment = (at: string, zone: string): string => {
  const local = new Intl.DateTimeFormat('en-GB', { dateStyle: 'full', timeStyle: 'short', timeZone: zone }).format(new Date(at));
  return `${local} (${zone.split('/').at(-1)?.replaceAll('_', ' ') ?? zone}); ${at}`;
};

const STATE_WORDS: Record<string, string> = {
  signed: 'signed off',
  returned: 'changes asked',
  voided: 'changed after sign-off',
  open: 'not signed',
};

/**
 * The sign-off record as a PDF: what people read, the record itself as an attachment (`sign-off-record.json`, canonical JSON), and a
 * last line that signs every byte before it. `npm run verify-record` checks all three.
 */
export async function recordPdf(record: SignOffRecord, serverKey: Buffer): Promise<Buffer> {
  const key = signingKey(serverKey);
  const pdf = new PDFDocument({
    size: 'A4',
    margin: MARGIN,
    compress: false, // the attachment must be found without a PDF reader
    lang: 'en',
    tagged: true,
    displayTitle: true,
    info: { Title: `Sign-off record: ${record.piece.title}`, Author: record.agency, CreationDate: new Date(record.madeAt) },
  });
  const parts: Buffer[] = [];
  const ended = new Promise<void>((resolve, reject) => {
    pdf.on('data', (part: Buffer) => parts.push(part));
    pdf.on('end', resolve);
    pdf.on('error', reject);
  });
  pdf.registerFont('text', join(FONTS, 'DejaVuSans.ttf'));
  pdf.registerFont('bold', join(FONTS, 'DejaVuSans-Bold.ttf'));
  pdf.registerFont('emphasis', join(FONTS, 'DejaVuSans-Oblique.ttf'));
  pdf.registerFont('mono', join(FONTS, 'DejaVuSansMono.ttf'));
  write(pdf, record, fingerprint(publicKeyText(key)));
  pdf.file(Buffer.from(recordText(record)), {
    name: 'sign-off-record.json',
    type: 'application/json',
    description: 'The record, as canonical JSON (RFC 8785)',
  });
  pdf.end();
  await ended;
  return signDocument(Buffer.concat(parts), key);
}

type Pdf = InstanceType<typeof PDFDocument>;

const heading = (pdf: Pdf, text: string) => pdf.moveDown(0.9).font('bold').fontSize(12).fillColor(INK).text(text).moveDown(0.25);
const line = (pdf: Pdf, text: string, colour = INK) => pdf.font('text').fontSize(9.5).fillColor(colour).text(text);
const digest = (pdf: Pdf, name: string, hex: string) => {
  pdf.font('text').fontSize(8.5).fillColor(MUTED).text(name);
  pdf.font('mono').fontSize(7.5).fillColor(INK).text(hex);
};

function write(pdf: Pdf, record: SignOffRecord, keyName: string): void {
  pdf.font('bold').fontSize(18).fillColor(INK).text('Sign-off record');
  pdf.moveDown(0.2).font('text').fontSize(12).text(record.piece.title);
  line(pdf, `${record.client.name} (${record.client.code}), piece no. ${record.piece.number}, made by ${record.agency}`, MUTED);
  heading(pdf, 'How it stands');
  const newest = record.versions.at(-1);
  line(pdf, `Shared part: ${STATE_WORDS[record.signed.shared] ?? record.signed.shared}`);
  for (const [id, state] of Object.entries(record.signed.channels))
    line(pdf, `${record.channels[id] ?? id}: ${STATE_WORDS[state] ?? state}`);
  heading(pdf, 'What was decided');
  for (const decision of record.decisions) writeDecision(pdf, record, decision);
  heading(pdf, 'What it was decided about');
  for (const version of record.versions) {
    line(pdf, `Version ${version.number}, frozen ${moment(version.frozenAt, record.client.zone)}`);
    digest(pdf, 'Shared part, SHA-256', version.digests.shared);
    for (const [id, hex] of Object.entries(version.digests.channels)) digest(pdf, `${record.channels[id] ?? id}, SHA-256`, hex);
    pdf.moveDown(0.4);
  }
  if (newest) {
    heading(pdf, `The copy of version ${newest.number}`);
    for (const { name, text } of newest.content.shared.texts ?? []) line(pdf, `${name}: ${text}`);
    if (newest.content.shared.isLaidOut) writeProse(pdf, newest.content.shared.copy);
    else line(pdf, newest.content.shared.copy || '(none)');
    for (const [id, part] of Object.entries(newest.content.channels))
      if (part.copy.trim()) line(pdf, `${record.channels[id] ?? id}: ${part.copy}`, MUTED);
  }
  heading(pdf, 'How to check it');
  digest(
    pdf,
    `Head of the client’s chain after ${record.chain.sequence} ${record.chain.sequence === 1 ? 'decision' : 'decisions'}`,
    record.chain.head,
  );
  line(pdf, `Made ${moment(record.madeAt, record.client.zone)}. Signed with the agency’s key ${keyName}.`, MUTED);
  line(pdf, 'Check with: npm run verify-record -- this-file.pdf. A changed byte anywhere is refused.', MUTED);
}

/** A copy as it was laid out: headings in bold, points of lists behind their signs, links with where they lead. */
function writeProse(pdf: Pdf, source: string): void {
  for (const block of readProse(source)) writeBlock(pdf, block);
}

function writeBlock(pdf: Pdf, block: ProseBlock, mark = '', depth = 0): void {
  if (block.kind === 'list') {
    block.items.forEach((item, index) =>
      item.forEach((part, at) => writeBlock(pdf, part, at > 0 ? '' : block.isOrdered ? `${index + 1}. ` : '• ', depth + 1)),
    );
    return;
  }
  const isHeading = block.kind === 'heading';
  if (isHeading) pdf.moveDown(0.4);
  pdf.fontSize(isHeading ? 12 - block.level * 0.7 : 9.5).fillColor(INK);
  const runs: readonly ProseRun[] =
    mark === '' ? block.runs : [{ text: mark, isStrong: false, isEmphasis: false, link: null }, ...block.runs];
  for (const words of linesOf(runs)) writeLine(pdf, words, { left: MARGIN + depth * 12, isBold: isHeading });
  pdf.moveDown(0.25);
}

/** Runs line by line. */
function linesOf(runs: readonly ProseRun[]): ProseRun[][] {
  const lines: ProseRun[][] = [[]];
  for (const run of runs)
    if (run.text === '\n') lines.push([]);
    else lines.at(-1)?.push(run);
  return lines;
}

function writeLine(pdf: Pdf, runs: readonly ProseRun[], { left, isBold }: { readonly left: number; readonly isBold: boolean }): void {
  pdf.x = left;
  const width = pdf.page.width - MARGIN - left;
  runs.forEach(({ text, isStrong, isEmphasis, link }, index) => {
    // printed, a link says where it leads
    const words = link === null || runs[index + 1]?.link === link ? text : `${text} (${link})`;
    const look = { continued: index < runs.length - 1, link, underline: link !== null };
    pdf.font(isBold || isStrong ? 'bold' : isEmphasis ? 'emphasis' : 'text').text(words, { ...look, ...(index === 0 ? { width } : {}) });
  });
  pdf.x = MARGIN;
}

function writeDecision(pdf: Pdf, record: SignOffRecord, { contactName, round, head, record: said }: RecordedDecision): void {
  const version = record.versions.find(({ id }) => id === said.versionId);
  const what = said['verdict'] === 'approve' ? 'approved' : 'asked for changes to';
  line(pdf, `${contactName ?? record.agency} ${what} version ${version?.number ?? '?'}, round ${round}`);
  line(pdf, moment(String(said['decidedAt']), record.client.zone), MUTED);
  if (said['how']) line(pdf, `Recorded by the agency: ${String(said['how'])}`, MUTED);
  if (said['remark']) line(pdf, `“${String(said['remark'])}”`, MUTED);
  digest(pdf, `Link ${said.sequence} of the client’s chain`, head);
  pdf.moveDown(0.4);
}

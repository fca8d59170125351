import { isAutomatic } from '@zesting/core';
import { simpleParser, type Attachment, type ParsedMail } from 'mailparser';

/** A file that came with a mail. */
export interface MailFile {
  readonly name: string;
  readonly bytes: Uint8Array;
}

/** A mail as far as we make use of it. */
export interface ReadMail {
  /** as it stands in the mail, in angle brackets; empty where it has none, or none that could be kept */
  readonly messageId: string;
  /** the mails that it answers, newest first */
  readonly answers: readonly string[];
  readonly fromName: string;
  readonly fromEmail: string;
  readonly subject: string;
  /** plain; what only came as HTML is turned into it */
  readonly text: string;
  /** whether a machine wrote it */
  readonly isAutomatic: boolean;
  readonly files: readonly MailFile[];
}

/** Names that a file gets that came without one. */
const ENDINGS: Record<string, string> = {
  'image/png': 'picture.png',
  'image/jpeg': 'picture.jpg',
  'image/gif': 'picture.gif',
  'application/pdf': 'paper.pdf',
  'message/rfc822': 'mail.eml',
};

/**
 * Reads a mail: MIME (RFC 2045 to 2049) with names by RFC 2231.
 * @param returnPath the sender of the envelope, empty for reports
 */
export async function readMail(raw: Buffer, returnPath: string): Promise<ReadMail> {
  const mail = await simpleParser(raw, { skipTextToHtml: true, skipImageLinks: true });
  const [from] = mail.from?.value ?? [];
  const address = from?.address ?? from?.group?.[0]?.address ?? '';
  const named = from?.name.trim();
  return {
    messageId: /^<[^<>\s]{1,300}>$/.test(mail.messageId ?? '') ? (mail.messageId ?? '') : '',
    answers: answersOf(mail),
    fromName: oneLine(named || (address.split('@')[0] ?? '')),
    fromEmail: oneLine(address).toLowerCase(),
    subject: oneLine(mail.subject ?? ''),
    text: (mail.text ?? '').replaceAll('\r\n', '\n').trim(),
    isAutomatic: isAutomatic({
      autoSubmitted: headOf(mail, 'auto-submitted'),
      precedence: headOf(mail, 'precedence'),
      isOfList: mail.headerLines.some(({ key }) => key === 'list-id'),
      contentType: headOf(mail, 'content-type'),
      returnPath,
    }),
    files: mail.attachments.map((part) => ({ name: nameOf(part), bytes: part.content })),
  };
}

/** A head without signs that only steer: encoded words can hold any, and a database takes no NUL. */
const oneLine = (text: string): string => text.replace(/\p{Cc}+/gu, ' ').trim();

/** What it says it answers: `In-Reply-To` before the thread's `References` from its end. @see RFC 5322 3.6.4 */
function answersOf(mail: ParsedMail): string[] {
  const thread = [mail.references ?? []].flat().reverse();
  const ids = [mail.inReplyTo ?? '', ...thread].flatMap((text) => text.match(/<[^<>\s]{1,300}>/g) ?? []);
  return [...new Set(ids)].slice(0, 50);
}

/** A head's text, without its name. */
function headOf(mail: ParsedMail, name: string): string | null {
  const line = mail.headerLines.find(({ key }) => key === name)?.line;
  return line === undefined
    ? null
    : line
        .slice(name.length + 1)
        .replace(/\s+/g, ' ')
        .trim();
}

const nameOf = ({ filename, contentType }: Attachment): string => filename?.trim() || (ENDINGS[contentType] ?? 'file');

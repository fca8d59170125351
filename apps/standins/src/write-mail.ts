import type { IncomingMessage } from 'node:http';
import busboy from 'busboy';
import { createTransport } from 'nodemailer';

/** What is filled in to write a mail. */
export interface WrittenMail {
  readonly from: string;
  readonly to: string;
  readonly subject: string;
  readonly text: string;
  /** the Message-ID of the mail that it answers; empty for a new one */
  readonly answers: string;
  readonly files: readonly { readonly filename: string; readonly content: Buffer; readonly contentType: string }[];
}

/** The most that one file weighs, in bytes. */
const FILE_LIMIT_BYTES = 40 * 1024 * 1024;

/** Reads the form of a mail (multipart/form-data, RFC 7578). */
export function readWritten(request: IncomingMessage): Promise<WrittenMail> {
  return new Promise((resolve, reject) => {
    const fields = new Map<string, string>();
    const files: WrittenMail['files'][number][] = [];
    const form = busboy({ headers: request.headers, defParamCharset: 'utf8', limits: { fileSize: FILE_LIMIT_BYTES, files: 10 } });
    form.on('field', (name, value) => fields.set(name, value));
    form.on('file', (_name, stream, { filename, mimeType }) => {
      const parts: Buffer[] = [];
      stream.on('data', (part: Buffer) => parts.push(part));
      stream.on('end', () => {
        if (filename) files.push({ filename, content: Buffer.concat(parts), contentType: mimeType });
      });
    });
    form.on('error', reject);
    form.on('close', () => {
      const of = (name: string): string => fields.get(name)?.trim() ?? '';
      resolve({ from: of('from'), to: of('to'), subject: of('subject'), text: fields.get('text') ?? '', answers: of('answers'), files });
    });
    request.pipe(form);
  });
}

/** Sends it to where the application takes mail in. @returns null, or what it was told there */
export async function deliver(mail: WrittenMail, port: number): Promise<string | null> {
  const transport = createTransport({ host: '127.0.0.1', port, ignoreTLS: true });
  try {
    const { from, to, subject, text, answers, files } = mail;
    const threading = answers === '' ? {} : { inReplyTo: answers, references: answers };
    await transport.sendMail({ from, to, subject, text, attachments: [...files], ...threading });
    return null;
  } catch (error) {
    if (error instanceof Error && 'response' in error && typeof error.response === 'string') return error.response;
    return error instanceof Error ? error.message : 'unknown';
  } finally {
    transport.close();
  }
}

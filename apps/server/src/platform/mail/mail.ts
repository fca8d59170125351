import { Inject, Injectable, type OnModuleInit } from '@nestjs/common';
import { createTransport } from 'nodemailer';
import { CONFIG, type Config } from '../config/config.js';
import { addJob, Jobs } from '../jobs/jobs.js';
import type { Tx } from '../database/transaction.js';
import { randomUUID } from 'node:crypto';

export interface Mail {
  readonly to: string;
  readonly subject: string;
  /** paragraphs of plain text */
  readonly paragraphs: readonly string[];
  /** links, each on a line of its own */
  readonly links?: readonly { readonly text: string; readonly address: string }[];
}

interface QueuedMail extends Mail {
  readonly messageId: string;
}

const TASK = 'mail_send';

/** Puts a mail into the outbox: sent at least once after commit, always under the same Message-ID. */
export const queueMail = (tx: Tx, mail: Mail): Promise<void> =>
  addJob(tx, TASK, { ...mail, messageId: `<${randomUUID()}@mail.zesting.test>` } satisfies QueuedMail);

const escapeHtml = (text: string): string =>
  text.replace(/[&<>"]/g, (sign) => ({ '&': '&amp;', '<': '&lt;', '>': '&gt;', '"': '&quot;' })[sign] ?? sign);

/** The plain and the marked-up body of a mail. */
export function mailBodies(mail: Mail): { text: string; html: string } {
  const links = mail.links ?? [];
  return {
    text: [...mail.paragraphs, ...links.map((link) => `${link.text}: ${link.address}`)].join('\n\n'),
    html: [
      ...mail.paragraphs.map((paragraph) => `<p>${escapeHtml(paragraph).replaceAll('\n', '<br>')}</p>`),
      ...links.map((link) => `<p><a href="${escapeHtml(link.address)}">${escapeHtml(link.text)}</a></p>`),
    ].join('\n'),
  };
}

/** Sends queued mail by SMTP. */
@Injectable()
export class MailSender implements OnModuleInit {
  private readonly transport;

  constructor(
    @Inject(CONFIG) config: Config,
    private readonly jobs: Jobs,
  ) {
    this.transport = createTransport({ host: '127.0.0.1', port: config.smtpPort, secure: false, ignoreTLS: true });
  }

  onModuleInit(): void {
    this.jobs.register(TASK, async (payload) => {
      const mail = payload as QueuedMail; // written by queueMail alone
      await this.transport.sendMail({
        from: 'Zesting <desk@zesting.test>',
        to: mail.to,
        subject: mail.subject,
        messageId: mail.messageId,
        ...mailBodies(mail),
      });
    });
  }
}

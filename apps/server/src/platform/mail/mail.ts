import { Inject, Injectable, type OnApplicationShutdown, type OnModuleInit } from '@nestjs/common';
import { createTransport } from 'nodemailer';
import { CONFIG, type Config } from '../config/config.js';
import { addJob, Jobs } from '../jobs/jobs.js';
import type { Tx } from '../database/transaction.js';
import { randomUUID } from 'node:crypto';

export interface MailItem {
  readonly text: string;
  /** where it leads */
  readonly address: string;
}

export interface MailList {
  readonly title: string;
  readonly ordered: boolean;
  readonly items: readonly MailItem[];
}

export interface Mail {
  readonly to: string;
  readonly subject: string;
  /** paragraphs of plain text */
  readonly paragraphs: readonly string[];
  /** lists of things, each with its link */
  readonly lists?: readonly MailList[];
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
  const lists = mail.lists ?? [];
  return {
    text: [
      ...mail.paragraphs,
      ...lists.map((list) => [`${list.title}:`, ...list.items.map((item, index) => itemText(list, item, index))].join('\n')),
      ...links.map((link) => `${link.text}: ${link.address}`),
    ].join('\n\n'),
    html: [
      ...mail.paragraphs.map((paragraph) => `<p>${escapeHtml(paragraph).replaceAll('\n', '<br>')}</p>`),
      ...lists.map(listHtml),
      ...links.map((link) => `<p><a href="${escapeHtml(link.address)}">${escapeHtml(link.text)}</a></p>`),
    ].join('\n'),
  };
}

const itemText = ({ ordered }: MailList, item: MailItem, index: number): string =>
  `${ordered ? `${index + 1}.` : '-'} ${item.text}\n  ${item.address}`;

const listHtml = ({ title, ordered, items }: MailList): string => {
  const tag = ordered ? 'ol' : 'ul';
  const lines = items.map((item) => `<li><a href="${escapeHtml(item.address)}">${escapeHtml(item.text)}</a></li>`);
  return `<p>${escapeHtml(title)}:</p>\n<${tag}>${lines.join('')}</${tag}>`;
};

/** Sends queued mail by SMTP. */
@Injectable()
export class MailSender implements OnModuleInit, OnApplicationShutdown {
  private readonly transport;

  constructor(
    @Inject(CONFIG) config: Config,
    private readonly jobs: Jobs,
  ) {
    this.transport = createTransport({ pool: true, host: '127.0.0.1', port: config.smtpPort, secure: false, ignoreTLS: true });
  }

  onApplicationShutdown(): void {
    this.transport.close();
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

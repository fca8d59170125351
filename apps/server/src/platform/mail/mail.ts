import { Inject, Injectable, type OnApplicationShutdown, type OnModuleInit } from '@nestjs/common';
import { createTransport } from 'nodemailer';
import { CONFIG, type Config } from '../config/config.js';
import { addJob, Jobs } from '../jobs/jobs.js';
import { Database, type Tx } from '../database/transaction.js';
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
  /** where an answer goes, if not to the sender */
  readonly replyTo?: string;
  /** the Message-ID of the mail that this one answers by itself */
  readonly inReplyTo?: string;
}

interface QueuedMail extends Mail {
  readonly messageId: string;
}

const TASK = 'mail_send';

/** Puts a mail into the outbox: sent at least once after commit, always under the same Message-ID. @returns that */
export async function queueMail(tx: Tx, mail: Mail): Promise<string> {
  const queued: QueuedMail = { ...mail, messageId: messageId() };
  await addJob(tx, TASK, queued);
  return queued.messageId;
}

const messageId = (): string => `<${randomUUID()}@mail.zesting.test>`;

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

/** A mail that did not arrive, and whether it is tried again. */
export interface MailFailure {
  readonly to: string;
  readonly subject: string;
  /** what the mail server said, or why it could not be reached */
  readonly reason: string;
  readonly isFinal: boolean;
}

/** After so many tries (somewhat over an hour) somebody hears of a mail that still waits; after so many days of tries it is given up. */
const TRIES_BEFORE_WORD = 8;

/** Sends queued mail by SMTP. */
@Injectable()
export class MailSender implements OnModuleInit, OnApplicationShutdown {
  private readonly transport;
  private tellFailure: (failure: MailFailure) => Promise<void> = () => Promise.resolve();

  constructor(
    @Inject(CONFIG) private readonly config: Config,
    private readonly jobs: Jobs,
    private readonly database: Database,
  ) {
    const { host, port, tls, user, password } = config.smtp;
    this.transport = createTransport({
      pool: true,
      host,
      port,
      secure: tls === 'tls',
      requireTLS: tls === 'starttls',
      ignoreTLS: tls === 'none',
      ...(user === null ? {} : { auth: { user, pass: password ?? '' } }),
    });
  }

  /** Says who hears of mail that does not arrive. */
  onFailure(tell: (failure: MailFailure) => Promise<void>): void {
    this.tellFailure = tell;
  }

  onApplicationShutdown(): void {
    this.transport.close();
  }

  /** Sends a mail at once, without the outbox. Returns null, or why the mail server did not take it. */
  async tryOne(mail: Mail): Promise<string | null> {
    try {
      await this.send(mail, messageId());
      return null;
    } catch (error) {
      return reasonOf(error);
    }
  }

  private async send(mail: Mail, id: string): Promise<void> {
    const { to, subject, replyTo, inReplyTo } = mail;
    await this.transport.sendMail({
      from: await this.sender(),
      to,
      subject,
      messageId: id,
      ...(replyTo === undefined ? {} : { replyTo }),
      ...(inReplyTo === undefined ? {} : { inReplyTo, references: inReplyTo }),
      // so that what answers by itself at the other end keeps quiet (RFC 3834 5)
      headers: { 'Auto-Submitted': inReplyTo === undefined ? 'auto-generated' : 'auto-replied' },
      ...mailBodies(mail),
    });
  }

  /** Whom mail comes from: as the agency says, else as the installation does. */
  private async sender(): Promise<string | { name: string; address: string }> {
    const [agency] = await this.database.read<{ name: string | null; address: string | null }>(
      'select mail_name as name, mail_address as address from agencies',
    );
    return agency?.name && agency.address ? { name: agency.name, address: agency.address } : this.config.smtp.from;
  }

  onModuleInit(): void {
    this.jobs.register(TASK, async (payload, { job }) => {
      const mail = payload as QueuedMail; // written by queueMail alone
      try {
        await this.send(mail, mail.messageId);
      } catch (error) {
        // refused for good: trying again would change nothing. All else is tried again, and told once when that takes long
        const isFinal = isRefused(error) || job.attempts >= job.max_attempts;
        if (isFinal || job.attempts === TRIES_BEFORE_WORD)
          await this.tellFailure({ to: mail.to, subject: mail.subject, reason: reasonOf(error), isFinal });
        if (!isFinal) throw new Error(reasonOf(error), { cause: error });
      }
    });
  }
}

/** The mail server's own *no* to this mail or address: SMTP replies from 500 on. @see RFC 5321 4.2.1 */
function isRefused(error: unknown): boolean {
  const code = error instanceof Error && 'responseCode' in error ? error.responseCode : undefined;
  return typeof code === 'number' && code >= 500 && code < 600;
}

/** What was said, without the mail's own words. */
const reasonOf = (error: unknown): string => {
  if (error instanceof Error && 'response' in error && typeof error.response === 'string') return error.response.slice(0, 200);
  return error instanceof Error ? error.message.slice(0, 200) : 'unknown';
};

import { Inject, Injectable, type OnApplicationBootstrap, type OnApplicationShutdown } from '@nestjs/common';
import type { Logger } from 'pino';
import { SMTPServer, type SMTPServerDataStream, type SMTPServerSession } from 'smtp-server';
import { CONFIG, type Config } from '../config/config.js';
import { LOGGER } from '../logging.js';
import { Work } from '../work/work.js';
import type { MailRead, MailTask } from './read-mail.worker.js';
import type { ReadMail } from './read-mail.js';

/** The most that one mail may weigh, in bytes: a file of 25 MiB as mail carries it. */
export const MAIL_LIMIT_BYTES = 36 * 1024 * 1024;
/** So many senders are listened to at once; others wait at their end. */
const SENDERS = 8;
/** Within these a mail is read, or it is one that nobody meant well. */
const READING_MS = 20_000;

/** A mail that came, with all of its bytes. */
export interface CameIn {
  readonly mail: ReadMail;
  readonly raw: Buffer;
  /** to whom, as the envelope says: an address that is known */
  readonly to: string;
}

/** Who takes the mail in: a feature. */
export interface MailTaker {
  /** whether mail to that address is taken */
  readonly knows: (address: string) => Promise<boolean>;
  /** keeps a mail; only what it has kept is said to have arrived. `too_many`: the sender shall try again later */
  readonly take: (came: CameIn) => Promise<'kept' | 'too_many'>;
}

/** The address of a mailbox here; null where no mail is taken in. */
export const mailAddress = ({ inbox }: Config, mailbox: string): string | null => (inbox === null ? null : `${mailbox}@${inbox.domain}`);

/** The mailbox that an address means, without what stands behind `+`; undefined where it is none of ours. */
export function mailboxOf({ inbox }: Config, address: string): string | undefined {
  const at = address.lastIndexOf('@');
  if (inbox === null || address.slice(at + 1).toLowerCase() !== inbox.domain) return undefined;
  return address.slice(0, at).toLowerCase().split('+')[0];
}

/** What a sender's mail server is told. @see RFC 5321 4.2.3, RFC 3463 */
class Reply extends Error {
  constructor(
    readonly responseCode: number,
    words: string,
  ) {
    super(words);
  }
}

const REPLIES = {
  unknown: () => new Reply(550, '5.1.1 Nobody has this address'),
  tooLarge: () => new Reply(552, `5.3.4 Too large: at most ${MAIL_LIMIT_BYTES / 1024 / 1024} MB. Send a link instead`),
  unreadable: () => new Reply(554, '5.6.0 This mail cannot be read'),
  nobody: () => new Reply(554, '5.7.1 This mail does not say whom it is from'),
  tooMany: () => new Reply(451, '4.7.0 Too much mail within the hour: try again later'),
  later: () => new Reply(451, '4.3.0 Try again later'),
} as const;

/**
 * Takes mail in by SMTP, from the mail server in front (which keeps off what nobody wants). A mail is acknowledged once it is kept; what cannot be kept
 * is left with its sender, who tries again or hears why not.
 */
@Injectable()
export class Inbox implements OnApplicationBootstrap, OnApplicationShutdown {
  private taker: MailTaker | null = null;
  private server: SMTPServer | null = null;

  constructor(
    @Inject(CONFIG) private readonly config: Config,
    @Inject(LOGGER) private readonly logger: Logger,
    private readonly work: Work,
  ) {}

  /** Says who takes what comes. */
  register(taker: MailTaker): void {
    this.taker = taker;
  }

  /** Where it listens; undefined where no mail is taken in. */
  get port(): number | undefined {
    const address = this.server?.server.address();
    return typeof address === 'object' && address ? address.port : undefined;
  }

  async onApplicationBootstrap(): Promise<void> {
    const { inbox } = this.config;
    if (inbox === null) return;
    const server = new SMTPServer({
      name: inbox.domain,
      authOptional: true,
      disabledCommands: ['AUTH', 'STARTTLS'],
      logger: false,
      size: MAIL_LIMIT_BYTES,
      maxClients: SENDERS,
      socketTimeout: 60_000,
      closeTimeout: 2_000,
      onRcptTo: ({ address }, _session, done) => {
        this.knows(address).then(
          (isKnown) => done(isKnown ? null : REPLIES.unknown()),
          (error: unknown) => done(this.later(error)),
        );
      },
      onData: (stream, session, done) => {
        this.receive(stream, session).then(
          () => done(),
          (error: unknown) => done(error instanceof Reply ? error : this.later(error)),
        );
      },
    });
    server.on('error', (error) => this.logger.debug({ err: error }, 'a sender broke off')); // ends its own connection alone
    await new Promise<void>((resolve, reject) => {
      server.server.once('error', reject);
      server.listen(inbox.port, inbox.bindAddress, resolve);
    });
    this.server = server;
  }

  async onApplicationShutdown(): Promise<void> {
    const { server } = this;
    if (server) await new Promise<void>((resolve) => server.close(resolve));
  }

  private knows(address: string): Promise<boolean> {
    return this.taker?.knows(address) ?? Promise.resolve(false);
  }

  private later(error: unknown): Reply {
    this.logger.warn({ err: error }, 'a mail was not taken in, and is left with its sender');
    return REPLIES.later();
  }

  private async receive(stream: SMTPServerDataStream, { envelope }: SMTPServerSession): Promise<void> {
    const parts: Buffer[] = [];
    let bytes = 0;
    for await (const part of stream) {
      bytes += (part as Buffer).length; // no encoding is set: buffers
      if (bytes <= MAIL_LIMIT_BYTES) parts.push(part as Buffer);
    }
    if (bytes > MAIL_LIMIT_BYTES) throw REPLIES.tooLarge();
    const raw = Buffer.concat(parts);
    const mail = await this.read(raw, envelope.mailFrom ? envelope.mailFrom.address : '');
    for (const { address } of envelope.rcptTo)
      if ((await this.taker?.take({ mail, raw, to: address })) === 'too_many') throw REPLIES.tooMany();
  }

  private async read(raw: Buffer, returnPath: string): Promise<ReadMail> {
    const mail = await readBeside(this.work, raw, returnPath);
    if (!mail) throw REPLIES.unreadable();
    // what a machine reports may say nothing of itself; a person's mail can always be answered
    if (mail.fromEmail === '' && !mail.isAutomatic) throw REPLIES.nobody();
    return mail;
  }
}

/**
 * Reads a mail in a thread beside the server's; null where it cannot be read.
 * @throws Error where the thread ended on the way, or it took too long
 */
export const readBeside = (work: Work, raw: Buffer, returnPath: string): Promise<ReadMail | null> =>
  work.ask<MailTask, MailRead>(new URL('./read-mail.worker.js', import.meta.url), { raw, returnPath }, READING_MS);

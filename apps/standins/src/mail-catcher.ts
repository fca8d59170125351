import { simpleParser } from 'mailparser';
import { SMTPServer } from 'smtp-server';
import { mailPages } from './mail-pages.js';
import { MailStore } from './mail-store.js';

export interface MailCatcher {
  readonly store: MailStore;
  readonly close: () => Promise<void>;
}

export interface MailCatcherOptions {
  readonly smtpPort: number;
  readonly webPort: number;
  readonly folder: string | null;
  /** where the application takes mail in, by SMTP on loopback; null: it takes none */
  readonly inboxPort: number | null;
}

/** Receives mail by SMTP on loopback and shows it on a page, from which mail can be written too; nothing leaves the machine. */
export async function startMailCatcher(options: MailCatcherOptions): Promise<MailCatcher> {
  const store = new MailStore(options.folder);
  const smtp = new SMTPServer({
    authOptional: true,
    disabledCommands: ['STARTTLS', 'AUTH'],
    logger: false,
    onData(stream, _session, done) {
      simpleParser(stream).then(
        (mail) => {
          const to = [mail.to ?? []].flat().flatMap((list) => list.value.map((entry) => entry.address ?? ''));
          store.add({
            messageId: mail.messageId ?? '',
            to: to.join(', '),
            replyTo: mail.replyTo?.value[0]?.address ?? '',
            subject: mail.subject ?? '',
            text: mail.text ?? '',
            html: mail.html || '',
            arrivedAt: new Date().toISOString(),
          });
          done();
        },
        (error: unknown) => done(error instanceof Error ? error : new Error('unreadable mail')),
      );
    },
  });
  smtp.on('error', () => undefined); // a sender that breaks off ends its own connection, not the catcher
  await new Promise<void>((resolve) => smtp.listen(options.smtpPort, '127.0.0.1', resolve));
  const web = mailPages(store, options.inboxPort);
  await new Promise<void>((resolve, reject) => web.once('error', reject).listen(options.webPort, '127.0.0.1', resolve));
  const close = async () => {
    web.closeAllConnections();
    await Promise.all([new Promise<void>((resolve) => smtp.close(resolve)), new Promise((resolve) => web.close(resolve))]);
  };
  return { store, close };
}

import { createServer, type Server } from 'node:http';
import { simpleParser } from 'mailparser';
import { SMTPServer } from 'smtp-server';
import { MailStore, type CaughtMail } from './mail-store.js';

export interface MailCatcher {
  readonly store: MailStore;
  readonly close: () => Promise<void>;
}

/** Receives mail by SMTP on loopback and shows it on a page; nothing leaves the machine. */
export async function startMailCatcher(options: { smtpPort: number; webPort: number; folder: string | null }): Promise<MailCatcher> {
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
  const web = mailPages(store);
  await new Promise<void>((resolve, reject) => web.once('error', reject).listen(options.webPort, '127.0.0.1', resolve));
  const close = async () => {
    web.closeAllConnections();
    await Promise.all([new Promise<void>((resolve) => smtp.close(resolve)), new Promise((resolve) => web.close(resolve))]);
  };
  return { store, close };
}

const escape = (text: string): string =>
  text.replace(/[&<>"]/g, (sign) => ({ '&': '&amp;', '<': '&lt;', '>': '&gt;', '"': '&quot;' })[sign] ?? sign);

const STYLE = `body{font:15px/1.5 system-ui,sans-serif;background:#f7f6f1;color:#17251d;margin:0}main{max-width:46rem;margin:0 auto;padding:1.5rem}
h1{font-size:1.3rem}article{background:#fff;border:1px solid #dedcd2;border-radius:6px;padding:.9rem 1.1rem;margin:0 0 .8rem}
h2{font-size:1rem;margin:0 0 .3rem}p{margin:.4rem 0}.to{color:#5a655e;margin:0}a{color:#1e5b43}
@media(prefers-color-scheme:dark){body{background:#101914;color:#e9ece6}article{background:#18241d;border-color:#33433a}a{color:#9fd0b7}.to{color:#a9b5ad}}`;

const article = (mail: CaughtMail): string =>
  `<article><h2>${escape(mail.subject)}</h2><p class="to">to ${escape(mail.to)} · <time>${mail.arrivedAt.slice(0, 16).replace('T', ' ')} UTC</time></p>${mail.html}</article>`;

/** The pages: all mail, or `?to=address`; `/mails.json` for tests. The mails' own HTML was made and escaped by us. */
function mailPages(store: MailStore): Server {
  return createServer((request, response) => {
    const address = new URL(request.url ?? '/', 'http://localhost');
    const mails = store.list(address.searchParams.get('to') ?? undefined);
    if (address.pathname === '/mails.json') {
      response.writeHead(200, { 'Content-Type': 'application/json' }).end(JSON.stringify(mails));
      return;
    }
    const page = `<!doctype html><html lang="en"><head><meta charset="utf-8"><meta name="viewport" content="width=device-width"><title>Mail of the demo</title>
<link rel="icon" href="data:,"><style>${STYLE}</style></head><body><main><h1>Mail of the demo</h1><p>Nothing is really sent: all mail ends here. ${mails.length === 0 ? 'None has come yet.' : `${mails.length} shown, newest first.`}</p>
${mails.slice(0, 100).map(article).join('\n')}</main></body></html>`;
    response
      .writeHead(200, {
        'Content-Type': 'text/html; charset=utf-8',
        'Content-Security-Policy': "default-src 'none'; style-src 'unsafe-inline'; img-src data:",
      })
      .end(page);
  });
}

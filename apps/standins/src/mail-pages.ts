import { createServer, type IncomingMessage, type Server, type ServerResponse } from 'node:http';
import type { CaughtMail, MailStore } from './mail-store.js';
import { escape, page } from './pages.js';
import { deliver, readWritten, type WrittenMail } from './write-mail.js';

const article = (mail: CaughtMail, canWrite: boolean): string =>
  `<article><h2>${escape(mail.subject)}</h2><p class="to">to ${escape(mail.to)} · <time>${mail.arrivedAt.slice(0, 16).replace('T', ' ')} UTC</time></p>${mail.html}${
    canWrite && mail.replyTo ? `<p><a href="/write?answers=${encodeURIComponent(mail.messageId)}">Answer this mail</a></p>` : ''
  }</article>`;

const list = (mails: readonly CaughtMail[], canWrite: boolean): string =>
  page(
    'Mail of the demo',
    `<p>Nothing is really sent: all mail ends here. ${mails.length === 0 ? 'None has come yet.' : `${mails.length} shown, newest first.`}${
      canWrite ? ' <a href="/write">Write a mail to the agency</a>' : ''
    }</p>
${mails
  .slice(0, 100)
  .map((mail) => article(mail, canWrite))
  .join('\n')}`,
  );

type Draft = Omit<WrittenMail, 'files'>;
const EMPTY: Draft = { from: '', to: '', subject: '', text: '', answers: '' };

/** An answer as mail programs begin it: to where answers go, with what it answers quoted. */
const answerTo = (mail: CaughtMail): Draft => ({
  from: mail.to,
  to: mail.replyTo ?? '',
  subject: mail.subject.startsWith('Re: ') ? mail.subject : `Re: ${mail.subject}`,
  text: `\n\nOn ${mail.arrivedAt.slice(0, 10)}, the agency wrote:\n${mail.text.replace(/^/gm, '> ')}`,
  answers: mail.messageId,
});

const field = (label: string, name: string, value: string, type = 'text'): string =>
  `<label>${label}<input type="${type}" name="${name}" value="${escape(value)}" required></label>`;

const writing = (draft: Draft, refusal: string | null): string =>
  page(
    'Write a mail to the agency',
    `<p><a href="/">All mail</a></p>${refusal === null ? '' : `<p role="alert"><strong>It was not taken: ${escape(refusal)}</strong></p>`}
<form method="post" action="/write" enctype="multipart/form-data">
<input type="hidden" name="answers" value="${escape(draft.answers)}">
${field('From', 'from', draft.from)}${field('To', 'to', draft.to)}
<label>Subject<input name="subject" value="${escape(draft.subject)}"></label>
<label>Words<textarea name="text" rows="10">\n${escape(draft.text)}</textarea></label>
<label>Files<input type="file" name="files" multiple></label>
<button>Send it</button></form>`,
  );

/** The pages: all mail, or `?to=address`; `/mails.json` for tests; `/write` to send one. The mails' own HTML was made and escaped by us. */
export function mailPages(store: MailStore, inboxPort: number | null): Server {
  const show = (response: ServerResponse, html: string, status = 200) =>
    response
      .writeHead(status, {
        'Content-Type': 'text/html; charset=utf-8',
        'Content-Security-Policy': "default-src 'none'; style-src 'unsafe-inline'; img-src data:; form-action 'self'",
      })
      .end(html);
  const write = async (request: IncomingMessage, response: ServerResponse, port: number) => {
    const { files, ...draft } = await readWritten(request);
    const refusal = await deliver({ files, ...draft }, port);
    if (refusal !== null) show(response, writing(draft, refusal), 422);
    else show(response, page('It is sent', '<p><a href="/">All mail</a> · <a href="/write">Write another one</a></p>'));
  };
  return createServer((request, response) => {
    const address = new URL(request.url ?? '/', 'http://localhost');
    if (address.pathname === '/write' && inboxPort !== null) {
      if (request.method === 'POST') {
        write(request, response, inboxPort).catch(() => response.writeHead(400).end('This form cannot be read.'));
        return;
      }
      const answered = store.get(address.searchParams.get('answers') ?? '');
      show(response, writing(answered ? answerTo(answered) : { ...EMPTY, to: address.searchParams.get('to') ?? '' }, null));
      return;
    }
    const mails = store.list(address.searchParams.get('to') ?? undefined);
    if (address.pathname === '/mails.json') {
      response.writeHead(200, { 'Content-Type': 'application/json' }).end(JSON.stringify(mails));
      return;
    }
    show(response, list(mails, inboxPort !== null));
  });
}

import type { FormLanguage } from '@zesting/core';
import type { App } from '../../../platform/app.js';
import { rowsOf, type Reader, type Tx } from '../../../platform/database/transaction.js';
import { mailAddress } from '../../../platform/mail/inbox.js';
import { queueMail, type Mail } from '../../../platform/mail/mail.js';
import { RequestMail } from '../entities/incoming-mail.entity.js';
import type { Request } from '../entities/request.entity.js';
import { REQUESTER_WORDS, type RequesterWords, type Told } from '../requester-words.js';

/** Where an answer by mail to what is sent about a client's requests goes; nothing where no mail is taken in. */
export async function answersTo(app: App, reader: Reader, clientId: string): Promise<Pick<Mail, 'replyTo'>> {
  const [client] = await rowsOf<{ code: string }>(reader, 'select code from clients where id = $1', [clientId]);
  const address = client && mailAddress(app.config, client.code.toLowerCase());
  return address ? { replyTo: address } : {};
}

/** Keeps a mail's Message-ID, so that an answer to it finds its request. */
export const knowMail = (tx: Tx, messageId: string, requestId: string): Promise<unknown> =>
  tx.createQueryBuilder().insert().into(RequestMail).values({ messageId, requestId }).orIgnore().execute();

/** The language in which a request was asked for; without a form, that of the client's own forms. */
export async function languageOf(
  reader: Reader,
  { clientId, formId, formVersion }: Pick<Request, 'clientId' | 'formId' | 'formVersion'>,
): Promise<FormLanguage> {
  const [row] = await rowsOf<{ language: FormLanguage | null }>(
    reader,
    `select coalesce(
       (select content ->> 'language' from form_versions where form_id = $2 and number = $3),
       (select v.content ->> 'language' from form_clients c join intake_forms f on f.id = c.form_id and f.archived_at is null
          join form_versions v on v.form_id = f.id and v.number = f.published_version where c.client_id = $1 order by f.title, f.id limit 1)) as language`,
    [clientId, formId, formVersion],
  );
  return row?.language ?? 'en';
}

/**
 * Tells the requester by mail, where they have an address, in the language in which they were asked. They may answer that mail.
 * @param say what, in that language's words
 */
export async function tellRequester(
  app: App,
  tx: Tx,
  request: Request,
  say: (words: RequesterWords, title: string) => Told,
  link: 'see' | 'answer' = 'see',
): Promise<void> {
  const { requesterEmail: to, requesterName, title } = request;
  if (to === null) return;
  const words = REQUESTER_WORDS[await languageOf(tx, request)];
  const { subject, paragraphs } = say(words, title);
  const messageId = await queueMail(tx, {
    to,
    subject,
    paragraphs: [words.hello(requesterName.split(' ')[0] ?? requesterName), ...paragraphs],
    links: [{ text: words[link], address: app.links.address('receipt', request.id, request.linkGeneration) }],
    ...(await answersTo(app, tx, request.clientId)),
  });
  await knowMail(tx, messageId, request.id);
}

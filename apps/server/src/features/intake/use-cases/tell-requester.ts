import type { App } from '../../../platform/app.js';
import { rowsOf, type Reader, type Tx } from '../../../platform/database/transaction.js';
import { mailAddress } from '../../../platform/mail/inbox.js';
import type { Mail } from '../../../platform/mail/mail.js';
import { tellOutside } from '../../notices/index.js';
import { RequestMail } from '../entities/incoming-mail.entity.js';
import type { Request } from '../entities/request.entity.js';

/** Where an answer by mail to what is sent about a client's requests goes; nothing where no mail is taken in. */
export async function answersTo(app: App, reader: Reader, clientId: string): Promise<Pick<Mail, 'replyTo'>> {
  const [client] = await rowsOf<{ code: string }>(reader, 'select code from clients where id = $1', [clientId]);
  const address = client && mailAddress(app.config, client.code.toLowerCase());
  return address ? { replyTo: address } : {};
}

/** Keeps a mail's Message-ID, so that an answer to it finds its request. */
export const knowMail = (tx: Tx, messageId: string, requestId: string): Promise<unknown> =>
  tx.createQueryBuilder().insert().into(RequestMail).values({ messageId, requestId }).orIgnore().execute();

/** Tells the requester by mail, where they have an address. They may answer that mail. */
export async function tellRequester(
  app: App,
  tx: Tx,
  request: Request,
  subject: string,
  paragraphs: readonly string[],
  text = 'See how it stands',
): Promise<void> {
  if (request.requesterEmail === null) return;
  const link = { text, address: app.links.address('receipt', request.id, request.linkGeneration) };
  const to = { email: request.requesterEmail, name: request.requesterName };
  await knowMail(tx, await tellOutside(tx, to, subject, paragraphs, link, await answersTo(app, tx, request.clientId)), request.id);
}

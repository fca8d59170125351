import type { InstantText } from '@zesting/core';
import type { App } from '../../../platform/app.js';
import { rowsOf, type Tx } from '../../../platform/database/transaction.js';
import { queueMail, type Mail } from '../../../platform/mail/mail.js';
import type { Request } from '../entities/request.entity.js';
import { RECEIPTS_AN_HOUR } from './form-limits.js';
import { REQUESTER_WORDS } from '../requester-words.js';
import { answersTo, knowMail, languageOf } from './tell-requester.js';

/**
 * Tells the address that was typed, or that a mail says it is from, that the request came. Nobody has confirmed that it is the requester's: so the
 * mail carries nothing that a stranger wrote, and only so many go to one address within an hour.
 */
export async function mailReceipt(
  app: App,
  tx: Tx,
  request: Pick<Request, 'id' | 'clientId' | 'formId' | 'formVersion'> & { readonly requesterEmail: string },
  about: { readonly number: number; readonly clientName: string; readonly filesLost?: number } & Pick<Mail, 'inReplyTo'>,
  now: InstantText,
): Promise<void> {
  const { number, clientName, filesLost = 0, inReplyTo } = about;
  const [recent] = await rowsOf<{ count: number }>(
    tx,
    "select count(*) as count from requests where lower(requester_email) = lower($1) and received_at > $2::timestamptz - interval '1 hour'",
    [request.requesterEmail, now],
  );
  if ((recent?.count ?? 0) > RECEIPTS_AN_HOUR) return;
  const words = REQUESTER_WORDS[await languageOf(tx, request)];
  const { subject, paragraphs } = words.received(number, clientName);
  const messageId = await queueMail(tx, {
    to: request.requesterEmail,
    subject,
    paragraphs: filesLost === 0 ? paragraphs : [...paragraphs, words.filesLost(filesLost)],
    links: [{ text: words.see, address: app.links.address('receipt', request.id, 1) }],
    ...(await answersTo(app, tx, request.clientId)),
    ...(inReplyTo === undefined ? {} : { inReplyTo }),
  });
  await knowMail(tx, messageId, request.id);
}

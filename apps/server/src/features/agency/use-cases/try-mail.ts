import { fail, ok, type Result } from '@zesting/core';
import type { Viewer } from '../../../platform/access/access.js';
import type { App } from '../../../platform/app.js';
import type { MailSender } from '../../../platform/mail/mail.js';

/** Sends the viewer a mail at once, to see whether the mail server takes it. `mail.not_taken` carries what it said. */
export async function tryMail(
  app: App,
  mail: MailSender,
  viewer: Viewer,
): Promise<Result<null, { code: 'mail.not_taken'; detail: { reason: string } }>> {
  const [person] = await app.read<{ email: string }>('select email from people where id = $1', [viewer.personId]);
  const refused = await mail.tryOne({
    to: person?.email ?? '',
    subject: 'A trial mail',
    paragraphs: [
      `Hello ${viewer.name.split(' ')[0] ?? viewer.name},`,
      'you asked for this mail from Zesting. Mail arrives: there is nothing to do.',
    ],
  });
  if (refused !== null) return fail({ code: 'mail.not_taken', detail: { reason: refused } });
  return app.write(async (tx, now) => {
    await tx.query('update agencies set mail_proved_at = $1', [now]);
    return ok(null);
  });
}

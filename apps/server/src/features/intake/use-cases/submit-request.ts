import { answerServing, checkAnswers, dayIn, fail, ok, type Answers, type FormField, type InstantText, type Result } from '@zesting/core';
import type { SubmitRequestBody, SubmittedShape } from '@zesting/contract';
import { recordActivity } from '../../../platform/activity.js';
import type { App } from '../../../platform/app.js';
import { rowsOf, type Tx } from '../../../platform/database/transaction.js';
import { once } from '../../../platform/http/idempotency.js';
import { queueMail } from '../../../platform/mail/mail.js';
import { tellManagers } from '../../notices/index.js';
import { Request } from '../entities/request.entity.js';
import { RECEIPTS_AN_HOUR, takeShare } from './form-limits.js';
import { claimFiles } from '../../production/index.js';

interface FormRow {
  id: string;
  client_id: string;
  title: string;
  fields: FormField[];
  client_name: string;
  zone: string;
}

export type SubmitFailure =
  | { code: 'request.answers_wrong'; errors: Record<string, string> }
  | { code: 'file.unknown' }
  | { code: 'ask.too_much' }
  | { code: 'idempotency.other_body' };

/** Takes in a filled-in form. The same key makes no second request: it gets the first one's answer. */
export function submitRequest(
  app: App,
  formId: string,
  body: SubmitRequestBody,
  key: string,
): Promise<Result<SubmittedShape, SubmitFailure>> {
  return app.write<SubmittedShape, SubmitFailure>((tx, now) =>
    once<SubmittedShape, SubmitFailure>(tx, { key, caller: formId, operation: 'request.submit', body, now }, async () => {
      const [form] = await rowsOf<FormRow>(
        tx,
        'select f.id, f.client_id, f.title, f.fields, c.name as client_name, c.zone from intake_forms f join clients c on c.id = f.client_id where f.id = $1',
        [formId],
      );
      if (!form) throw new Error('the form went away');
      if (!(await takeShare(tx, formId, now, { requests: 1 }))) return fail({ code: 'ask.too_much' });
      const errors = checkAnswers(form.fields, body.answers, dayIn(now, form.zone));
      if (Object.keys(errors).length > 0) return fail({ code: 'request.answers_wrong', errors });
      const request = await tx.save(
        tx.create(Request, {
          clientId: form.client_id,
          formId,
          fields: form.fields,
          answers: body.answers,
          title: answerServing(form.fields, body.answers, 'title') ?? form.title,
          wishOn: answerServing(form.fields, body.answers, 'wish_date') ?? null,
          requesterName: body.name,
          requesterEmail: body.email,
          state: 'new',
          declineReason: null,
          readAt: null,
          receivedAt: now,
          decidedAt: null,
          version: 1,
          linkGeneration: 1,
        }),
      );
      if (!(await claimAnswered(tx, request, form.fields, body.answers))) return fail({ code: 'file.unknown' });
      const [row] = await rowsOf<{ number: number }>(tx, 'select number from requests where id = $1', [request.id]);
      const receiptAddress = app.links.address('receipt', request.id, 1);
      await mailReceipt(tx, request, { number: row?.number ?? 0, clientName: form.client_name, receiptAddress }, now);
      await tellManagers(app, tx, {
        clientId: form.client_id,
        heading: `New request: ${request.title}`,
        text: `${body.name} of ${form.client_name} asks for “${request.title}”.`,
        path: `/requests/${request.id}`,
      });
      await recordActivity(tx, {
        clientId: form.client_id,
        thing: 'request',
        thingId: request.id,
        verb: 'request.received',
        actor: body.name,
        at: now,
      });
      return ok({ requestId: request.id, number: row?.number ?? 0, receiptAddress });
    }),
  );
}

/**
 * Tells the address that was typed that the request came. Nobody has confirmed that it is the requester's: so the mail carries nothing that a
 * stranger wrote, and only so many go to one address within an hour.
 */
async function mailReceipt(
  tx: Tx,
  request: Request,
  { number, clientName, receiptAddress }: { readonly number: number; readonly clientName: string; readonly receiptAddress: string },
  now: InstantText,
): Promise<void> {
  const [recent] = await rowsOf<{ count: number }>(
    tx,
    "select count(*) as count from requests where lower(requester_email) = lower($1) and received_at > $2::timestamptz - interval '1 hour'",
    [request.requesterEmail, now],
  );
  if ((recent?.count ?? 0) > RECEIPTS_AN_HOUR) return;
  await queueMail(tx, {
    to: request.requesterEmail,
    subject: `We have your request no. ${number} for ${clientName}`,
    paragraphs: ['Thank you.', `Request no. ${number} for ${clientName} has reached us. The page below shows how it stands.`],
    links: [{ text: 'See how it stands', address: receiptAddress }],
  });
}

/** Binds the uploads named in the answers to the request; false when one is not an unclaimed upload of this client. */
async function claimAnswered(tx: Tx, request: Request, fields: readonly FormField[], answers: Answers): Promise<boolean> {
  const ids = [...new Set(fields.filter((field) => field.kind === 'files').flatMap((field) => answers[field.key] ?? []))];
  return claimFiles(tx, ids as string[], request.id, request.clientId); // answers to questions for files are lists of ids
}

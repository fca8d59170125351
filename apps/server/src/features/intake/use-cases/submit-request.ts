import {
  answerServing,
  checkAnswers,
  fail,
  fieldsOf,
  isId,
  ok,
  type Answers,
  type InstantText,
  type KnownFile,
  type RequestWay,
  type Result,
} from '@zesting/core';
import type { SubmitRequestBody, SubmittedShape } from '@zesting/contract';
import { recordActivity } from '../../../platform/activity.js';
import type { App } from '../../../platform/app.js';
import { rowsOf, type Tx } from '../../../platform/database/transaction.js';
import { once } from '../../../platform/http/idempotency.js';
import { tellManagers } from '../../notices/index.js';
import { claimFiles } from '../../production/index.js';
import { FormLink } from '../entities/intake-form.entity.js';
import type { Request } from '../entities/request.entity.js';
import { askedForm, type AskedForm } from '../queries/asked-form.js';
import { takeShare } from './form-limits.js';
import { mailReceipt } from './mail-receipt.js';
import { insertRequest } from './new-request.js';
import { sortRequest } from './sort-request.js';

export type SubmitFailure =
  PutFailure | { code: 'ask.too_much' | 'ask.not_published' | 'ask.not_now' | 'ask.form_changed' } | { code: 'idempotency.other_body' };

/** What the requester fills in. */
export type Filled = Pick<SubmitRequestBody, 'name' | 'email' | 'answers' | 'version'>;

/** Takes in a filled-in form. The same key makes no second request: it gets the first one's answer. */
export function submitRequest(
  app: App,
  linkId: string,
  { name, email, answers, version }: Filled,
  key: string,
): Promise<Result<SubmittedShape, SubmitFailure>> {
  const body = { name, email, answers };
  return app.write<SubmittedShape, SubmitFailure>((tx, now) =>
    once<SubmittedShape, SubmitFailure>(tx, { key, caller: linkId, operation: 'request.submit', body, now }, async () => {
      const form = await askedForm(tx, linkId, now);
      if (!form) return fail({ code: 'ask.not_published' });
      if (form.state !== 'open') return fail({ code: 'ask.not_now' });
      if (form.version !== version) return fail({ code: 'ask.form_changed' });
      if (!(await takeShare(tx, linkId, now, { requests: 1 }))) return fail({ code: 'ask.too_much' });
      const put = await putRequest(tx, form, { way: 'form', name, email, answers, linkId }, now);
      if (!put.ok) return put;
      const { request, number } = put.value;
      await tx.increment(FormLink, { id: linkId }, 'requests', 1);
      const receiptAddress = app.links.address('receipt', request.id, 1);
      await mailReceipt(app, tx, { ...request, requesterEmail: email }, { number, clientName: form.clientName }, now);
      await tellManagers(app, tx, {
        clientId: form.clientId,
        heading: `New request: ${request.title}`,
        text: `${name} of ${form.clientName} asks for “${request.title}”.`,
        path: `/requests/${request.id}`,
      });
      return ok({ requestId: request.id, number, receiptAddress });
    }),
  );
}

interface Coming {
  readonly way: RequestWay;
  readonly name: string;
  readonly email: string | null;
  readonly answers: Answers;
  readonly linkId: string | null;
  /** who took it down; nobody where it was sent */
  readonly takenDownBy?: string;
}

export type PutFailure = { code: 'request.answers_wrong'; errors: Record<string, string> } | { code: 'file.unknown' };

/** Checks the answers to a form and puts the request, sorted and with an owner, in the caller's transaction. */
export async function putRequest(
  tx: Tx,
  form: Omit<AskedForm, 'linkId'>,
  { way, name, email, answers: given, linkId, takenDownBy }: Coming,
  now: InstantText,
): Promise<Result<{ request: Request; number: number }, PutFailure>> {
  const { answers, problems } = checkAnswers(form.items, given, { todayOn: form.todayOn, files: await filesOf(tx, form, given) });
  if (Object.keys(problems).length > 0) return fail({ code: 'request.answers_wrong', errors: { ...problems } });
  const { ownerId, ...takes } = await sortRequest(tx, form, answers);
  const { request, number } = await insertRequest(tx, {
    clientId: form.clientId,
    way,
    formId: form.formId,
    formVersion: form.version,
    linkId,
    items: [...form.items],
    answers,
    title: answerServing(form.items, answers, 'title') ?? form.content.title,
    wishOn: answerServing(form.items, answers, 'wish_date') ?? null,
    requesterName: name,
    requesterEmail: email,
    contactId: await contactOf(tx, form.clientId, email),
    ownerId: ownerId ?? null,
    takes,
    readAt: way === 'telephone' ? now : null, // who took it down has read it
    receivedAt: now,
  });
  const ids = [...new Set(fieldsOf(form.items).flatMap((field) => (field.kind === 'files' ? [answers[field.key] ?? []].flat() : [])))];
  if (!(await claimFiles(tx, ids, request.id, request.clientId))) return fail({ code: 'file.unknown' });
  await recordActivity(tx, {
    clientId: form.clientId,
    thing: 'request',
    thingId: request.id,
    verb: way === 'form' ? 'request.received' : 'request.taken_down',
    actor: takenDownBy ?? name,
    at: now,
  });
  return ok({ request, number });
}

/** What is known of the files that are named in answers. */
async function filesOf(tx: Tx, { clientId, items }: Omit<AskedForm, 'linkId'>, given: Answers): Promise<Record<string, KnownFile>> {
  const keys = fieldsOf(items).flatMap((field) => (field.kind === 'files' && Object.hasOwn(given, field.key) ? [field.key] : []));
  const ids = keys.flatMap((key) => given[key] ?? []).filter(isId);
  if (ids.length === 0) return {};
  const rows = await rowsOf<KnownFile & { id: string }>(
    tx,
    'select id, mime, bytes::float8 as bytes from assets where id = any($1) and client_id = $2',
    [ids, clientId],
  );
  return Object.fromEntries(rows.map(({ id, mime, bytes }) => [id, { mime, bytes }]));
}

/** The client's contact with that address. */
export async function contactOf(tx: Tx, clientId: string, email: string | null): Promise<string | null> {
  const [contact] = await rowsOf<{ id: string }>(
    tx,
    'select id from contacts where client_id = $1 and lower(email) = lower($2) and archived_at is null',
    [clientId, email],
  );
  return contact?.id ?? null;
}

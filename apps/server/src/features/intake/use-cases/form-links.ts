import { fail, ok, type InstantText, type Result } from '@zesting/core';
import type { ChangeFormLinkBody, FormLinkBody, NewFormLinkBody } from '@zesting/contract';
import type { Viewer } from '../../../platform/access/access.js';
import { recordActivity } from '../../../platform/activity.js';
import type { App } from '../../../platform/app.js';
import { insertRow, type Tx } from '../../../platform/database/transaction.js';
import { FormClient, FormLink } from '../entities/intake-form.entity.js';

const record = (
  tx: Tx,
  viewer: Pick<Viewer, 'name'>,
  link: Pick<FormLink, 'clientId' | 'formId' | 'label'>,
  verb: string,
  now: InstantText,
): Promise<void> =>
  recordActivity(tx, {
    clientId: link.clientId,
    thing: 'form',
    thingId: link.formId,
    verb,
    actor: viewer.name,
    detail: { label: link.label },
    at: now,
  });

/** Makes an address under which a form asks a client's people. */
export const makeLink = (
  app: App,
  viewer: Viewer,
  formId: string,
  body: NewFormLinkBody,
): Promise<Result<string, { code: 'form.not_of_client' }>> =>
  app.write<string, { code: 'form.not_of_client' }>(async (tx, now) => {
    if (!(await tx.existsBy(FormClient, { formId, clientId: body.clientId }))) return fail({ code: 'form.not_of_client' });
    return ok(await addLink(tx, viewer, { formId, ...body }, now));
  });

/** As `makeLink`, for a client that the form is for, inside the caller's transaction. */
export async function addLink(
  tx: Tx,
  viewer: Pick<Viewer, 'name'>,
  { formId, clientId, label, origins }: Pick<FormLink, 'formId' | 'clientId' | 'label' | 'origins'>,
  now: InstantText,
): Promise<string> {
  const link = { formId, clientId, label: label.trim(), origins };
  const id = await insertRow(tx, FormLink, { ...link, madeAt: now });
  await record(tx, viewer, link, 'form.link_made', now);
  return id;
}

type Unknown = { code: 'link.unknown' };

/** Says anew where a link was handed out, and which sites may embed the form by it. */
export function editLink(
  app: App,
  viewer: Viewer,
  formId: string,
  linkId: string,
  { label, origins }: FormLinkBody,
): Promise<Result<null, Unknown>> {
  return app.write<null, Unknown>(async (tx, now) => {
    const link = await tx.findOne(FormLink, { where: { id: linkId, formId }, lock: { mode: 'pessimistic_write' } });
    if (!link) return fail({ code: 'link.unknown' });
    await tx.save(Object.assign(link, { label: label.trim(), origins }));
    await record(tx, viewer, link, 'form.link_edited', now);
    return ok(null);
  });
}

/** Renews or closes a link: what was given out before opens nothing any more. */
export function changeFormLink(
  app: App,
  viewer: Viewer,
  formId: string,
  linkId: string,
  { change }: ChangeFormLinkBody,
): Promise<Result<null, Unknown>> {
  return app.write<null, Unknown>(async (tx, now) => {
    const link = await tx.findOne(FormLink, { where: { id: linkId, formId }, lock: { mode: 'pessimistic_write' } });
    if (!link) return fail({ code: 'link.unknown' });
    await tx.save(Object.assign(link, { linkGeneration: link.linkGeneration + 1, linkOpen: change === 'renew' }));
    await record(tx, viewer, link, change === 'renew' ? 'form.link_renewed' : 'form.link_closed', now);
    return ok(null);
  });
}

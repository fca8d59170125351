import { fail, ok, type InstantText, type Result } from '@zesting/core';
import type { Viewer } from '../../../platform/access/access.js';
import { rowsOf, type Tx } from '../../../platform/database/transaction.js';
import { FormClient } from '../entities/intake-form.entity.js';
import { addForm, publishMade, stockContent } from './edit-form.js';
import { addLink } from './form-links.js';

/** Gives a client a link to the form that the agency begins with, inside the caller's transaction. `agency.form_missing` where there is none. */
export async function giveForm(
  tx: Tx,
  clientId: string,
  actor: string,
  now: InstantText,
): Promise<Result<string, { code: 'agency.form_missing' }>> {
  const [form] = await rowsOf<{ id: string; title: string }>(
    tx,
    'select f.id, f.title from agencies a join intake_forms f on f.id = a.default_form_id where f.published_version is not null and f.archived_at is null',
  );
  if (!form) return fail({ code: 'agency.form_missing' });
  await tx.createQueryBuilder().insert().into(FormClient).values({ formId: form.id, clientId }).orIgnore().execute();
  return ok(await addLink(tx, { name: actor }, { formId: form.id, clientId, label: form.title, origins: [] }, now));
}

/** Makes the first starting form and publishes it, for clients to begin with; undefined where no route could take its requests. */
export async function makeStockForm(tx: Tx, actor: Pick<Viewer, 'name'>, name: string, now: InstantText): Promise<string | undefined> {
  const content = await stockContent(tx, name);
  if (!content || content.routeId === null) return undefined;
  const formId = await addForm(tx, content, []);
  return (await publishMade(tx, actor, formId, now)).ok ? formId : undefined;
}

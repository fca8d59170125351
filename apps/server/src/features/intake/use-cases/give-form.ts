import type { FormField, InstantText, Result } from '@zesting/core';
import { fail, ok } from '@zesting/core';
import { recordActivity } from '../../../platform/activity.js';
import { insertRow, rowsOf, type Tx } from '../../../platform/database/transaction.js';
import { IntakeForm } from '../entities/intake-form.entity.js';

/** The form that new clients begin with, as the agency keeps it. */
export interface DefaultForm {
  readonly title: string;
  readonly intro: string;
  readonly routeId: string;
  readonly fields: readonly FormField[];
}

/** Gives a client the form that the agency begins with, inside the caller's transaction. `agency.form_missing` where there is none. */
export async function giveForm(
  tx: Tx,
  clientId: string,
  actor: string,
  now: InstantText,
): Promise<Result<string, { code: 'agency.form_missing' }>> {
  const [agency] = await rowsOf<{ form: DefaultForm | null }>(tx, 'select default_form as form from agencies');
  if (!agency?.form) return fail({ code: 'agency.form_missing' });
  const { title, intro, routeId, fields } = agency.form;
  const id = await insertRow(tx, IntakeForm, { clientId, title, intro, fields: [...fields], routeId });
  await recordActivity(tx, { clientId, thing: 'client', thingId: clientId, verb: 'form.given', actor, detail: { title }, at: now });
  return ok(id);
}

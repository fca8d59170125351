import {
  fail,
  FORM_STOCK,
  formFaults,
  ok,
  readDocument,
  type FormContent,
  type FormDocument,
  type FoundFault,
  type InstantText,
  type Result,
} from '@zesting/core';
import { FORM_CONTENT_SCHEMA, FORM_DOCUMENT_SCHEMA, type NewFormBody } from '@zesting/contract';
import { In } from 'typeorm';
import type { Viewer } from '../../../platform/access/access.js';
import { recordActivity } from '../../../platform/activity.js';
import type { App } from '../../../platform/app.js';
import { insertRow, rowsOf, type Tx } from '../../../platform/database/transaction.js';
import { schemaCheck, type SchemaFault } from '../../../platform/http/json-schema.js';
import { FormClient, FormVersion, IntakeForm } from '../entities/intake-form.entity.js';
import { namesFor, routeOfFormat, unknownIn } from '../queries/form-names.js';

const checkContent = schemaCheck(FORM_CONTENT_SCHEMA);
const checkDocument = schemaCheck(FORM_DOCUMENT_SCHEMA);

export type Malformed = { code: 'form.malformed'; faults: readonly SchemaFault[] };
export type FormFailure =
  | Malformed
  | { code: 'form.faulty'; faults: readonly FoundFault[] }
  | { code: 'http.changed_meanwhile' | 'form.unknown' | 'form.stock_unknown' | 'form.nothing_changed' | 'form.in_use' };

/** A form under lock; a missing one is a bug, since access was checked. */
const lockForm = (tx: Tx, id: string): Promise<IntakeForm> =>
  tx.findOneOrFail(IntakeForm, { where: { id }, lock: { mode: 'pessimistic_write' } });

const record = (
  tx: Tx,
  viewer: Pick<Viewer, 'name'>,
  formId: string,
  verb: string,
  detail: Readonly<Record<string, unknown>>,
  now: InstantText,
) => recordActivity(tx, { clientId: null, thing: 'form', thingId: formId, verb, actor: viewer.name, detail, at: now });

/** What a form begins with: one question, by which the request gets its title. */
const EMPTY: FormContent = {
  title: '',
  intro: '',
  language: 'en',
  items: [{ key: 'title', kind: 'short', label: 'What is it about?', needed: true, serves: 'title' }],
  routeId: null,
  rules: [],
  thanks: '',
  opensOn: null,
  closesOn: null,
  noticeDays: 0,
  answerDays: 0,
};

/** Begins a form as a draft. @returns its id, and the names in a file that are not known here */
export function makeForm(app: App, viewer: Viewer, body: NewFormBody): Promise<Result<{ formId: string; unknown: string[] }, FormFailure>> {
  return app.write<{ formId: string; unknown: string[] }, FormFailure>(async (tx, now) => {
    const begun = await beginning(tx, body);
    if (!begun.ok) return begun;
    const { content, unknown } = begun.value;
    const title = body.title.trim();
    const formId = await addForm(tx, { ...content, title }, body.clientIds);
    await record(tx, viewer, formId, 'form.made', { title }, now);
    return ok({ formId, unknown });
  });
}

async function beginning(tx: Tx, body: NewFormBody): Promise<Result<{ content: FormContent; unknown: string[] }, FormFailure>> {
  if (body.document !== undefined) return fromDocument(tx, body.document, body.clientIds);
  if (body.copyOf !== undefined) {
    const [form] = await rowsOf<{ content: FormContent }>(tx, `select ${CONTENT} as content from ${FORMS} where f.id = $1`, [body.copyOf]);
    return form ? ok({ content: form.content, unknown: [] }) : fail({ code: 'form.unknown' });
  }
  if (body.stock === undefined) return ok({ content: EMPTY, unknown: [] });
  const content = await stockContent(tx, body.stock);
  return content ? ok({ content, unknown: [] }) : fail({ code: 'form.stock_unknown' });
}

/** What is being changed, else what is asked: of `FORMS`. */
export const CONTENT = 'coalesce(f.draft, v.content)';
export const FORMS = 'intake_forms f left join form_versions v on v.form_id = f.id and v.number = f.published_version';

/** A starting form with the route that its format usually takes; undefined where there is none of that name. */
export async function stockContent(tx: Tx, name: string): Promise<FormContent | undefined> {
  const stock = FORM_STOCK.find((form) => form.name === name);
  if (!stock) return undefined;
  const { title, intro, items } = stock;
  return { ...EMPTY, title, intro, items, routeId: await routeOfFormat(tx, stock.formatName) };
}

async function fromDocument(
  tx: Tx,
  document: FormDocument,
  clientIds: readonly string[],
): Promise<Result<{ content: FormContent; unknown: string[] }, Malformed>> {
  const faults = checkDocument(document);
  return faults.length > 0 ? fail({ code: 'form.malformed', faults }) : ok(readDocument(document, await namesFor(tx, clientIds)));
}

/** Puts a new form's rows, in the caller's transaction. */
export async function addForm(tx: Tx, content: FormContent, clientIds: readonly string[]): Promise<string> {
  const formId = await insertRow(tx, IntakeForm, { title: content.title, draft: content });
  await putClients(tx, formId, clientIds);
  return formId;
}

/** Keeps what is being changed. It need not be without faults: these are told, and only keep it from being published. */
export function saveForm(
  app: App,
  viewer: Viewer,
  formId: string,
  content: FormContent,
  version: number,
): Promise<Result<null, FormFailure>> {
  return app.write<null, FormFailure>(async (tx, now) => {
    const form = await lockForm(tx, formId);
    if (form.version !== version) return fail({ code: 'http.changed_meanwhile' });
    const faults = checkContent(content);
    if (faults.length > 0) return fail({ code: 'form.malformed', faults });
    // what is typed is kept every few words: the record says when a change began, and when it was published or dropped
    if (form.draft === null) await record(tx, viewer, formId, 'form.change_begun', { title: form.title }, now);
    Object.assign(form, { draft: content, title: content.title.trim() === '' ? form.title : content.title.trim(), version: version + 1 });
    await tx.save(form);
    return ok(null);
  });
}

/** Makes of what was changed the version that is asked from now on. */
export function publishForm(app: App, viewer: Viewer, formId: string, version: number): Promise<Result<null, FormFailure>> {
  return app.write<null, FormFailure>(async (tx, now) => {
    const form = await lockForm(tx, formId);
    if (form.version !== version) return fail({ code: 'http.changed_meanwhile' });
    return publish(tx, viewer, form, now);
  });
}

/** As `publishForm`, of a form that is locked, inside the caller's transaction. */
export async function publish(
  tx: Tx,
  viewer: Pick<Viewer, 'name'>,
  form: IntakeForm,
  now: InstantText,
): Promise<Result<null, FormFailure>> {
  if (form.draft === null) return fail({ code: 'form.nothing_changed' });
  const clientIds = (await tx.find(FormClient, { where: { formId: form.id } })).map(({ clientId }) => clientId);
  const faults = [...formFaults(form.draft), ...(await unknownIn(tx, form.draft, clientIds))];
  if (faults.length > 0) return fail({ code: 'form.faulty', faults });
  const number = (form.publishedVersion ?? 0) + 1;
  await tx.insert(FormVersion, { formId: form.id, number, content: form.draft as object, publishedAt: now, publishedBy: viewer.name });
  Object.assign(form, { draft: null, publishedVersion: number, version: form.version + 1 });
  await tx.save(form);
  await record(tx, viewer, form.id, 'form.published', { title: form.title, number }, now);
  return ok(null);
}

/** Publishes a form just made, inside the caller's transaction. */
export async function publishMade(
  tx: Tx,
  viewer: Pick<Viewer, 'name'>,
  formId: string,
  now: InstantText,
): Promise<Result<null, FormFailure>> {
  return publish(tx, viewer, await lockForm(tx, formId), now);
}

/** Goes back to what is asked. */
export function discardDraft(app: App, viewer: Viewer, formId: string, version: number): Promise<Result<null, FormFailure>> {
  return app.write<null, FormFailure>(async (tx, now) => {
    const form = await lockForm(tx, formId);
    if (form.version !== version) return fail({ code: 'http.changed_meanwhile' });
    if (form.draft === null || form.publishedVersion === null) return fail({ code: 'form.nothing_changed' });
    const asked = await tx.findOneByOrFail(FormVersion, { formId, number: form.publishedVersion });
    Object.assign(form, { draft: null, title: asked.content.title, version: version + 1 });
    await tx.save(form);
    await record(tx, viewer, formId, 'form.change_dropped', { title: form.title }, now);
    return ok(null);
  });
}

/** Says which of the viewer's clients a form is for; others stay. So does a client that has an open link to it. */
export function putFormClients(app: App, viewer: Viewer, formId: string, clientIds: readonly string[]): Promise<Result<null, FormFailure>> {
  return app.write<null, FormFailure>(async (tx, now) => {
    const form = await lockForm(tx, formId);
    const had = (await tx.find(FormClient, { where: { formId } })).map(({ clientId }) => clientId);
    const gone = had.filter((id) => viewer.clientIds.includes(id) && !clientIds.includes(id));
    const linked = await rowsOf(tx, 'select 1 from form_links where form_id = $1 and client_id = any($2) and link_open limit 1', [
      formId,
      gone,
    ]);
    if (linked.length > 0) return fail({ code: 'form.in_use' });
    if (gone.length > 0) await tx.delete(FormClient, { formId, clientId: In(gone) });
    await putClients(
      tx,
      formId,
      clientIds.filter((id) => !had.includes(id)),
    );
    await record(tx, viewer, formId, 'form.clients_set', { title: form.title, count: clientIds.length }, now);
    return ok(null);
  });
}

async function putClients(tx: Tx, formId: string, clientIds: readonly string[]): Promise<void> {
  if (clientIds.length > 0)
    await tx.insert(
      FormClient,
      clientIds.map((clientId) => ({ formId, clientId })),
    );
}

/** Archives a form, which closes what it asks, or takes it back. The form that new clients begin with stays. */
export function archiveForm(app: App, viewer: Viewer, formId: string, archived: boolean): Promise<Result<null, FormFailure>> {
  return app.write<null, FormFailure>(async (tx, now) => {
    const form = await lockForm(tx, formId);
    if ((form.archivedAt !== null) === archived) return ok(null);
    const isDefault = await rowsOf(tx, 'select 1 from agencies where default_form_id = $1', [formId]);
    if (archived && isDefault.length > 0) return fail({ code: 'form.in_use' });
    await tx.update(IntakeForm, { id: formId }, { archivedAt: archived ? now : null, version: form.version + 1 });
    await record(tx, viewer, formId, archived ? 'form.archived' : 'form.taken_back', { title: form.title }, now);
    return ok(null);
  });
}

import { formFaults, type FormContent } from '@zesting/core';
import type {
  FormatNeedsShape,
  FormPage,
  FormRow,
  FormShape,
  FormVersionRow,
  FormVersionShape,
  TriedRequestShape,
} from '@zesting/contract';
import type { Viewer } from '../../../platform/access/access.js';
import type { App } from '../../../platform/app.js';
import { Problem } from '../../../platform/http/problem.js';
import { CONTENT, FORMS } from '../use-cases/edit-form.js';
import { unknownIn } from './form-names.js';

const PAGE = 50;

/** SQL: a form that somebody sees: one for a client of theirs, or for none yet. */
const SEEN = `(not exists (select 1 from form_clients c where c.form_id = f.id)
  or exists (select 1 from form_clients c where c.form_id = f.id and c.client_id = any($1)))`;

interface Asked {
  readonly clientId?: string | undefined;
  readonly cursor?: string | undefined;
  readonly archived?: boolean;
}

/** Forms by title. */
export async function formPage(
  app: App,
  viewer: Viewer,
  { clientId, cursor, archived = false }: Asked,
): Promise<Omit<FormPage, 'stock' | 'formats'>> {
  const items = await app.read<FormRow>(
    `select f.id, f.title, f.published_version as "publishedVersion", f.draft is not null as "hasDraft", f.archived_at is not null as "isArchived",
       exists (select 1 from agencies a where a.default_form_id = f.id) as "isDefault",
       array(select c.client_id from form_clients c where c.form_id = f.id and c.client_id = any($1) order by c.client_id) as "clientIds",
       (select count(*)::int from form_links l where l.form_id = f.id and l.link_open and l.client_id = any($1)) as "openLinks",
       (select coalesce(sum(l.requests), 0)::int from form_links l where l.form_id = f.id and l.client_id = any($1)) as requests
     from intake_forms f where ${SEEN} and (f.archived_at is not null) = $2
       and ($3::uuid is null or exists (select 1 from form_clients c where c.form_id = f.id and c.client_id = $3))
       and ($4::uuid is null or (f.title, f.id) > (select o.title, o.id from intake_forms o where o.id = $4))
     order by f.title, f.id limit ${PAGE + 1}`,
    [viewer.clientIds, archived, clientId ?? null, cursor ?? null],
  );
  return {
    items: items.slice(0, PAGE),
    nextCursor: items.length > PAGE ? (items[PAGE - 1]?.id ?? null) : null,
    canEdit: viewer.mayEditForms,
  };
}

interface FormHead {
  readonly id: string;
  readonly client_ids: string[];
  readonly is_seen: boolean;
  readonly is_theirs: boolean;
  readonly content: FormContent;
  readonly has_draft: boolean;
  readonly published_version: number | null;
  readonly is_archived: boolean;
  readonly version: number;
}

/** A form within reach; `access.not_found` for others. Who may edit it has the right, and all of its clients. */
export async function formInReach(app: App, viewer: Viewer, formId: string, toEdit = false): Promise<FormHead & { canEdit: boolean }> {
  const [form] = await app.read<FormHead>(
    `select f.id, array(select c.client_id from form_clients c where c.form_id = f.id order by c.client_id) as client_ids, ${SEEN} as is_seen,
       not exists (select 1 from form_clients c join clients k on k.id = c.client_id and k.archived_at is null
         where c.form_id = f.id and not c.client_id = any($1)) as is_theirs,
       ${CONTENT} as content, f.draft is not null as has_draft, f.published_version, f.archived_at is not null as is_archived, f.version
     from ${FORMS} where f.id = $2`,
    [viewer.clientIds, formId],
  );
  if (!form?.is_seen) throw Problem.of('access.not_found');
  const canEdit = viewer.mayEditForms && form.is_theirs;
  if (toEdit && !canEdit) throw Problem.of('access.refused');
  return { ...form, canEdit };
}

/** One form whole, with what keeps it from being published. */
export async function formWhole(app: App, viewer: Viewer, formId: string): Promise<FormShape> {
  const form = await formInReach(app, viewer, formId);
  const versions = await app.read<FormVersionRow>(
    'select number, published_at as "publishedAt", published_by as "publishedBy" from form_versions where form_id = $1 order by number desc limit 100',
    [formId],
  );
  const links = await app.read<Omit<FormShape['links'][number], 'address'> & { generation: number; is_open: boolean }>(
    `select id, client_id as "clientId", label, origins, requests, link_generation as generation, link_open as is_open
     from form_links l where form_id = $1 and client_id = any($2) and ($3 or exists (
       select 1 from client_people o where o.client_id = l.client_id and o.person_id = $4 and o.relation = 'own')) order by link_open desc, made_at, id limit 500`,
    [formId, viewer.clientIds, viewer.role === 'lead', viewer.personId], // who covers for a manager carries no links away
  );
  const clientIds = form.client_ids.filter((id) => viewer.clientIds.includes(id));
  return {
    id: form.id,
    clientIds,
    content: form.content,
    hasDraft: form.has_draft,
    publishedVersion: form.published_version,
    faults: [...formFaults(form.content), ...(await unknownIn(app.manager, form.content, form.client_ids))],
    versions,
    links: links.map(({ generation, is_open: isOpen, ...link }) => ({
      ...link,
      address: isOpen && !form.is_archived ? app.links.address('ask', link.id, generation) : null,
    })),
    formats: await formatNeeds(app),
    isArchived: form.is_archived,
    canEdit: form.canEdit,
    version: form.version,
  };
}

/** What the briefs of the formats need. */
export const formatNeeds = (app: App): Promise<FormatNeedsShape[]> =>
  app.read<FormatNeedsShape>('select id as "formatId", name, needs from formats where archived_at is null order by position, name');

/** A version as it was asked; undefined where there is none of that number. */
export async function formVersion(app: App, formId: string, number: number): Promise<FormVersionShape | undefined> {
  const [version] = await app.read<FormVersionShape>(
    'select number, content, published_at as "publishedAt", published_by as "publishedBy" from form_versions where form_id = $1 and number = $2',
    [formId, number],
  );
  return version;
}

/** The newest requests that came by a form, to try its rules on. */
export const triedRequests = (app: App, viewer: Viewer, formId: string): Promise<TriedRequestShape[]> =>
  app.read<TriedRequestShape>(
    `select id, number, title, items, answers from requests where form_id = $1 and client_id = any($2) order by received_at desc, id desc limit 20`,
    [formId, viewer.clientIds],
  );

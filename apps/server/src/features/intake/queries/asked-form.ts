import { dayIn, type Day, type FieldOption, type FormContent, type FormItem, type InstantText } from '@zesting/core';
import type { AskableFormShape } from '@zesting/contract';
import type { App } from '../../../platform/app.js';
import { rowsOf, type Reader } from '../../../platform/database/rows.js';

/** A form as a link asks it now: its content, with what can be chosen filled in. */
export interface AskedForm {
  readonly linkId: string;
  readonly formId: string;
  readonly version: number;
  readonly clientId: string;
  readonly clientName: string;
  readonly zone: string;
  readonly content: FormContent;
  readonly items: readonly FormItem[];
  readonly todayOn: Day;
  readonly state: 'early' | 'open' | 'over';
}

interface Row {
  readonly form_id: string;
  readonly version: number;
  readonly client_id: string;
  readonly client_name: string;
  readonly zone: string;
  readonly content: FormContent;
}

/** What a client's people are asked by a link; undefined for a form of which nothing is published or that is archived. */
export async function askedForm(reader: Reader, linkId: string, now: InstantText): Promise<AskedForm | undefined> {
  const [row] = await rowsOf<Row>(
    reader,
    `select f.id as form_id, v.number as version, c.id as client_id, c.name as client_name, c.zone, v.content
     from form_links l join intake_forms f on f.id = l.form_id and f.archived_at is null join form_versions v on v.form_id = f.id and v.number = f.published_version
     join clients c on c.id = l.client_id where l.id = $1`,
    [linkId],
  );
  return row && { ...(await asked(reader, row, now)), linkId };
}

/** The same form for one of its clients, without a link: for what is taken down by telephone. */
export async function askedOfClient(
  reader: Reader,
  formId: string,
  clientId: string,
  now: InstantText,
): Promise<Omit<AskedForm, 'linkId'> | undefined> {
  const [row] = await rowsOf<Row>(
    reader,
    `select f.id as form_id, v.number as version, c.id as client_id, c.name as client_name, c.zone, v.content
     from form_clients k join intake_forms f on f.id = k.form_id and f.archived_at is null join form_versions v on v.form_id = f.id and v.number = f.published_version
     join clients c on c.id = k.client_id where f.id = $1 and c.id = $2`,
    [formId, clientId],
  );
  return row && asked(reader, row, now);
}

async function asked(reader: Reader, row: Row, now: InstantText): Promise<Omit<AskedForm, 'linkId'>> {
  const { opensOn, closesOn } = row.content;
  const todayOn = dayIn(now, row.zone);
  return {
    formId: row.form_id,
    version: row.version,
    clientId: row.client_id,
    clientName: row.client_name,
    zone: row.zone,
    content: row.content,
    items: await withOptions(reader, row.content.items, row.client_id),
    todayOn,
    state: opensOn !== null && todayOn < opensOn ? 'early' : closesOn !== null && todayOn > closesOn ? 'over' : 'open',
  };
}

const CHOSEN_FROM = {
  channel: 'select id as value, name as label from channels where client_id = $1 and archived_at is null order by position, name',
  pillar: 'select id as value, name as label from pillars where client_id = $1 and archived_at is null order by position, name',
  format: 'select id as value, name as label from formats where $1::uuid is not null and archived_at is null order by position, name',
} as const;

/** Fills in what can be chosen of the client's channels and pillars and the agency's formats. */
async function withOptions(reader: Reader, items: readonly FormItem[], clientId: string): Promise<FormItem[]> {
  const options = new Map<string, FieldOption[]>();
  for (const kind of ['channel', 'pillar', 'format'] as const)
    if (items.some((item) => item.kind === kind))
      options.set(kind, await rowsOf<{ value: string; label: string }>(reader, CHOSEN_FROM[kind], [clientId]));
  return items.map((item) => {
    const found = options.get(item.kind);
    return found && item.kind !== 'section' && item.kind !== 'text' ? { ...item, options: found } : item;
  });
}

/** The forms by which something can be taken down for a client, by title. */
export async function askableForms(app: App, clientId: string): Promise<AskableFormShape[]> {
  const forms = await app.read<{ id: string }>(
    `select f.id from form_clients k join intake_forms f on f.id = k.form_id
     where k.client_id = $1 and f.published_version is not null and f.archived_at is null order by f.title, f.id limit 50`,
    [clientId],
  );
  const now = app.clock.now();
  const found = await Promise.all(forms.map(({ id }) => askedOfClient(app.manager, id, clientId, now)));
  return found.flatMap((form) =>
    form
      ? [{ formId: form.formId, title: form.content.title, items: [...form.items], todayOn: form.todayOn, language: form.content.language }]
      : [],
  );
}

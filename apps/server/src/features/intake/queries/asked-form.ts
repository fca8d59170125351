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

const ROW = `f.id as form_id, v.number as version, c.id as client_id, c.name as client_name, c.zone, v.content`;
/** What is asked now of the form of a link or of a client, `k`, by that client. */
const ASKED = `join intake_forms f on f.id = k.form_id and f.archived_at is null
  join form_versions v on v.form_id = f.id and v.number = f.published_version join clients c on c.id = k.client_id`;

/** What a client's people are asked by a link; undefined for a form of which nothing is published or that is archived. */
export async function askedForm(reader: Reader, linkId: string, now: InstantText): Promise<AskedForm | undefined> {
  const [row] = await rowsOf<Row>(reader, `select ${ROW} from form_links k ${ASKED} where k.id = $1`, [linkId]);
  return row && { ...asked(row, await optionsOf(reader, row.client_id), now), linkId };
}

/** The same form for one of its clients, without a link: for what is taken down by telephone. */
export async function askedOfClient(
  reader: Reader,
  formId: string,
  clientId: string,
  now: InstantText,
): Promise<Omit<AskedForm, 'linkId'> | undefined> {
  const [row] = await rowsOf<Row>(reader, `select ${ROW} from form_clients k ${ASKED} where k.form_id = $1 and k.client_id = $2`, [
    formId,
    clientId,
  ]);
  return row && asked(row, await optionsOf(reader, clientId), now);
}

/** So many forms are offered to take something down on. */
const OFFERED = 50;

/** The forms by which something can be taken down for a client, by title. */
export async function askableForms(app: App, clientId: string): Promise<AskableFormShape[]> {
  const rows = await app.read<Row>(
    `select ${ROW} from form_clients k ${ASKED} where k.client_id = $1 order by f.title, f.id limit ${OFFERED}`,
    [clientId],
  );
  const options = await optionsOf(app.manager, clientId);
  return rows.map((row) => {
    const { formId, content, items, todayOn } = asked(row, options, app.clock.now());
    return { formId, title: content.title, items: [...items], todayOn, language: content.language };
  });
}

function asked(row: Row, options: Options, now: InstantText): Omit<AskedForm, 'linkId'> {
  const { opensOn, closesOn, items } = row.content;
  const todayOn = dayIn(now, row.zone);
  return {
    formId: row.form_id,
    version: row.version,
    clientId: row.client_id,
    clientName: row.client_name,
    zone: row.zone,
    content: row.content,
    items: items.map((item) =>
      item.kind === 'channel' || item.kind === 'pillar' || item.kind === 'format' ? { ...item, options: options[item.kind] } : item,
    ),
    todayOn,
    state: opensOn !== null && todayOn < opensOn ? 'early' : closesOn !== null && todayOn > closesOn ? 'over' : 'open',
  };
}

type Options = Readonly<Record<'channel' | 'pillar' | 'format', readonly FieldOption[]>>;

/** What can be chosen of a client's channels and pillars and of the agency's formats. */
async function optionsOf(reader: Reader, clientId: string): Promise<Options> {
  const rows = await rowsOf<{ kind: keyof Options; value: string; label: string }>(
    reader,
    `select * from (
       select 'channel' as kind, id as value, name as label, position from channels where client_id = $1 and archived_at is null
       union all select 'pillar', id, name, position from pillars where client_id = $1 and archived_at is null
       union all select 'format', id, name, position from formats where archived_at is null) o order by position, label`,
    [clientId],
  );
  const of = (kind: keyof Options) => rows.filter((row) => row.kind === kind).map(({ value, label }) => ({ value, label }));
  return { channel: of('channel'), pillar: of('pillar'), format: of('format') };
}

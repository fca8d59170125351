import { addDays, dayIn, type SignOffPolicy } from '@zesting/core';
import type {
  AllowanceBody,
  BrandBody,
  BrandShape,
  ChannelBody,
  ClientPageShape,
  ClientRow,
  ClosureBody,
  ContactBody,
  LogoShape,
  PersonNameShape,
  PossibleManagerShape,
  PillarBody,
} from '@zesting/contract';
import type { Viewer } from '../../../platform/access/access.js';
import type { App } from '../../../platform/app.js';
import { rowsOf, type Tx } from '../../../platform/database/transaction.js';
import { observances, publicHolidays } from '../../../platform/time/holidays.js';

interface ClientColumns {
  id: string;
  code: string;
  name: string;
  colour: number;
  zone: string;
  region: string;
  weekly_minutes: number[];
  usual_time: string;
  language: ClientPageShape['language'];
  rounds_agreed: number;
  feed_pencilled: boolean;
  observances: string[];
  policy: SignOffPolicy;
  brand: BrandBody;
  allowance: AllowanceBody;
  archived_at: string | null;
  version: number;
}

/** All that a client's page edits, as it stands. The lists leave out what is archived. */
export interface ClientLists {
  readonly contacts: ContactBody[];
  readonly channels: ChannelBody[];
  readonly pillars: PillarBody[];
  readonly closures: ClosureBody[];
  readonly managers: PersonNameShape[];
}

/** Contacts, channels and pillars: those in use, or those taken out. */
async function namedLists(tx: Tx, clientId: string, isArchived: boolean): Promise<Pick<ClientLists, 'contacts' | 'channels' | 'pillars'>> {
  const where = `where client_id = $1 and archived_at is ${isArchived ? 'not ' : ''}null order by position, name`;
  const contacts = await rowsOf<ContactBody>(
    tx,
    `select id, name, email, can_ask as "canAsk", can_view as "canView", can_sign_off as "canSignOff", weight from contacts ${where}`,
    [clientId],
  );
  const channels = await rowsOf<ChannelBody>(
    tx,
    `select id, kind, name, ratio, copy_limit as "copyLimit", tag_limit as "tagLimit", media_limit as "mediaLimit", lead_days as "leadDays",
       counts_tags as "countsTags", links_work as "linksWork", needs_media as "needsMedia", min_width as "minWidth", has_address as "hasAddress",
       other_shapes as "otherShapes", cuts_media as "cutsMedia", clip_min_seconds as "clipMinSeconds", clip_max_seconds as "clipMaxSeconds",
       file_limit_mb as "fileLimitMb", safe_top as "safeTop", safe_bottom as "safeBottom", safe_sides as "safeSides", folds_at as "foldsAt",
       posting_address as "postingAddress", usual_time as "usualTime" from channels ${where}`,
    [clientId],
  );
  const pillars = await rowsOf<PillarBody>(tx, `select id, name, share, colour from pillars ${where}`, [clientId]);
  return { contacts, channels, pillars };
}

export async function clientLists(tx: Tx, clientId: string): Promise<ClientLists> {
  const closures = await rowsOf<ClosureBody>(
    tx,
    'select start_on as "startOn", end_on as "endOn", name from client_closures where client_id = $1 order by start_on, end_on, name',
    [clientId],
  );
  const managers = await rowsOf<PersonNameShape>(
    tx,
    `select p.id as "personId", p.name from client_people c join people p on p.id = c.person_id
     where c.client_id = $1 and c.relation = 'own' and p.role = 'manager' and p.active order by p.name`,
    [clientId],
  );
  return { ...(await namedLists(tx, clientId, false)), closures, managers };
}

/** Who may manage a client, or decide for it. */
export const possibleManagers = (tx: Tx): Promise<PossibleManagerShape[]> =>
  rowsOf<PossibleManagerShape>(
    tx,
    `select id as "personId", name, email, role from people where role in ('lead', 'manager') and active order by name, email`,
  );

async function columnsOf(tx: Tx, clientId: string): Promise<ClientColumns> {
  const [row] = await rowsOf<ClientColumns>(tx, 'select * from clients where id = $1', [clientId]);
  if (!row) throw new Error('the client went away');
  return row;
}

const logosOf = (tx: Tx, row: ClientColumns): Promise<LogoShape[]> =>
  rowsOf<LogoShape>(
    tx,
    'select id as "assetId", name, mime from assets where client_id = $1 and id::text = any($2) order by array_position($2, id::text)',
    [row.id, row.brand.logos],
  );

/** The brand sheet: all that a creator sees of a client. */
export async function brandSheet(app: App, clientId: string): Promise<BrandShape> {
  const row = await columnsOf(app.manager, clientId);
  const { id, code, name, colour, zone, brand } = row;
  return { id, code, name, colour, zone, brand, logos: await logosOf(app.manager, row) };
}

/** The whole of a client's page. */
export async function clientPage(app: App, clientId: string): Promise<ClientPageShape> {
  const tx = app.manager;
  const row = await columnsOf(tx, clientId);
  const today = dayIn(app.clock.now(), row.zone);
  const until = addDays(today, 365);
  const years = [Number(today.slice(0, 4)), Number(until.slice(0, 4))] as const;
  const isAhead = (day: { on: string }) => day.on >= today && day.on <= until;
  return {
    ...(await brandSheet(app, clientId)),
    ...(await clientLists(tx, clientId)),
    archived: await namedLists(tx, clientId, true),
    region: row.region,
    weeklyMinutes: row.weekly_minutes,
    usualTime: row.usual_time,
    language: row.language,
    roundsAgreed: row.rounds_agreed,
    feedPencilled: row.feed_pencilled,
    policy: row.policy,
    allowance: row.allowance,
    possibleManagers: await possibleManagers(tx),
    holidays: publicHolidays(row.region, ...years).filter(isAhead),
    observances: row.observances,
    possibleObservances: observances(row.region, ...years).filter(isAhead),
    archivedAt: row.archived_at,
    version: row.version,
  };
}

/** The clients in the viewer's reach, archived ones last (they are a lead's alone). */
export const clientRows = (app: App, viewer: Viewer): Promise<ClientRow[]> =>
  app.read<ClientRow>(
    `select c.id, c.code, c.name, c.colour, c.zone, c.region, c.archived_at as "archivedAt",
       array(select p.name from client_people o join people p on p.id = o.person_id
         where o.client_id = c.id and o.relation = 'own' and p.role = 'manager' and p.active order by p.name) as managers,
       (select count(*) from pieces i where i.client_id = c.id and i.list is not null) as "openPieces",
       (select count(*) from pieces i where i.client_id = c.id and i.list in ('trouble', 'out_of_reach', 'overdue', 'will_be_late')) as "inDanger",
       (select count(*) from contacts x where x.client_id = c.id and x.archived_at is null) as contacts
     from clients c where c.id = any($1) or ($2 and c.archived_at is not null) order by (c.archived_at is not null), c.name`,
    [viewer.clientIds, viewer.role === 'lead'],
  );

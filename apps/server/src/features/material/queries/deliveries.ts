import { addWorkingDays, dayIn, fail, getDay, ok, workingDayOnOrAfter, type Day, type Result, type WorkCalendar } from '@zesting/core';
import type { AskMaterialShape, DeliveryShape, RoomDeliveryShape } from '@zesting/contract';
import type { App } from '../../../platform/app.js';
import { clientKey, getDoer, isFreeStep, loadCalendars } from '../../planning/index.js';
import { FILE } from './file.js';

interface ClientTime {
  readonly calendar: WorkCalendar;
  readonly todayOn: Day;
}

/** By when the client is asked: the latest day that the plan leaves, where that is still to come; else as soon as the client can. */
export function dueOf({ calendar, todayOn }: ClientTime, latestOn: string | null, earliestOn: string | null): Day {
  if (latestOn !== null && latestOn >= todayOn) return getDay(latestOn);
  if (earliestOn !== null && earliestOn >= todayOn) return getDay(earliestOn);
  const next = workingDayOnOrAfter(calendar, todayOn);
  const day = next.ok ? addWorkingDays(calendar, next.value, 1) : next;
  return day.ok ? day.value : todayOn; // a client that never works is asked for today
}

type DeliveryRow = Omit<DeliveryShape, 'isPastDue'> & { readonly zone: string };

/** What a piece's client was asked to bring, in the order of its steps. */
export async function deliveriesOf(app: App, pieceId: string): Promise<DeliveryShape[]> {
  const rows = await app.read<DeliveryRow>(
    `select y.step_id as "stepId", s.title as "stepTitle", y.contact_id as "contactId", x.name as "contactName", y.words, y.due_on as "dueOn", d.name as "askedBy",
       y.asked_at as "askedAt", y.times, y.brought_at as "broughtAt", y.brought_by as "broughtBy", y.brought_words as "broughtWords", c.zone
     from deliveries y join steps s on s.id = y.step_id join contacts x on x.id = y.contact_id join people d on d.id = y.asked_by join clients c on c.id = x.client_id
     where y.piece_id = $1 order by s.position`,
    [pieceId],
  );
  return rows.map(({ zone, ...row }) => ({ ...row, isPastDue: row.broughtAt === null && row.dueOn < dayIn(app.clock.now(), zone) }));
}

/** What asking the client begins with: who asks content of us first, the words of before, the day that the plan leaves. */
export async function askingFor(app: App, stepId: string): Promise<Result<AskMaterialShape, { code: 'step.not_a_delivery' }>> {
  const [step] = await app.read<StepRow>(
    `select s.kind, s.latest_finish_on, s.earliest_finish_on, p.client_id, y.contact_id, y.words, y.due_on from steps s join pieces p on p.id = s.piece_id
     left join deliveries y on y.step_id = s.id where s.id = $1`,
    [stepId],
  );
  if (step?.kind !== 'deliver') return fail({ code: 'step.not_a_delivery' });
  const client = getDoer(await loadCalendars(app.manager, app.clock.now(), new Set([step.client_id])), clientKey(step.client_id));
  const contacts = await app.read<{ id: string; name: string }>(
    'select id, name from contacts where client_id = $1 and archived_at is null order by can_ask desc, position, id',
    [step.client_id],
  );
  const others = await app.read<{ stepId: string; stepTitle: string; pieceTitle: string; latest: string | null; earliest: string | null }>(
    `select s.id as "stepId", s.title as "stepTitle", p.title as "pieceTitle", s.latest_finish_on as latest, s.earliest_finish_on as earliest
     from steps s join pieces p on p.id = s.piece_id
     where p.client_id = $1 and s.id <> $2 and s.kind = 'deliver' and s.finished_on is null and p.list is not null and ${isFreeStep('s')}
       and not exists (select 1 from deliveries y where y.step_id = s.id) order by s.latest_finish_on nulls last, p.number limit 30`,
    [step.client_id, stepId],
  );
  const isAskable = contacts.some(({ id }) => id === step.contact_id);
  return ok({
    contacts,
    contactId: isAskable ? step.contact_id : (contacts[0]?.id ?? null),
    words: step.words ?? '',
    dueOn: dueOf(client, step.due_on ?? step.latest_finish_on, step.earliest_finish_on),
    others: others.map(({ latest, earliest, ...other }) => ({ ...other, dueOn: dueOf(client, latest, earliest) })),
  });
}

interface StepRow {
  kind: string;
  latest_finish_on: string | null;
  earliest_finish_on: string | null;
  client_id: string;
  contact_id: string | null;
  words: string | null;
  due_on: string | null;
}

/** So long a delivery stays in the room after it was brought. */
const SHOWN_DAYS = 14;

/** What is awaited from a contact, the first due first; what they brought of late stands behind it. */
export async function deliveriesFor(app: App, contactId: string): Promise<RoomDeliveryShape[]> {
  const rows = await app.read<Omit<RoomDeliveryShape, 'isPastDue'> & { zone: string }>(
    `select y.step_id as "stepId", s.title, p.title as "pieceTitle", y.words, y.due_on as "dueOn", y.brought_at as "broughtAt", c.zone,
       coalesce((select jsonb_agg(to_jsonb(b)) from (select m.id, m.label, ${FILE}, m.url, m.text from materials m left join assets a on a.id = m.asset_id
         where m.step_id = y.step_id and m.contact_id = y.contact_id and m.removed_at is null order by m.added_at, m.id) b), '[]') as brought
     from deliveries y join steps s on s.id = y.step_id join pieces p on p.id = y.piece_id join clients c on c.id = p.client_id
     where y.contact_id = $1 and not p.shelved and (y.brought_at is null or y.brought_at > $2::timestamptz - make_interval(days => ${SHOWN_DAYS}))
     order by (y.brought_at is not null), y.due_on, y.step_id limit 50`,
    [contactId, app.clock.now()],
  );
  return rows.map(({ zone, ...row }) => ({ ...row, isPastDue: row.broughtAt === null && row.dueOn < dayIn(app.clock.now(), zone) }));
}

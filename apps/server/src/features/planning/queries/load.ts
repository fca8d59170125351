import { addDays, dayIn, daysBetween, getDay, lastOfMonth, minutesOn, monthOfSpan, overloads, type Day } from '@zesting/core';
import type { ClientHoursShape, LoadPersonShape, LoadShape, LoadStepShape, PersonLoadShape } from '@zesting/contract';
import type { Viewer } from '../../../platform/access/access.js';
import type { App } from '../../../platform/app.js';
import { getDoer, loadCalendars, type CalendarBook } from '../calendars.js';
import { minutesByDoer } from '../duties.js';
import { loadOtherHours } from '../placement-work.js';
import { predictedLoadOf } from '../predict.js';

interface PersonRow {
  id: string;
  name: string;
  role: string;
  zone: string;
}
interface DueRow {
  id: string;
  doerId: string;
  minutes: number;
  releasedOn: string;
  dueOn: string;
}

/** Everybody's days: hours, what is predicted to be worked, and where more is due than there are hours. */
export async function loadOf(app: App, viewer: Viewer, from: Day, to: Day): Promise<LoadShape> {
  const now = app.clock.now();
  const [load, book] = [await predictedLoadOf(app, to), await loadCalendars(app.manager, now)];
  const people = await app.read<PersonRow>(
    "select id, name, role, zone from people where active order by array_position(array['staff', 'freelance', 'manager', 'lead'], role), name",
  );
  const due = await app.read<DueRow>(
    `select s.id, s.doer_id as "doerId", coalesce(s.remaining_minutes, s.effort_minutes) as minutes, s.latest_finish_on as "dueOn",
       coalesce(s.started_on, s.earliest_start_on) as "releasedOn"
     from steps s join pieces p on p.id = s.piece_id
     where s.finished_on is null and s.doer_id is not null and p.list is not null and s.latest_finish_on is not null order by s.id`,
  );
  const duties = await loadOtherHours(app.manager, book);
  const [takenOf, dutiesOf, dueOf] = [minutesByDoer(load), minutesByDoer(duties), new Map<string, DueRow[]>()];
  for (const step of due) {
    const known = dueOf.get(step.doerId);
    if (known) known.push(step);
    else dueOf.set(step.doerId, [step]);
  }
  const todayOn = dayIn(now, viewer.zone);
  const month = monthOfSpan(from, to, todayOn);
  const days = Array.from({ length: daysBetween(from, to) + 1 }, (_, index) => addDays(from, index));
  return {
    todayOn,
    fromOn: from,
    toOn: to,
    people: people.map((person) =>
      personShape(person, days, dueOf.get(person.id) ?? [], takenOf.get(person.id) ?? NOTHING, dutiesOf.get(person.id) ?? NOTHING, book),
    ),
    month,
    clients: await clientHours(app, viewer, month),
  };
}

const NOTHING: ReadonlyMap<Day, number> = new Map();

function personShape(
  { id, name, role, zone }: PersonRow,
  days: readonly Day[],
  due: readonly DueRow[],
  taken: ReadonlyMap<Day, number>,
  duties: ReadonlyMap<Day, number>,
  book: CalendarBook,
): LoadPersonShape {
  const { calendar, todayOn } = getDoer(book, id);
  const work = due.map((step) => ({ id: step.id, minutes: step.minutes, releasedOn: getDay(step.releasedOn), dueOn: getDay(step.dueOn) }));
  return {
    personId: id,
    name,
    role,
    zone,
    todayOn,
    hours: days.map((day) => minutesOn(calendar, day)),
    taken: days.map((day) => taken.get(day) ?? 0),
    overloads: overloads(work, { calendar, taken: duties, todayOn }).map(({ ids: _, ...over }) => over),
  };
}

/** What one person has in front of them, by when it is due. */
export async function loadOfPerson(app: App, viewer: Viewer, personId: string): Promise<PersonLoadShape> {
  const steps = await app.read<LoadStepShape & { clientId: string }>(
    `select s.id as "stepId", s.version, s.title, p.id as "pieceId", p.title as "pieceTitle", p.client_id as "clientId",
       coalesce(s.remaining_minutes, s.effort_minutes) as minutes, s.span_days as "spanDays", s.danger, s.latest_finish_on as "latestFinishOn",
       coalesce(s.started_on, s.predicted_start_on, s.earliest_start_on) as "startOn", coalesce(s.predicted_finish_on, s.earliest_finish_on) as "finishOn",
       coalesce(s.started_on, s.earliest_start_on) as "releasedOn"
     from steps s join pieces p on p.id = s.piece_id where s.doer_id = $1 and s.finished_on is null and p.list is not null
     order by s.latest_finish_on nulls last, p.number, s.position`,
    [personId],
  );
  return {
    steps: steps.map((step) =>
      viewer.clientIds.includes(step.clientId) ? step : { ...step, title: null, pieceId: null, pieceTitle: null, clientId: null },
    ),
  };
}

/** What of the hours of the viewer's clients falls into a month. */
async function clientHours(app: App, viewer: Viewer, month: string): Promise<ClientHoursShape[]> {
  return app.read<ClientHoursShape>(
    `select c.id as "clientId", coalesce(w.done, 0) as "doneMinutes", coalesce(w.open, 0) as "openMinutes",
       (c.allowance ->> 'hours')::float * 60 as "includedMinutes"
     from clients c left join (
       select p.client_id, sum(s.effort_minutes) filter (where s.finished_on is not null) as done,
         sum(coalesce(s.remaining_minutes, s.effort_minutes)) filter (where s.finished_on is null) as open
       from pieces p join steps s on s.piece_id = p.id
       where p.client_id = any($1) and (s.finished_on between $2 and $3
         or (s.finished_on is null and p.list is not null and coalesce(s.predicted_finish_on, s.earliest_finish_on) between $2 and $3))
       group by p.client_id) w on w.client_id = c.id
     where c.id = any($1) and c.archived_at is null order by c.name`,
    [viewer.clientIds, `${month}-01`, lastOfMonth(month)],
  );
}

import { addDays, dayIn, uncoveredDays, type Day } from '@zesting/core';
import type { DutiesShape, DutyDayShape, DutyShape, MyDutiesShape, MyDutyShape, PersonDutyShape } from '@zesting/contract';
import type { Viewer } from '../../../platform/access/access.js';
import type { App } from '../../../platform/app.js';
import {
  AGENCY_KEY,
  clientKey,
  dueDuties,
  firstToday,
  getDoer,
  knownDays,
  loadCalendars,
  loadDuties,
  MISSED_DAYS,
  type CalendarBook,
  type DutySource,
  type KnownDutyDay,
} from '../../planning/index.js';

/** So far ahead is looked for days on which nobody does it: six weeks. */
const AHEAD_DAYS = 42;
const YEAR_DAYS = 365;
/** A rule's next day may be years away. */
const FURTHEST_DAYS = 1_500;
/** So long what nobody could do on its day may wait for the first who works. */
const WAITING_DAYS = 31;
/** Twelve weeks say how often what comes in days or weeks comes. */
const RATE_DAYS = 84;
/** So many are told at once. */
const SHOWN = 200;
/** So much is shown of what has been and what comes. */
const SHOWN_BEFORE_DAYS = MISSED_DAYS;
const SHOWN_AHEAD = 12;

interface Row {
  readonly id: string;
  readonly clientId: string | null;
  readonly remark: string;
  readonly checklist: string[];
  readonly leadName: string;
  readonly secondName: string | null;
  readonly minutes: number;
  readonly routeId: string | null;
  readonly channelIds: string[];
  readonly pillarId: string | null;
  readonly anchorOn: string;
  readonly version: number;
  readonly clientCode: string | null;
  readonly clientName: string | null;
  readonly clientColour: number | null;
}

/** What is shown of duties beside what is reckoned. */
async function rowsOfDuties(app: App, ids: readonly string[]): Promise<Map<string, Row>> {
  const rows = await app.read<Row>(
    `select d.id, d.client_id as "clientId", d.remark, d.checklist, l.name as "leadName", s.name as "secondName", d.minutes, d.route_id as "routeId",
       d.channel_ids as "channelIds", d.pillar_id as "pillarId", d.anchor_on as "anchorOn", d.version, c.code as "clientCode", c.name as "clientName",
       c.colour as "clientColour"
     from duties d join people l on l.id = d.lead_id left join people s on s.id = d.second_id left join clients c on c.id = d.client_id where d.id = any($1)`,
    [ids],
  );
  return new Map(rows.map((row) => [row.id, row]));
}

const isOver = ({ state }: KnownDutyDay): boolean => state === 'missed' || state === 'done' || state === 'left_out' || state === 'made';

const dayShape = ({ on, startOn, dueOn, doer, state, mark }: KnownDutyDay): DutyDayShape => ({
  on,
  startOn,
  dueOn,
  doer,
  state,
  ticks: mark?.ticks ?? [],
  by: mark?.by ?? null,
  pieceId: mark?.pieceId ?? null,
});

/** The first day that is neither done nor over: looked for near before it is looked for far. */
function nextOf(duty: DutySource, book: CalendarBook, todayOn: Day): KnownDutyDay | undefined {
  // what nobody could do on its day waits some days longer
  let from = addDays(todayOn, -WAITING_DAYS);
  for (const length of [WAITING_DAYS + AHEAD_DAYS, YEAR_DAYS, FURTHEST_DAYS]) {
    const to = addDays(from, length);
    const found = knownDays(duty, book, from, to).find((day) => !isOver(day));
    if (found) return found;
    from = addDays(to, 1);
  }
  return undefined;
}

/** The duties of clients, and the agency's own, by their next day. */
export async function dutiesOf(app: App, clientIds: readonly string[], { ownToo }: { readonly ownToo: boolean }): Promise<DutiesShape> {
  const book = await loadCalendars(app.manager, app.clock.now());
  const first = firstToday(book);
  const all = await loadDuties(app.manager, book, addDays(first, -MISSED_DAYS));
  // what has ended is gone from the list
  const sources = all.filter(
    ({ clientId, untilOn }) => (clientId === null ? ownToo : clientIds.includes(clientId)) && (untilOn === null || untilOn >= first),
  );
  // what comes once and is over is gone too
  const reckoned = sources.flatMap((duty) => {
    const { todayOn } = getDoer(book, duty.leadId);
    const missed = knownDays(duty, book, addDays(todayOn, -MISSED_DAYS), addDays(todayOn, -1)).filter(({ state }) => state === 'missed');
    const next = nextOf(duty, book, todayOn);
    return next !== undefined || missed.length > 0 || duty.rule !== null ? [{ duty, todayOn, missed, next }] : [];
  });
  reckoned.sort((a, b) => compare(a.next?.dueOn ?? '9999', b.next?.dueOn ?? '9999') || compare(a.duty.title, b.duty.title));
  const shown = reckoned.slice(0, SHOWN);
  const rows = await rowsOfDuties(
    app,
    shown.map(({ duty }) => duty.id),
  );
  return {
    duties: shown.flatMap((one) => {
      const row = rows.get(one.duty.id);
      return row ? [dutyShape(one, row, book)] : [];
    }),
    hidden: reckoned.length - shown.length,
  };
}

interface Reckoned {
  readonly duty: DutySource;
  readonly todayOn: Day;
  readonly missed: readonly KnownDutyDay[];
  readonly next: KnownDutyDay | undefined;
}

const compare = (a: string, b: string): number => (a < b ? -1 : a > b ? 1 : 0);

/** How often a duty comes in a month, by the weeks to come, or by the year where it comes more rarely than that. */
function timesAMonth(duty: DutySource, book: CalendarBook, todayOn: Day): number {
  const days = duty.rule === null || /^FREQ=(DAILY|WEEKLY)/.test(duty.rule) ? RATE_DAYS : YEAR_DAYS;
  return (knownDays(duty, book, addDays(todayOn, 1), addDays(todayOn, days)).length * YEAR_DAYS) / days / 12;
}

function dutyShape({ duty, todayOn, missed, next }: Reckoned, row: Row, book: CalendarBook): DutyShape {
  const others = getDoer(book, duty.clientId === null ? AGENCY_KEY : clientKey(duty.clientId));
  return {
    id: duty.id,
    clientId: duty.clientId,
    title: duty.title,
    remark: row.remark,
    checklist: row.checklist,
    rule: duty.rule,
    fromOn: row.anchorOn < duty.fromOn && duty.rule !== null ? row.anchorOn : duty.fromOn,
    untilOn: duty.untilOn,
    leadDays: duty.leadDays,
    leadId: duty.leadId,
    leadName: row.leadName,
    secondId: duty.secondId,
    secondName: row.secondName,
    minutes: row.minutes,
    piece: row.routeId === null ? null : { routeId: row.routeId, channelIds: row.channelIds, pillarId: row.pillarId },
    version: row.version,
    todayOn,
    minutesAMonth: duty.rule === null ? 0 : Math.round(duty.minutes * timesAMonth(duty, book, todayOn)),
    next: next ? dayShape(next) : null,
    missed: missed.length,
    lastMissedOn: missed.at(-1)?.on ?? null,
    uncoveredOn: duty.makesPiece ? [] : uncoveredDays(duty, duty.calendars, others.calendar, todayOn, addDays(todayOn, AHEAD_DAYS)),
  };
}

/** What has been of a duty in the last three months, and its next dozen, in the order of time. */
export async function dutyDaysOf(app: App, dutyId: string): Promise<DutyDayShape[]> {
  const book = await loadCalendars(app.manager, app.clock.now());
  const [duty] = await loadDuties(app.manager, book, addDays(firstToday(book), -SHOWN_BEFORE_DAYS), [dutyId]);
  if (!duty) return [];
  const { todayOn } = getDoer(book, duty.leadId);
  const before = knownDays(duty, book, addDays(todayOn, -SHOWN_BEFORE_DAYS), todayOn);
  const ahead = knownDays(duty, book, addDays(todayOn, 1), addDays(todayOn, YEAR_DAYS));
  return [...before, ...ahead.slice(0, SHOWN_AHEAD)].map(dayShape);
}

/** The viewer's own duties that can be done now or were missed. */
export async function myDutiesOf(app: App, viewer: Viewer): Promise<MyDutiesShape> {
  const now = app.clock.now();
  const todayOn = dayIn(now, viewer.zone);
  const mine = await app.read<{ id: string }>('select id from duties where lead_id = $1 or second_id = $1', [viewer.personId]);
  if (mine.length === 0) return { todayOn, rows: [] };
  const book = await loadCalendars(app.manager, now);
  const ids = mine.map(({ id }) => id);
  const due = dueDuties(await loadDuties(app.manager, book, addDays(firstToday(book), -MISSED_DAYS), ids), book);
  const rows = await rowsOfDuties(app, ids);
  return {
    todayOn,
    rows: due.flatMap(({ duty, day, missedBefore }): MyDutyShape[] => {
      const row = rows.get(duty.id);
      if (!row || day.personId !== viewer.personId) return [];
      const { clientId, clientCode, clientName, clientColour, remark, checklist, minutes } = row;
      return [
        {
          dutyId: duty.id,
          clientId,
          clientCode,
          clientName,
          clientColour,
          title: duty.title,
          remark,
          checklist,
          minutes,
          day: dayShape(day),
          missedBefore,
        },
      ];
    }),
  };
}

/** Duties that still hold and that somebody does or stands in for, by title. */
export const dutiesOfPerson = (app: App, personId: string, viewerZone: string): Promise<PersonDutyShape[]> =>
  app.read<PersonDutyShape>(
    `select d.id, d.title, d.client_id as "clientId", d.lead_id = $1 as "isLead" from duties d left join clients c on c.id = d.client_id
     where (d.lead_id = $1 or d.second_id = $1) and (d.until_on is null or d.until_on >= $2) and c.archived_at is null order by d.title, d.id`,
    [personId, dayIn(app.clock.now(), viewerZone)],
  );

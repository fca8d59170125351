import { addDays, dayIn, getDay, makeUpDay, shortageOf, toDayNumber, type Day } from '@zesting/core';
import type { ProductionDayShape, ProductionPieceShape } from '@zesting/contract';
import type { App } from '../../../platform/app.js';
import { AGENCY_KEY, getDoer, loadCalendars } from '../../planning/index.js';

interface DayRow {
  readonly clientId: string;
  readonly zone: string;
  readonly on: Day;
  readonly capacity: number | null;
  readonly skill: string | null;
  readonly place: string | null;
  readonly pieceIds: string[] | null;
  readonly version: number | null;
}

/** What a production day holds until something is said of it. */
const USUAL_CAPACITY = 4;
/** So many pieces are offered. */
const OFFERED = 60;
/** So far around the day others are asked for what stands in their way. */
const AROUND_DAYS = 70;

/** What is made together on a production day, what stands in its way, and where it could be made up for. Undefined: it is a marker of another kind. */
export async function productionDayOf(app: App, markerId: string): Promise<ProductionDayShape | undefined> {
  const [day] = await app.read<DayRow>(
    `select m.client_id as "clientId", c.zone, m.start_on as on, d.capacity, d.skill, d.place, d.piece_ids as "pieceIds", d.version
     from markers m join clients c on c.id = m.client_id left join production_days d on d.marker_id = m.id
     where m.id = $1 and m.kind = 'production_day'`,
    [markerId],
  );
  if (!day) return undefined;
  const pieces = await piecesOf(app, day.clientId, day.skill, day.pieceIds ?? []);
  const chosen = pieces.filter(({ isChosen }) => isChosen);
  const blockers = await blockersAround(app, day.clientId, markerId, day.on);
  const now = app.clock.now();
  const book = await loadCalendars(app.manager, now, new Set([day.clientId]));
  const { calendar } = getDoer(book, AGENCY_KEY);
  const capacity = day.capacity ?? USUAL_CAPACITY;
  const known = { on: day.on, capacity, needBy: chosen.map(({ needBy }) => (needBy === null ? null : getDay(needBy))) };
  const blockedBy = blockers.filter(({ startOn, endOn, kind }) => kind !== 'production_day' && startOn <= day.on && day.on <= endOn);
  const isFree = (on: Day) =>
    calendar.minutesOnNumber(toDayNumber(on)) > 0 && !blockers.some(({ startOn, endOn }) => startOn <= on && on <= endOn);
  const isBlocked = blockedBy.length > 0 || calendar.minutesOnNumber(toDayNumber(day.on)) === 0;
  return {
    markerId,
    capacity,
    skill: day.skill,
    place: day.place ?? '',
    version: day.version ?? 0,
    pieces,
    blockedBy: blockedBy.map(({ name }) => name),
    isDayOff: calendar.minutesOnNumber(toDayNumber(day.on)) === 0,
    shortage: shortageOf(known, isBlocked),
    makeUpOn: isBlocked ? makeUpDay(known, dayIn(now, day.zone), isFree) : null,
  };
}

/** The client's pieces that are still to be made by a skill (or any), those that are chosen first; by when each has to be. */
const piecesOf = (app: App, clientId: string, skill: string | null, chosen: readonly string[]): Promise<ProductionPieceShape[]> =>
  app.read<ProductionPieceShape>(
    `select p.id as "pieceId", p.title, f.name as "formatName", p.id = any($2) as "isChosen", min(s.latest_finish_on) as "needBy"
     from pieces p join formats f on f.id = p.format_id join steps s on s.piece_id = p.id and s.kind = 'make' and s.finished_on is null and ($3::text is null or s.skill = $3)
     where p.client_id = $1 and p.list is not null and not p.shelved
     group by p.id, f.name order by p.id = any($2) desc, min(s.latest_finish_on) nulls last, p.number limit ${OFFERED}`,
    [clientId, chosen, skill],
  );

interface Blocker {
  readonly name: string;
  readonly kind: string;
  readonly startOn: Day;
  readonly endOn: Day;
}

/** What takes days around a production day: conferences, blackouts, closures, and other production days, of the client and of the agency. */
const blockersAround = (app: App, clientId: string, markerId: string, on: Day): Promise<Blocker[]> =>
  app.read<Blocker>(
    `select name, kind, start_on as "startOn", end_on as "endOn" from markers
     where (client_id = $1 or client_id is null) and id <> $2 and kind in ('conference', 'blackout', 'production_day') and end_on >= $3 and start_on <= $4
     union all select name, 'closure', start_on, end_on from client_closures where client_id = $1 and end_on >= $3 and start_on <= $4
     order by 3, 1`,
    [clientId, markerId, addDays(on, -AROUND_DAYS), addDays(on, AROUND_DAYS)],
  );

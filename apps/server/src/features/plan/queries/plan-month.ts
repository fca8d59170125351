import {
  addDays,
  againFrom,
  askingOf,
  bindSlots,
  countByWeeks,
  dayIn,
  daysBetween,
  firstOfMonth,
  isAhead,
  isOnTheme,
  isUntitledPiece,
  largestGapDays,
  lastOfMonth,
  longestRun,
  mondayOf,
  mixOf,
  themeOn,
  wantedOf,
  type Day,
  type PieceStage,
  type Purpose,
  type RouteStep,
} from '@zesting/core';
import type {
  SlotCandidateShape,
  PlanMixRowShape,
  PlanMonthShape,
  PlannedShape,
  PlanNumbersShape,
  PlanRouteShape,
} from '@zesting/contract';
import type { App } from '../../../platform/app.js';
import { markersOf, themesOf, themesShown } from '../../calendar/index.js';
import { earliestByPath } from '../../planning/index.js';
import { WEIGHTS, WORTH } from './ideas.js';
import { stockOf, type StockRow } from '../../evergreen/index.js';
import { subjectOfPiece } from '../../production/index.js';
import { preparing } from './run-up.js';
import { rhythmsOf, slotsBetween, type BoundRow, type ClientRhythm, type WantedSlot } from './rhythm-of.js';

/** So many ideas, and so many pieces without a day, are candidates at most: the best ideas, the pieces that are furthest. */
const IDEAS = 150;
const PIECES = 50;
/** So much of an idea's or a piece's note is looked into for the words of a theme. */
const NOTE_LENGTH = 500;

interface PlacedRow extends BoundRow {
  readonly pieceId: string;
  readonly pieceNumber: number;
  readonly title: string;
  readonly notes: string;
  readonly stage: PieceStage;
  readonly channelName: string;
  readonly pillarId: string | null;
  readonly formatId: string;
  readonly subjectId: string | null;
  readonly purpose: Purpose | null;
  readonly formatName: string;
}

/** A client's month. Undefined where the client is archived. */
export async function planMonth(app: App, clientId: string, month: string): Promise<PlanMonthShape | undefined> {
  const now = app.clock.now();
  const [from, to] = [firstOfMonth(month), lastOfMonth(month)];
  const [rhythm] = await rhythmsOf(app.manager, [clientId], from, now);
  if (!rhythm) return undefined;
  const [placed, themed, markers, routes] = await Promise.all([
    placedIn(app, clientId, from, to),
    themesOf(app, clientId, from, to),
    markersOf(app, [clientId], from, to),
    routesFor(app, clientId),
  ]);
  const closed = new Map(markers.flatMap(({ kind, on, name }) => (kind === 'blackout' ? [[on, name] as const] : [])));
  const seasons = [...new Map(markers.flatMap((marker) => (SEASONS.includes(marker.kind) ? [[marker.id, marker] as const] : []))).values()];
  const themeNameOn = (on: Day) => themeOn(on, themed.themes, themed.cycle)?.name ?? null;
  const plannedOf = (row: PlacedRow): PlannedShape => {
    const theme = themeNameOn(row.on);
    const { id, clientId: _clientId, notes, formatName, ...rest } = row;
    return {
      ...rest,
      placementId: id,
      isOnTheme: theme === null ? null : isOnTheme(`${row.title} ${notes}`, theme),
      isUntitled: isUntitledPiece(row.title, formatName),
    };
  };
  const bound = bindSlots(slotsBetween(rhythm, from, to), placed);
  const slots = bound.slots.map(({ slot, placed: there }) => ({
    ...slotShape(slot),
    theme: themeNameOn(slot.on),
    seasons: seasons.flatMap(({ name, startOn, endOn }) => (startOn <= slot.on && slot.on <= endOn ? [name] : [])),
    blackout: closed.get(slot.on) ?? null,
    isPast: !isAhead(slot, now),
    planned: there && plannedOf(there),
  }));
  const names = new Set(slots.flatMap(({ theme, planned }) => (theme !== null && planned === null ? [theme] : [])));
  const seasonNames = new Set(seasons.map(({ name }) => name));
  const { candidates, hidden } = await candidatesFor(app, rhythm, to, names, seasonNames);
  // what goes out on several channels is one piece of the flow
  const flow = [...new Map([...placed].reverse().map((row) => [row.pieceId, row])).values()].reverse();
  const run = longestRun(flow);
  const asks = askingOf(flow.map(({ purpose }) => purpose));
  const soonest = (routes.flatMap(({ readyOn }) => readyOn ?? []).sort()[0] ?? null) as Day | null; // a day of the route's
  const kept = slots.filter(({ planned, blackout, isPast }) => planned !== null || (blackout === null && !isPast)).length;
  return {
    month,
    todayOn: rhythm.todayOn,
    zone: rhythm.zone,
    hasRhythm: rhythm.rules.length > 0,
    slots,
    beside: bound.beside.map(plannedOf),
    themes: themesShown(themed, from, to),
    cycle: themed.cycle && { names: [...themed.cycle.names], fromMonth: themed.cycle.fromMonth },
    markers,
    preparing: await preparing(app, clientId, rhythm.todayOn, to, soonest),
    mix: await mixOwed(app, clientId, placed, kept + bound.beside.length),
    longestRun: run.length,
    longestRunPillarId: run.pillarId,
    largestGapDays: largestGapDays(placed),
    asking: asks.asking,
    askingOf: asks.of,
    numbers: await numbersIn(app, clientId, from, to),
    candidates,
    candidatesHidden: hidden,
    routes,
  };
}

/** How many pieces are wanted out, and how many are placed, each once a week on its first day there. */
async function numbersIn(app: App, clientId: string, from: Day, to: Day): Promise<PlanNumbersShape> {
  const [first, last] = [mondayOf(from), addDays(mondayOf(to), 6)];
  const [numbers] = await app.read<Pick<PlanNumbersShape, 'perWeek' | 'perMonth'> & { rows: { pieceId: string; on: Day }[] }>(
    `select (select per_week from client_plans where client_id = $1) as "perWeek", (select per_month from client_plans where client_id = $1) as "perMonth",
       coalesce((select jsonb_agg(x) from (select l.piece_id as "pieceId", min(l.on_day) as on from placements l join pieces p on p.id = l.piece_id
         where l.client_id = $1 and l.on_day between $2 and $3 and not l.cancelled and not p.shelved group by l.piece_id, date_trunc('week', l.on_day)) x), '[]') as rows`,
    [clientId, first, last],
  );
  const { perWeek = null, perMonth = null, rows = [] } = numbers ?? {};
  const weeks = countByWeeks(
    rows.map(({ on }) => on),
    from,
    to,
  );
  const here = new Set(rows.flatMap(({ pieceId, on }) => (on >= from && on <= to ? [pieceId] : [])));
  return { perWeek, perMonth, weeks: weeks.map((week) => ({ ...week })), count: here.size };
}

/** Kinds of markers that are seasons. */
const SEASONS: readonly string[] = ['season_busy', 'season_quiet'];

const slotShape = ({ publishAt: _publishAt, tagSetId: _tagSetId, ...slot }: WantedSlot) => slot;

const placedIn = (app: App, clientId: string, from: Day, to: Day): Promise<PlacedRow[]> =>
  app.read<PlacedRow>(
    `select l.id, l.client_id as "clientId", l.channel_id as "channelId", h.name as "channelName", l.on_day as on, l.at_time as at, l.state,
       p.id as "pieceId", p.number as "pieceNumber", p.title, left(p.notes, ${NOTE_LENGTH}) as notes, p.stage, p.pillar_id as "pillarId", p.format_id as "formatId", p.purpose, ${subjectOfPiece('p.id')} as "subjectId",
       f.name as "formatName"
     from placements l join pieces p on p.id = l.piece_id join channels h on h.id = l.channel_id join formats f on f.id = p.format_id
     where l.client_id = $1 and l.on_day between $2 and $3 and not l.cancelled and not p.shelved order by l.publish_at, l.id`,
    [clientId, from, to],
  );

/** What the mix of a month is owed: the shares of all that it will hold, in whole pieces, less what is placed. */
async function mixOwed(app: App, clientId: string, placed: readonly PlacedRow[], total: number): Promise<PlanMixRowShape[]> {
  const pillars = await app.read<{ id: string; name: string; share: number }>(
    'select id, name, share from pillars where client_id = $1 and archived_at is null order by position, name',
    [clientId],
  );
  const wanted = wantedOf(
    pillars.map(({ share }) => share),
    total,
  );
  const known = new Set<string | null>(pillars.map(({ id }) => id));
  const pieces = [...new Map(placed.map(({ pieceId, pillarId }) => [pieceId, pillarId])).values()]; // once each, on however many channels
  const bare = pieces.filter((pillarId) => !known.has(pillarId)).length;
  const rows = mixOf([
    ...pillars.map(({ id, share }) => ({ id, share, count: pieces.filter((pillarId) => pillarId === id).length })),
    ...(bare > 0 ? [{ id: null, share: 0, count: bare }] : []),
  ]);
  return rows.map(({ id, ...row }, index) => {
    const of = wanted[index] ?? 0;
    return { ...row, pillarId: id, name: pillars[index]?.name ?? 'Without a pillar', wanted: of, owed: id === null ? 0 : of - row.count };
  });
}

/** The routes by which something new can be made, and how soon each could bring it out for the client. */
async function routesFor(app: App, clientId: string): Promise<PlanRouteShape[]> {
  const rows = await app.read<Omit<PlanRouteShape, 'readyOn'> & { steps: RouteStep[] }>(
    `select r.id as "routeId", r.name, r.format_id as "formatId", f.name as "formatName", r.steps from routes r join formats f on f.id = r.format_id
     where r.archived_at is null order by f.position, f.name, r.name, r.id`,
  );
  const ready = await earliestByPath(
    app,
    clientId,
    rows.map(({ steps }) => steps),
  );
  return rows.map(({ steps: _steps, ...row }, index) => ({ ...row, readyOn: ready[index] ?? null }));
}

interface IdeaRow {
  id: string;
  title: string;
  note: string;
  pillarId: string | null;
  formatId: string | null;
  channelId: string | null;
  /** as core's `worthOf` has it */
  worth: number;
  hasTurn: boolean;
  subjectId: string | null;
  notBeforeOn: Day | null;
  expiresOn: Day | null;
  createdAt: string;
}

interface PieceRow {
  id: string;
  pieceId: string;
  channelId: string;
  title: string;
  note: string;
  pillarId: string | null;
  formatId: string;
  readyOn: Day | null;
  hasTurn: boolean;
  subjectId: string | null;
  notBeforeOn: Day | null;
  expiresOn: Day | null;
  createdAt: string;
}

/**
 * Ideas and pieces whose subject, or the topic above it, was put into a month, to be joined as `turned`: few are, of however many there are.
 * @param month the parameter that holds it; the client is `$1`
 */
const turnedIn = (month: string): string =>
  `turned as materialized (
     select distinct x.id from topics t left join topics a on a.id = t.parent_id join topic_uses u on u.client_id = t.client_id and u.topic_id = t.id
       left join ideas i on i.id = u.idea_id cross join lateral (values (u.idea_id), (u.piece_id), (i.piece_id)) x (id)
     where t.client_id = $1 and (${month} = any(t.months) or ${month} = any(a.months)) and x.id is not null)`;

/** What could stand in the month's slots: the client's ideas and those of no client, and its pieces without a day on a channel. */
async function candidatesFor(
  app: App,
  { clientId, todayOn, zone }: ClientRhythm,
  to: Day,
  themes: ReadonlySet<string>,
  seasons: ReadonlySet<string>,
): Promise<{ candidates: SlotCandidateShape[]; hidden: number }> {
  const ideas = await app.read<IdeaRow & { all: number }>(
    `with ${turnedIn('$4')} select id, title, left(note, ${NOTE_LENGTH}) as note, pillar_id as "pillarId", format_id as "formatId", channel_id as "channelId", (${WORTH})::float8 as worth,
       not_before_on as "notBeforeOn", fresh_until_on as "expiresOn", created_at as "createdAt", id in (select id from turned) as "hasTurn",
       (select topic_id from topic_uses where idea_id = i.id) as "subjectId", count(*) over () as all
     from ideas i cross join ${WEIGHTS} where (client_id = $1 or client_id is null) and state = 'open' and (fresh_until_on is null or fresh_until_on >= $2)
       and (not_before_on is null or not_before_on <= $3)
     order by worth desc, created_at desc, id limit ${IDEAS}`,
    [clientId, todayOn, to, to.slice(0, 7)],
  );
  const pieces = await app.read<PieceRow>(
    `with ${turnedIn('$2')} select l.id, p.id as "pieceId", l.channel_id as "channelId", p.title, left(p.notes, ${NOTE_LENGTH}) as note, p.pillar_id as "pillarId", p.format_id as "formatId",
       p.earliest_publish_on as "readyOn", p.created_at as "createdAt", p.id in (select id from turned) as "hasTurn",
       ${subjectOfPiece('p.id')} as "subjectId", b.not_before_on as "notBeforeOn", b.not_after_on as "expiresOn"
     from placements l join pieces p on p.id = l.piece_id left join embargoes b on b.piece_id = p.id
     where l.client_id = $1 and l.state = 'undated' and not p.shelved and p.list is not null
     order by (p.stage in ('approved', 'scheduled')) desc, p.aim_on nulls last, p.number, l.id limit ${PIECES}`,
    [clientId, to.slice(0, 7)],
  );
  const stock = await stockOf(app.manager, clientId);
  const speaksTo = (text: string) => ({
    themes: [...themes].filter((theme) => isOnTheme(text, theme)),
    seasons: [...seasons].filter((season) => isOnTheme(text, season)),
  });
  const waits = (at: string) => Math.max(0, daysBetween(dayIn(at, zone), todayOn));
  const candidates: SlotCandidateShape[] = [
    ...pieces.map(({ note, channelId, createdAt, ...piece }) => ({
      ...piece,
      kind: 'piece' as const,
      channelIds: [channelId],
      ...speaksTo(`${piece.title} ${note}`),
      worth: 0.5,
      waitsDays: waits(createdAt),
    })),
    ...ideas.map(({ id, title, note, pillarId, formatId, channelId, subjectId, notBeforeOn, expiresOn, createdAt, worth, hasTurn }) => ({
      kind: 'idea' as const,
      id,
      title,
      pillarId,
      formatId,
      channelIds: channelId === null ? null : [channelId],
      ...speaksTo(`${title} ${note}`),
      subjectId,
      readyOn: null,
      notBeforeOn,
      expiresOn,
      worth,
      hasTurn,
      waitsDays: waits(createdAt),
      pieceId: null,
    })),
    ...stock.flatMap((row) => againCandidate(row, todayOn, to, speaksTo(`${row.title} ${row.notes}`))),
  ];
  return { candidates, hidden: Math.max(0, (ideas[0]?.all ?? 0) - ideas.length) };
}

/** The earlier of two days; null: for good. */
const earlier = (a: string | null, b: string | null): string | null => (a === null || (b !== null && b < a) ? b : a);

/** A piece of the stock as something that could stand in a month up to `to`; none where it has not rested by then. */
function againCandidate(
  row: StockRow,
  todayOn: Day,
  to: Day,
  speaks: Pick<SlotCandidateShape, 'themes' | 'seasons'>,
): SlotCandidateShape[] {
  const again = againFrom(row.days, row.rule);
  if (!again || again.fromOn > to) return [];
  const last = row.days.at(-1) ?? todayOn;
  return [
    {
      kind: 'again',
      id: row.placementId,
      title: row.title,
      pillarId: row.pillarId,
      formatId: row.formatId,
      channelIds: [row.channelId],
      ...speaks,
      subjectId: row.subjectId,
      readyOn: todayOn,
      notBeforeOn: row.window.notBeforeOn !== null && row.window.notBeforeOn > again.fromOn ? row.window.notBeforeOn : again.fromOn,
      expiresOn: earlier(row.rule.untilOn, row.window.notAfterOn),
      worth: 0.5,
      hasTurn: false,
      waitsDays: Math.max(0, daysBetween(last, todayOn)),
      pieceId: row.pieceId,
    },
  ];
}

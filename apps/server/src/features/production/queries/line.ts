import { addDays, dayIn, minutesOn, weekdayOf, type Day, type PlanDoer } from '@zesting/core';
import type { LineDoerShape, LinePlacementShape, LineRowShape, LineShape, LineStepShape } from '@zesting/contract';
import type { Viewer } from '../../../platform/access/access.js';
import type { App } from '../../../platform/app.js';
import {
  doerKey,
  getDoer,
  loadCalendars,
  loadSources,
  pieceState,
  planInputOf,
  isClientsStep,
  type CalendarBook,
  type PieceSource,
} from '../../planning/index.js';
import { openPieceIds, type PiecesAsked } from './piece-rows.js';

interface StepRow extends Pick<LineStepShape, 'id' | 'doerName' | 'effortMinutes' | 'round' | 'predictedStartOn' | 'version'> {
  pieceId: string;
}
interface PieceColumns extends Pick<LineRowShape, 'id' | 'number' | 'title' | 'version'> {
  placements: LinePlacementShape[];
}

/** So far around today somebody's days are told one by one; beyond it their week is enough to plan by. */
const DAYS_BACK = 120;
const DAYS_AHEAD = 400;

/** A page of open pieces with all that is drawn of them over days, and what a drag is reckoned with. */
export async function lineOf(app: App, viewer: Viewer, asked: PiecesAsked): Promise<LineShape> {
  const { ids, total, leftOut, nextCursor } = await openPieceIds(app, viewer, asked);
  const book = await loadCalendars(app.manager, app.clock.now());
  const sources = new Map((await loadSources(app.manager, ids)).map((source) => [source.id, source]));
  const steps = await app.read<StepRow>(
    `select s.id, s.piece_id as "pieceId", case when ${isClientsStep('s')} then 'the client' else d.name end as "doerName", s.effort_minutes as "effortMinutes", s.round,
       s.predicted_start_on as "predictedStartOn", s.version
     from steps s left join people d on d.id = s.doer_id where s.piece_id = any($1)`,
    [ids],
  );
  const pieces = await app.read<PieceColumns>(
    `select p.id, p.number, p.title, p.version,
       coalesce((select jsonb_agg(jsonb_build_object('id', l.id, 'channelName', h.name, 'on', l.on_day, 'at', to_char(l.at_time, 'HH24:MI'), 'state', l.state, 'version', l.version) order by l.on_day, l.id)
         from placements l join channels h on h.id = l.channel_id where l.piece_id = p.id and l.on_day is not null and not l.cancelled), '[]') as placements
     from pieces p where p.id = any($1)`,
    [ids],
  );
  const [stepOf, pieceOf] = [new Map(steps.map((step) => [step.id, step])), new Map(pieces.map((piece) => [piece.id, piece]))];
  const keys = new Set<string>();
  const rows = ids.flatMap((id): LineRowShape[] => {
    const [source, piece] = [sources.get(id), pieceOf.get(id)];
    if (!source || !piece) return [];
    for (const step of source.steps) keys.add(doerKey(step, source.client_id));
    return [rowOf(source, piece, stepOf, book)];
  });
  return {
    todayOn: dayIn(app.clock.now(), viewer.zone),
    tightDays: book.tightDays,
    rows,
    doers: [...keys].map((key) => doerShape(key, getDoer(book, key))),
    total,
    leftOut,
    nextCursor,
  };
}

function rowOf(source: PieceSource, piece: PieceColumns, stepOf: ReadonlyMap<string, StepRow>, book: CalendarBook): LineRowShape {
  const state = pieceState(source, book);
  const { plan } = planInputOf(source, book);
  const planned = new Map(state.plan?.steps.map((step) => [step.id, step]));
  return {
    id: source.id,
    number: piece.number,
    clientId: source.client_id,
    title: piece.title,
    stage: state.stage,
    danger: state.danger,
    slackDays: state.slackDays,
    aimOn: state.aimOn,
    wishOn: source.wish_on,
    version: piece.version,
    placements: piece.placements,
    plan: { aims: [...(plan.aims ?? [])], publishZone: plan.publishZone, todayOn: plan.todayOn, slots: [...plan.slots] },
    steps: source.steps.flatMap((step): LineStepShape[] => {
      const [row, dates] = [stepOf.get(step.id), planned.get(step.id)];
      if (!row) return [];
      const doer = doerKey(step, source.client_id);
      const { todayOn } = getDoer(book, doer);
      return [
        {
          id: step.id,
          title: step.title,
          kind: step.kind,
          doer,
          doerId: step.doer_id,
          doerName: row.doerName,
          spanDays: step.span_days,
          effortMinutes: row.effortMinutes,
          sameDay: step.same_day,
          round: row.round,
          predecessorIds: step.predecessor_ids,
          startedOn: step.started_on,
          finishedOn: step.finished_on,
          pinnedFinishOn: step.pinned_finish_on,
          latestStartOn: dates?.latestStartOn ?? null,
          latestFinishOn: dates?.latestFinishOn ?? null,
          earliestStartOn: dates?.earliestStartOn ?? todayOn,
          earliestFinishOn: dates?.earliestFinishOn ?? todayOn,
          predictedStartOn: row.predictedStartOn,
          predictedFinishOn: step.predicted_finish_on,
          danger: dates?.danger ?? null,
          version: row.version,
        },
      ];
    }),
  };
}

/** A calendar as a week and what differs from it, around today. */
function doerShape(key: string, { calendar, zone, todayOn, todayCounts }: PlanDoer): LineDoerShape {
  const weeks = Array.from({ length: DAYS_BACK + DAYS_AHEAD }, (_, index) => addDays(todayOn, index - DAYS_BACK));
  const weeklyMinutes = Array.from({ length: 7 }, (_, weekday) =>
    mostOften(weeks.filter((day) => weekdayOf(day) === weekday + 1).map((day) => minutesOn(calendar, day))),
  );
  const differs = (day: Day) => minutesOn(calendar, day) !== weeklyMinutes[weekdayOf(day) - 1];
  return {
    key,
    zone,
    todayOn,
    todayCounts,
    weeklyMinutes,
    days: weeks.filter(differs).map((on) => ({ on, minutes: minutesOn(calendar, on) })),
  };
}

/** What a list holds most often: what somebody works on most Mondays. */
function mostOften(values: readonly number[]): number {
  const counts = new Map<number, number>();
  for (const value of values) counts.set(value, (counts.get(value) ?? 0) + 1);
  return [...counts].sort(([, a], [, b]) => b - a)[0]?.[0] ?? 0;
}

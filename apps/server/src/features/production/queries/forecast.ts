import {
  addDays,
  chanceOfDays,
  countWorkingDays,
  daysFor,
  durationOf,
  endedWithin,
  getDay,
  skillOf,
  workingDayAfter,
  workingDayOnOrAfter,
  type Case,
  type Day,
  type Duration,
  type ForecastStep,
  type WorkCalendar,
  type StepKind,
} from '@zesting/core';
import type { AnswerForecastShape, ForecastShape } from '@zesting/contract';
import type { App } from '../../../platform/app.js';
import {
  AGENCY_KEY,
  clientKey,
  doerKey,
  getDoer,
  loadCalendars,
  loadSources,
  pieceState,
  type CalendarBook,
  type StepSource,
} from '../../planning/index.js';

/** What is older says little about today. */
const KEPT_DAYS = 400;
/** So many of the latest are looked at, of the client's own and of all, finished and under way. */
const MOST = 300;
/** With fewer cases than this of any of its steps, no chance is said. */
const ENOUGH = 10;

interface CaseRow {
  id: string;
  kind: StepKind;
  skill: string;
  client_id: string;
  doer_id: string | null;
  started_on: string;
  finished_on: string | null;
}

/** How long the open steps of a piece usually take, and how likely it is to be ready in time. */
export async function forecastOf(app: App, pieceId: string): Promise<ForecastShape> {
  const [source] = await loadSources(app.manager, [pieceId]);
  if (!source) throw new Error('the piece went away');
  const book = await loadCalendars(app.manager, app.clock.now());
  const open = source.steps.filter(({ finished_on: finishedOn }) => finishedOn === null);
  if (open.length === 0) return { chance: null, steps: [] };
  const rows = await app.read<{ id: string; skill: string; predicted_start_on: string | null }>(
    'select id, skill, predicted_start_on from steps where piece_id = $1 and finished_on is null',
    [pieceId],
  );
  const more = new Map(rows.map((row) => [row.id, row]));
  const kinds = open.map(({ id, kind }) => ({ kind, skill: more.get(id)?.skill ?? '' }));
  const cases = await casesLike(app, kinds, source.client_id, addDays(getDoer(book, AGENCY_KEY).todayOn, -KEPT_DAYS), pieceId);
  const planned = new Map(pieceState(source, book).plan?.steps.map((step) => [step.id, step]));
  const steps = open.map((step) => {
    const skill = more.get(step.id)?.skill ?? '';
    const like = cases.filter((one) => one.kind === step.kind && one.skill === skill);
    const ofClient = like.filter((one) => one.client_id === source.client_id);
    return { step, duration: durationOf(toCases(ofClient, book), toCases(like, book)) };
  });
  const isLast = (id: string) => !open.some(({ predecessor_ids: before }) => before.includes(id));
  const forecast = steps.map(({ step, duration }): ForecastStep => {
    const { calendar, todayOn } = getDoer(book, doerKey(step, source.client_id));
    const busyUntil = busyBefore(step, open, more.get(step.id)?.predicted_start_on ?? null, calendar);
    return {
      id: step.id,
      predecessorIds: step.predecessor_ids,
      calendar,
      duration,
      startedOn: step.started_on === null ? null : getDay(step.started_on),
      fromOn: busyUntil !== null && busyUntil > todayOn ? busyUntil : todayOn,
      isSameDay: step.same_day,
      byOn: isLast(step.id) ? (planned.get(step.id)?.latestFinishOn ?? null) : null,
    };
  });
  const isKnown = forecast.some(({ byOn }) => byOn !== null) && steps.every(({ duration }) => duration.all >= ENOUGH);
  return {
    chance: isKnown ? chanceOfDays(forecast, earliestToday(forecast)) : null,
    steps: steps.map(({ step, duration }) => ({ stepId: step.id, title: step.title, ...usual(duration) })),
  };
}

/**
 * The day on which a step's doer is predicted to come to it, where that is later than what stands before it is predicted to end: they have other
 * work until then. Null where it only waits for what stands before it: that may end sooner than its span says.
 */
function busyBefore(step: StepSource, open: readonly StepSource[], predictedStartOn: string | null, calendar: WorkCalendar): Day | null {
  if (predictedStartOn === null) return null;
  const ends = open.flatMap(({ id, predicted_finish_on: on }) => (step.predecessor_ids.includes(id) && on !== null ? getDay(on) : []));
  const startOn = getDay(predictedStartOn);
  const last = ends.sort().at(-1);
  if (last === undefined) return startOn;
  const free = step.same_day ? workingDayOnOrAfter(calendar, last) : workingDayAfter(calendar, last);
  return free.ok && startOn > free.value ? startOn : null;
}

/** So many working days ahead the chance of an answer is told. */
const ANSWER_DAYS = 30;

/** How likely a client's answer to what is sent today has come, day by day; null where there were too few rounds to say. */
export async function answerForecast(app: App, book: CalendarBook, clientId: string): Promise<AnswerForecastShape | null> {
  const { calendar, todayOn } = getDoer(book, clientKey(clientId));
  const answers = { kind: 'sign_off', skill: skillOf({ kind: 'sign_off', skill: '' }) } as const;
  const rows = await casesLike(app, [answers], clientId, addDays(todayOn, -KEPT_DAYS));
  const own = rows.filter((row) => row.client_id === clientId);
  const duration = durationOf(toCases(own, book), toCases(rows, book));
  const answered = (of: readonly CaseRow[]) => of.filter(({ finished_on: on }) => on !== null).length;
  if (answered(rows) < ENOUGH) return null;
  const within = endedWithin(duration);
  const days: AnswerForecastShape['days'] = [];
  let next = workingDayOnOrAfter(calendar, todayOn);
  while (next.ok && days.length < ANSWER_DAYS) {
    days.push({ on: next.value, chance: within[days.length] ?? within.at(-1) ?? 0 });
    next = workingDayAfter(calendar, next.value);
  }
  return { days, own: answered(own), all: answered(rows) };
}

/** The earliest day that is today for one of the doers. */
const earliestToday = (steps: readonly ForecastStep[]): Day =>
  steps.reduce((earliest, { fromOn }) => (fromOn < earliest ? fromOn : earliest), steps[0]?.fromOn ?? getDay('9999-12-31'));

const usual = (duration: Duration) => ({
  usualDays: daysFor(duration, 0.5),
  mostDays: daysFor(duration, 0.8),
  own: duration.own,
  all: duration.all,
});

/** How long each took in working days of who did it, the first and the last counted; of what is under way, how many are over. */
function toCases(rows: readonly CaseRow[], book: CalendarBook): Case[] {
  return rows.flatMap((row): Case[] => {
    const doer = book.doers[doerKey(row, row.client_id)] ?? getDoer(book, AGENCY_KEY); // who left has no calendar any more
    const startedOn = getDay(row.started_on);
    if (row.finished_on !== null)
      return [{ days: Math.max(1, countWorkingDays(doer.calendar, startedOn, getDay(row.finished_on))), isOver: true }];
    const days = startedOn < doer.todayOn ? countWorkingDays(doer.calendar, startedOn, addDays(doer.todayOn, -1)) : 0;
    return days > 0 ? [{ days, isOver: false }] : [];
  });
}

/** Steps of these kinds and skills, ended or begun since a day: the latest of a client and of all. @param exceptId a piece whose steps are no cases */
const casesLike = (
  app: App,
  kinds: readonly Pick<CaseRow, 'kind' | 'skill'>[],
  clientId: string,
  fromOn: Day,
  exceptId: string | null = null,
): Promise<CaseRow[]> => {
  const like = (which: string, order: string) =>
    `(select s.id, s.kind, s.skill, p.client_id, s.doer_id, s.started_on, s.finished_on from steps s join pieces p on p.id = s.piece_id
      where s.kind = k.kind and s.skill = k.skill and s.started_on is not null and not p.shelved and s.piece_id is distinct from $1::uuid and ${which} order by ${order} limit ${MOST})`;
  return app.read<CaseRow>(
    `select distinct c.* from (select distinct kind, skill from unnest($4::text[], $5::text[]) as given (kind, skill)) k cross join lateral (
       ${like('s.finished_on >= $3', 's.finished_on desc, s.id')}
       union ${like('s.finished_on >= $3 and p.client_id = $2', 's.finished_on desc, s.id')}
       union ${like('s.finished_on is null and s.started_on >= $3', 's.started_on desc, s.id')}) c`,
    [exceptId, clientId, fromOn, kinds.map(({ kind }) => kind), kinds.map(({ skill }) => skill)],
  );
};

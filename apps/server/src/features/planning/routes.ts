import type { EarliestShape, FeasibilityShape } from '@zesting/contract';
import {
  countWorkingDays,
  fail,
  ok,
  planPiece,
  type Day,
  type InstantText,
  type PlanStep,
  type Result,
  type RouteStep,
} from '@zesting/core';
import { rowsOf, type Tx } from '../../platform/database/transaction.js';
import { AGENCY_KEY, clientKey, getDoer, getPlanClient, loadCalendars, type CalendarBook } from './calendars.js';

export interface Route {
  readonly id: string;
  readonly name: string;
  readonly format_id: string;
  readonly steps: readonly RouteStep[];
  readonly rounds_allowed: number | null;
}

/** A route by its id; `route.unknown` where there is none. */
export async function findRoute(tx: Tx, routeId: string): Promise<Result<Route, { code: 'route.unknown' }>> {
  const [route] = await rowsOf<Route>(tx, 'select id, name, format_id, steps, rounds_allowed from routes where id = $1', [routeId]);
  return route ? ok(route) : fail({ code: 'route.unknown' });
}

/** What a route would allow a client: the earliest realistic date, and the working time that it adds. */
export async function feasibilityOf(tx: Tx, clientId: string, routeId: string, now: InstantText): Promise<Result<FeasibilityShape>> {
  const route = await findRoute(tx, routeId);
  if (!route.ok) return route;
  const earliest = earliestOfRoute(route.value, clientId, await loadCalendars(tx, now));
  if (!earliest.ok) return earliest;
  return ok({ routeId, earliestOn: earliest.value, effortMinutes: route.value.steps.reduce((sum, step) => sum + step.effortMinutes, 0) });
}

/** How soon a route could bring something out for a client, and what it takes: no person, no load, no other client. */
export async function earliestOf(tx: Tx, clientId: string, routeId: string, now: InstantText): Promise<Result<EarliestShape>> {
  const route = await findRoute(tx, routeId);
  if (!route.ok) return route;
  const book = await loadCalendars(tx, now);
  const earliest = earliestOfRoute(route.value, clientId, book);
  if (!earliest.ok) return earliest;
  const { calendar, todayOn } = getDoer(book, clientKey(clientId));
  const days = countWorkingDays(calendar, todayOn, earliest.value);
  return ok({ earliestOn: earliest.value, steps: route.value.steps.length, days });
}

/** The earliest publish date of a route for a client, with nobody assigned yet and work begun today. */
export function earliestOfRoute(route: Route, clientId: string, book: CalendarBook): Result<Day> {
  const client = getPlanClient(book, clientId);
  const steps = route.steps.map<PlanStep>((step) => ({
    id: step.key,
    doer: step.kind === 'sign_off' ? clientKey(clientId) : AGENCY_KEY,
    spanDays: step.spanDays,
    sameDay: step.sameDay ?? false,
    predecessorIds: step.after,
  }));
  const plan = planPiece({
    steps,
    doers: book.doers,
    publishZone: client.zone,
    todayOn: client.todayOn,
    slots: [{ at: client.usualTime, leadDays: 0 }],
  });
  return plan.ok ? ok(plan.value.earliestPublishOn) : plan;
}

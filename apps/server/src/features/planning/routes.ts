import { fail, ok, type Result, type RouteStep } from '@zesting/core';
import { rowsOf, type Reader } from '../../platform/database/rows.js';

export interface Route {
  readonly id: string;
  readonly name: string;
  readonly format_id: string;
  readonly steps: readonly RouteStep[];
  readonly rounds_allowed: number | null;
}

/** A route by its id; `route.unknown` where there is none. */
export async function findRoute(reader: Reader, routeId: string): Promise<Result<Route, { code: 'route.unknown' }>> {
  const [route] = await rowsOf<Route>(reader, 'select id, name, format_id, steps, rounds_allowed from routes where id = $1', [routeId]);
  return route ? ok(route) : fail({ code: 'route.unknown' });
}

/** Routes by their ids; those that are not there are left out. */
export async function findRoutes(reader: Reader, routeIds: readonly string[]): Promise<Map<string, Route>> {
  const routes = await rowsOf<Route>(reader, 'select id, name, format_id, steps, rounds_allowed from routes where id = any($1)', [
    routeIds,
  ]);
  return new Map(routes.map((route) => [route.id, route]));
}

import { fail, ok, type Result, type RouteStep } from '@zesting/core';
import { rowsOf, type Reader } from '../../platform/database/rows.js';

export interface Route {
  readonly id: string;
  readonly name: string;
  readonly format_id: string;
  readonly steps: readonly RouteStep[];
  readonly rounds_allowed: number | null;
  readonly version: number;
}

/** A route by its id; `route.unknown` where there is none. */
export async function findRoute(reader: Reader, routeId: string): Promise<Result<Route, { code: 'route.unknown' }>> {
  const [route] = await rowsOf<Route>(reader, 'select id, name, format_id, steps, rounds_allowed, version from routes where id = $1', [
    routeId,
  ]);
  return route ? ok(route) : fail({ code: 'route.unknown' });
}

/** Routes by their ids; those that are not there are left out. */
export async function findRoutes(reader: Reader, routeIds: readonly string[]): Promise<Map<string, Route>> {
  const routes = await rowsOf<Route>(reader, 'select id, name, format_id, steps, rounds_allowed, version from routes where id = any($1)', [
    routeIds,
  ]);
  return new Map(routes.map((route) => [route.id, route]));
}

/** SQL: since which of its states the steps of a route are as they are; null where they never were otherwise. */
export const ROUTE_STATE = (routeId: string): string => `(select max(v.version) from route_versions v where v.route_id = ${routeId})`;

/** SQL: the steps that a route `r` had in one of its states: the latest that is kept up to it, or as they are where none is. */
export const stepsAsOf = (route: string, version: string): string =>
  `coalesce((select v.steps from route_versions v where v.route_id = ${route}.id and v.version <= ${version} order by v.version desc limit 1), ${route}.steps)`;

/** The steps that a route had in one of its states. */
export async function routeAsOf(reader: Reader, routeId: string, version: number): Promise<readonly RouteStep[]> {
  const [found] = await rowsOf<{ steps: RouteStep[] }>(
    reader,
    `select ${stepsAsOf('r', '$2::int')} as steps from routes r where r.id = $1`,
    [routeId, version],
  );
  return found?.steps ?? [];
}

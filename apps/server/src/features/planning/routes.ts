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

/** The steps that a route had in one of its states: the latest that is kept up to it, or as they are where none is. */
export async function routeAsOf(reader: Reader, routeId: string, version: number): Promise<readonly RouteStep[]> {
  const [found] = await rowsOf<{ steps: RouteStep[] }>(
    reader,
    `select steps from (
       (select 1 as turn, steps from route_versions where route_id = $1 and version <= $2 order by version desc limit 1)
       union all (select 2, steps from routes where id = $1)) s order by turn limit 1`,
    [routeId, version],
  );
  return found?.steps ?? [];
}

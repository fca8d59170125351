import { allowanceLeft, type Allowance, type Day, type MonthPiece } from '@zesting/core';
import type { AllowanceShape } from '@zesting/contract';
import type { App } from '../../../platform/app.js';
import type { Route } from '../../planning/index.js';

/**
 * What is left of a client's allowance in the month of a day, and what a piece by a route would leave. A piece counts in the month of its first
 * placement; one that stands on no day, in the month that it is wished for, else in which it was begun. What is on the shelf does not count.
 */
export async function allowanceOf(app: App, clientId: string, on: Day, route: Route | null): Promise<AllowanceShape> {
  const month = on.slice(0, 7);
  const [client] = await app.read<{ allowance: Allowance; zone: string }>('select allowance, zone from clients where id = $1', [clientId]);
  if (!client) throw new Error('the client went away');
  const { hours, formats } = client.allowance;
  if (hours === null && formats.length === 0) return { month, lines: [] };
  const pieces = await app.read<MonthPiece>(
    `with span as (select $2::date as first, ($2::date + interval '1 month - 1 day')::date as last),
       of_month as (
         select l.piece_id from span, placements l where l.client_id = $1 and l.on_day between first and last and not l.cancelled
           and not exists (select 1 from placements e where e.piece_id = l.piece_id and not e.cancelled and e.on_day < first)
         union
         select p.id from span, pieces p where p.client_id = $1 and p.list is not null
           and not exists (select 1 from placements l where l.piece_id = p.id and not l.cancelled and l.on_day is not null)
           and coalesce(p.wish_on, (p.created_at at time zone $3)::date) between first and last)
     select p.format_id as "formatId",
       (select coalesce(sum(s.effort_minutes), 0)::int from steps s where s.piece_id = p.id and s.round = 1) as "effortMinutes"
     from pieces p where p.id in (select piece_id from of_month) and not p.shelved`,
    [clientId, `${month}-01`, client.zone],
  );
  const asked = route && {
    formatId: route.format_id,
    effortMinutes: route.steps.reduce((sum, step) => sum + step.effortMinutes, 0),
  };
  const names = new Map(
    (
      await app.read<{ id: string; name: string }>('select id, name from formats where id = any($1)', [
        formats.map(({ formatId }) => formatId),
      ])
    ).map(({ id, name }) => [id, name]),
  );
  return {
    month,
    lines: allowanceLeft({ hours, formats }, pieces, asked).map(({ formatId, ...line }) => ({
      ...line,
      formatName: formatId === null ? null : (names.get(formatId) ?? null),
    })),
  };
}

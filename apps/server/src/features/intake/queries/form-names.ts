import type { FormContent, FormNames, FoundFault } from '@zesting/core';
import { rowsOf, type Reader } from '../../../platform/database/rows.js';

type Named = { id: string; name: string };
const asMap = (rows: readonly Named[]): Map<string, string> => new Map(rows.map(({ id, name }) => [id, name]));

/** Names by id of what a form for these clients can speak of: pillars and channels only where it is for one. */
export async function namesFor(reader: Reader, clientIds: readonly string[]): Promise<FormNames> {
  const only = clientIds.length === 1 ? clientIds : [];
  return {
    routes: asMap(await rowsOf<Named>(reader, 'select id, name from routes where archived_at is null order by name')),
    pillars: asMap(
      await rowsOf<Named>(reader, 'select id, name from pillars where client_id = any($1) and archived_at is null order by name', [only]),
    ),
    channels: asMap(
      await rowsOf<Named>(reader, 'select id, name from channels where client_id = any($1) and archived_at is null order by name', [only]),
    ),
  };
}

/** The route that a format usually takes: the first by name; any where it has none; null without routes. */
export async function routeOfFormat(reader: Reader, formatName: string): Promise<string | null> {
  const [route] = await rowsOf<{ id: string }>(
    reader,
    `select r.id from routes r join formats f on f.id = r.format_id where r.archived_at is null
     order by (lower(f.name) = lower($1)) desc, f.position, r.name limit 1`,
    [formatName],
  );
  return route?.id ?? null;
}

/** What a form names that is not there any more: routes, pillars, channels, people. */
export async function unknownIn(reader: Reader, { routeId, rules }: FormContent, clientIds: readonly string[]): Promise<FoundFault[]> {
  const names = await namesFor(reader, clientIds);
  const owners = rules.flatMap(({ takes }) => (takes.ownerId && takes.ownerId !== 'lead_person' ? [takes.ownerId] : []));
  const people = new Set(
    (
      await rowsOf<{ id: string }>(reader, "select id from people where id::text = any($1) and active and role in ('lead', 'manager')", [
        owners,
      ])
    ).map(({ id }) => id),
  );
  const isThere = (takes: FormContent['rules'][number]['takes']): boolean =>
    (takes.routeId === undefined || names.routes.has(takes.routeId)) &&
    (takes.pillarId === undefined || names.pillars.has(takes.pillarId)) &&
    (takes.channelIds ?? []).every((id) => names.channels.has(id)) &&
    (takes.ownerId === undefined || takes.ownerId === 'lead_person' || people.has(takes.ownerId));
  return [
    ...(routeId !== null && !names.routes.has(routeId) ? [{ fault: 'route_gone' as const, key: null }] : []),
    ...rules.flatMap(({ takes }, rule) => (isThere(takes) ? [] : [{ fault: 'rule_gone' as const, key: null, rule }])),
  ];
}

import { sortByRules, type Answers, type Sorted } from '@zesting/core';
import { rowsOf, type Reader } from '../../../platform/database/rows.js';
import type { AskedForm } from '../queries/asked-form.js';

/**
 * What a request takes by its answers and its form's rules, and who answers for it: whom a rule names, else the client's lead person. A route
 * that was archived meanwhile gives way to the form's own.
 */
export async function sortRequest(
  reader: Reader,
  { clientId, content, items }: Omit<AskedForm, 'linkId'>,
  answers: Answers,
): Promise<Sorted> {
  const routes = await rowsOf<{ id: string; format_id: string }>(
    reader,
    'select r.id, r.format_id from routes r join formats f on f.id = r.format_id where r.archived_at is null order by r.name',
  );
  const isOffered = (id: string | null | undefined): id is string => routes.some((route) => route.id === id);
  const routeOf = (formatId: string) => routes.find((route) => route.format_id === formatId)?.id;
  const { takes } = sortByRules(content.rules, items, answers, routeOf);
  const routeId = [takes.routeId, content.routeId].find(isOffered);
  const ownerId = await ownerOf(reader, clientId, takes.ownerId);
  const { pillarId, channelIds } = await ofClient(reader, clientId, takes);
  return {
    ...(pillarId === undefined ? {} : { pillarId }),
    ...(channelIds.length > 0 ? { channelIds } : {}),
    ...(routeId === undefined ? {} : { routeId }),
    ...(ownerId === undefined ? {} : { ownerId }),
  };
}

/** Of the pillar and channels that are set, those that the client has: the form may have been shared since its rules were written. */
async function ofClient(
  reader: Reader,
  clientId: string,
  { pillarId, channelIds = [] }: Sorted,
): Promise<{ pillarId: string | undefined; channelIds: string[] }> {
  const rows = await rowsOf<{ id: string }>(
    reader,
    `select id from pillars where client_id = $1 and archived_at is null and id::text = $2
     union all select id from channels where client_id = $1 and archived_at is null and id::text = any($3)`,
    [clientId, pillarId ?? null, channelIds],
  );
  const there = new Set(rows.map(({ id }) => id));
  return {
    pillarId: pillarId !== undefined && there.has(pillarId) ? pillarId : undefined,
    channelIds: channelIds.filter((id) => there.has(id)),
  };
}

/** SQL: whether a person of `people p` can answer for a client's requests: a lead, or one of its own managers. `o` is their row with the client. */
export const ANSWERS_FOR = "p.active and (p.role = 'lead' or (p.role = 'manager' and o.person_id is not null))";
/** SQL: `people p` with their row with the client `$1`. */
export const WITH_CLIENT = "people p left join client_people o on o.person_id = p.id and o.client_id = $1 and o.relation = 'own'";

/** Whom a rule names, where they can answer for the client; else the lead person: the first of its own managers by name, else the first lead. */
export async function ownerOf(reader: Reader, clientId: string, named: string | undefined): Promise<string | undefined> {
  const [person] = await rowsOf<{ id: string }>(
    reader,
    `select p.id from ${WITH_CLIENT} where ${ANSWERS_FOR}
     order by (p.id::text = $2) desc nulls last, (o.person_id is not null and p.role = 'manager') desc, p.name, p.id limit 1`,
    [clientId, named ?? null],
  );
  return person?.id;
}

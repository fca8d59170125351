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
  const { routeId: asked, ownerId: named, ...rest } = takes;
  const routeId = [asked, content.routeId].find(isOffered);
  const ownerId = await ownerOf(reader, clientId, named);
  return { ...rest, ...(routeId === undefined ? {} : { routeId }), ...(ownerId === undefined ? {} : { ownerId }) };
}

/** Whom a rule names, where they are still here; else the lead person: the first of the client's own managers by name, else the first lead. */
export async function ownerOf(reader: Reader, clientId: string, named: string | undefined): Promise<string | undefined> {
  const [person] = await rowsOf<{ id: string }>(
    reader,
    `select p.id from people p left join client_people o on o.person_id = p.id and o.client_id = $1 and o.relation = 'own'
     where p.active and (p.id::text = $2 or p.role = 'lead' or (p.role = 'manager' and o.person_id is not null))
     order by (p.id::text = $2) desc nulls last, (o.person_id is not null and p.role = 'manager') desc, p.name, p.id limit 1`,
    [clientId, named ?? null],
  );
  return person?.id;
}

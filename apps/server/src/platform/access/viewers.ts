import type { Role } from './policies.js';

/** The signed-in person, with what scopes every query. */
export interface Viewer {
  readonly personId: string;
  readonly name: string;
  readonly role: Role;
  readonly zone: string;
  /** the clients this person manages or makes for; every client for a lead */
  readonly clientIds: readonly string[];
  /** the right to make and change intake forms; leads have it */
  readonly mayEditForms: boolean;
}

/** Who did what nobody did: what the clock or a channel brings about. Its id is nobody's. */
export const ZESTING: Pick<Viewer, 'personId' | 'name'> = { personId: '00000000-0000-0000-0000-000000000000', name: 'Zesting' };

export interface ViewerRow {
  readonly person_id: string;
  readonly name: string;
  readonly role: Role;
  readonly zone: string;
  readonly client_ids: string[];
  readonly may_edit_forms: boolean;
}

/** SQL: whether a cover holds today, by the day of whoever is away. One rule for who sees a client, who is told of it, and whose desk it is on. */
export const coversToday = (cover: string, absentZone: string, now: string): string =>
  `(${now}::timestamptz at time zone ${absentZone})::date between ${cover}.start_on and ${cover}.end_on`;

/** SQL: whether a client is a person's own, or that of somebody whom they stand in for today. */
export const managesToday = (personId: string, clientId: string, now: string): string => `(
  exists (select 1 from client_people o where o.client_id = ${clientId} and o.person_id = ${personId} and o.relation = 'own')
  or exists (select 1 from covers v join people m on m.id = v.manager_id join client_people o on o.person_id = m.id and o.relation = 'own'
    where v.cover_id = ${personId} and o.client_id = ${clientId} and ${coversToday('v', 'm.zone', now)}))`;

/**
 * The columns of a viewer, from `people p`.
 * @param now the parameter that holds the present, e.g. `$2`: covers hold by the day of whom they stand in for
 */
export const viewerColumns = (
  now: string,
): string => `p.id as person_id, p.name, p.role, p.zone, p.role = 'lead' or p.may_edit_forms as may_edit_forms, array(
  select c.id from clients c where c.archived_at is null and (
    p.role = 'lead'
    or (p.role = 'manager' and ${managesToday('p.id', 'c.id', now)})
    or (p.role = 'staff' and exists (select 1 from client_people o where o.client_id = c.id and o.person_id = p.id and o.relation = 'own'))
    or (p.role in ('staff', 'freelance') and exists (select 1 from worked_clients w where w.person_id = p.id and w.client_id = c.id)))
) as client_ids`;

export const viewerFrom = (row: ViewerRow): Viewer => ({
  personId: row.person_id,
  name: row.name,
  role: row.role,
  zone: row.zone,
  clientIds: row.client_ids,
  mayEditForms: row.may_edit_forms,
});

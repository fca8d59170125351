import type { Request } from 'express';
import type { SessionShape } from '@zesting/contract';
import { dayIn } from '@zesting/core';
import type { App } from '../../platform/app.js';
import { Problem } from '../../platform/http/problem.js';

const LONGEST_AGENT = 300;

/** Signs a person in on the browser that asks, for as long as the agency says. Who it is was proved before. */
export async function beginSession(app: App, request: Request, personId: string): Promise<SessionShape> {
  await new Promise<void>((resolve, reject) => request.session.regenerate((error) => (error ? reject(error) : resolve())));
  const agent = (request.headers['user-agent'] ?? '').slice(0, LONGEST_AGENT);
  const [agency] = await app.read<{ days: number }>('select session_days as days from agencies');
  if (agency) request.session.cookie.maxAge = agency.days * 86_400_000;
  Object.assign(request.session, { personId, signedInAt: app.clock.now(), agent, address: request.ip ?? '0.0.0.0' });
  const shape = await sessionOf(app, personId);
  if (!shape) throw Problem.of('access.sign_in_failed');
  return shape;
}

/** A signed-in person as pages know them; null for who has left. */
export async function sessionOf(app: App, personId: string): Promise<SessionShape | null> {
  const [row] = await app.read<Omit<SessionShape, 'todayOn'>>(
    `select p.id as "personId", p.name, p.role, p.zone, jsonb_build_object('name', a.name, 'zone', a.zone, 'region', a.region, 'markerKinds',
       coalesce((select jsonb_agg(jsonb_build_object('id', k.id, 'name', k.name) order by k.position, k.name) from marker_kinds k where k.archived_at is null), '[]')) as agency
     from people p cross join agencies a where p.id = $1 and p.active`,
    [personId],
  );
  return row ? { ...row, todayOn: dayIn(app.clock.now(), row.zone) } : null;
}

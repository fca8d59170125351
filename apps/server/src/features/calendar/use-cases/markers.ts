import { addDays, fail, getDay, ok, USUAL_LEAD, type InstantText, type Result } from '@zesting/core';
import type { MarkerBody } from '@zesting/contract';
import type { Viewer } from '../../../platform/access/access.js';
import { recordActivity } from '../../../platform/activity.js';
import type { App } from '../../../platform/app.js';
import { insertRow, rowsOf, type Tx } from '../../../platform/database/transaction.js';
import { replanWhere } from '../../planning/index.js';
import { addClosure } from './of-client.js';
import { ClientClosure } from '../entities/client-closure.entity.js';
import { Marker } from '../entities/marker.entity.js';

type Failure = { code: 'marker.kind_unknown' | 'marker.order_wrong' | 'marker.client_missing' | 'access.refused' };
type EditFailure = Failure | { code: 'marker.client_fixed' | 'http.changed_meanwhile' };

/** Whether the viewer may put markers on this client's calendar; the agency's own are for leads. */
const mayEdit = (viewer: Viewer, clientId: string | null): boolean =>
  clientId === null ? viewer.role === 'lead' : viewer.clientIds.includes(clientId);

const note = (tx: Tx, viewer: Viewer, verb: string, id: string, marker: MarkerBody, now: InstantText) =>
  recordActivity(tx, {
    clientId: marker.clientId,
    thing: marker.kind === 'closure' ? 'client' : 'marker',
    thingId: marker.kind === 'closure' ? (marker.clientId ?? id) : id,
    verb,
    actor: viewer.name,
    detail: { name: marker.name, kind: marker.kind, startOn: marker.startOn, endOn: marker.endOn },
    at: now,
  });

/** Puts a marker on the calendar. A closure is one of the client's: its days are no working days, and all is planned around it. */
export const addMarker = (app: App, viewer: Viewer, body: MarkerBody): Promise<Result<string, Failure>> =>
  app.write<string, Failure>((tx, now) => addMarkers(tx, viewer, [body], now));

/**
 * As `addMarker`, of several at once, inside the caller's transaction: what closures move is planned once.
 * @returns the id of the last
 */
export async function addMarkers(
  tx: Tx,
  viewer: Viewer,
  bodies: readonly MarkerBody[],
  now: InstantText,
): Promise<Result<string, Failure>> {
  let id = '';
  for (const body of bodies) {
    if (!mayEdit(viewer, body.clientId)) return fail({ code: 'access.refused' });
    if (body.endOn < body.startOn) return fail({ code: 'marker.order_wrong' });
    if (!(await isKind(tx, body))) return fail({ code: 'marker.kind_unknown' });
    if (body.kind === 'closure' && body.clientId === null) return fail({ code: 'marker.client_missing' });
    id = body.kind === 'closure' && body.clientId ? await addClosure(tx, body.clientId, body) : await putMarker(tx, body);
    await note(tx, viewer, 'marker.added', id, body, now);
  }
  const closed = new Set(bodies.flatMap(({ kind, clientId }) => (kind === 'closure' && clientId ? [clientId] : [])));
  for (const clientId of closed) await replanWhere(tx, { clientId }, now);
  return ok(id);
}

/** Changes a marker. It stays with its client; pieces of its run-up that are made stay on their days. Closures are changed on the client's page. */
export function editMarker(
  app: App,
  viewer: Viewer,
  markerId: string,
  body: MarkerBody,
  version: number,
): Promise<Result<null, EditFailure>> {
  return app.write<null, EditFailure>(async (tx, now) => {
    const marker = await tx.findOne(Marker, { where: { id: markerId }, lock: { mode: 'pessimistic_write' } });
    if (!marker || body.kind === 'closure' || body.clientId !== marker.clientId) return fail({ code: 'marker.client_fixed' });
    if (!mayEdit(viewer, marker.clientId)) return fail({ code: 'access.refused' });
    if (marker.version !== version) return fail({ code: 'http.changed_meanwhile' });
    if (body.endOn < body.startOn) return fail({ code: 'marker.order_wrong' });
    if (!(await isKind(tx, body))) return fail({ code: 'marker.kind_unknown' });
    const { kind, kindId = null, name, startOn, endOn } = body;
    await tx.update(Marker, markerId, { kind, kindId, name, startOn, endOn, leadDays: leadOf(kind, body.leadDays), version: version + 1 });
    await note(tx, viewer, 'marker.changed', markerId, body, now);
    return ok(null);
  });
}

/** Moves markers of clients by so many days, in the caller's transaction. They must be the viewer's to edit. */
export async function shiftMarkers(tx: Tx, viewer: Viewer, ids: readonly string[], byDays: number, now: InstantText): Promise<void> {
  for (const id of [...ids].sort()) {
    const marker = await tx.findOne(Marker, { where: { id }, lock: { mode: 'pessimistic_write' } });
    if (!marker) continue;
    const [startOn, endOn] = [addDays(getDay(marker.startOn), byDays), addDays(getDay(marker.endOn), byDays)];
    await tx.update(Marker, id, { startOn, endOn, version: marker.version + 1 });
    await note(tx, viewer, 'marker.changed', id, { ...marker, startOn, endOn }, now);
  }
}

/** Takes a marker away. One that is gone already is no failure. */
export function removeMarker(app: App, viewer: Viewer, markerId: string): Promise<Result<MarkerBody | null, Failure>> {
  return app.write<MarkerBody | null, Failure>(async (tx, now) => {
    const [marker] = await rowsOf<MarkerBody>(
      tx,
      `select client_id as "clientId", kind, kind_id as "kindId", name, start_on as "startOn", end_on as "endOn" from markers where id = $1
       union all select client_id, 'closure', null, name, start_on, end_on from client_closures where id = $1`,
      [markerId],
    );
    if (!marker) return ok(null);
    if (!mayEdit(viewer, marker.clientId)) return fail({ code: 'access.refused' });
    await tx.delete(marker.kind === 'closure' ? ClientClosure : Marker, markerId);
    await note(tx, viewer, 'marker.removed', markerId, marker, now);
    if (marker.kind === 'closure' && marker.clientId) await replanWhere(tx, { clientId: marker.clientId }, now);
    return ok(marker);
  });
}

/** Whether a marker names one of the agency's own kinds where it is of its own, and none where it is not. */
async function isKind(tx: Tx, { kind, kindId = null }: MarkerBody): Promise<boolean> {
  if (kind !== 'own') return kindId === null;
  return (await rowsOf(tx, 'select 1 from marker_kinds where id = $1', [kindId])).length > 0;
}

/** A closure has a table of its own. */
const putMarker = (tx: Tx, { clientId, kind, kindId = null, name, startOn, endOn, leadDays }: MarkerBody): Promise<string> =>
  insertRow(tx, Marker, { clientId, kind: kind as Marker['kind'], kindId, name, startOn, endOn, leadDays: leadOf(kind, leadDays) });

const leadOf = (kind: MarkerBody['kind'], leadDays: number | null | undefined): number | null =>
  leadDays === undefined ? (USUAL_LEAD[kind] ?? null) : leadDays;

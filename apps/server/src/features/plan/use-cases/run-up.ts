import { addDays, fail, getDay, ok, type Result } from '@zesting/core';
import type { RunUpBody } from '@zesting/contract';
import type { Viewer } from '../../../platform/access/access.js';
import { recordActivity } from '../../../platform/activity.js';
import type { App } from '../../../platform/app.js';
import { insertRow, rowsOf, type Tx } from '../../../platform/database/transaction.js';
import { putPiece, type BeginFailure } from '../../calendar/index.js';
import { RunUp } from '../entities/run-up.entity.js';

/** A marker has no more of them. */
const MOST = 30;

export type RunUpFailure =
  BeginFailure | { code: 'run_up.of_agency' | 'run_up.too_many' | 'run_up.made' | 'channel.unknown' | 'route.unknown' };

interface MarkerRow {
  readonly clientId: string | null;
  readonly name: string;
  readonly startOn: string;
}

/** Adds a piece to a marker's run-up, to be made later. The agency's own markers have none: a piece is a client's. */
export function addRunUp(app: App, viewer: Viewer, markerId: string, body: RunUpBody): Promise<Result<string, RunUpFailure>> {
  return app.write<string, RunUpFailure>(async (tx, now) => {
    const marker = await lockMarker(tx, markerId);
    const { clientId } = marker;
    if (clientId === null) return fail({ code: 'run_up.of_agency' });
    if ((await tx.countBy(RunUp, { markerId })) >= MOST) return fail({ code: 'run_up.too_many' });
    const [found] = await rowsOf<{ channel: boolean; route: boolean }>(
      tx,
      `select exists (select 1 from channels where id = $1 and client_id = $3 and archived_at is null) as channel,
         exists (select 1 from routes where id = $2 and archived_at is null) as route`,
      [body.channelId, body.routeId, clientId],
    );
    if (!found?.channel) return fail({ code: 'channel.unknown' });
    if (!found.route) return fail({ code: 'route.unknown' });
    const { offsetDays, title, channelId, routeId } = body;
    const row = { markerId, clientId, offsetDays, title: title.trim(), channelId, routeId, pieceId: null, createdAt: now };
    const id = await insertRow(tx, RunUp, row);
    await recordActivity(tx, {
      clientId,
      thing: 'marker',
      thingId: markerId,
      verb: 'marker.run_up_added',
      actor: viewer.name,
      detail: { name: marker.name, title: row.title, offsetDays },
      at: now,
    });
    return ok(id);
  });
}

/** Takes a piece off a run-up. What was made of it stays. */
export function removeRunUp(app: App, viewer: Viewer, runUpId: string): Promise<Result<null>> {
  return app.write<null, { code: string }>(async (tx, now) => {
    const runUp = await tx.findOneBy(RunUp, { id: runUpId });
    if (!runUp) return ok(null);
    await tx.delete(RunUp, runUpId);
    const { clientId, markerId, title } = runUp;
    await recordActivity(tx, {
      clientId,
      thing: 'marker',
      thingId: markerId,
      verb: 'marker.run_up_removed',
      actor: viewer.name,
      detail: { title },
      at: now,
    });
    return ok(null);
  });
}

/** Makes the piece of a run-up, pencilled on its day at its channel's usual time. One is made, however many ask. */
export function makeRunUp(app: App, viewer: Viewer, runUpId: string): Promise<Result<string, RunUpFailure>> {
  return app.write<string, RunUpFailure>(async (tx, now) => {
    const runUp = await tx.findOneOrFail(RunUp, { where: { id: runUpId }, lock: { mode: 'pessimistic_write' } });
    if (runUp.pieceId !== null) return fail({ code: 'run_up.made' });
    const marker = await lockMarker(tx, runUp.markerId);
    const body = {
      routeId: runUp.routeId,
      channelIds: [runUp.channelId],
      title: runUp.title,
      notes: `For “${marker.name}”.`,
      wishOn: addDays(getDay(marker.startOn), runUp.offsetDays),
      isPencilled: true,
    };
    const piece = await putPiece(tx, viewer, runUp.clientId, body, now);
    if (piece.ok) await tx.update(RunUp, runUpId, { pieceId: piece.value });
    return piece;
  });
}

/** A marker against others who change its run-up. */
async function lockMarker(tx: Tx, markerId: string): Promise<MarkerRow> {
  const [marker] = await rowsOf<MarkerRow>(
    tx,
    'select client_id as "clientId", name, start_on as "startOn" from markers where id = $1 for no key update',
    [markerId],
  );
  if (!marker) throw new Error('the marker went away');
  return marker;
}

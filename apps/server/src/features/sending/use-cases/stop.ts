import { ok, type Result } from '@zesting/core';
import type { SendingStopBody } from '@zesting/contract';
import { IsNull } from 'typeorm';
import type { Viewer } from '../../../platform/access/access.js';
import { recordActivity } from '../../../platform/activity.js';
import type { App } from '../../../platform/app.js';
import { rowsOf } from '../../../platform/database/transaction.js';
import { tellAll } from '../../../platform/live/live.js';
import { SendingStop } from '../entities/sending-stop.entity.js';

/** What is stopped: a channel, a client, or everything where both are null. */
export interface StopScope {
  readonly clientId: string | null;
  readonly channelId: string | null;
}

/** Stops what goes out by itself, or lets it go again. What has left already is not called back. Said twice, it changes nothing. */
export function stopSending(app: App, viewer: Viewer, scope: StopScope, { isStopped, why }: SendingStopBody): Promise<Result<null, never>> {
  return app.write<null, never>(async (tx, now) => {
    await tx.query("select pg_advisory_xact_lock(hashtext('sending_stops'))"); // two who say so at once
    const { clientId, channelId } = scope;
    const where = { clientId: clientId ?? IsNull(), channelId: channelId ?? IsNull() };
    const found = await tx.findOneBy(SendingStop, where);
    if ((found !== null) === isStopped) return ok(null);
    if (isStopped) await tx.save(tx.create(SendingStop, { ...scope, why, stoppedBy: viewer.name, stoppedAt: now }));
    else await tx.delete(SendingStop, where);
    const [channel] = channelId === null ? [] : await rowsOf<{ name: string }>(tx, 'select name from channels where id = $1', [channelId]);
    const [agency] = await rowsOf<{ id: string }>(tx, 'select id from agencies');
    await recordActivity(tx, {
      clientId,
      thing: clientId === null ? 'agency' : 'client',
      thingId: clientId ?? agency?.id ?? '',
      verb: isStopped ? 'sending.stopped' : 'sending.resumed',
      actor: viewer.name,
      detail: { ...(channel ? { channel: channel.name } : {}), ...(why ? { why } : {}) },
      at: now,
    });
    await tellAll(tx);
    return ok(null);
  });
}

/** The client of a channel. */
export async function clientOfChannel(app: App, channelId: string): Promise<string> {
  const [row] = await app.read<{ clientId: string }>('select client_id as "clientId" from channels where id = $1', [channelId]);
  if (!row) throw new Error('the channel went away');
  return row.clientId;
}

import { CHANNEL_STOCK, fail, ok, type ChannelKind, type Result } from '@zesting/core';
import type { NewClientBody } from '@zesting/contract';
import type { Viewer } from '../../../platform/access/access.js';
import { recordActivity } from '../../../platform/activity.js';
import type { App } from '../../../platform/app.js';
import { rowsOf, type Tx } from '../../../platform/database/transaction.js';
import { Event } from '../../../platform/events.js';
import { putManagers } from '../../people/index.js';
import { replanWhere } from '../../planning/index.js';
import { Channel } from '../entities/channel.entity.js';

/** A client was taken on. Whoever listens gives it what it begins with. */
export const clientMade = new Event<{ readonly id: string; readonly actor: string }>();

/** Takes on a client with what the agency begins with: its usual policy, a channel of each kind asked for, and its form where it has one. */
export function makeClient(
  app: App,
  viewer: Viewer,
  body: NewClientBody,
): Promise<Result<string, { code: 'client.code_taken' | 'person.unknown' }>> {
  return app.write<string, { code: 'client.code_taken' | 'person.unknown' }>(async (tx, now) => {
    const [made] = await rowsOf<{ id: string }>(
      tx,
      `insert into clients (code, name, colour, zone, region, weekly_minutes, usual_time, policy) select $1, $2, $3, $4, $5, $6, $7, default_policy from agencies
       on conflict (code) do nothing returning id`,
      [body.code, body.name, body.colour, body.zone, body.region, body.weeklyMinutes, body.usualTime],
    );
    if (!made) return fail({ code: 'client.code_taken' });
    if (!(await putManagers(tx, made.id, body.managerIds))) return fail({ code: 'person.unknown' });
    await addChannels(tx, made.id, body.channelKinds ?? []);
    await recordActivity(tx, {
      clientId: made.id,
      thing: 'client',
      thingId: made.id,
      verb: 'client.made',
      actor: viewer.name,
      detail: { name: body.name },
      at: now,
    });
    await clientMade.tell(tx, { id: made.id, actor: viewer.name }, now);
    return ok(made.id);
  });
}

const addChannels = (tx: Tx, clientId: string, kinds: readonly ChannelKind[]): Promise<unknown> =>
  tx.insert(
    Channel,
    kinds.map((kind, position) => {
      return { clientId, kind, ...CHANNEL_STOCK[kind], otherShapes: [...CHANNEL_STOCK[kind].otherShapes], position };
    }),
  );

/** Archives a client, or brings it back: its people lose sight of it, its links close, its pieces leave every list until then. */
export function archiveClient(app: App, viewer: Viewer, clientId: string, archived: boolean): Promise<Result<null>> {
  return app.write(async (tx, now) => {
    const changed = await rowsOf<{ id: string }>(
      tx,
      `with changed as (update clients set archived_at = $2, version = version + 1 where id = $1 and (archived_at is null) = $3 returning id) select id from changed`,
      [clientId, archived ? now : null, archived],
    );
    if (changed.length === 0) return ok(null);
    const verb = archived ? 'client.archived' : 'client.restored';
    await recordActivity(tx, { clientId, thing: 'client', thingId: clientId, verb, actor: viewer.name, at: now });
    if (!archived) await replanWhere(tx, { clientId }, now);
    return ok(null);
  });
}

import { ok } from '@zesting/core';
import type { PresenceShape } from '@zesting/contract';
import type { Viewer } from '../../../platform/access/access.js';
import type { App } from '../../../platform/app.js';
import { rowsOf } from '../../../platform/database/transaction.js';
import { tellPresence } from '../../../platform/live/live.js';
import { Presence } from '../entities/presence.entity.js';

/** A window that has not been heard of for so long is closed. */
const GONE_AFTER = "interval '45 seconds'";

/** Notes that a window of the viewer's has a piece open; answers who else has. Told to others only when it is news. */
export async function notePresence(app: App, viewer: Viewer, pieceId: string, tabId: string): Promise<PresenceShape> {
  await app.write(async (tx, now) => {
    const [before] = await rowsOf<{ piece_id: string; person_id: string; gone: boolean }>(
      tx,
      `select piece_id, person_id, seen_at < $2::timestamptz - ${GONE_AFTER} as gone from presences where tab_id = $1`,
      [tabId, now],
    );
    await tx.upsert(Presence, { tabId, personId: viewer.personId, pieceId, seenAt: now }, ['tabId']);
    const isNews = !before || before.gone || before.piece_id !== pieceId || before.person_id !== viewer.personId;
    if (isNews) await tellPresence(tx, pieceId);
    if (before && before.piece_id !== pieceId) await tellPresence(tx, before.piece_id);
    return ok(null);
  });
  return { others: await othersOn(app, viewer, pieceId) };
}

/** Notes that the window left the piece. */
export async function leavePiece(app: App, viewer: Viewer, pieceId: string, tabId: string): Promise<void> {
  await app.write(async (tx) => {
    const { affected } = await tx.delete(Presence, { tabId, personId: viewer.personId, pieceId });
    if (affected) await tellPresence(tx, pieceId);
    return ok(null);
  });
}

function othersOn(app: App, viewer: Viewer, pieceId: string): Promise<PresenceShape['others']> {
  return app.read(
    `select distinct p.id as "personId", p.name from presences s join people p on p.id = s.person_id
     where s.piece_id = $1 and s.person_id <> $2 and s.seen_at > $3::timestamptz - ${GONE_AFTER} order by p.name`,
    [pieceId, viewer.personId, app.clock.now()],
  );
}

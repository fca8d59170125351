import { dayIn, ok, type Result } from '@zesting/core';
import type { DatesPutShape, PutDatesBody } from '@zesting/contract';
import type { Viewer } from '../../../platform/access/access.js';
import { recordActivity } from '../../../platform/activity.js';
import type { App } from '../../../platform/app.js';
import { rowsOf } from '../../../platform/database/rows.js';
import { once } from '../../../platform/http/idempotency.js';
import { addMarkers, putPiece, type BeginFailure } from '../../calendar/index.js';
import { insertRequest } from './new-request.js';
import { ownerOf } from './sort-request.js';

export type PutDatesFailure =
  | BeginFailure
  | { code: 'marker.kind_unknown' | 'marker.order_wrong' | 'marker.client_missing' | 'access.refused' | 'idempotency.other_body' };

/** Puts a client's dates on its calendar and, where wanted, among the requests and as planned pieces: all of them or none. */
export function putDates(
  app: App,
  viewer: Viewer,
  clientId: string,
  body: PutDatesBody,
  key: string,
): Promise<Result<DatesPutShape, PutDatesFailure>> {
  return app.write<DatesPutShape, PutDatesFailure>((tx, now) =>
    once<DatesPutShape, PutDatesFailure>(
      tx,
      { key, caller: `${viewer.personId}:${clientId}`, operation: 'dates.put', body, now },
      async () => {
        const marked = body.entries.filter(({ isMarker }) => isMarker);
        const markers = await addMarkers(
          tx,
          viewer,
          marked.map(({ kind, title, on, until }) => ({ clientId, kind, name: title.trim(), startOn: on, endOn: until })),
          now,
        );
        if (!markers.ok) return markers;
        const asked = body.entries.filter(({ isRequest }) => isRequest);
        const ownerId = (await ownerOf(tx, clientId, undefined)) ?? null;
        for (const { title, on } of asked) {
          const { request } = await insertRequest(tx, {
            clientId,
            way: 'dates',
            title: title.trim(),
            wishOn: on,
            requesterName: viewer.name,
            requesterEmail: null,
            ownerId,
            readAt: null,
            receivedAt: now,
          });
          await recordActivity(tx, {
            clientId,
            thing: 'request',
            thingId: request.id,
            verb: 'request.taken_down',
            actor: viewer.name,
            at: now,
          });
        }
        let pieces = 0;
        if (body.entries.some(({ routeId }) => routeId !== null)) {
          const [client] = await rowsOf<{ zone: string; channel_id: string | null }>(
            tx,
            `select zone, (select id from channels h where h.client_id = c.id and h.archived_at is null order by position, id limit 1) as channel_id
             from clients c where id = $1`,
            [clientId],
          );
          if (!client) throw new Error('the client went away');
          for (const { title, on, routeId } of body.entries) {
            if (routeId === null) continue;
            const piece = await putPiece(
              tx,
              viewer,
              clientId,
              {
                title: title.trim(),
                routeId,
                channelIds: client.channel_id === null ? [] : [client.channel_id],
                wishOn: on,
                // what has passed, or is today, is wished for and stands on no hour
                isPencilled: on > dayIn(now, client.zone),
              },
              now,
            );
            if (!piece.ok) return piece;
            pieces += 1;
          }
        }
        return ok({ markers: marked.length, requests: asked.length, pieces });
      },
    ),
  );
}

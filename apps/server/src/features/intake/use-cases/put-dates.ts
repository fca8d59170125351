import { ok, type Result } from '@zesting/core';
import type { DatesPutShape, PutDatesBody } from '@zesting/contract';
import type { Viewer } from '../../../platform/access/access.js';
import { recordActivity } from '../../../platform/activity.js';
import type { App } from '../../../platform/app.js';
import { once } from '../../../platform/http/idempotency.js';
import { addMarkers } from '../../calendar/index.js';
import { insertRequest } from './new-request.js';
import { ownerOf } from './sort-request.js';

export type PutDatesFailure = { code: 'marker.order_wrong' | 'marker.client_missing' | 'access.refused' | 'idempotency.other_body' };

/** Puts a client's dates on its calendar and, where wanted, among the requests: all of them or none. */
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
        return ok({ markers: marked.length, requests: asked.length });
      },
    ),
  );
}

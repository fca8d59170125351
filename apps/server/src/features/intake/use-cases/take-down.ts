import { fail, ok, type Result } from '@zesting/core';
import type { TakeDownBody } from '@zesting/contract';
import type { Viewer } from '../../../platform/access/access.js';
import type { App } from '../../../platform/app.js';
import { once } from '../../../platform/http/idempotency.js';
import { askedOfClient } from '../queries/asked-form.js';
import { putRequest, type PutFailure } from './submit-request.js';
import { tellRequester } from './tell-requester.js';

export type TakeDownFailure = PutFailure | { code: 'form.unknown' | 'idempotency.other_body' };

/** Takes down on a form what somebody asked for by telephone. Who has an address gets the receipt; the one who took it down has read it. */
export function takeDown(
  app: App,
  viewer: Viewer,
  clientId: string,
  body: TakeDownBody,
  key: string,
): Promise<Result<string, TakeDownFailure>> {
  return app.write<string, TakeDownFailure>((tx, now) =>
    once<string, TakeDownFailure>(
      tx,
      { key, caller: `${viewer.personId}:${clientId}`, operation: 'request.take_down', body, now },
      async () => {
        const form = await askedOfClient(tx, body.formId, clientId, now);
        if (!form) return fail({ code: 'form.unknown' });
        const { name, email, answers } = body;
        const put = await putRequest(
          tx,
          form,
          { way: 'telephone', name: name.trim(), email, answers, linkId: null, takenDownBy: viewer.name },
          now,
        );
        if (!put.ok) return put;
        const { request, number } = put.value;
        await tellRequester(app, tx, request, (words, title) => words.takenDown(number, title));
        return ok(request.id);
      },
    ),
  );
}

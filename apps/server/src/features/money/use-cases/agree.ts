import { fail, ok, type InstantText, type Result } from '@zesting/core';
import type { AgreedAmountBody } from '@zesting/contract';
import type { Viewer } from '../../../platform/access/access.js';
import { recordActivity } from '../../../platform/activity.js';
import type { App } from '../../../platform/app.js';
import { rowsOf, type Tx } from '../../../platform/database/transaction.js';
import { Fee } from '../entities/fee.entity.js';
import { Rate } from '../entities/rate.entity.js';

type AgreeFailure = { code: 'http.changed_meanwhile' | 'money.day_twice' | 'money.not_first_of_month' };

/** By day, the first one first; undefined where a day is there twice. */
function inOrder(agreed: readonly AgreedAmountBody[]): AgreedAmountBody[] | undefined {
  const plain = agreed.map(({ fromOn, amount }) => ({ fromOn, amount })).sort((a, b) => (a.fromOn < b.fromOn ? -1 : 1));
  return new Set(plain.map(({ fromOn }) => fromOn)).size < plain.length ? undefined : plain;
}

/** Agrees a client's fee: all that holds from some month on. @param version what was looked at; 0 where nothing was agreed before */
export const agreeFee = (
  app: App,
  viewer: Viewer,
  clientId: string,
  agreed: readonly AgreedAmountBody[],
  version: number,
): Promise<Result<null, AgreeFailure>> =>
  app.write<null, AgreeFailure>(async (tx, now) => {
    const sorted = inOrder(agreed);
    if (!sorted) return fail({ code: 'money.day_twice' });
    if (sorted.some(({ fromOn }) => !fromOn.endsWith('-01'))) return fail({ code: 'money.not_first_of_month' });
    // whoever agrees at the same time waits here
    await rowsOf(tx, 'select 1 from clients where id = $1 for no key update', [clientId]);
    const before = await tx.findOneBy(Fee, { clientId });
    if ((before?.version ?? 0) !== version) return fail({ code: 'http.changed_meanwhile' });
    await tx.upsert(Fee, { clientId, agreed: sorted, ...signed(viewer, now), version: version + 1 }, ['clientId']);
    await record(tx, viewer, { clientId, thing: 'client', thingId: clientId, verb: 'client.fee_agreed', detail: { agreed: sorted } }, now);
    return ok(null);
  });

/** Says what an hour of somebody costs. The record tells that it was said, and no figures: more people read it than are told rates. */
export const agreeRate = (
  app: App,
  viewer: Viewer,
  personId: string,
  agreed: readonly AgreedAmountBody[],
  version: number,
): Promise<Result<null, AgreeFailure>> =>
  app.write<null, AgreeFailure>(async (tx, now) => {
    const sorted = inOrder(agreed);
    if (!sorted) return fail({ code: 'money.day_twice' });
    await rowsOf(tx, 'select 1 from people where id = $1 for no key update', [personId]);
    const before = await tx.findOneBy(Rate, { personId });
    if ((before?.version ?? 0) !== version) return fail({ code: 'http.changed_meanwhile' });
    await tx.upsert(Rate, { personId, agreed: sorted, ...signed(viewer, now), version: version + 1 }, ['personId']);
    await record(tx, viewer, { clientId: null, thing: 'person', thingId: personId, verb: 'person.rate_said', detail: {} }, now);
    return ok(null);
  });

const signed = (viewer: Viewer, now: InstantText) => ({ setBy: viewer.name, setAt: now });

const record = (
  tx: Tx,
  viewer: Viewer,
  line: Pick<Parameters<typeof recordActivity>[1], 'clientId' | 'thing' | 'thingId' | 'verb' | 'detail'>,
  now: InstantText,
): Promise<void> => recordActivity(tx, { ...line, actor: viewer.name, at: now });

import { fail, getDay, ok, type InstantText, type Result } from '@zesting/core';
import { IsNull } from 'typeorm';
import type { OwnObservanceBody, TakeObservanceBody } from '@zesting/contract';
import type { Viewer } from '../../../platform/access/access.js';
import { noteOfClient, recordActivity } from '../../../platform/activity.js';
import type { App } from '../../../platform/app.js';
import { insertRow, rowsOf, type Tx } from '../../../platform/database/transaction.js';
import { Client } from '../entities/client.entity.js';
import { OwnYearlyDay } from '../entities/yearly-day.entity.js';

type ObservanceFailure = { code: 'observance.there_already' | 'observance.too_many' | 'access.refused' };

/** So many days of note stand on one client's calendar, and so many are added by hand, at most. */
const TAKEN_MOST = 100;
const OWN_MOST = 300;

/** Puts a day of note on a client's calendar, every year, or takes it off. */
export function takeObservance(
  app: App,
  viewer: Viewer,
  clientId: string,
  { name, isTaken }: TakeObservanceBody,
): Promise<Result<null, ObservanceFailure>> {
  return app.write<null, ObservanceFailure>(async (tx, now) => {
    const client = await tx.findOneOrFail(Client, { where: { id: clientId }, lock: { mode: 'pessimistic_write' } });
    const { observances: before } = client;
    if (before.includes(name) === isTaken) return ok(null);
    const observances = isTaken ? [...before, name] : before.filter((other) => other !== name);
    if (observances.length > TAKEN_MOST) return fail({ code: 'observance.too_many' });
    await tx.update(Client, clientId, { observances, version: client.version + 1 });
    await noteOfClient(tx, viewer, clientId, isTaken ? 'client.observance_taken' : 'client.observance_left', { name }, now);
    return ok(null);
  });
}

/** Adds a day of note that comes every year: for a client, which takes it at once, or as a lead for all of them. */
export function addObservance(app: App, viewer: Viewer, body: OwnObservanceBody): Promise<Result<string, ObservanceFailure>> {
  return app.write<string, ObservanceFailure>(async (tx, now) => {
    const { clientId } = body;
    if (clientId === null ? viewer.role !== 'lead' : !viewer.clientIds.includes(clientId)) return fail({ code: 'access.refused' });
    // whoever adds waits for whoever adds: neither the name nor the number is passed by two at once
    await tx.query("select pg_advisory_xact_lock(hashtext('yearly_days'))");
    const there = await ownOf(tx, clientId);
    const name = body.name.trim();
    if (there.length >= OWN_MOST) return fail({ code: 'observance.too_many' });
    if (there.some((day) => day.name.toLowerCase() === name.toLowerCase())) return fail({ code: 'observance.there_already' });
    const [, month = 1, day = 1] = getDay(body.on).split('-').map(Number);
    const subjects = body.subjects.map((subject) => subject.trim().toLowerCase());
    const id = await insertRow(tx, OwnYearlyDay, { clientId, name, month, day, subjects });
    if (clientId !== null)
      await tx.query(
        'update clients set observances = array_append(observances, $2), version = version + 1 where id = $1 and not $2 = any(observances)',
        [clientId, name],
      );
    await record(tx, viewer, clientId, 'observance_added', { name, month, day }, now);
    return ok(id);
  });
}

/** Takes a day that was added away again, off every calendar. */
export function removeObservance(app: App, viewer: Viewer, id: string): Promise<Result<null, ObservanceFailure>> {
  return app.write<null, ObservanceFailure>(async (tx, now) => {
    const day = await tx.findOne(OwnYearlyDay, { where: { id }, lock: { mode: 'pessimistic_write' } });
    if (!day) return ok(null);
    if (day.clientId === null && viewer.role !== 'lead') return fail({ code: 'access.refused' });
    await tx.delete(OwnYearlyDay, id);
    await record(tx, viewer, day.clientId, 'observance_removed', { name: day.name }, now);
    return ok(null);
  });
}

/** Days that were added for a client, and those for all. */
const ownOf = (tx: Tx, clientId: string | null): Promise<OwnYearlyDay[]> =>
  tx.find(OwnYearlyDay, { where: clientId === null ? {} : [{ clientId }, { clientId: IsNull() }] });

/** Writes it into the record of the client, or of the agency where it is for all. */
async function record(
  tx: Tx,
  viewer: Viewer,
  clientId: string | null,
  what: string,
  detail: Readonly<Record<string, unknown>>,
  at: InstantText,
): Promise<void> {
  if (clientId !== null) return noteOfClient(tx, viewer, clientId, `client.${what}`, detail, at);
  const [agency] = await rowsOf<{ id: string }>(tx, 'select id from agencies');
  const thing = { clientId: null, thing: 'agency', thingId: agency?.id ?? '' } as const;
  await recordActivity(tx, { ...thing, verb: `agency.${what}`, actor: viewer.name, detail, at });
}

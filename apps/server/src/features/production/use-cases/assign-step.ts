import { fail, ok, isByClient, type InstantText, type Result } from '@zesting/core';
import type { Viewer } from '../../../platform/access/access.js';
import { recordActivity } from '../../../platform/activity.js';
import type { App } from '../../../platform/app.js';
import { rowsOf, type Tx } from '../../../platform/database/transaction.js';
import { tell, tellManagers, untell } from '../../notices/index.js';
import { replan } from '../../planning/index.js';
import { isAvailable, lockStep, stepKey, todayOf } from '../piece-store.js';

type Failure =
  | { code: 'http.changed_meanwhile' }
  | { code: 'person.unknown' }
  | { code: 'person.barred' }
  | { code: 'step.already_finished' }
  | { code: 'step.client_decides' };

/**
 * Gives a step to a person, or takes it back (null). The person hears at once when the step is at hand.
 * @param version what the step was at when it was looked at; absent: as it is now
 */
export function assignStep(
  app: App,
  viewer: Viewer,
  stepId: string,
  personId: string | null,
  version?: number,
): Promise<Result<null, Failure>> {
  return app.write<null, Failure>((tx, now) =>
    giveStep(app, tx, viewer, { stepId, personId, ...(version === undefined ? {} : { version }) }, now),
  );
}

/** The same in the caller's transaction. */
export async function giveStep(
  app: App,
  tx: Tx,
  viewer: Viewer,
  { stepId, personId, version }: { readonly stepId: string; readonly personId: string | null; readonly version?: number },
  now: InstantText,
): Promise<Result<null, Failure>> {
  const { piece, step, steps } = await lockStep(tx, stepId);
  if (isByClient(step.kind)) return fail({ code: 'step.client_decides' });
  if (step.finishedOn !== null) return fail({ code: 'step.already_finished' });
  if (step.doerId === personId) return ok(null);
  if (version !== undefined && step.version !== version) return fail({ code: 'http.changed_meanwhile' });
  const person = await whoFor(tx, piece.clientId, personId);
  if (!person.ok) return person;
  step.doerId = personId;
  if (personId === null || step.withId === personId) step.withId = null;
  step.version += 1;
  step.acceptedOn = null;
  step.assignedOn = personId === null ? null : await todayOf(tx, step, now);
  await tx.save(step);
  await untell(tx, stepKey(step));
  await recordActivity(tx, {
    clientId: piece.clientId,
    thing: 'piece',
    thingId: piece.id,
    verb: 'step.assigned',
    actor: viewer.name,
    detail: { step: step.title, to: person.value?.name ?? null },
    at: now,
  });
  await replan(tx, [piece.id], now);
  if (personId !== null && personId !== viewer.personId && isAvailable(step, steps))
    await tell(app, tx, personId, {
      clientId: piece.clientId,
      heading: `${step.title}: ${piece.title}`,
      text: `“${step.title}” of “${piece.title}” is yours and can start.`,
      path: `/pieces/${piece.id}`,
      key: stepKey(step),
    });
  return ok(null);
}

/** Somebody who may have a part in a step of the client's: with the agency, and not barred from the client; null for nobody. */
export async function whoFor(
  tx: Tx,
  clientId: string,
  personId: string | null,
): Promise<Result<{ readonly name: string } | null, { code: 'person.unknown' | 'person.barred' }>> {
  if (personId === null) return ok(null);
  const [person] = await rowsOf<{ name: string; barred: boolean }>(
    tx,
    `select p.name, exists (select 1 from client_people c where c.client_id = $1 and c.person_id = p.id and c.relation = 'barred') as barred
     from people p where p.id = $2 and p.active`,
    [clientId, personId],
  );
  if (!person) return fail({ code: 'person.unknown' });
  return person.barred ? fail({ code: 'person.barred' }) : ok(person);
}

/** Whoever was given a step says that they cannot do it, and why: it is nobody's again, and who manages the client hears. */
export function turnDownStep(
  app: App,
  viewer: Viewer,
  stepId: string,
  words: string,
): Promise<Result<null, Failure | { code: 'step.other_doer' | 'step.begun_already' }>> {
  return app.write<null, Failure | { code: 'step.other_doer' | 'step.begun_already' }>(async (tx, now) => {
    const { piece, step } = await lockStep(tx, stepId);
    if (step.doerId !== viewer.personId) return fail({ code: 'step.other_doer' });
    if (step.startedOn !== null) return fail({ code: 'step.begun_already' });
    const taken = await giveStep(app, tx, viewer, { stepId, personId: null }, now);
    if (!taken.ok) return taken;
    const why = words.trim();
    await recordActivity(tx, {
      clientId: piece.clientId,
      thing: 'piece',
      thingId: piece.id,
      verb: 'step.turned_down',
      actor: viewer.name,
      detail: { step: step.title, remark: why },
      at: now,
    });
    await tellManagers(app, tx, {
      clientId: piece.clientId,
      pieceId: piece.id,
      heading: `Turned down: ${step.title}, ${piece.title}`,
      text: `${viewer.name} cannot do “${step.title}” of “${piece.title}”: ${why}`,
      path: `/pieces/${piece.id}`,
    });
    return ok(null);
  });
}

/** Who has a step now, for whoever meant to give it away meanwhile. */
export async function doerOf(
  app: App,
  stepId: string,
): Promise<{ doerId: string | null; doerName: string | null; version: number } | null> {
  const [row] = await app.read<{ doerId: string | null; doerName: string | null; version: number }>(
    'select s.doer_id as "doerId", p.name as "doerName", s.version from steps s left join people p on p.id = s.doer_id where s.id = $1',
    [stepId],
  );
  return row ?? null;
}
